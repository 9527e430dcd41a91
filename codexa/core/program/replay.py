"""Replay: what was kept of a response, put through another program, and what comes out otherwise than it did."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass, replace
from typing import Any

from codexa.core.context import Context
from codexa.core.definition.parts import Part
from codexa.core.form.form import FORM
from codexa.core.formula.values import Failed
from codexa.core.program.evaluate import State
from codexa.core.program.kept import state_of_kept
from codexa.core.program.names import name_of
from codexa.core.program.order_names import ORDER, PAYMENT
from codexa.core.program.program import Program
from codexa.core.program.trials import figure_texts


@dataclass(frozen=True, kw_only=True, slots=True)
class Difference:
    """One thing that comes out otherwise: of what (`part` is its id, `name` what people call it), before and now.

    `kind` is refused, lost, figure, total, path or confirmation. `why` names what was changed and leads there.
    """

    kind: str
    part: str | None
    name: str
    before: str
    now: str
    why: str


@dataclass(frozen=True, kw_only=True, slots=True)
class Replaying:
    """What responses are put through: the draft, and of each part that was changed what people call it, by id."""

    program: Program
    changed: Mapping[str, str]


def replay(
    how: Replaying, own: Program, *, answers: Mapping[str, Any], told: Mapping[str, Any], number: int
) -> list[Difference]:
    """Return what would come out otherwise for a response, refusals first; `own` is the program of its edition."""
    context = replace(Context.from_json(told, number=number), locale=own.form.locale)
    before, now = state_of_kept(own, answers, context), state_of_kept(how.program, answers, context)
    found = [*_refused(how, now), *_lost(how, before, now), *_figures(how, before, now)]
    return [*found, *_path(how, before, now), *_confirmation(how, before, now)]


def _refused(how: Replaying, now: State) -> Iterator[Difference]:
    for address, error in now.errors().items():
        owner = address.split("/")[-1]
        yield _difference(how, "refused", owner if owner in how.program.places else FORM, ("accepted", error.message))


def _lost(how: Replaying, before: State, now: State) -> Iterator[Difference]:
    """Yield the answers that the draft has no place for, or can't read."""
    for place in before.program.questions.values():
        block = place.block.id
        text = None if _is_kept(now, block) else before.presented(place)
        if text is None:
            continue
        there = how.program.places.get(block)
        if there is not None and not now.shown(there):
            continue  # told by the path, or by the rule that hides it
        name = name_of(before.program, block)
        words = "can't be read there" if there else "has no place there"
        part = block if there else None
        yield Difference(kind="lost", part=part, name=name, before=text, now=words, why=_why(how, block))


def _is_kept(state: State, block: str) -> bool:
    place = state.program.places.get(block)
    if place is None or place.kind is not None or not place.answered:
        return False
    value = state.value(place)
    return value is not None and not isinstance(value, Failed)


def _figures(how: Replaying, before: State, now: State) -> Iterator[Difference]:
    """Yield the figures, totals, payments and calculated fields that are other ones; new and removed ones are not."""
    same = _same(before, now)
    old = dict(figure_texts(before, without=same))
    for part, text in figure_texts(now, without=same):
        if part in old and old[part] != text:
            kind = "total" if part in (ORDER, PAYMENT) else "figure"
            yield _difference(how, kind, part, (old[part] or "blank", text or "blank"))


def _same(before: State, now: State) -> set[str]:
    """Return the ids of figures and calculated fields that need not be told: with the same value, told the same way."""
    if before.program.region != now.program.region:
        return set()
    old, new = _computed(before), _computed(now)
    return {part for part in old.keys() & new.keys() if old[part] == new[part]}


def _computed(state: State) -> dict[str, tuple[Part, Any]]:
    """Return what is computed by id, with its value; what failed is left out, as nothing can be said of it."""
    program = state.program
    found: dict[str, tuple[Part, Any]] = {
        each: (place.figure, state.at(place.value)) for each, place in program.figures.items()
    }
    for place in program.top_places:
        if place.value is not None and not place.answered:
            found[place.block.id] = place.block, state.at(place.value)
    return {part: each for part, each in found.items() if not isinstance(each[1], Failed)}


def _path(how: Replaying, before: State, now: State) -> Iterator[Difference]:
    old, new = _way(before), _way(now)
    if list(old) == list(new):
        return
    # The first page on which they part.
    pages = [*new, *old]
    parting = next((each for each in pages if (each in old) != (each in new)), pages[-1])
    part = parting if any(page.page.id == parting for page in how.program.pages) else FORM
    yield _difference(how, "path", part, (" → ".join(old.values()), " → ".join(new.values())), name="the way")


def _way(state: State) -> dict[str, str]:
    """Return the pages that were gone through, by id, with what people call them."""
    pages = state.program.form.pages
    return {pages[index].id: f"{index + 1} {pages[index].title}".strip() for index in state.path()}


def _confirmation(how: Replaying, before: State, now: State) -> Iterator[Difference]:
    old, new = _what_follows(before), _what_follows(now)
    if old != new:
        # That one follows instead of another is decided by the conditions of both.
        why = next((f"{how.changed[each]} was changed" for each, _ in (new, old) if each in how.changed), "")
        found = _difference(how, "confirmation", FORM, (old[1], new[1]), name="the confirmation")
        yield replace(found, why=why or found.why)


def _what_follows(state: State) -> tuple[str, str]:
    """Return the confirmation that follows, and what people call it; without one the usual words."""
    index = state.confirmation()
    if index is None:
        return "", "the usual words"
    confirmation = state.program.form.confirmations[index]
    return confirmation.id, confirmation.name or confirmation.title or "one without a name"


def _difference(how: Replaying, kind: str, part: str, texts: tuple[str, str], *, name: str = "") -> Difference:
    before, now = texts
    return Difference(
        kind=kind,
        part=None if part == FORM else part,
        name=name or name_of(how.program, part),
        before=before,
        now=now,
        why=_why(how, part),
    )


def _why(how: Replaying, part: str) -> str:
    """Return what was changed and leads to a part, in words; "" where nothing that is known does."""
    if part in how.changed:
        return f"{how.changed[part]} was changed"
    leading = [name for each, name in how.changed.items() if part in how.program.reached_from(each)]
    if not leading:
        return ""
    return f"{leading[0]} was changed" + (f", and {len(leading) - 1} more that lead here" if len(leading) > 1 else "")
