"""The funnel: how many came, started, reached each step and sent; where they left, and what was in their way."""

import datetime
from collections.abc import Iterable, Mapping, Sequence
from dataclasses import dataclass, replace
from uuid import UUID

from codexa.core.form.form import Form
from codexa.core.program.names import label_of
from codexa.core.program.steps import steps_of
from codexa.core.responses.conditions import Filter
from codexa.core.responses.visits import median_seconds
from codexa.services.editions import Editions
from codexa.services.response_set.asking import FACET, RECEIVED
from codexa.services.response_set.opening import ResponseSet, open_set
from codexa.services.visits import DAYS_TOLD_APART
from codexa.store import visits
from codexa.store.database import Connect
from codexa.store.ledger_queries import Asked
from codexa.store.sessions import SignedIn
from codexa.store.visits import Count, Sums

_DAY = "day"
# What a filter of responses asks that can be asked of visits too, and where they have it.
_OF_VISITS: Mapping[str, str] = {
    RECEIVED: _DAY,
    f"{FACET}edition": "edition",
    f"{FACET}way": "way",
    f"{FACET}page": "page",
    f"{FACET}link": "link",
}
_MOST_GROUPS, _MOST_DAYS, _MOST_FIELDS = 30, 800, 10
_NOBODY = Sums(value="", seen=0, started=0, sent=0)


@dataclass(frozen=True, kw_only=True, slots=True)
class StepCount:
    """A step: how many reached it, left at it, and the median of the seconds that it took; `earlier` if it is gone."""

    id: str
    number: str
    label: str
    reached: int
    left: int
    seconds: int | None
    earlier: bool


@dataclass(frozen=True, kw_only=True, slots=True)
class FieldCount:
    """A field, with how many visitors left there, or met something wrong."""

    id: str
    number: str
    label: str
    count: int


@dataclass(frozen=True, kw_only=True, slots=True)
class Funnel:
    """A form's visits: all together, by step, by what they are told apart by, and by day.

    `presentation` is the way of presenting that its steps are of, `presentations` all that were seen, most seen first;
    with `by_month` the days reach so far back that the first of them are months. `unheeded` are the places of the
    conditions that can't be asked of visits, `words_unheeded` says so of the search.
    """

    presentation: str
    presentations: list[Sums]
    all: Sums
    seconds: int | None
    steps: list[StepCount]
    left_at: list[FieldCount]
    wrong: list[FieldCount]
    groups: list[Sums]
    group_labels: Mapping[str, str]
    days: list[Sums]
    by_month: bool
    unheeded: list[int]
    words_unheeded: bool


def funnel(
    connect: Connect, editions: Editions, *, who: SignedIn, form: UUID, filter_: Filter, by: str, width: str, shown: str
) -> Funnel:
    """Return a form's funnel, of windows of a `width` ("" any), in the way of presenting `shown` ("" the most seen).

    `by` is one of `visits.DIMENSIONS`. Raises NotFoundError, and ConditionError for a filter that can't be read.
    """
    opened = open_set(connect, editions, who=who, form=form)
    asked = opened.asking.chosen(filter_).asked
    heeded = [(_OF_VISITS[each.column], _by_day(each)) for each in asked if each.column in _OF_VISITS]
    unheeded = [at for at, each in enumerate(asked) if each.column not in _OF_VISITS]
    match_all = filter_.match == "all"
    if not match_all and unheeded:
        # Whoever did not send may meet what can't be asked of them: nobody can be left out then.
        heeded, unheeded = [], list(range(len(asked)))
    besides = {"width": width} if width else {}
    with connect() as connection:
        where = visits.where_of(form, heeded, match_all=match_all, besides=besides)
        presentations = visits.sums(connection, where, by="presentation", most=_MOST_GROUPS)
        known = [each.value for each in presentations]
        chosen = shown if shown in known else next(iter(known), "")
        where = visits.where_of(form, heeded, match_all=match_all, besides={**besides, "presentation": chosen})
        counts = _Counts(visits.counts(connection, where))
        groups = visits.sums(connection, where, by=by, most=_MOST_GROUPS)
        days = sorted(visits.sums(connection, where, by=_DAY, most=_MOST_DAYS), key=lambda each: each.value)
    readable = [each for number in sorted(opened.numbers, reverse=True) if (each := editions.readable(form, number))]
    forms = [each.model_copy(update={"presentation": chosen}) for each in readable]
    names = _Names(forms)
    return Funnel(
        presentation=chosen,
        presentations=presentations,
        all=next((each for each in presentations if each.value == chosen), _NOBODY),
        seconds=median_seconds(counts.buckets("took", "")),
        steps=_steps(forms, counts, names),
        left_at=_fields("left_at", counts, names),
        wrong=_fields("wrong", counts, names),
        groups=groups,
        group_labels=_labels(opened, by),
        days=days,
        by_month=_is_by_month(days),
        unheeded=unheeded,
        words_unheeded=bool(filter_.words),
    )


