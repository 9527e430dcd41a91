"""Dropdown: one of many options, in a list that opens."""

from typing import Literal

from codexa.core.definition.parts import PlainLabel
from codexa.core.fields.field_type import Family
from codexa.core.fields.options import Optioned, Options, OptionsFace, SingleOptionType


class DropdownFace(OptionsFace):
    """What the browser may know of a dropdown; long ones are searched by typing."""

    type: Literal["dropdown"] = "dropdown"
    placeholder: PlainLabel = ""


class DropdownField(DropdownFace, Optioned):
    """One of the options, in a list that opens."""

    options: Options = ()


class DropdownType(SingleOptionType[DropdownField]):
    """Dropdown."""

    name = "dropdown"
    title = "Dropdown"
    family = Family.CHOICES
    purpose = "One of many options in a list that opens, searched by typing when it is long."
    face = DropdownFace
    block = DropdownField
