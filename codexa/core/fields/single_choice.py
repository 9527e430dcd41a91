"""Single choice: exactly one of several options, all of them in sight."""

from typing import Literal

from codexa.core.fields.field_type import Family
from codexa.core.fields.options import Optioned, Options, OptionsFace, SingleOptionType


class SingleChoiceFace(OptionsFace):
    """What the browser may know of a single choice."""

    type: Literal["single_choice"] = "single_choice"
    arrangement: Literal["row", "column"] = "column"


class SingleChoiceField(SingleChoiceFace, Optioned):
    """One of the options, all of them in sight."""

    options: Options = ()


class SingleChoiceType(SingleOptionType[SingleChoiceField]):
    """Single choice."""

    name = "single_choice"
    title = "Single choice"
    family = Family.CHOICES
    purpose = "One of a few options, all in sight; an option may count as a number."
    face = SingleChoiceFace
    block = SingleChoiceField
