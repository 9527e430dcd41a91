"""What was answered, as a person reads it afterwards: by page, without what was not shown or is blank."""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from typing import Any

from codexa.core.definition.parts import Block, blocks_within
from codexa.core.fields import type_of
from codexa.core.fields.order_summary import OrderSummaryBlock
from codexa.core.form.form import Page
from codexa.core.formula.values import Composite, Failed, Files
from codexa.core.program.evaluate import Row, State
from codexa.core.program.order import OrderTotals, money
from codexa.core.program.places import Place, RepeatPlace
from codexa.core.program.scope import presenter


@dataclass(frozen=True, kw_only=True, slots=True)
class ToldAnswer:
    """An answer: its label and text; `files` is what is known of each file in it, `drawn` a signature as SVG's path."""

    label: str
    text: str
    files: tuple[dict[str, Any], ...] = ()
    drawn: str = ""


@dataclass(frozen=True, kw_only=True, slots=True)
class ToldPage:
    """A page that applied, by its id, with its answers; or one of its steps."""

    page: str
    title: str
    answers: tuple[ToldAnswer, ...]


def told_answers(state: State) -> list[ToldPage]:
    """Return what visitors saw with a value, by the pages of their path; of a repeat each row in one answer."""
    told = ((page, page.id, _of_blocks(state, page.blocks)) for page in state.program.form.pages)
    return [ToldPage(page=name, title=_title(state, page), answers=answers) for page, name, answers in told if answers]


def told_by_steps(state: State) -> list[ToldPage]:
    """Return the same by the steps in which the form is shown; the title stands where the first of a page is told."""
    found: list[ToldPage] = []
    titled = ""
    for step in state.program.steps:
        if not step.looks_over and (answers := _of_blocks(state, step.blocks)):
            title = "" if step.page.id == titled else _title(state, step.page)
            found.append(ToldPage(page=step.id, title=title, answers=answers))
            titled = step.page.id
    return found


def said_so_far(state: State) -> list[ToldPage]:
    """Return what was answered, by steps, without what is worked out from it; in a row of questions that is enough."""
    said = ((step.id, _of_blocks(state, step.asked)) for step in state.program.steps if not step.looks_over)
    return [ToldPage(page=step, title="", answers=answers) for step, answers in said if answers]


def _title(state: State, page: Page) -> str:
    return state.text(page.id, "title", page.title)


def _of_blocks(state: State, blocks: Iterable[Block]) -> tuple[ToldAnswer, ...]:
    places = [state.program.places[block.id] for block, kind in blocks_within(blocks) if kind is None]
    return tuple(answer for place in places for answer in _of_place(state, place))


def _of_place(state: State, place: Place) -> Iterator[ToldAnswer]:
    if not isinstance(place, RepeatPlace) and not isinstance(place.block, OrderSummaryBlock):
        yield from _of_field(state, place)
    elif state.shown(place) and not state.veiled(place):
        yield from _of_rows(state, place) if isinstance(place, RepeatPlace) else _of_order(state)


def _of_rows(state: State, place: RepeatPlace) -> Iterator[ToldAnswer]:
    """Yield the rows of a repeat, one answer each."""
    label = _label(state, place)
    for index, row in enumerate(state.rows(place), 1):
        kind = state.kind_of(place, row)
        inner = [each for one in kind.places for each in _of_field(state, one, row)]
        yield ToldAnswer(
            label=f"{label or kind.kind.label} {index}".strip(),
            text="; ".join(f"{each.label}: {each.text}" for each in inner),
            files=tuple(file for each in inner for file in each.files),
        )


def _of_order(state: State) -> Iterator[ToldAnswer]:
    """Yield the lines of an order, what is taken off and added, and the total."""
    order, region, say = state.order(), state.program.region, state.program.form.say
    if not isinstance(order, OrderTotals) or not order.lines.count:
        return
    for line in order.lines.lines:
        label = line.label if line.quantity == 1 else f"{presenter(region)(line.quantity)} × {line.label}"
        yield ToldAnswer(label=label, text=money(line.amount, region))
    for each in order.discounts:
        yield ToldAnswer(label=each.name, text=money(-each.amount, region))
    if state.program.form.order.shipping:
        yield ToldAnswer(label=say("shipping"), text=money(order.shipping, region))
    for tax in order.taxes:
        label = say("included").replace("{tax}", tax.name) if tax.included else tax.name
        yield ToldAnswer(label=label, text=money(tax.amount, region))
    yield ToldAnswer(label=say("total"), text=money(order.total, region))


def _of_field(state: State, place: Place, row: Row | tuple[()] = ()) -> Iterator[ToldAnswer]:
    value = state.value(place, row)
    if value is None or isinstance(value, Failed) or place.field_type is None:
        return
    # In a row it may be veiled, though its repeat is seen.
    if not type_of(place.block).visible or not state.shown(place, row) or state.veiled(place):
        return
    text = state.presented(place, row)
    if not text:
        return
    known = place.field_type.dump(value)
    yield ToldAnswer(
        label=_label(state, place, row),
        text=text,
        files=tuple(known) if isinstance(value, Files) else (),
        drawn=known.get("path", "") if isinstance(value, Composite) and isinstance(known, dict) else "",
    )


def _label(state: State, place: Place, row: Row | tuple[()] = ()) -> str:
    return state.text(place.block.id, "label", getattr(place.block, "label", ""), row)
