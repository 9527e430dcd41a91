"""From a form to its program: lays its facts out and has their code written."""

from collections.abc import Callable, Collection, Iterable, Iterator, Sequence
from typing import Any

from codexa.core.definition.formulas import Site, sites
from codexa.core.definition.order import Order
from codexa.core.definition.parts import Block, Field, FormulaText, Group, Part, Question, Repeat, RowKind
from codexa.core.definition.payment import Payment
from codexa.core.fields import field_type_of
from codexa.core.fields.options import Optioned
from codexa.core.fields.record_choice import RecordChoiceField
from codexa.core.fields.slot import SlotField
from codexa.core.form.follow_ups import RecordFollowUp
from codexa.core.form.form import FORM, Form, Page
from codexa.core.formula.compile import NOT_COMPILED, can_run, compile_formula, too_complex_to_run
from codexa.core.formula.functions.function import Role
from codexa.core.formula.values import ErrorCode, ErrorValue, Failed
from codexa.core.program.facts import Fact, Formula, in_order
from codexa.core.program.figure_kinds import kind_of
from codexa.core.program.layout import Layout
from codexa.core.program.order_facts import write_order, write_summaries
from codexa.core.program.order_names import ORDER, PAYMENT
from codexa.core.program.places import (
    ALWAYS,
    NEVER,
    Conditions,
    FigurePlace,
    KindPlace,
    PagePlace,
    Place,
    RepeatPlace,
    Spot,
)
from codexa.core.program.program import Program
from codexa.core.program.record_facts import Looking
from codexa.core.program.record_parts import record_scope
from codexa.core.program.scope import AnyScope, option_scope
from codexa.core.program.slot_facts import Offering
from codexa.core.program.templates import Template, template_of
from codexa.core.program.writer import MISSING, Writer

_IN_A_CIRCLE = Failed(ErrorValue(code=ErrorCode.REFERENCE, message="This depends on itself; see the proof."))
# Which page follows, and which rows there are, is decided even in a circle: it is no value that could fail.
_DECIDED = frozenset({"next", "confirmation", "rows"})
_CELL = FormulaText(Role.VALUE, "cell")
_OWN_FACTS = frozenset(
    {"shown", "required", "locked", "value", "default", "check", "offered", "fitting", "next", "confirmation"}
    | {"part", "follow_up"}
    | {"discount", "amount", "shipping", "tax", "payment", "payment_amount"}
    | {"plan", "plan_times", "plan_fee", "plan_first_day"}
)


def compile_form(form: Form) -> Program:
    """Return the program of a form; a form with faults has one too, in which what is wrong is an error value."""
    compiler = _Compiler(form)
    try:
        return compiler.program()
    except NOT_COMPILED:
        # Which formula it is only each by itself can tell; that takes long, and is done only then.
        return _Compiler(form, compiler.broken()).program()