def _labels(opened: ResponseSet, by: str) -> dict[str, str]:
    """Return how people call what visits are told apart by, as far as it is not called by itself."""
    column = opened.asking.column(FACET + by)
    return {} if column is None else {each.code: each.label for each in column.options}


def _is_by_month(days: Sequence[Sums]) -> bool:
    first, last = (datetime.date.fromisoformat(each.value) for each in (days[0], days[-1])) if days else (None, None)
    return first is not None and last is not None and (last - first).days >= DAYS_TOLD_APART


def _by_day(asked: Asked) -> Asked:
    """Return what is asked of moments as it is asked of days; what begins with a day begins at its midnight."""
    if asked.stretch is None:
        return asked
    start, end = (None if each is None else each.date() for each in asked.stretch)
    return replace(asked, stretch=(start, end))


class _Counts:
    """What was counted, by what and part."""

    def __init__(self, counts: Iterable[Count]) -> None:
        self._by_part: dict[tuple[str, str], dict[int, int]] = {}
        for each in counts:
            self._by_part.setdefault((each.what, each.part), {})[each.bucket] = each.number

    def buckets(self, what: str, part: str) -> dict[int, int]:
        """Return how often each class of time was there."""
        return self._by_part.get((what, part), {})

    def of(self, what: str, part: str) -> int:
        """Return how often it was there in all."""
        return sum(self.buckets(what, part).values())

    def parts(self, what: str) -> list[str]:
        """Return the parts where it was there, the most frequent first."""
        return sorted((part for kind, part in self._by_part if kind == what), key=lambda part: -self.of(what, part))


class _Names:
    """How steps and fields are called: as the newest edition that has them does, with their number in the last."""

    def __init__(self, forms: Sequence[Form]) -> None:
        """`forms` are the editions, newest first, in the way of presenting whose steps are named."""
        self._numbers = forms[0].numbers() if forms else {}
        self._labels: dict[str, str] = {}
        for form in reversed(forms):
            # The step before sending that tells all answers is no block of the author's.
            shown = [block for step in steps_of(form) for block in step.blocks]
            self._labels |= {page.id: page.title for page in form.pages}
            self._labels |= {block.id: label_of(block) for block in (*shown, *form.blocks())}

    def of(self, part: str) -> tuple[str, str]:
        """Return the number ("" where it has none any more) and the label of a page or block."""
        return self._numbers.get(part, ""), self._labels.get(part, part)


def _steps(forms: Sequence[Form], counts: _Counts, names: _Names) -> list[StepCount]:
    """Return the steps of the newest edition, each that only an older one had where it stood."""
    order: list[str] = []
    latest: set[str] = set()
    for at, form in enumerate(forms):
        steps = steps_of(form)
        before = -1
        for step in steps:
            if step.id in order:
                before = order.index(step.id)
            elif at == 0 or counts.of("reached", step.id):
                before += 1
                order.insert(before, step.id)
        latest = latest or {step.id for step in steps}
    return [_step(id_, counts, names, earlier=id_ not in latest) for id_ in order]


def _step(step: str, counts: _Counts, names: _Names, *, earlier: bool) -> StepCount:
    number, label = names.of(step)
    return StepCount(
        id=step,
        number=number,
        label=label,
        reached=counts.of("reached", step),
        left=counts.of("left", step),
        seconds=median_seconds(counts.buckets("reached", step)),
        earlier=earlier,
    )


def _fields(what: str, counts: _Counts, names: _Names) -> list[FieldCount]:
    found = []
    for part in counts.parts(what)[:_MOST_FIELDS]:
        number, label = names.of(part)
        found.append(FieldCount(id=part, number=number, label=label, count=counts.of(what, part)))
    return found
