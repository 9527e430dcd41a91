"""Answers for the next trial: sample answers with which conditions hold that never did in a trial, or fail."""

import datetime
from collections.abc import Iterator, Mapping
from copy import deepcopy
from dataclasses import dataclass
from random import Random
from typing import Any

from codexa.core.context import NOBODY
from codexa.core.fields.field_type import Sampling
from codexa.core.formula.types import Kind
from codexa.core.look_ups import NO_TABLES, Tables
from codexa.core.program.candidates import names_read, numbers_in, texts_in, values_that_matter
from codexa.core.program.decide import UndecidedError, try_all
from codexa.core.program.evaluate import State
from codexa.core.program.facts import Formula
from codexa.core.program.leading import Leading, leading_to
from codexa.core.program.places import Place
from codexa.core.program.program import Program
from codexa.core.program.samples import another_answer, answer_what_is_missing, filled_in, sampling
from codexa.core.program.trials import conditions_of, holding, run_trials, state_on

_MOST_TRIES = 200  # times that the form is worked out for right answers, and as often for wrong ones
_TRIES_OF_EACH = 40
_MOST_CHANGED = 3  # answers from one try to the next
_PRESETS = 4


@dataclass(frozen=True, kw_only=True, slots=True)
class Aim:
    """A condition, by owner and setting, and whether it is to hold or to fail."""

    owner: str
    setting: str
    holds: bool


@dataclass(frozen=True, kw_only=True, slots=True)
class Found:
    """Answers, with what a link brings, that try what no trial has tried: what they reach, and what was not reached."""

    answers: dict[str, Any]
    link: dict[str, str]
    state: State
    reached: tuple[Aim, ...]
    missed: tuple[Aim, ...]


def answers_for_untried(
    program: Program,
    random: Random,
    day: datetime.date,
    people: Mapping[str, str] = NOBODY,
    tables: Tables = NO_TABLES,
) -> Found:
    """Return sample answers of a day that try as much as can be found of what the form's trials leave untried.

    They are right answers where those reach anything; else wrong ones may, such as what a check refuses. With nothing
    left to try they are sample answers as any.
    """
    coverage = run_trials(program, people, tables).coverage
    aims = [Aim(owner=each.owner, setting=each.setting, holds=True) for each in coverage if not each.held]
    aims += [Aim(owner=each.owner, setting=each.setting, holds=False) for each in coverage if not each.did_not]
    search = _Search(program, random, day, people, tables)
    best = search.sample(aims)
    search.improve(best, aims, right=True)
    if not best.reached:
        search.improve(best, aims, right=False)
    return Found(
        answers=best.answers,
        link=best.link,
        state=best.state,
        reached=tuple(each for each in aims if each in best.reached),
        missed=tuple(each for each in aims if each not in best.reached),
    )


@dataclass(kw_only=True, slots=True)
class _Tried:
    """Answers, what comes of them, and the aims that they reach."""

    answers: dict[str, Any]
    link: dict[str, str]
    state: State
    reached: frozenset[Aim]

    def worth(self, *, right: bool) -> tuple[int, int]:
        """How good they are: right first, or first by what they reach."""
        wrong, reached = -len(self.state.errors()), len(self.reached)
        return (wrong, reached) if right else (reached, wrong)


