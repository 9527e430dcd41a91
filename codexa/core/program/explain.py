"""Why something is as it is: the chain of formulas and values behind one fact, down to answers."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

from codexa.core.context import Context
from codexa.core.errors import CoreError
from codexa.core.formula.compile import locate
from codexa.core.formula.unparse import unparse
from codexa.core.formula.values import Choice, Failed
from codexa.core.program.evaluate import Row, State, evaluate
from codexa.core.program.facts import Fact
from codexa.core.program.figure_kinds import kind_of
from codexa.core.program.notes import sentences_for
from codexa.core.program.places import ALWAYS, NEVER, ROW_ADDRESS, Place, RepeatPlace, Spot
from codexa.core.program.program import FORM, Program
from codexa.core.program.proof import name_of
from codexa.core.program.scope import presenter
from codexa.core.program.wording import Words

_DEEPEST = 20


class NoSuchFactError(CoreError):
    """There is nothing of that name to explain. Name a block, page or figure by its key, a dot and a fact."""


@dataclass(frozen=True, kw_only=True, slots=True)
class Explanation:
    """One fact and why: `sentence` in words, `formula` as written, `value` as people read it, `because` its reasons.

    `owner` is the id of the block, page, row kind or figure; `fact` is "shown", "required", "locked", "value" …
    """

    owner: str
    name: str
    fact: str
    value: str
    sentence: str
    formula: str
    because: "tuple[Explanation, ...]"


def explain(program: Program, answers: Mapping[str, Any], context: Context, path: str) -> Explanation:
    """Return why a fact is as it is with these answers.

    `path` is "OWNER.FACT" or "REPEAT/ROW/BLOCK.FACT", by keys or ids; without a fact it is the value, or whether it is
    shown where there is none. Raises NoSuchFactError.
    """
    return explain_in(evaluate(program, answers, context), path)


def explain_in(state: State, path: str) -> Explanation:
    """Return why a fact of a state is as it is; see `explain`."""
    program = state.program
    address, _, fact_name = path.partition(".")
    *row_path, name = address.split("/")
    owner = _owner_of(program, name, row_path)
    row = _row_of(state, row_path)
    fact_name = fact_name or ("value" if _has_value(program, owner) else "shown")
    spot = _spot_of(program, owner, fact_name)
    if spot is None:
        raise NoSuchFactError(f"{name_of(program, owner)} has no fact named {fact_name}.")
    return _Explainer(state, row).of(spot, owner, fact_name)


def _owner_of(program: Program, name: str, row_path: Sequence[str]) -> str:
    kinds = {kind.kind.id: kind.kind for repeat in program.repeats.values() for kind in repeat.kinds}
    ids = {*program.places, *program.figures, *kinds, *(page.page.id for page in program.pages), FORM}
    if name in ids:
        return name
    if name == "form":
        return FORM
    for block_id, place in program.places.items():
        if place.block.key == name and (place.kind is not None) == bool(row_path):
            return block_id
    for figure_id, figure in program.figures.items():
        if figure.figure.key == name:
            return figure_id
    raise NoSuchFactError(f"There is no block, page or figure named {name}.")


def _row_of(state: State, row_path: Sequence[str]) -> Row | tuple[()]:
    if not row_path:
        return ()
    for place in state.program.repeats.values():
        if row_path[0] in (place.block.id, place.block.key):
            for row in state.rows(place):
                if row[ROW_ADDRESS] == f"{place.block.id}/{row_path[-1]}/":
                    return row
    raise NoSuchFactError(f"There is no row {'/'.join(row_path)}.")


def _has_value(program: Program, owner: str) -> bool:
    place = program.places.get(owner)
    return owner in program.figures or (place is not None and place.value is not None)


def _spot_of(program: Program, owner: str, fact: str) -> Spot | None:
    found = next((each.spot for each in program.facts.values() if (each.owner, each.name) == (owner, fact)), None)
    if found is not None:
        return found
    page = next((page for page in program.pages if page.page.id == owner), None)
    place = program.places.get(owner)
    conditions = place.conditions if place else page.conditions if page else None
    if conditions is not None and fact in ("shown", "required", "locked"):
        spot: Spot = getattr(conditions, fact)
        return spot
    return place.value if place and fact == "value" else None


class _Explainer:
    def __init__(self, state: State, row: Row | tuple[()]) -> None:
        self._state = state
        self._program = state.program
        self._row = row
        self._on_the_way: set[Spot] = set()
        self._told: dict[Spot, Explanation] = {}

    def of(self, spot: Spot, owner: str, fact_name: str) -> Explanation:
        fact = self._program.facts.get(spot)
        if fact is not None and (fact.owner, fact.name) != (owner, fact_name):
            # Its own condition adds nothing: it is as what it stands in.
            inner = self.of(spot, fact.owner, fact.name)
            value = self._value_words(owner, fact_name, self._value(spot))
            sentence = f"{name_of(self._program, owner)} {value}, as {inner.name} is."
            name = name_of(self._program, owner)
            return Explanation(
                owner=owner, name=name, fact=fact_name, value=value, sentence=sentence, formula="", because=(inner,)
            )
        value = self._value_words(owner, fact_name, self._value(spot))
        because = self._reasons(spot, fact)
        return Explanation(
            owner=owner,
            name=name_of(self._program, owner),
            fact=fact_name,
            value=value,
            sentence=self._sentence(owner, value, fact, because),
            formula=_formula_text(fact),
            because=because,
        )

    def _value(self, spot: Spot) -> Any:
        values = self._row if spot.kind else self._state.values
        return values[spot.slot] if spot.slot < len(values) else None

    def _reasons(self, spot: Spot, fact: Fact | None) -> tuple[Explanation, ...]:
        if fact is None or len(self._on_the_way) >= _DEEPEST or spot in self._on_the_way:
            return ()
        self._on_the_way.add(spot)
        found = [
            self._once(read)
            for read in dict.fromkeys(fact.reads)
            if read in self._program.facts and self._tells(read, fact)
        ]
        self._on_the_way.discard(spot)
        return tuple(found)

    def _once(self, spot: Spot) -> Explanation:
        # What was told before is named again without its reasons: else a wide form would be told over and over.
        if spot in self._told:
            return replace(self._told[spot], because=())
        fact = self._program.facts[spot]
        self._told[spot] = told = self.of(spot, fact.owner, fact.name)
        return told

    def _tells(self, read: Spot, fact: Fact) -> bool:
        # That something around it is shown is no news; that it is hidden is the reason.
        if read in (ALWAYS, NEVER) or (read.kind and not self._row) or self._program.facts[read].name == "rows":
            return False
        around = self._program.facts[read].name in ("shown", "at") and read not in (
            fact.formula.reads() if fact.formula else ()
        )
        return not (around and self._value(read) is True)

    def _sentence(self, owner: str, value: str, fact: Fact | None, because: Sequence[Explanation]) -> str:
        name = name_of(self._program, owner)
        if fact is None or fact.formula is None or fact.formula.compiled.typed is None:
            reasons = "; ".join(each.sentence.rstrip(".") for each in because[:3])
            return f"{name} {value}{', because ' + reasons if reasons else ''}."
        known = "; ".join(f"{each.name} {each.value}" for each in because if each.fact == "value")
        if fact.name in ("value", "default") or fact.name.startswith(("earliest", "latest")):
            written = unparse(fact.formula.compiled.typed.node)
            return f"{name} {value}: = {written}{' with ' + known if known else ''}."
        rule = "".join(
            self._said(each) for each in sentences_for(self._program, fact.formula).of(fact.formula.compiled.typed.node)
        )
        hidden = next((each for each in because if each.fact == "shown" and each.owner != owner), None)
        if hidden is not None:
            return f"{name} {value}, because {hidden.name} {hidden.value}."
        return f"{name} {value}, because {known + ' and ' if known else ''}the rule wants: {rule}."

    def _said(self, words: Words) -> str:
        return name_of(self._program, words.block) if words.block else words.text

    def _value_words(self, owner: str, fact: str, value: Any) -> str:
        if fact in ("shown", "at"):
            page = owner not in self._program.places
            return (
                ("is on the path" if page else "is shown")
                if value is True
                else ("is not on the path" if page else "is hidden")
            )
        if fact == "required":
            return "must be answered" if value is True else "may be left blank"
        if fact == "locked":
            return "is locked" if value is True else "is open"
        if fact.startswith("check"):
            return "fits its check" if value is True else "does not fit its check"
        if isinstance(value, Failed):
            return f"can't be worked out ({value.error.code}): {self._cause(owner, value)}"
        if value is None:
            return self._blank_words(owner)
        if fact == "next":
            pages = self._program.form.pages
            return "leads to the end" if value >= len(pages) else f"leads to page {value + 1} {pages[value].title}"
        if fact == "confirmation":
            confirmations = self._program.form.confirmations
            return f"ends with {confirmations[value].name or value + 1}" if value >= 0 else "ends with the usual words"
        return f"is {self._shown(owner, value)}"

    def _blank_words(self, owner: str) -> str:
        place = self._program.places.get(owner)
        if place is not None and not self._state.shown(place, self._row if place.kind else ()):
            return "is blank while hidden"
        return "is blank"

    def _cause(self, owner: str, failed: Failed) -> str:
        formula = self._program.formula(owner, "formula")
        if formula is None:
            return failed.error.message
        error = locate(formula.compiled, formula.scope, self._state.values, self._state.context, self._row)
        if error is None or error.span is None:
            return failed.error.message
        where = formula.compiled.text[error.span.start : error.span.end]
        return f"{error.message.rstrip('.')} at {where}"

    def _shown(self, owner: str, value: Any) -> str:
        place: Place | None = self._program.places.get(owner)
        if isinstance(place, RepeatPlace):
            return f"{len(value)} row{'' if len(value) == 1 else 's'}"
        if place is not None and place.field_type is not None and not isinstance(value, bool | list):
            return self._state.presented(place, self._row if place.kind else ()) or "blank"
        figure = self._program.figures.get(owner)
        if figure is not None:
            bare = kind_of(figure.figure).value(figure.figure, value)
            entry = self._program.layout.scope.entry((figure.figure.key,))
            label = getattr(value, "label", "")
            shown = "blank" if bare is None or entry is None else entry.present(bare)
            return f"{shown} ({label})" if label else shown
        if isinstance(value, bool):
            return "yes" if value else "no"
        return presenter(self._program.form.region)(value) if not isinstance(value, Choice) else value.label


def _formula_text(fact: Fact | None) -> str:
    return fact.formula.compiled.text.strip() if fact is not None and fact.formula is not None else ""
