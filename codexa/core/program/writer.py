"""Writes the program of a form as Python: each fact a few lines, together one function.

Every name in the code comes from here or from the compiler's own tables, never from what a person typed.
"""

from collections.abc import Callable, Iterable, Sequence
from dataclasses import replace
from decimal import Decimal
from itertools import groupby
from typing import Any

from codexa.core.fields.options import Optioned, OptionsType, choice_of
from codexa.core.form.form import Form
from codexa.core.formula.columns import Column
from codexa.core.formula.compile import unreadable_error
from codexa.core.formula.emit import Emitter
from codexa.core.formula.failing import failed, noticed
from codexa.core.formula.metering import TOO_MUCH, afford
from codexa.core.formula.values import Failed
from codexa.core.program.facts import Fact, Formula
from codexa.core.program.fitting import OPERAND_FAILED
from codexa.core.program.places import ALWAYS, NEVER, ROW_ADDRESS, ROW_KIND, Place, Spot
from codexa.core.program.record_facts import Looking
from codexa.core.program.slot_facts import Offering
from codexa.core.program.spots import Spots


class Missing:
    """Stands for an answer that was never given, where a blank one was: its default is still to be worked out."""


MISSING = Missing()


def indented(lines: Iterable[str]) -> list[str]:
    """Return lines one step further in."""
    return [f"    {line}" for line in lines]


