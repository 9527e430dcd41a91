"""Why something is as it is: the chain of formulas and values behind one fact, down to answers."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass, replace
from typing import Any

from codexa.core.context import Context
from codexa.core.definition.figures import ScoreFigure
from codexa.core.definition.parts import Field
from codexa.core.errors import CoreError
from codexa.core.form.form import FORM
from codexa.core.formula.functions.function import Role
from codexa.core.formula.unparse import unparse
from codexa.core.formula.values import Failed
from codexa.core.program.evaluate import Row, State, evaluate
from codexa.core.program.facts import Fact, Formula
from codexa.core.program.figure_kinds import most_picks
from codexa.core.program.figures import BandValue, marker
from codexa.core.program.names import name_of
from codexa.core.program.notes import sentences_for
from codexa.core.program.order import money
from codexa.core.program.order_names import ORDER, PAYMENT
from codexa.core.program.payment import payment_due
from codexa.core.program.places import ALWAYS, NEVER, ROW_ADDRESS, Spot
from codexa.core.program.program import Program
from codexa.core.program.scope import presenter
from codexa.core.program.telling import told
from codexa.core.program.wording import Words

_DEEPEST = 20
# What a condition of a follow-up says where it holds, and where it does not.
_FOLLOW_UP = {
    "follow_up": ("is done", "is not done"),
    "recipient": ("goes to this recipient", "does not go to this recipient"),
    "shown": ("has this paragraph", "does not have this paragraph"),
}


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


def explain_all(state: State, address: str) -> tuple[Explanation, ...]:
    """Return why everything about one part of a form is as it is, in the order in which people ask.

    `address` is "OWNER" or "REPEAT/ROW/BLOCK", by keys or ids; a follow-up's by id: its conditions, those of whom it
    goes to and what it says. Raises NoSuchFactError.
    """
    # A part of a figure or of the order that has a column of its own is explained by the whole.
    *row_path, name = address.partition(".")[0].split("/")
    if any(each.id == name for each in state.program.form.follow_ups):
        return _Explainer(state, ()).of_follow_up(name)
    if name in ("payment", PAYMENT) and state.program.form.payment.on:
        return (_Explainer(state, ()).of_payment(),)
    owner = _owner_of(state.program, name, row_path)
    row = _row_of(state, row_path)
    spots = {fact: _spot_of(state.program, owner, fact) for fact in _facts_of(state.program, owner)}
    explainer = _Explainer(state, row)
    brought = _brought(state, owner)
    return brought + tuple(explainer.tell(spot, owner, fact) for fact, spot in spots.items() if spot is not None)


_BROUGHT = {
    "open": "visitors may change it",
    "locked": "visitors can't change it",
    "hidden": "visitors don't see it",
}


def _brought(state: State, owner: str) -> tuple[Explanation, ...]:
    """Return what a link has to do with a field, where it filled it in."""
    link = state.brought.get(owner)
    if link is None:
        return ()
    name, way = name_of(state.program, owner), _BROUGHT[link.visitor]
    value = f"came with the link as {link.name}; {way}"
    sentence = f"{name} {value}."
    return (Explanation(owner=owner, name=name, fact="link", value=value, sentence=sentence, formula="", because=()),)


_INNER = ("at", "rows", "column", "is_shown")  # told with what hangs on them


def _facts_of(program: Program, owner: str) -> list[str]:
    """Return the names of the facts of an owner: its own, and whether it is shown or locked with what it stands in."""
    own = [fact.name for fact in program.facts.values() if fact.owner == owner and fact.name not in _INNER]
    place = program.places.get(owner)
    if place is not None:
        common = ["shown", "value", "required", "locked"] if place.answered else ["shown", "value"]
    else:
        common = ["shown"] if any(page.page.id == owner for page in program.pages) else []
    return list(dict.fromkeys([*common, *own]))


def _owner_of(program: Program, name: str, row_path: Sequence[str]) -> str:
    kinds = {kind.kind.id: kind.kind for repeat in program.repeats.values() for kind in repeat.kinds}
    ids = {*program.places, *program.figures, *kinds, *(page.page.id for page in program.pages), FORM, ORDER}
    if name in ids:
        return name
    if name in ("form", "order"):
        return FORM if name == "form" else ORDER
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
        self._above: set[Spot] = set()

    def tell(self, spot: Spot, owner: str, fact_name: str) -> Explanation:
        """Return why a fact is as it is; what is told after it need not give it as a reason."""
        explanation = self.of(spot, owner, fact_name)
        self._above.add(spot)
        return explanation

    def of(self, spot: Spot, owner: str, fact_name: str) -> Explanation:
        fact = self._program.facts.get(spot)
        if fact is not None and (fact.owner, fact.name) != (owner, fact_name):
            # Its own condition adds nothing: it is as what it stands in.
            inner = self.of(spot, fact.owner, fact.name)
            value = told(self._state, self._row, owner, fact_name, self._value(spot))
            sentence = f"{name_of(self._program, owner)} {value}, as {inner.name} is."
            name = name_of(self._program, owner)
            return Explanation(
                owner=owner, name=name, fact=fact_name, value=value, sentence=sentence, formula="", because=(inner,)
            )
        value = told(self._state, self._row, owner, fact_name, self._value(spot))
        formula = self._formula_behind(fact, self._value(spot))
        because = self._reasons(spot, fact)
        return Explanation(
            owner=owner,
            name=name_of(self._program, owner),
            fact=fact_name,
            value=value,
            sentence=self._told_points(owner, fact_name, value)
            or self._sentence(owner, value, formula, because, self._taken_band(spot, owner)),
            formula="" if formula is None else formula.compiled.text.strip(),
            because=because,
        )

    def of_follow_up(self, follow_up: str) -> tuple[Explanation, ...]:
        """Return why each condition of a follow-up holds or does not."""
        formulas = [each for each in self._program.formulas if each.owner == follow_up and each.compiled.reads]
        return tuple(self._of_condition(each) for each in formulas)

    def of_payment(self) -> Explanation:
        """Return why so much is to be paid, or nothing."""
        asked, rule = self._state.commitment, self._program.formula(PAYMENT, "when")
        value = "can't be worked out" if isinstance(asked, Failed) else "asks for nothing"
        if (due := payment_due(self._state)) is not None:
            value = f"asks for {due.words or money(due.amount, self._program.region)}"
        deciding = rule if asked is None else self._program.formula(PAYMENT, "amount")
        reads = list(deciding.reads()) if deciding else [self._program.order.total] if self._program.order else []
        if asked is not None:
            plans = (each for each in self._program.formulas if each.owner == PAYMENT and "plans" in each.setting)
            reads += [read for each in plans for read in each.reads()]
        because = tuple(self._once(read) for read in dict.fromkeys(reads) if read in self._program.facts)
        return Explanation(
            owner=PAYMENT,
            name=name_of(self._program, PAYMENT),
            fact="to_pay",
            value=value,
            sentence=self._sentence(PAYMENT, value, deciding, because, None),
            formula="" if deciding is None else deciding.compiled.text.strip(),
            because=because,
        )

    def _of_condition(self, formula: Formula) -> Explanation:
        holds = self._holds(formula)
        value = _FOLLOW_UP[formula.mark.fact][0 if holds else 1]
        because = tuple(self._once(read) for read in dict.fromkeys(formula.reads()) if read in self._program.facts)
        return Explanation(
            owner=formula.owner,
            name=name_of(self._program, formula.owner),
            fact=formula.setting,
            value=value,
            sentence=self._sentence(formula.owner, value, formula, because, None),
            formula=formula.compiled.text.strip(),
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
            for read in dict.fromkeys(self._reads(fact))
            if read in self._program.facts and self._tells(read, fact)
        ]
        self._on_the_way.discard(spot)
        return tuple(found)

    def _reads(self, fact: Fact) -> Sequence[Spot]:
        """Return what a fact was worked out from: of bands, only what led to the one that was taken."""
        taken = self._taken_band(fact.spot, fact.owner)
        if taken is None or fact.formula is None:
            return fact.reads
        return (*fact.formula.reads(), *taken.reads())

    def _taken_band(self, spot: Spot, owner: str) -> Formula | None:
        value = self._value(spot)
        return self._program.formula(owner, f"bands.{value.index}.value") if isinstance(value, BandValue) else None

    def _once(self, spot: Spot) -> Explanation:
        # What was told before is named again without its reasons: else a wide form would be told over and over.
        if spot in self._told:
            return replace(self._told[spot], because=())
        fact = self._program.facts[spot]
        self._told[spot] = told = self.of(spot, fact.owner, fact.name)
        return told

    def _tells(self, read: Spot, fact: Fact) -> bool:
        # That something around it is shown is no news; that it is hidden is the reason.
        if (
            read in (ALWAYS, NEVER)
            or read in self._above
            or (read.kind and not self._row)
            or self._program.facts[read].name == "rows"
        ):
            return False
        if self._program.facts[read].name == "offered" and self._value(fact.spot) is not None:
            return False  # what is chosen is offered
        if fact.formula is not None and self._is_overridden(fact) and read in fact.formula.reads():
            return False
        around = self._program.facts[read].name in ("shown", "at") and read not in (
            fact.formula.reads() if fact.formula else ()
        )
        return not (around and self._value(read) is True)

    def _formula_behind(self, fact: Fact | None, value: Any) -> Formula | None:
        """Return the formula that made a fact; where several could have, the one that did."""
        if fact is None or value is None or fact.formula is not None:
            return None if fact is None or self._is_overridden(fact) else fact.formula
        form = self._program.form
        if fact.name == "confirmation" and value >= 0:
            return self._program.formula(form.confirmations[value].id, "when")
        if fact.name == "next":
            page = next(each for each in form.pages if each.id == fact.owner)
            target = form.pages[value].id if value < len(form.pages) else ""
            rules = (
                self._program.formula(page.id, f"next.{at}.when")
                for at, rule in enumerate(page.next)
                if rule.to == target
            )
            return next((each for each in rules if each is not None and self._holds(each)), None)
        return None

    def _is_overridden(self, fact: Fact) -> bool:
        """Whether a visitor gave an answer where a default would have stood."""
        if fact.formula is None or fact.formula.mark.fact != "default":
            return False
        place = self._program.places[fact.owner]
        if getattr(place.block, "default_follows", False) and self._value(place.conditions.locked) is True:
            return False
        if not fact.spot.kind:
            return fact.owner in self._state.given
        repeat, row_id, _ = self._row[ROW_ADDRESS].split("/")
        rows = self._state.given.get(repeat) or ()
        return any(row["id"] == row_id and fact.owner in row["values"] for row in rows)

    def _holds(self, formula: Formula) -> bool:
        return formula.compiled.run(self._state.values, self._state.context) is True

    def _sentence(
        self,
        owner: str,
        value: str,
        formula: Formula | None,
        because: Sequence[Explanation],
        taken: Formula | None,
    ) -> str:
        name = name_of(self._program, owner)
        if formula is None or formula.compiled.typed is None:
            reasons = "; ".join(each.sentence.rstrip(".") for each in because[:3])
            return f"{name} {value}{', because ' + reasons if reasons else ''}."
        known = "; ".join(f"{each.name} {each.value}" for each in because if each.fact == "value")
        node = formula.compiled.typed.node
        if taken is not None and taken.compiled.typed is not None:
            gives = f", where it is {unparse(taken.compiled.typed.node)}" if taken.compiled.reads else ""
            return f"{name} {value}: the band of {unparse(node)}{gives}{', with ' + known if known else ''}."
        if formula.mark.role is not Role.CONDITION:
            return f"{name} {value}: = {unparse(node)}{' with ' + known if known else ''}."
        hidden = next((each for each in because if each.fact == "shown" and each.owner != owner), None)
        if hidden is not None:
            return f"{name} {value}, because {hidden.name} {hidden.value}."
        rule = "".join(self._said(each) for each in sentences_for(self._program, formula).of(node))
        return f"{name} {value}, because {known + ' and ' if known else ''}the rule wants: {rule}."

    def _told_points(self, owner: str, fact: str, value: str) -> str:
        """Return what each answer gives to a score, as a sentence; "" where the fact is no score that has any."""
        figure = getattr(self._program.figures.get(owner), "figure", None)
        if fact != "value" or not isinstance(figure, ScoreFigure):
            return ""
        show, said = presenter(self._program.region), []
        for question in figure.questions:
            place = self._program.questions.get(question.field)
            answer = None if place is None else self._state.value(place)
            if place is not None and answer is not None and not isinstance(answer, Failed):
                assert isinstance(place.block, Field)
                marked = marker(question, most_picks(place.block))(answer)
                shown, name = self._state.presented(place), name_of(self._program, question.field)
                said.append(f"{name} {shown} gives {show(marked.points)} of {show(marked.greatest)}")
        return f"{name_of(self._program, owner)} {value}: {'; '.join(said)}." if said else ""

    def _said(self, words: Words) -> str:
        return name_of(self._program, words.block) if words.block else words.text