class _Search:
    """Changes answers that lead to a condition until it is as wanted; keeps what reaches more than before."""

    def __init__(
        self, program: Program, random: Random, day: datetime.date, people: Mapping[str, str], tables: Tables
    ) -> None:
        self._program, self._random, self._day = program, random, day
        self._people, self._tables = people, tables
        self._conditions = {(each.owner, each.setting): each for each in conditions_of(program)}
        self._left = 0
        start = state_on(program, {}, {}, day, people, tables=tables)
        self._context = start.context
        self._how: Sampling = sampling(program, random, start.context)

    def sample(self, aims: list[Aim]) -> _Tried:
        """Return sample answers and what they reach."""
        return self._try(filled_in(self._program, self._how, self._context), {}, aims)

    def improve(self, best: _Tried, aims: list[Aim], *, right: bool) -> None:
        """Change answers, in place, for one aim after the other."""
        self._left = _MOST_TRIES
        for aim in self._random.sample(aims, len(aims)):
            if aim in best.reached or self._left <= 0:
                continue
            for at, (answers, link) in enumerate(self._attempts(aim, best)):
                if at >= _TRIES_OF_EACH or self._left <= 0:
                    break
                tried = self._try(answers, link, aims)
                if aim in tried.reached and tried.state.errors():
                    answer_what_is_missing(tried.answers, tried.state, self._how)
                    tried = self._try(tried.answers, link, aims)
                if aim in tried.reached and tried.worth(right=right) > best.worth(right=right):
                    best.answers, best.link = tried.answers, tried.link
                    best.state, best.reached = tried.state, tried.reached
                    break

    def _try(self, answers: dict[str, Any], link: dict[str, str], aims: list[Aim]) -> _Tried:
        self._left -= 1
        answers = {block: each for block, each in answers.items() if each is not None or self._has_default(block)}
        state = state_on(self._program, answers, link, self._day, self._people, tables=self._tables)
        holds = holding(state)
        reached = frozenset(each for each in aims if holds.get((each.owner, each.setting)) is each.holds)
        return _Tried(answers=answers, link=link, state=state, reached=reached)

    def _has_default(self, block: str) -> bool:
        return bool(getattr(self._program.places[block].block, "default", ""))

    def _attempts(self, aim: Aim, best: _Tried) -> Iterator[tuple[dict[str, Any], dict[str, str]]]:
        """Yield answers that may reach an aim: first those that must, then with others changed beside them."""
        formula = self._conditions[aim.owner, aim.setting]
        leading = leading_to(self._program, [formula])
        presets = list(self._presets(formula, holds=aim.holds))
        for given in presets:
            yield {**best.answers, **given}, dict(best.link)
        while True:
            fixed = self._random.choice(presets) if presets else {}
            answers, link = deepcopy({**best.answers, **fixed}), dict(best.link)
            free = [each for each in leading.asked if each.block.id not in fixed]
            changed = False
            for _ in range(self._random.randint(1, _MOST_CHANGED)):
                changed |= self._change_link(link, leading, must=not free)
                changed |= self._change(answers, free, leading, best.state)
            if not changed:
                return
            yield answers, link

    def _presets(self, formula: Formula, *, holds: bool) -> Iterator[dict[str, Any]]:
        """Yield the answers of fields for which a condition is as wanted, where it hangs on them alone."""
        try:
            tried = try_all(self._program, [formula], handed_in=False)
        except UndecidedError:
            return
        fitting = [given for given, held in tried.outcomes if held == (holds,)]
        for given in self._random.sample(fitting, min(_PRESETS, len(fitting))):
            values = {tried.variables[path].owner: value for path, value in given.items()}
            if values.keys() <= self._program.questions.keys():
                yield {owner: self._entered(self._program.questions[owner], value) for owner, value in values.items()}

    def _entered(self, place: Place, value: Any) -> Any:
        assert place.field_type is not None
        return None if value is None else place.field_type.enter(value, place.block, self._program.region)

    def _change(self, answers: dict[str, Any], free: list[Place], leading: Leading, state: State) -> bool:
        """Change one answer, in place; False where there is none to change."""
        if not free:
            return False
        place = self._random.choice(free)
        self._put(answers, place, self._random.choice(self._values(place, leading, state)))
        return True

    def _values(self, place: Place, leading: Leading, state: State) -> list[Any]:
        """Return answers worth trying: those that differ for what leads there, any other one, and a blank."""
        values = [self._entered(place, each) for each in values_that_matter(place, numbers_in(leading.formulas))]
        if place.field_type is not None and place.field_type.value_type(place.block).kind is Kind.TEXT:
            values += texts_in(leading.formulas)
        return [*values, another_answer(place, state, self._how), None]

    def _put(self, answers: dict[str, Any], place: Place, value: Any) -> None:
        if place.kind is None or place.repeat is None:
            answers[place.block.id] = value
            return
        rows = answers.setdefault(place.repeat.id, []) or []
        of_kind = [each for each in rows if each["kind"] == place.kind.id]
        if not of_kind:
            of_kind = [{"kind": place.kind.id, "id": f"row{len(rows)}", "values": {}}]
            rows += of_kind
        self._random.choice(of_kind)["values"][place.block.id] = value
        answers[place.repeat.id] = rows

    def _change_link(self, link: dict[str, str], leading: Leading, *, must: bool) -> bool:
        """Let a link bring another value that formulas compare with, now and then; False where it changes nothing."""
        names = [each[1] for each in names_read(leading.formulas) if len(each) == 2 and each[0] == "link"]
        texts = ["", *texts_in(leading.formulas), *map(str, numbers_in(leading.formulas))]
        if not names or (not must and self._random.random() < 0.5):
            return False
        link[self._random.choice(sorted(names))] = self._random.choice(texts)
        return True
