"""Record choice: one or several records of one of the team's tables."""

from collections.abc import Mapping
from decimal import Decimal
from typing import Annotated, Any, Literal

from pydantic import Field as Setting
from pydantic import StringConstraints

from codexa.core.definition.parts import (
    FieldFace,
    FormulaText,
    Label,
    OptionalIdentifier,
    PlainLabel,
    Question,
)
from codexa.core.errors import AnswerError
from codexa.core.fields.field_type import NO_SETTINGS, Facet, Family, FieldType, Medium, Region
from codexa.core.formula import convert
from codexa.core.formula.functions.function import Role
from codexa.core.formula.types import NUMBER, Kind, Type
from codexa.core.formula.values import ChosenRecord, ChosenRecords
from codexa.core.sentences import Sentence

MOST_CHOSEN = 100  # records of one answer
_LONGEST_NAME = 300
_MOST_NUMBER = 2_147_483_647
Picks = Annotated[int, Setting(ge=1, le=MOST_CHOSEN)]


class AskedRecords(tuple[int | str, ...]):
    """What was answered, before its table was asked: numbers of records, or their names."""

    __slots__ = ()


class RecordChoiceFace(FieldFace):
    """What the browser may know of a record choice; which records there are comes with the state."""

    type: Literal["record_choice"] = "record_choice"
    look: Literal["list", "dropdown", "search"] = "dropdown"
    several: bool = False
    placeholder: PlainLabel = ""


class RecordChoiceField(RecordChoiceFace, Question):
    """One record of a table that the form knows, or with `several` some, from `minimum` to `maximum`.

    `fitting` is worked out for each record, whose columns are `record.price` and the like: only those for which it
    holds are offered, and taken. `shown_as` is what is shown of a record, with its columns in braces; "" shows its
    name. They stand in the order of the column `ordered_by`, by its id, `descending` or not; "" is by name.

    Where `places` is a column of numbers, by its id, there are so many of a record for all forms together: a response
    takes one of each that it chooses, or what `taking` gives, and what is gone is not offered. `left_shown` tells
    visitors how many are left. `picture` is the column of files, by its id, whose first picture is shown of a record.
    """

    table: OptionalIdentifier = ""
    fitting: Annotated[str, FormulaText(Role.CONDITION, "fitting")] = ""
    shown_as: Annotated[Label, StringConstraints(max_length=300)] = ""
    ordered_by: OptionalIdentifier = ""
    descending: bool = False
    places: OptionalIdentifier = ""
    taking: Annotated[str, FormulaText(Role.VALUE, "taking")] = ""
    left_shown: bool = True
    picture: OptionalIdentifier = ""
    minimum: Picks | None = None
    maximum: Picks | None = None


