"""Single choice: exactly one of several options."""

from random import Random
from typing import Any, Literal

from codexa.core.definition.parts import Field, FieldFace
from codexa.core.errors import AnswerError
from codexa.core.fields.field_type import Family, FieldType, Medium, Region
from codexa.core.fields.options import Option, OptionFace, choice_of, find_option, option_findings
from codexa.core.formula.types import Kind, Type
from codexa.core.formula.values import Choice


class SingleChoiceFace(FieldFace):
    """What the browser may know of a single choice."""

    type: Literal["single_choice"] = "single_choice"
    options: tuple[OptionFace, ...] = ()
    arrangement: Literal["row", "column"] = "column"


class SingleChoiceField(SingleChoiceFace, Field):
    """One of the options, all of them in sight."""

    options: tuple[Option, ...] = ()


class SingleChoiceType(FieldType[SingleChoiceField]):
    """Single choice."""

    name = "single_choice"
    title = "Single choice"
    family = Family.CHOICES
    purpose = "One of a few options, all in sight; an option may count as a number."
    face = SingleChoiceFace
    block = SingleChoiceField

    def blank(self) -> SingleChoiceField:
        """Two options to write over."""
        options = (
            Option(id="first", code="first", label="First option"),
            Option(id="second", code="second", label="Second option"),
        )
        return super().blank().model_copy(update={"options": options})

    def findings(self, block: SingleChoiceField) -> list[tuple[str, str, str]]:
        """Missing, unnamed and doubled options."""
        return option_findings(block.options)

    def value_type(self, block: SingleChoiceField) -> Type:
        """A choice, or blank."""
        return Type(kind=Kind.CHOICE, may_be_blank=True)

    def parse(self, raw: Any, block: SingleChoiceField, region: Region) -> Choice | None:
        """Return the choice of an option's id or code."""
        if raw == "":
            return None
        option = find_option(block.options, raw) if isinstance(raw, str) else None
        if option is None:
            raise AnswerError("not_an_option", "Choose one of the options.")
        return choice_of(option)

    def present(self, value: Choice, block: SingleChoiceField, region: Region, medium: Medium) -> str:
        """The label for people, the code for programs."""
        return str(value) if medium is Medium.CSV else value.label

    def dump(self, value: Choice) -> str:
        """The code."""
        return str(value)

    def load(self, stored: str, block: SingleChoiceField) -> Choice:
        """The choice of that code; one that the edition does not have keeps its code as label."""
        option = find_option(block.options, stored)
        return choice_of(option) if option else Choice(stored)

    def answer_schema(self, block: SingleChoiceField) -> dict[str, Any]:
        """One of the codes."""
        return {"enum": [option.code for option in block.options]}

    def sample(self, block: SingleChoiceField, random: Random, region: Region) -> str | None:
        """Any option."""
        return random.choice(block.options).id if block.options else None