class _Compiler:
    """Walks the form, lays its facts out and has their code written; without formulas that are too complex."""

    def __init__(self, form: Form, too_complex: Collection[tuple[str, str]] = ()) -> None:
        self.form = form
        self.too_complex = too_complex
        self.layout = Layout(form)
        self.formulas: dict[tuple[str, str], Formula] = {}
        self.settings: dict[str, list[str]] = {}
        self.texts: dict[str, dict[str, Template]] = {}
        self.places: dict[str, Place] = {}
        for owner, part, kind in owners(form):
            for site in sites(part):
                self._take(owner, part, site, self._kind_of(part, site, kind))
        self.writer = Writer(form, self.layout.spots, self.formulas)

    def _kind_of(self, part: Part, site: Site, kind: RowKind | None) -> RowKind | None:
        """Return in whose rows a setting is worked out: what becomes of rows sees their fields."""
        if site.mark != _CELL or not isinstance(part, RecordFollowUp):
            return kind
        rows = part.steps[int(site.setting.split(".")[1])].rows
        return next((each for repeat in self.form.repeats() for each in repeat.kinds if each.id == rows), kind)

    def _take(self, owner: str, part: Part, site: Site, kind: RowKind | None) -> None:
        scope: AnyScope = self.layout.scope_of(kind)
        kind_id = "" if kind is None else kind.id
        if isinstance(site.mark, FormulaText):
            # A filter of options sees the option too; which other settings do is said by their mark.
            scope = option_scope(scope) if site.mark.fact == "offered" else scope
            if site.mark.fact == "fitting" and isinstance(part, RecordChoiceField):
                scope = record_scope(scope, self.form, part)
            if "." not in site.setting and site.mark.fact not in _OWN_FACTS:
                self.settings.setdefault(owner, []).append(site.setting)
            compiled = compile_formula(site.text, scope, site.mark.role)
            self.formulas[owner, site.setting] = Formula(
                owner=owner,
                setting=site.setting,
                mark=site.mark,
                compiled=too_complex_to_run(compiled) if (owner, site.setting) in self.too_complex else compiled,
                scope=scope,
                kind=kind_id,
            )
        else:
            template = template_of(site, scope, kind_id)
            if template is not None:
                self.texts.setdefault(owner, {})[site.setting] = template

    def broken(self) -> set[tuple[str, str]]:
        """Return the formulas, by owner and setting, that Python does not take."""
        return {place for place, formula in self.formulas.items() if not can_run(formula.compiled)}

    def program(self) -> Program:
        """Return the program; raises one of NOT_COMPILED where a formula is too complex."""
        pages = self._pages()
        for page in pages:
            self._blocks(page.page.blocks, page.conditions, None, None)
        figures = {
            figure.id: FigurePlace(figure=figure, value=self.layout.spots.values[figure.id])
            for figure in self.form.figures
        }
        for figure in self.form.figures:
            kind_of(figure).write(figure, self.layout.spots.values[figure.id], self.writer)
        if self.layout.order is not None:
            write_order(self.writer, self.layout.order, self.places)
        write_summaries(self.writer, self.layout.order, self.places)
        form_checks = self._checks(FORM, len(self.form.checks), "", ALWAYS)
        confirmation = self._confirmation()
        self._columns()
        facts = self.writer.facts
        order, circles = in_order({spot: fact.reads for spot, fact in facts.items()})
        in_circles = {spot for circle in circles for spot in circle}
        source = self.writer.source(spot for spot in order if spot not in in_circles)
        initial = list(self.layout.spots.initial)
        rows: dict[str, list[Any]] = {kind: [None] * size for kind, size in self.layout.spots.row_sizes.items()}
        for spot in in_circles:
            if facts[spot].name not in _DECIDED:
                (rows[spot.kind] if spot.kind else initial)[spot.slot] = self._in_a_circle(facts[spot])
        self._await_answers(initial, rows, in_circles)
        return Program(
            form=self.form,
            layout=self.layout,
            pages=tuple(pages),
            places=self.places,
            figures=figures,
            form_checks=form_checks,
            confirmation=confirmation,
            order=self.layout.order,
            formulas=tuple(self.formulas.values()),
            facts=facts,
            texts=self.texts,
            initial=tuple(initial),
            initial_rows={kind: tuple(each) for kind, each in rows.items()},
            circles=tuple(tuple(dict.fromkeys(facts[spot].owner for spot in circle)) for circle in circles),
            source=source,
            work_out=self._function(source),
        )

    def _function(self, source: str) -> Callable[[list[Any], Any, set[str]], None]:
        environment = self.writer.environment
        exec(compile(source, "<form>", "exec"), environment)  # noqa: S102 - every name in it is our own (see writer)
        function: Callable[[list[Any], Any, set[str]], None] = environment["work_out"]
        return function

    def _in_a_circle(self, fact: Fact) -> Any:
        if fact.name in ("offered", "barred"):
            return []
        place = self.places.get(fact.owner)
        # A question whose default can't be worked out begins blank, as it does where a default fails.
        return None if fact.name == "value" and place is not None and place.answered else _IN_A_CIRCLE

    def _await_answers(self, initial: list[Any], rows: dict[str, list[Any]], in_circles: set[Spot]) -> None:
        for place in self.places.values():
            waits = place.answered and place.value not in in_circles
            if waits and place.value and (place.block.id, "default") in self.formulas:
                (rows[place.value.kind] if place.value.kind else initial)[place.value.slot] = MISSING

    def _pages(self) -> list[PagePlace]:
        places: list[PagePlace] = []
        for index, page in enumerate(self.form.pages):
            at = self._at(places, index)
            shown = self.writer.condition(page.id, "shown", "", "shown", at, both=True)
            conditions = Conditions(shown=shown, **self._required_and_locked(page.id, "", NEVER, NEVER))
            following = self._following(page, index, shown)
            places.append(PagePlace(page=page, index=index, conditions=conditions, at=at, following=following))
        return places

    def _required_and_locked(self, owner: str, kind: str, required: Spot, locked: Spot) -> dict[str, Spot]:
        return {
            "required": self.writer.condition(owner, "required", kind, "required", required, both=False),
            "locked": self.writer.condition(owner, "locked", kind, "locked", locked, both=False),
        }

    def _at(self, before: Sequence[PagePlace], index: int) -> Spot:
        """Return where it stands whether the path comes past this page: from the one before, or by a rule's jump."""
        if index == 0:
            return ALWAYS
        if before[-1].at is ALWAYS and all(page.following is None for page in before):
            return ALWAYS
        ways, reads = [], []
        for page in before:
            leads_here = page.index == index - 1 or self.form.pages[index].id in {rule.to for rule in page.page.next}
            if not leads_here:
                continue
            if page.following is None:
                ways.append(f"{page.at.code} is True")
            else:
                ways.append(f"({page.at.code} is True and {page.following.code} == {index})")
                reads.append(page.following)
            reads.append(page.at)
        page_id = self.form.pages[index].id
        return self.writer.derived(page_id, "at", self.layout.spots.new(), " or ".join(ways), reads)

    def _following(self, page: Page, index: int, shown: Spot) -> Spot | None:
        targets = {each.id: place for place, each in enumerate(self.form.pages)} | {"": len(self.form.pages)}
        # A rule that leads back or nowhere is passed over here, and is a finding of the proof.
        known = [
            (self.writer.formula(page.id, f"next.{at}.when"), targets[rule.to])
            for at, rule in enumerate(page.next)
            if targets.get(rule.to, -1) > index
        ]
        if not known:
            return None
        return self.writer.first_that_holds(page.id, "next", known, otherwise=index + 1, only=shown)

    def _blocks(
        self, blocks: Iterable[Block], around: Conditions, kind: RowKind | None, repeat: Repeat | None
    ) -> list[Place]:
        places: list[Place] = []
        for block in blocks:
            kind_id = "" if kind is None else kind.id
            shown = self.writer.condition(block.id, "shown", kind_id, "shown", around.shown, both=True)
            own = self._required_and_locked(block.id, kind_id, around.required, around.locked)
            conditions = Conditions(shown=shown, **own)
            place = self._place(block, conditions, kind, repeat)
            self.places[block.id] = place
            places.append(place)
            if (asked := self.layout.asked_shown.get(block.id)) is not None:
                self.writer.derived(block.id, "is_shown", asked, f"{shown.code} is True", [shown])
            if isinstance(block, Group):
                places += self._blocks(block.blocks, conditions, kind, repeat)
            elif isinstance(place, RepeatPlace):
                for each in place.kinds:
                    self.places |= {inner.block.id: inner for inner in each.places}
        return places

    def _place(self, block: Block, conditions: Conditions, kind: RowKind | None, repeat: Repeat | None) -> Place:
        kind_id = "" if kind is None else kind.id
        known: dict[str, Any] = {"block": block, "conditions": conditions}
        known |= {"kind": kind, "repeat": repeat, "value": self.layout.spots.values.get(block.id)}
        if isinstance(block, Repeat):
            return self._repeat(block, known)
        if isinstance(block, Group | Question):
            known["checks"] = self._checks(block.id, len(block.checks), kind_id, conditions.shown)
        if isinstance(block, Optioned):
            known |= {"offered": self.writer.options(block, kind_id), "barred": self.writer.barred(block, kind_id)}
        known["settings"] = {
            setting: spot
            for setting in self.settings.get(block.id, ())
            if (spot := self.writer.setting(block.id, setting, kind_id, setting)) is not None
        }
        if isinstance(block, RecordChoiceField):
            return self._record_choice(block, known)
        if isinstance(block, SlotField):
            return self._slot(block, known)
        if isinstance(block, Field):
            place = Place(field_type=field_type_of(block), **known)
            if isinstance(block, Question):
                self.writer.answer(place, keep=block.keep_when_hidden, follows=block.default_follows)
            else:
                self.writer.computed(place)
            return place
        return Place(**known)

    def _record_choice(self, block: RecordChoiceField, known: dict[str, Any]) -> Place:
        found = self.layout.spots.new("" if known["kind"] is None else known["kind"].id)
        place = Place(field_type=field_type_of(block), found=found, **known)
        used = frozenset(self.layout.asked_parts.get(block.id, ()))
        looking = Looking(self.form, block, self.formulas.get((block.id, "fitting")), used)
        self.writer.records(place, looking, keep=block.keep_when_hidden, follows=block.default_follows)
        return place

    def _slot(self, block: SlotField, known: dict[str, Any]) -> Place:
        kind_id = "" if known["kind"] is None else known["kind"].id
        by = self.layout.spots.values.get(block.by)
        by = by if by is not None and by.kind in ("", kind_id) else None
        place = Place(field_type=field_type_of(block), found=self.layout.spots.new(kind_id), **known)
        self.writer.slots(
            place, Offering(block, self.form.time_zone), by, keep=block.keep_when_hidden, follows=block.default_follows
        )
        return place

    def _checks(self, owner: str, count: int, kind: str, shown: Spot) -> tuple[Spot, ...]:
        # One for each check, in their order: a check that says nothing yet always holds.
        return tuple(
            self.writer.condition(owner, f"checks.{index}.formula", kind, f"check.{index}", shown, both=True)
            if (owner, f"checks.{index}.formula") in self.formulas
            else ALWAYS
            for index in range(count)
        )

    def _repeat(self, block: Repeat, known: dict[str, Any]) -> RepeatPlace:
        all_rows = self.layout.spots.rows[block.id]
        kinds = [self._kind(block, kind, index, known["conditions"]) for index, kind in enumerate(block.kinds)]
        value = known["value"]
        shown = [(each.kind.key, each.conditions.shown, each.rows) for each in kinds]
        self.writer.rows(block.id, all_rows, shown, value)
        checks = self._checks(block.id, len(block.checks), "", known["conditions"].shown)
        return RepeatPlace(kinds=tuple(kinds), all_rows=all_rows, **(known | {"checks": checks}))

    def _kind(self, repeat: Repeat, kind: RowKind, index: int, around: Conditions) -> KindPlace:
        shown = self.writer.condition(kind.id, "shown", "", "shown", around.shown, both=True)
        # A required kind wants a row, not an answer in each of its fields.
        own = self._required_and_locked(kind.id, "", NEVER, around.locked)
        conditions = Conditions(shown=shown, **own)
        inside = Conditions(shown=shown, required=NEVER, locked=conditions.locked)
        places = self._blocks(kind.blocks, inside, kind, repeat)
        checks = self._checks(kind.id, len(kind.checks), kind.id, shown)
        return KindPlace(
            kind=kind,
            index=index,
            conditions=conditions,
            rows=self.layout.spots.rows[kind.id],
            places=tuple(places),
            checks=checks,
        )

    def _confirmation(self) -> Spot | None:
        if not self.form.confirmations:
            return None
        choices = [(self.formulas.get((each.id, "when")), index) for index, each in enumerate(self.form.confirmations)]
        return self.writer.first_that_holds(FORM, "confirmation", choices, otherwise=-1)

    def _columns(self) -> None:
        for spot, repeat, cells in self.layout.columns.values():
            index_of = {kind.id: index for index, kind in enumerate(repeat.kinds)}
            rows = {index: self.layout.spots.rows[kind] for kind, index in index_of.items()}
            by_index = {index_of[kind]: cell for kind, cell in cells.items()}
            self.writer.column(repeat.id, spot, self.layout.spots.rows[repeat.id], by_index, rows)


