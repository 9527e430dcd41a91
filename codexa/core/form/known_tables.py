"""What a form knows of the team's tables that it offers records of."""

from collections.abc import Mapping
from functools import cached_property
from typing import Annotated, Any

from pydantic import Field as Setting
from pydantic import TypeAdapter, model_validator

from codexa.core.definition.parts import Field, Identifier, Label, OptionalIdentifier, Part
from codexa.core.definition.rich_text import plain
from codexa.core.fields.field_type import Region
from codexa.core.form.any_block import AnyBlock

MAX_TABLES = 30  # that one form knows
MAX_TABLE_COLUMNS = 100
_COLUMNS: TypeAdapter[tuple[Any, ...]] = TypeAdapter(tuple[AnyBlock, ...])
# What is asked of somebody who types into a table is nothing to a form, but what every record must have.
_RULES = frozenset(
    {"shown", "locked", "default", "default_follows", "checks", "formula", "offered", "help", "personal"}
)


class KnownTable(Part):
    """A table as it was when the form came to know it: its id, its name for the team, and its columns.

    Columns are blocks as a table's definition has them, without their rules. `named_by` is the column that names a
    record. Numbers and days in it are written as `locale`, `currency` and `time_zone` say.
    """

    id: Identifier
    name: Label
    named_by: OptionalIdentifier = ""
    locale: str = "en"
    currency: str = "EUR"
    time_zone: str = "Europe/Berlin"
    columns: Annotated[tuple[dict[str, Any], ...], Setting(max_length=MAX_TABLE_COLUMNS)] = ()

    @model_validator(mode="after")
    def _columns_are_fields(self) -> "KnownTable":
        wrong = [each.type for each in _COLUMNS.validate_python(self.columns) if not isinstance(each, Field)]
        if wrong:
            raise ValueError(f"a table has no column of the type {wrong[0]}")
        return self

    @cached_property
    def fields(self) -> Mapping[str, Field]:
        """The columns by id, in order."""
        return {each.id: each for each in _COLUMNS.validate_python(self.columns)}

    @cached_property
    def by_key(self) -> Mapping[str, Field]:
        """The columns by the key that formulas know them by."""
        return {each.key: each for each in reversed(list(self.fields.values()))}

    @property
    def region(self) -> Region:
        """How the table's people write."""
        return Region(locale=self.locale, currency=self.currency, time_zone=self.time_zone)


def label_of(column: Field) -> str:
    """Return what people call a column."""
    return plain(column.label) or column.key


def known_columns(columns: tuple[Field, ...]) -> tuple[dict[str, Any], ...]:
    """Return what a form is told of a table's columns."""
    return tuple(
        {
            name: value
            for name, value in each.model_dump(mode="json", exclude_defaults=True).items()
            if name not in _RULES
        }
        | {"id": each.id, "type": each.type, "key": each.key}
        for each in columns
    )