class Writer:
    """Collects facts with their code; `formulas` are the form's, by owner and setting."""

    def __init__(self, form: Form, spots: Spots, formulas: dict[tuple[str, str], Formula]) -> None:
        self.form = form
        self.spots = spots
        self.region = form.region
        self.formulas = formulas
        self.environment: dict[str, Any] = {}
        self.facts: dict[Spot, Fact] = {}
        self._emitter = Emitter(self.environment)
        self._missing = self._emitter.constant(MISSING)

    def formula(self, owner: str, setting: str) -> Formula | None:
        """Return the formula of a setting, if there is one."""
        return self.formulas.get((owner, setting))

    def helper(self, made: Any) -> str:
        """Return the name by which the code knows something that it calls."""
        return self._emitter.helper(made)

    def failure(self) -> str:
        """Return the name of what makes a value of an exception that stopped a formula."""
        return self.helper(failed)

    def add(self, fact: Fact) -> Spot:
        """Take up a fact and return its spot; one of a row waits until it is known which rows there are."""
        rows = [self.spots.rows[fact.spot.kind]] if fact.spot.kind else []
        self.facts[fact.spot] = replace(fact, reads=(*fact.reads, *rows))
        return fact.spot

    def code_of(self, formula: Formula) -> tuple[list[str], str]:
        """Return the lines that fetch what a formula reads, and its expression."""
        if formula.compiled.typed is None:
            return [], self._emitter.helper(_raiser(Failed(unreadable_error(formula.compiled)))) + "()"
        return self._emitter.formula(formula.compiled.typed, formula.compiled.role)

    def condition(self, owner: str, setting: str, spot_kind: str, name: str, beside: Spot, *, both: bool) -> Spot:
        """Return where it stands whether a condition holds, with `both` and another, else or another."""
        formula = self.formula(owner, setting)
        if formula is None:
            return beside
        constant = {"TRUE": ALWAYS, "FALSE": NEVER}.get(formula.compiled.text.strip().upper())
        if constant is not None:
            same = constant is (ALWAYS if both else NEVER)
            return beside if same else constant
        spot = self.spots.new(spot_kind)
        fetches, expression = self.code_of(formula)
        test = f"({expression}) is True"
        if beside not in (ALWAYS, NEVER):
            test = f"{beside.code} is True {'and' if both else 'or'} {test}"
        otherwise = "False" if both or beside is NEVER else f"{beside.code} is True"
        code = self.guarded([*fetches, f"{spot.code} = {test}"], f"{spot.code} = {otherwise}")
        return self.add(
            Fact(
                owner=owner,
                name=name,
                spot=spot,
                reads=(beside, *formula.reads()),
                code=tuple(code),
                formula=formula,
                steps=formula.steps,
            )
        )

    def setting(self, owner: str, setting: str, spot_kind: str, name: str) -> Spot | None:
        """Return where the result of a formula stands that is a setting, such as an earliest date."""
        formula = self.formula(owner, setting)
        if formula is None:
            return None
        spot = self.spots.new(spot_kind)
        fetches, expression = self.code_of(formula)
        code = self.guarded([*fetches, f"{spot.code} = {expression}"], f"{spot.code} = None")
        return self.add(
            Fact(
                owner=owner,
                name=name,
                spot=spot,
                reads=formula.reads(),
                code=tuple(code),
                formula=formula,
                steps=formula.steps,
            )
        )

    def options(self, block: Optioned, spot_kind: str) -> Spot | None:
        """Return where the codes of the options on offer stand; None where all always are."""
        conditions = [self.formula(block.id, f"options.{index}.shown") for index in range(len(block.options))]
        filtering = self.formula(block.id, "offered")
        if filtering is None and not any(conditions):
            return None
        spot = self.spots.new(spot_kind)
        rows = [
            (choice_of(option), option.label, option.counts_as, option.belongs_to or None) for option in block.options
        ]
        table = self._emitter.helper(_Table(rows))
        code = ["t = []"]
        for index, condition in enumerate(conditions):
            code += self.collected(condition, f"t.append({table}.rows[{index}])")
        if filtering is not None:
            fetches, expression = self.code_of(filtering)
            test = [*fetches, f"if ({expression}) is True: u.append(o)"]
            code += ["u = []", "for o in t:", *indented(self.guarded(test)), "t = u"]
        code.append(f"{spot.code} = [o[0] for o in t]")
        read = [each for formula in (*conditions, filtering) if formula is not None for each in formula.reads()]
        return self.add(
            Fact(
                owner=block.id,
                name="offered",
                spot=spot,
                reads=tuple(read),
                code=tuple(code),
                formula=filtering,
                steps=_steps(*conditions) + len(rows) * (1 + _steps(filtering)),
            )
        )

    def barred(self, block: Optioned, spot_kind: str) -> Spot | None:
        """Return where the codes of options stand that are offered but can't be chosen; None where there are none."""
        conditions = [self.formula(block.id, f"options.{index}.locked") for index in range(len(block.options))]
        if not any(conditions):
            return None
        spot = self.spots.new(spot_kind)
        code = ["t = []"]
        for option, condition in zip(block.options, conditions, strict=True):
            if condition is not None:
                code += self.collected(condition, f"t.append({self._emitter.constant(option.code)})")
        code.append(f"{spot.code} = t")
        read = [each for formula in conditions if formula is not None for each in formula.reads()]
        steps = _steps(*conditions)
        return self.add(
            Fact(owner=block.id, name="barred", spot=spot, reads=tuple(read), code=tuple(code), steps=steps)
        )

    def collected(self, condition: Formula | None, statement: str) -> list[str]:
        """Return the code of a statement that is done where a condition holds, or always."""
        if condition is None:
            return [statement]
        fetches, expression = self.code_of(condition)
        test = [*fetches, f"if ({expression}) is True: {statement}"]
        return self.guarded(test)

    def answer(self, place: Place, *, keep: bool, follows: bool) -> None:
        """The value of a question: its answer, its default, or blank where it is hidden.

        One that `follows` has its default while it is locked, whatever was answered.
        """
        spot, block = place.value, place.block
        assert spot is not None
        x, code = spot.code, self._with_default(place, follows=follows)
        if place.offered is not None:
            assert isinstance(place.field_type, OptionsType)
            address = self._emitter.constant(block.id)
            address = f"r[{ROW_ADDRESS}] + {address}" if spot.kind else address
            drop = self._emitter.helper(_dropper(place.field_type))
            code.append(f"if {x} is not None: {x} = {drop}({x}, {place.offered.code}, dropped, {address})")
        self._answered(place, code, [place.offered] if place.offered else [], keep=keep, follows=follows)

    def records(self, place: Place, looking: Looking, *, keep: bool, follows: bool) -> None:
        """The value of a record choice: what was answered of what is offered now, its default, or blank."""
        spot, found, block = place.value, place.found, place.block
        assert spot is not None
        assert found is not None
        x, code = spot.code, self._with_default(place, follows=follows)
        code.append("t = []")
        for operand in looking.fitting.operands if looking.fitting is not None else ():
            fetches, expression = self._emitter.formula(operand.typed, operand.role)
            code += self.guarded([*fetches, f"t.append({expression})"], f"t.append({self.helper(OPERAND_FAILED)})")
        row, address = ("r", f"r[{ROW_ADDRESS}] + ") if spot.kind else ("()", "")
        code += [
            f"{found.code} = {self.helper(looking)}(v, c, {row}, {x}, t)",
            f"if {found.code}.lost: dropped.add({address}{self._emitter.constant(block.id)})",
            f"{x} = {found.code}.chosen",
        ]
        filtering = self.formula(block.id, "fitting")
        reads = list(filtering.reads()) if filtering is not None else []
        self._answered(place, code, reads, keep=keep, follows=follows)

    def slots(self, place: Place, offering: Offering, by: Spot | None, *, keep: bool, follows: bool) -> None:
        """The value of a slot block: which of the slots that are offered now was chosen, its default, or blank."""
        spot, found, block = place.value, place.found, place.block
        assert spot is not None
        assert found is not None
        x, code = spot.code, self._with_default(place, follows=follows)
        address = f"r[{ROW_ADDRESS}] + " if spot.kind else ""
        # How many are wanted decides only whether they are waited for.
        reads = [by, place.settings.get("taking") if offering.block.waiting else None]
        asked = ", ".join("None" if each is None else each.code for each in reads)
        code += [
            f"{found.code} = {self.helper(offering)}(c, {x}, {asked})",
            f"if {found.code}.lost: dropped.add({address}{self._emitter.constant(block.id)})",
            f"{x} = {found.code}.chosen",
        ]
        self._answered(place, code, [each for each in reads if each is not None], keep=keep, follows=follows)

    def _with_default(self, place: Place, *, follows: bool) -> list[str]:
        """Return the code that puts the default in the place of an answer that was never given."""
        default, locked = self.formula(place.block.id, "default"), place.conditions.locked
        if default is None or place.value is None:
            return []
        instead = f" or {locked.code} is True" if follows and locked is not NEVER else ""
        return [f"if {place.value.code} is {self._missing}{instead}:", *indented(self._default(place, default))]

    def _answered(self, place: Place, code: list[str], reads: list[Spot], *, keep: bool, follows: bool) -> None:
        """Add the fact of a question's value, which is blank where it is hidden."""
        spot, shown, block = place.value, place.conditions.shown, place.block
        assert spot is not None
        x, default = spot.code, self.formula(block.id, "default")
        if shown is not ALWAYS:
            if keep:
                code = [f"if {shown.code} is True:", *indented(code)] if code else []
                code += [f"if {x} is {self._missing}: {x} = None"] if default is not None else []
            else:
                code = [
                    f"if {shown.code} is not True:",
                    f"    {x} = None",
                    *(["else:", *indented(code)] if code else []),
                ]
        reads = [shown, *(default.reads() if default else ()), *reads]
        if follows and default is not None:
            reads.append(place.conditions.locked)
        self.add(
            Fact(
                owner=block.id,
                name="value",
                spot=spot,
                reads=tuple(reads),
                code=tuple(code),
                formula=default,
                steps=_steps(default),
            )
        )

    def guarded(self, code: list[str], *otherwise: str) -> list[str]:
        """Return code with what holds where a formula in it failed; a defect of the program is reported."""
        reported = f"{self._emitter.helper(noticed)}(e)"
        return ["try:", *indented(code), "except Exception as e:", *indented([reported, *otherwise])]

    def _default(self, place: Place, default: Formula) -> list[str]:
        assert place.value is not None
        assert place.field_type is not None
        fetches, expression = self.code_of(default)
        adopt = self._emitter.helper(_adopter(place.field_type, place.block, self.region))
        x = place.value.code
        return [f"{x} = None", *self.guarded([*fetches, f"{x} = {adopt}({expression})"])]

    def computed(self, place: Place) -> None:
        """The value of a field that a formula works out."""
        assert place.value is not None
        assert place.field_type is not None
        adopt = _adopter(place.field_type, place.block, self.region)
        self.settled(place.block.id, place.value, "formula", adopt, shown=place.conditions.shown)

    def settled(self, owner: str, spot: Spot, setting: str, settle: Callable[[Any], Any], shown: Spot = ALWAYS) -> None:
        """A value that is made of a formula's result; blank where it is hidden, or where there is no formula."""
        formula = self.formula(owner, setting)
        if formula is None:
            self.add(Fact(owner=owner, name="value", spot=spot, reads=(shown,)))
            return
        fetches, expression = self.code_of(formula)
        code = [*fetches, f"{spot.code} = {self._emitter.helper(_not_blank(settle))}({expression})"]
        self._worked_out(owner, spot, [formula], code, shown)

    def banded(
        self,
        owner: str,
        spot: Spot,
        find: Callable[[Any], int | None],
        makers: Sequence[Callable[[Any], Any]],
    ) -> None:
        """A value made by the band in which a formula's result lies; no other band's own formula is worked out."""
        formula = self.formula(owner, "formula")
        bands = [self.formula(owner, f"bands.{at}.value") for at in range(len(makers))]
        known = [each for each in bands if each is not None]
        if formula is None:
            self.add(Fact(owner=owner, name="value", spot=spot, reads=()))
            return
        fetches, expression = self.code_of(formula)
        code = [*fetches, f"t = {self._emitter.helper(find)}({expression})", f"{spot.code} = None"]
        for at, (band, make) in enumerate(zip(bands, makers, strict=True)):
            if band is not None:
                fetches, expression = self.code_of(band)
                made = f"{spot.code} = {self._emitter.helper(_not_blank(make))}({expression})"
                code += [f"{'if' if band is known[0] else 'elif'} t == {at}:", *indented([*fetches, made])]
        self._worked_out(owner, spot, [formula, *known], code)

    def _worked_out(
        self, owner: str, spot: Spot, formulas: Sequence[Formula], code: list[str], shown: Spot = ALWAYS
    ) -> None:
        """A value that code works out with these formulas, the first before all; what fails is its value then."""
        x = spot.code
        reason = self._emitter.helper(failed)
        code = ["try:", *indented(code), "except Exception as e:", f"    {x} = {reason}(e)"]
        blank = [f"{shown.code} is not True"] if shown is not ALWAYS else []
        if any(formula.needs_number for formula in formulas):
            blank.append("c.number is None")
        if blank:
            code = [f"if {' or '.join(blank)}:", f"    {x} = None", "else:", *indented(code)]
        reads = (shown, *(spot for formula in formulas for spot in formula.reads()))
        self.add(
            Fact(
                owner=owner,
                name="value",
                spot=spot,
                reads=reads,
                code=tuple(code),
                formula=formulas[0],
                steps=_steps(*formulas),
            )
        )

    def over_answers(
        self, owner: str, spot: Spot, fields: Sequence[str], compute: Callable[[Sequence[Any]], Any]
    ) -> None:
        """A value that is made of the answers of several fields; a field that is gone counts as blank."""
        spots = [self.spots.values.get(field) for field in fields]
        known = [each for each in spots if each is not None and not each.kind]
        answers = ", ".join(each.code if each in known and each is not None else "None" for each in spots)
        made = f"{self._emitter.helper(compute)}(({answers}{',' if spots else ''}))"
        reason = self._emitter.helper(failed)
        code = ["try:", f"    {spot.code} = {made}", "except Exception as e:", f"    {spot.code} = {reason}(e)"]
        self.add(Fact(owner=owner, name="value", spot=spot, reads=tuple(known), code=tuple(code)))

    def counter(self, owner: str, spot: Spot, start: Decimal, steps: Sequence[Decimal]) -> None:
        """A number that grows with each condition that holds."""
        formulas = [self.formula(owner, f"counts.{index}.when") for index in range(len(steps))]
        code = [f"t = {self._emitter.constant(start)}"]
        for formula, step in zip(formulas, steps, strict=True):
            if formula is not None:
                code += self.collected(formula, f"t += {self._emitter.constant(step)}")
        code.append(f"{spot.code} = t")
        read = [each for formula in formulas if formula is not None for each in formula.reads()]
        cost = _steps(*formulas)
        self.add(Fact(owner=owner, name="value", spot=spot, reads=tuple(read), code=tuple(code), steps=cost))

    def first_that_holds(
        self,
        owner: str,
        name: str,
        choices: Sequence[tuple[Formula | None, int]],
        *,
        otherwise: int,
        only: Spot = ALWAYS,
    ) -> Spot:
        """Return where the number stands that belongs to the first condition that holds; a missing one always does."""
        spot = self.spots.new(initial=otherwise)
        body: list[str] = []
        for formula, result in choices:
            if formula is None:
                body.append(f"if t is None: t = {result}")
                break
            fetches, expression = self.code_of(formula)
            test = [*fetches, f"if ({expression}) is True: t = {result}"]
            body += ["if t is None:", *indented(self.guarded(test))]
        if only is not ALWAYS:
            body = [f"if {only.code} is True:", *indented(body)]
        code = ["t = None", *body, f"{spot.code} = {otherwise} if t is None else t"]
        read = [each for formula, _ in choices if formula is not None for each in formula.reads()]
        steps = _steps(*(formula for formula, _ in choices))
        return self.add(Fact(owner=owner, name=name, spot=spot, reads=(only, *read), code=tuple(code), steps=steps))

    def derived(self, owner: str, name: str, spot: Spot, expression: str, reads: Iterable[Spot]) -> Spot:
        """Return the spot of a fact that is a plain expression of others."""
        return self.add(
            Fact(owner=owner, name=name, spot=spot, reads=tuple(reads), code=(f"{spot.code} = {expression}",))
        )

    def rows(self, repeat: str, spot: Spot, kinds: Sequence[tuple[str, Spot, Spot]], value: Spot) -> None:
        """The rows that are shown: of all kinds, of each (its key, shown, rows), and the repeat's own value."""
        shown = {index: each[1] for index, each in enumerate(kinds) if each[1] is not ALWAYS}
        if shown:
            flags = ", ".join(f"{index}: {each.code} is True" for index, each in shown.items())
            kept = f"[r for r in {spot.code} if {{{flags}}}.get(r[{ROW_KIND}], True)]"
            self.derived(repeat, "rows", spot, kept, shown.values())
        else:
            self.add(Fact(owner=repeat, name="rows", spot=spot, reads=()))
        for index, (_, _, rows) in enumerate(kinds):
            picked = spot.code if len(kinds) == 1 else f"[r for r in {spot.code} if r[{ROW_KIND}] == {index}]"
            self.derived(repeat, "rows", rows, picked, [spot])
        keys = self._emitter.helper(_Table([key for key, _, _ in kinds]))
        self.derived(repeat, "value", value, f"tuple({keys}.rows[r[{ROW_KIND}]] for r in {spot.code}) or None", [spot])

    def column(self, repeat: str, spot: Spot, all_rows: Spot, cells: dict[int, Spot], rows: dict[int, Spot]) -> None:
        """A column: `cells` and `rows` by the index of the row kind."""
        column = self._emitter.helper(Column)
        if len(cells) == 1:
            ((index, cell),) = cells.items()
            code = f"{column}([r[{cell.slot}] for r in {rows[index].code}])"
        else:
            slots = "{" + ", ".join(f"{index}: {cell.slot}" for index, cell in cells.items()) + "}"
            code = f"{column}([r[{slots}[r[{ROW_KIND}]]] for r in {all_rows.code} if r[{ROW_KIND}] in {slots}])"
        reads = [all_rows, *cells.values(), *(rows[index] for index in cells)]
        self.derived(repeat, "column", spot, code, reads)

    def source(self, order: Iterable[Spot]) -> str:
        """Return the code of all facts in that order, as the function `work_out(v, c, dropped)`."""
        facts = [fact for spot in order if (fact := self.facts.get(spot)) is not None and fact.code]
        lines = ["def work_out(v, c, dropped):", "    pass"]
        for kind, following in groupby(facts, key=lambda fact: fact.spot.kind):
            together = list(following)
            lines += indented(self._loop(kind, together) if kind else self._plain(together))
        return "\n".join(lines) + "\n"

    def _plain(self, facts: Iterable[Fact]) -> list[str]:
        lines: list[str] = []
        for fact in facts:
            if fact.steps < _HEAVY:
                lines += fact.code
            else:
                lines += [f"if {self._emitter.helper(afford)}({fact.steps}):", *indented(fact.code)]
                lines += ["else:", *indented([self._not_afforded(fact)])]
        return lines

    def _loop(self, kind: str, facts: Sequence[Fact]) -> list[str]:
        rows = self.spots.rows[kind].code
        steps = sum(1 + fact.steps for fact in facts)
        return [
            f"if {self._emitter.helper(afford)}(len({rows}) * {steps}):",
            f"    for r in {rows}:",
            *indented(indented(line for fact in facts for line in fact.code)),
            "else:",
            f"    for r in {rows}:",
            *indented(indented(self._not_afforded(fact) for fact in facts)),
        ]

    def _not_afforded(self, fact: Fact) -> str:
        """Return the code that says what stands for a fact where working it out would take too long."""
        if fact.name in ("offered", "barred"):
            return f"{fact.spot.code} = []"
        computed = fact.name == "value" and fact.formula is not None and fact.formula.mark.fact != "default"
        if computed or fact.name in ("discounts", "shipping"):
            return f"{fact.spot.code} = {self._emitter.helper(_TOO_MUCH)}.failed"
        # A condition that failed does not hold; an answer is blank.
        return f"{fact.spot.code} = {'None' if fact.name == 'value' else 'False'}"