_ASIDE = ("tables", "pages", "figures", "parts", "confirmations", "follow_ups")  # of the form: owners of their own


def owners(form: Form) -> Iterator[tuple[str, Part, RowKind | None]]:
    """Yield everything that has formulas or texts: its id, itself, and the row kind in which it is worked out."""
    for page in form.pages:
        yield page.id, page, None
    for block, kind in form.blocks_and_kinds():
        yield block.id, _without_kinds(block), kind
        if isinstance(block, Repeat):
            for each in block.kinds:
                yield from _kind_owners(each)
    for figure in form.figures:
        yield figure.id, figure, None
    for confirmation in form.confirmations:
        yield confirmation.id, confirmation, None
    for part in form.parts:
        yield part.id, part, None
    for follow_up in form.follow_ups:
        yield follow_up.id, follow_up, None
    yield ORDER, form.order, None
    yield PAYMENT, form.payment, None
    beside: dict[str, Any] = dict.fromkeys(_ASIDE, ())
    yield FORM, form.model_copy(update=beside | {"order": Order(), "payment": Payment()}), None


def _kind_owners(kind: RowKind) -> Iterator[tuple[str, Part, RowKind | None]]:
    # Whether a kind is shown is one fact of the form; its checks are looked at in each of its rows.
    yield kind.id, kind.model_copy(update={"checks": (), "blocks": ()}), None
    yield kind.id, kind.model_copy(update={"blocks": (), "shown": "", "required": "", "locked": "", "label": ""}), kind


def _without_kinds(block: Block) -> Block:
    return block.model_copy(update={"kinds": ()}) if isinstance(block, Repeat) else block