class RecordChoiceType(FieldType[RecordChoiceField]):
    """Record choice."""

    name = "record_choice"
    title = "Record of a table"
    family = Family.CHOICES
    purpose = "What your tables hold, to choose from: also by what was answered before; its columns fill in the rest."
    face = RecordChoiceFace
    block = RecordChoiceField
    can_be_wrong = True

    def findings(self, block: RecordChoiceField) -> list[tuple[str, str, str]]:
        """No table, or limits that no answer meets."""
        if not block.table:
            return [("table", "It is not said which table the records are of.", "Choose one in the margin.")]
        if block.several and block.minimum and block.maximum and block.minimum > block.maximum:
            return [("minimum", "Nobody can choose so many.", "Lower the minimum or raise the maximum.")]
        return []

    def value_type(self, block: RecordChoiceField) -> Type:
        """A record or several, or blank."""
        return Type(kind=Kind.RECORDS if block.several else Kind.RECORD, may_be_blank=True)

    def facets(self, block: RecordChoiceField) -> dict[str, Facet]:
        """How many were chosen; what is known of a record is added by whoever knows its table."""
        return {"count": Facet(NUMBER, lambda value: Decimal(len(value)))} if block.several else {}

    def parse(self, raw: Any, block: RecordChoiceField, region: Region) -> AskedRecords | None:
        """Return which records are meant, by number or name; whether they can be chosen is asked of their table."""
        if block.several:
            each = raw.split(",") if isinstance(raw, str) else raw
            if not isinstance(each, list) or len(each) > MOST_CHOSEN:
                raise AnswerError("not_records", "Choose one of the options.")
            asked = [_meant(one) for one in each]
        else:
            asked = [_meant(raw)]
        return AskedRecords(dict.fromkeys(one for one in asked if one != "")) or None

    def adopt(self, value: Any, block: RecordChoiceField, region: Region) -> AskedRecords | None:
        """The record that another field has, or that a number or a name tells."""
        if isinstance(value, ChosenRecords | ChosenRecord):
            records = value if isinstance(value, ChosenRecords) else (value,)
            return AskedRecords(each.number for each in records) or None
        return self.parse(convert.text(value), block, region)

    def from_link(self, text: str, block: RecordChoiceField, region: Region) -> Any:
        """The number or the name as it stands."""
        return text

    def enter(self, value: Any, block: RecordChoiceField, region: Region) -> Any:
        """The numbers as a browser sends them."""
        if isinstance(value, ChosenRecords):
            return [str(each.number) for each in value]
        return str(value.number) if isinstance(value, ChosenRecord) else ", ".join(map(str, value))

    def check(
        self, value: Any, block: RecordChoiceField, region: Region, settings: Mapping[str, Any] = NO_SETTINGS
    ) -> str | None:
        """The least and the greatest number of records."""
        if not block.several:
            return None
        if block.minimum is not None and len(value) < block.minimum:
            return Sentence("Choose at least {least}.", least=block.minimum)
        if block.maximum is not None and len(value) > block.maximum:
            return Sentence("Choose at most {most}.", most=block.maximum)
        return None

    def limits(self, block: RecordChoiceField) -> str:
        """The limits in words."""
        least, most = block.minimum, block.maximum
        if not block.several or not (least or most):
            return ""
        if least and most:
            return f"{least} to {most} records"
        return f"{least} records or more" if least else f"at most {most} records"

    def present(self, value: Any, block: RecordChoiceField, region: Region, medium: Medium) -> str:
        """What is shown of them."""
        return ", ".join(value) if isinstance(value, ChosenRecords) else str(value)

    def dump(self, value: Any) -> Any:
        """The number with what was shown and known of it when it was chosen."""
        return [_dumped(each) for each in value] if isinstance(value, ChosenRecords) else _dumped(value)

    def load(self, stored: Any, block: RecordChoiceField) -> ChosenRecord | ChosenRecords:
        """The records as they were when they were chosen."""
        if not block.several:
            return loaded_record(stored)
        return ChosenRecords(loaded_record(each) for each in stored)

    def answer_schema(self, block: RecordChoiceField) -> dict[str, Any]:
        """A record's number, what was shown of it, and what was known of it by column id."""
        known = {"record": {"type": "integer"}, "shown": {"type": "string"}, "values": {"type": "object"}}
        record = {"type": "object", "properties": known, "required": list(known), "additionalProperties": False}
        return {"type": "array", "items": record} if block.several else record


def _meant(raw: Any) -> int | str:
    text = str(raw).strip() if isinstance(raw, int | str) and not isinstance(raw, bool) else None
    if text is None or len(text) > _LONGEST_NAME or "\x00" in text:
        raise AnswerError("not_records", "Choose one of the options.")
    return int(text) if text.isascii() and text.isdigit() and int(text) <= _MOST_NUMBER else text


def _dumped(record: ChosenRecord) -> dict[str, Any]:
    return {"record": record.number, "shown": str(record), "values": dict(record.values)}


def loaded_record(stored: Mapping[str, Any]) -> ChosenRecord:
    """Return a record of what was kept of it."""
    return ChosenRecord(stored["shown"], number=stored["record"], values=stored["values"])
