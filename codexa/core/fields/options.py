"""Options: what the field types with options share."""

from decimal import Decimal
from typing import Annotated

from pydantic import StringConstraints

from codexa.core.definition.parts import Identifier, Label, Part
from codexa.core.formula.values import Choice


class OptionFace(Part):
    """What the browser may know of an option: the label to show and the id to send."""

    id: Identifier
    label: Label


class Option(OptionFace):
    """An option: its stable code, which formulas and exports use, and the number that it counts as."""

    code: Annotated[str, StringConstraints(min_length=1, max_length=100, pattern=r"^\S(.*\S)?$")]
    counts_as: Decimal = Decimal(0)


def choice_of(option: Option) -> Choice:
    """Return the value that choosing this option gives."""
    return Choice(option.code, counts=option.counts_as, label=option.label)


def find_option(options: tuple[Option, ...], answer: str) -> Option | None:
    """Return the option that an answer names: by id, as a browser sends it, or by code, as people write it."""
    return next((option for option in options if option.id == answer), None) or next(
        (option for option in options if option.code == answer), None
    )


def option_findings(options: tuple[Option, ...]) -> list[tuple[str, str, str]]:
    """Return what is wrong with a list of options."""
    if not options:
        return [("options", "There is no option to choose.", "Add at least one option, or delete the field.")]
    codes = [option.code.casefold() for option in options]
    twice = sorted({code for code in codes if codes.count(code) > 1})
    if twice:
        message = f"Two options have the code {twice[0]}; formulas could not tell them apart."
        return [("options", message, "Give each option a code of its own.")]
    unnamed = [option.code for option in options if not option.label.strip()]
    if unnamed:
        return [("options", f"The option {unnamed[0]} has no label.", "Write what visitors shall read.")]
    return []
