"""A table: columns that are questions, and records that the engine accepts as it accepts answers."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from functools import cached_property
from typing import Annotated, Any

from pydantic import Field as Setting
from pydantic import StringConstraints

from codexa.core.definition.parts import Field, Identifier, OptionalIdentifier, Part
from codexa.core.definition.reading import read_part
from codexa.core.errors import DefinitionError, Problem
from codexa.core.fields.record_choice import RecordChoiceField
from codexa.core.form.any_block import AnyBlock
from codexa.core.form.form import Form, read_form
from codexa.core.form.known_tables import MAX_TABLE_COLUMNS, KnownTable, known_columns
from codexa.core.formula.check import Severity
from codexa.core.program.compiling import compile_form
from codexa.core.program.findings import Finding
from codexa.core.program.program import Program
from codexa.core.program.proof import proof
from codexa.core.tables.publication import Publication

# What a column can be: each is a question, with all that it can ask of an answer; or a formula over its own record.
COLUMN_TYPES = (
    "short_text", "long_text", "number", "money", "date", "date_time", "time", "yes_no", "dropdown",
    "several_choices", "email", "phone", "web_address", "file_upload", "record_choice", "calculated",
)  # fmt: skip


class TableDefinition(Part):
    """What a table is: its name for the team, its columns in order, and how numbers and days are written in it.

    No two records have the same in a column that is `once`, compared without case and outer spaces. `named_by` is the
    column that names a record; "" takes the first. `published` says what anybody may read of it; None for nothing.
    """

    name: Annotated[str, StringConstraints(min_length=1, max_length=200, pattern=r"\S")]
    locale: str = "en"
    currency: str = "EUR"
    time_zone: str = "Europe/Berlin"
    columns: Annotated[tuple[AnyBlock, ...], Setting(max_length=MAX_TABLE_COLUMNS)] = ()
    once: tuple[Identifier, ...] = ()
    named_by: OptionalIdentifier = ""
    published: Publication | None = None


@dataclass(frozen=True)
class Table:
    """A table as the engine knows it: `form` asks for its columns, on one page."""

    definition: TableDefinition
    form: Form

    @cached_property
    def program(self) -> Program:
        """What accepts a record."""
        return compile_form(self.form)

    @cached_property
    def columns(self) -> Mapping[str, Field]:
        """The columns by id, in order."""
        return {each.id: each for each in self.definition.columns if isinstance(each, Field)}

    @property
    def named_by(self) -> str:
        """The id of the column that names a record, "" where there is none."""
        return self.definition.named_by or next(iter(self.columns), "")


def table_of(document: Any) -> Table:
    """Return the table of a JSON document.

    Raises DefinitionError with the place and the remedy of every problem: an unknown setting, a column of a type that
    no table has, a key or an id twice, a formula that can't be worked out.
    """
    definition = read_part(TableDefinition, document)
    problems = list(_problems(definition))
    if problems:
        raise DefinitionError(problems)
    table = Table(definition=definition, form=_form_of(definition))
    at = {each.id: place for place, each in enumerate(definition.columns)}
    wrong = [each for each in proof(table.program) if each.severity is Severity.ERROR]
    if wrong:
        raise DefinitionError([_problem(each, at) for each in wrong])
    return table


def without_columns(name: str) -> Table:
    """Return a table that has yet to get its columns; nothing can be kept in it. Raises DefinitionError."""
    definition = read_part(TableDefinition, {"name": name})
    return Table(definition=definition, form=_form_of(definition))


def _form_of(definition: TableDefinition) -> Form:
    columns = [each.model_dump(mode="json") for each in definition.columns]
    known = {name: getattr(definition, name) for name in ("name", "locale", "currency", "time_zone")}
    named = dict.fromkeys(each.table for each in definition.columns if isinstance(each, RecordChoiceField))
    # Of a table that a column names records of, no more than that it is there is known: nothing is listed.
    tables = [{"id": each, "name": each} for each in named if each]
    asked = [{**each, "look": "search"} if each["type"] == "record_choice" else each for each in columns]
    return read_form({**known, "tables": tables, "pages": [{"id": "columns", "blocks": asked}]})


def _problems(definition: TableDefinition) -> Iterator[Problem]:
    ids = {each.id for each in definition.columns}
    for at, each in enumerate(definition.columns):
        if each.type not in COLUMN_TYPES:
            message = f"a table has no column of the type {each.type}; take one of {', '.join(COLUMN_TYPES)}"
            yield Problem(path=f"columns.{at}.type", message=message)
        if each.shown:
            message = "a column is there for every record; leave out when it is shown"
            yield Problem(path=f"columns.{at}.shown", message=message)
    for at, column in enumerate(definition.once):
        if column not in ids:
            yield Problem(path=f"once.{at}", message=f'there is no column "{column}"; name one that is there')
    if definition.published is not None:
        named = [*definition.published.columns, *filter(None, [definition.published.author])]
        for column in named:
            if column not in ids:
                message = f'there is no column "{column}"; publish one that is there'
                yield Problem(path="published", message=message)
    if definition.named_by and definition.named_by not in ids:
        message = f'there is no column "{definition.named_by}"; name one that is there, or none'
        yield Problem(path="named_by", message=message)


def _problem(finding: Finding, at: Mapping[str, int]) -> Problem:
    column = at.get(finding.block or "")
    path = "columns" if column is None else f"columns.{column}"
    return Problem(path=f"{path}.{finding.setting}" if finding.setting else path, message=_said(finding))


def _said(finding: Finding) -> str:
    return f"{finding.message} {finding.remedy}".strip()


def known_table(table_id: str, table: Table) -> KnownTable:
    """Return what a form is told of a table."""
    definition = table.definition
    return KnownTable(
        id=table_id,
        name=definition.name,
        named_by=table.named_by,
        locale=definition.locale,
        currency=definition.currency,
        time_zone=definition.time_zone,
        columns=known_columns(tuple(table.columns.values())),
    )