_HEAVY = 400  # steps; what takes fewer is not worth looking at


def _steps(*formulas: Formula | None) -> int:
    return sum(formula.steps for formula in formulas if formula is not None)


class _Held:
    """Holds a failed fact, which can't be looked up by itself: whatever is done with it fails."""

    def __init__(self, cause: Failed) -> None:
        self.failed = cause


_TOO_MUCH = _Held(TOO_MUCH)


class _Table:
    """Rows of constants that the code looks things up in."""

    def __init__(self, rows: Sequence[Any]) -> None:
        self.rows = rows


def _raiser(cause: Failed) -> Callable[[], Any]:
    return cause.spread


def _adopter(field_type: Any, block: Any, region: Any) -> Callable[[Any], Any]:
    return lambda value: (
        None if value is None or (value.__class__ is str and not value) else field_type.adopt(value, block, region)
    )


def _not_blank(settle: Callable[[Any], Any]) -> Callable[[Any], Any]:
    # Empty text is blank, as where a person enters it: a calculated number that gives "" is no 0.
    return lambda value: None if value is None or (value.__class__ is str and not value) else settle(value)


def _dropper(field_type: OptionsType[Any]) -> Callable[[Any, Sequence[str], set[str], str], Any]:
    def drop(value: Any, offered: Sequence[str], dropped: set[str], address: str) -> Any:
        kept = field_type.drop(value, offered)
        if kept is not value:
            dropped.add(address)
        return kept

    return drop
