"""What was answered, as a person reads it afterwards: by page, without what was not shown or is blank."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any

from codexa.core.definition.parts import blocks_within
from codexa.core.fields import type_of
from codexa.core.formula.values import Composite, Failed, Files
from codexa.core.program.evaluate import Row, State
from codexa.core.program.places import Place, RepeatPlace


@dataclass(frozen=True, kw_only=True, slots=True)
class ToldAnswer:
    """An answer: its label and text; `files` is what is known of each file in it, `drawn` a signature as SVG's path."""

    label: str
    text: str
    files: tuple[dict[str, Any], ...] = ()
    drawn: str = ""


@dataclass(frozen=True, kw_only=True, slots=True)
class ToldPage:
    """A page that applied, with its answers."""

    title: str
    answers: tuple[ToldAnswer, ...]


def told_answers(state: State) -> list[ToldPage]:
    """Return what visitors saw with a value, by the pages of their path; of a repeat each row in one answer."""
    places = state.program.places
    found = []
    for page in state.program.form.pages:
        inside = [places[block.id] for block, kind in blocks_within(page.blocks) if kind is None]
        answers = tuple(answer for place in inside for answer in _of_place(state, place))
        if answers:
            found.append(ToldPage(title=state.text(page.id, "title", page.title), answers=answers))
    return found


def _of_place(state: State, place: Place) -> Iterator[ToldAnswer]:
    if not type_of(place.block).visible or not state.shown(place):
        return
    if isinstance(place, RepeatPlace):
        label = _label(state, place)
        for index, row in enumerate(state.rows(place), 1):
            kind = state.kind_of(place, row)
            inner = [each for one in kind.places for each in _of_field(state, one, row)]
            yield ToldAnswer(
                label=f"{label or kind.kind.label} {index}".strip(),
                text="; ".join(f"{each.label}: {each.text}" for each in inner),
                files=tuple(file for each in inner for file in each.files),
            )
    else:
        yield from _of_field(state, place)


def _of_field(state: State, place: Place, row: Row | tuple[()] = ()) -> Iterator[ToldAnswer]:
    if place.field_type is None or not type_of(place.block).visible or not state.shown(place, row):
        return
    value, text = state.value(place, row), state.presented(place, row)
    if not text or isinstance(value, Failed):
        return
    known = place.field_type.dump(value)
    yield ToldAnswer(
        label=_label(state, place, row),
        text=text,
        files=tuple(known) if isinstance(value, Files) else (),
        drawn=known.get("path", "") if isinstance(value, Composite) and isinstance(known, dict) else "",
    )


def _label(state: State, place: Place, row: Row | tuple[()] = ()) -> str:
    return state.text(place.block.id, "label", getattr(place.block, "label", "") or place.block.key, row)
