"""From a form to its program; once per edition, then kept."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from functools import cached_property
from typing import Any

from codexa.core.definition.form import Form
from codexa.core.definition.parts import Block, Field
from codexa.core.fields import field_type_of
from codexa.core.fields.calculated import CalculatedField, CalculatedType
from codexa.core.fields.field_type import FieldType, Region
from codexa.core.formula.compile import Compiled, Computation, compile_formula
from codexa.core.formula.values import ErrorCode, ErrorValue, Failed, FormulaFailure
from codexa.core.program.facts import Formula, in_order
from codexa.core.program.scope import FormScope

ALWAYS, NEVER = "TRUE", "FALSE"
_IN_A_CIRCLE = Failed(ErrorValue(code=ErrorCode.REFERENCE, message="This depends on itself; see the proof."))


@dataclass(frozen=True, kw_only=True, slots=True)
class Place:
    """A block's slots: where its value (fields only), shown and required stand among the values of a state."""

    block: Block
    field_type: FieldType[Any] | None
    value: int | None
    shown: int
    required: int


@dataclass(frozen=True, kw_only=True, slots=True)
class Step:
    """One fact to work out: `run(values, context)` gives what goes into `slot`."""

    slot: int
    run: Computation


@dataclass(frozen=True, kw_only=True)
class Program:
    """A form ready to be computed.

    `initial` holds the facts that are always the same; `steps` work out the others, each after all that it reads.
    `circles` are lists of blocks that depend on each other.
    """

    form: Form
    scope: FormScope
    places: dict[str, Place]
    formulas: tuple[Formula, ...]
    initial: tuple[Any, ...]
    steps: tuple[Step, ...]
    circles: tuple[tuple[Block, ...], ...]

    @cached_property
    def field_places(self) -> tuple[Place, ...]:
        """The places of fields, in the order of the outline."""
        return tuple(place for place in self.places.values() if place.field_type is not None)

    @cached_property
    def answered_places(self) -> tuple[Place, ...]:
        """The places of fields that visitors answer."""
        return tuple(place for place in self.field_places if place.field_type and place.field_type.answered)

    @cached_property
    def depended_on(self) -> frozenset[str]:
        """The ids of fields that some formula reads: a change of others need not be asked."""
        slots = {slot for formula in self.formulas for slot in formula.compiled.reads}
        return frozenset(place.block.id for place in self.field_places if place.value in slots)


def compile_form(form: Form) -> Program:
    """Return the program of a form; a form with faults has one too, in which what is wrong is an error value."""
    scope = FormScope(form)
    places = _places(form)
    formulas = tuple(_formulas(form, scope))
    facts = _Facts(form, places, formulas)
    return Program(
        form=form,
        scope=scope,
        places=places,
        formulas=formulas,
        initial=tuple(facts.initial),
        steps=tuple(facts.steps),
        circles=facts.circles,
    )


def _places(form: Form) -> dict[str, Place]:
    fields = sum(1 for _ in form.fields())
    places, value = {}, 0
    for index, block in enumerate(form.blocks()):
        places[block.id] = Place(
            block=block,
            field_type=field_type_of(block) if isinstance(block, Field) else None,
            value=value if isinstance(block, Field) else None,
            shown=fields + 2 * index,
            required=fields + 2 * index + 1,
        )
        value += isinstance(block, Field)
    return places


def _formulas(form: Form, scope: FormScope) -> list[Formula]:
    return [
        Formula(
            block=block,
            setting=setting,
            mark=block.formulas[setting],
            compiled=compile_formula(text, scope, block.formulas[setting].role),
        )
        for block in form.blocks()
        for setting, text in block.formula_texts().items()
    ]


class _Facts:
    """Sorts the facts and makes their steps."""

    def __init__(self, form: Form, places: dict[str, Place], formulas: tuple[Formula, ...]) -> None:
        self._places = places
        self._region = form.region
        self._formulas = {(formula.block.id, formula.mark.fact): formula.compiled for formula in formulas}
        self._computations: dict[int, Computation] = {}
        self.reads: dict[int, tuple[int, ...]] = {}
        self.initial: list[Any] = [None] * (sum(each.value is not None for each in places.values()) + 2 * len(places))
        for place in places.values():
            self._add(place)
        order, circles = in_order(self.reads)
        self.circles = tuple(self._blocks_of(circle) for circle in circles)
        in_circles = {slot for circle in circles for slot in circle}
        for slot in in_circles:
            self.initial[slot] = _IN_A_CIRCLE
        self.steps = [
            Step(slot=slot, run=self._computations[slot])
            for slot in order
            if slot in self._computations and slot not in in_circles
        ]

    def _blocks_of(self, circle: list[int]) -> tuple[Block, ...]:
        blocks = {}
        for slot in circle:
            for place in self._places.values():
                if slot in (place.value, place.shown, place.required):
                    blocks[place.block.id] = place.block
        return tuple(blocks.values())

    def _add(self, place: Place) -> None:
        self._condition(place.shown, self._formulas.get((place.block.id, "shown")), by_default=True)
        if place.value is None or place.field_type is None:
            return
        self._condition(place.required, self._formulas.get((place.block.id, "required")), by_default=False)
        if place.field_type.answered:
            self._answer(place)
        else:
            self._computed(place)

    def _condition(self, slot: int, formula: Compiled | None, *, by_default: bool) -> None:
        text = formula.text.strip().upper() if formula else ""
        self.reads[slot] = formula.reads if formula else ()
        if formula is None or text in (ALWAYS, NEVER):
            self.initial[slot] = text == ALWAYS if formula else by_default
        else:
            self._computations[slot] = _condition_step(formula.run)

    def _answer(self, place: Place) -> None:
        # The value that was read from the answer stands in the slot already; hidden, it is blank to every formula.
        assert place.value is not None
        self.reads[place.value] = (place.shown,)
        if (place.block.id, "shown") in self._formulas:
            self._computations[place.value] = _hiding_step(place.value, place.shown)

    def _computed(self, place: Place) -> None:
        formula = self._formulas.get((place.block.id, "value"))
        assert place.value is not None
        assert isinstance(place.block, CalculatedField)
        assert isinstance(place.field_type, CalculatedType)
        self.reads[place.value] = (place.shown, *(formula.reads if formula else ()))
        if formula:
            self._computations[place.value] = _settling_step(
                formula.run, place.shown, place.field_type, place.block, self._region
            )


def _condition_step(run: Computation) -> Computation:
    def condition(values: Sequence[Any], context: Any) -> bool:
        # An error in a condition counts as no; the proof and the author see its cause.
        return run(values, context) is True

    return condition


def _hiding_step(value: int, shown: int) -> Computation:
    def hide(values: Sequence[Any], _context: Any) -> Any:
        return values[value] if values[shown] is True else None

    return hide


def _settling_step(
    run: Computation, shown: int, field_type: CalculatedType, block: CalculatedField, region: Region
) -> Computation:
    settle: Callable[..., Any] = field_type.settle

    def compute(values: Sequence[Any], context: Any) -> Any:
        if values[shown] is not True:
            return None
        result = run(values, context)
        if result is None or result.__class__ is Failed:
            return result
        try:
            return settle(result, block, region)
        except FormulaFailure as failure:
            return Failed(failure.error)
        except ArithmeticError:
            return Failed(ErrorValue(code=ErrorCode.NUMBER, message="The number is too large to hold."))

    return compute
