"""What is true of a form with these answers at this moment."""

from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any

from codexa.core.context import Context
from codexa.core.definition.parts import Field
from codexa.core.errors import AnswerError
from codexa.core.fields.field_type import Medium
from codexa.core.formula.values import Failed, use_exact_arithmetic
from codexa.core.program.program import Place, Program


@dataclass(frozen=True, kw_only=True, slots=True)
class FieldError:
    """What is wrong with a field's answer: a stable code and a sentence for the visitor."""

    code: str
    message: str


@dataclass(frozen=True, kw_only=True)
class State:
    """The facts of a form, read by block. `values` holds them by slot; blocks are named by id."""

    program: Program
    values: list[Any]
    misread: dict[str, FieldError]

    def shown(self, place: Place) -> bool:
        """Whether visitors see the block."""
        return self.values[place.shown] is True

    def required(self, place: Place) -> bool:
        """Whether the field must be answered."""
        return self.values[place.required] is True

    def value(self, place: Place) -> Any:
        """The field's value: None for blank, a Failed where its formula failed."""
        return None if place.value is None else self.values[place.value]

    def presented(self, place: Place) -> str | None:
        """The value of a calculated field as visitors read it; a dash where the formula failed, None where blank."""
        value = self.value(place)
        if value is None or place.field_type is None:
            return None
        if isinstance(value, Failed):
            return "–"
        return place.field_type.present(value, place.block, self.program.form.region, Medium.PAGE)

    def error(self, place: Place) -> FieldError | None:
        """What is wrong with a shown field, whether or not the visitor has been there yet."""
        if place.field_type is None or not place.field_type.answered or not self.shown(place):
            return None
        if (misread := self.misread.get(place.block.id)) is not None:
            return misread
        value = self.value(place)
        form = self.program.form
        if value is None:
            return FieldError(code="required", message=form.wording.required) if self.required(place) else None
        message = place.field_type.check(value, place.block, form.region)
        return FieldError(code="limits", message=message) if message else None

    def errors(self) -> dict[str, FieldError]:
        """Everything that is wrong, by block id, in the order of the outline."""
        found = ((place.block.id, self.error(place)) for place in self.program.answered_places)
        return {block_id: error for block_id, error in found if error is not None}


def evaluate(program: Program, answers: Mapping[str, Any], context: Context) -> State:
    """Return the state of the form; the same input always gives the same state, and no answer makes it raise.

    `answers` maps block ids to what the visitor entered, as the browser has it (text as typed, an option's id).
    """
    use_exact_arithmetic()
    values = list(program.initial)
    misread: dict[str, FieldError] = {}
    for place in program.answered_places:
        raw = answers.get(place.block.id)
        if raw is not None:
            _read_answer(program, place, raw, values, misread)
    for step in program.steps:
        values[step.slot] = step.run(values, context)
    return State(program=program, values=values, misread=misread)


def _read_answer(program: Program, place: Place, raw: Any, values: list[Any], misread: dict[str, FieldError]) -> None:
    assert place.field_type is not None
    assert place.value is not None
    assert isinstance(place.block, Field)
    try:
        values[place.value] = place.field_type.parse(raw, place.block, program.form.region)
    except AnswerError as error:
        misread[place.block.id] = FieldError(code=error.code, message=error.message)
