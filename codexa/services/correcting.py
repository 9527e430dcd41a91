"""Correcting a response: its answers are given anew in the form's own edition, compared, and kept with a trail.

Everything is worked out as it was when the response came: at that moment, with what its link brought.
"""

import hashlib
from collections.abc import Callable, Mapping
from dataclasses import dataclass, replace
from decimal import Decimal
from typing import Any
from uuid import UUID, uuid4

import orjson

from codexa.core.context import EVERYBODY, FILLING_IN, NOBODY, NOTHING_TAKEN, Context
from codexa.core.fields.field_type import Medium
from codexa.core.fields.options import OTHER, Option, find_option
from codexa.core.look_ups import NO_TABLES, Tables
from codexa.core.program.accept import Accepted, Refused, accept, numbered
from codexa.core.program.claims import Claim
from codexa.core.program.evaluate import FieldError, State, evaluate
from codexa.core.program.faces import FormFace
from codexa.core.program.kept import entered_as_it_was, state_of_kept
from codexa.core.program.kept_records import kept_tables
from codexa.core.program.offers import Sought, offered_at
from codexa.core.program.order import money
from codexa.core.program.parts import seen_answers, unseen_parts
from codexa.core.program.payment import major_units, payment_due
from codexa.core.program.program import Program
from codexa.core.program.public import form_face, form_state
from codexa.core.program.slot_offers import slots_held
from codexa.services import brands
from codexa.services.answering import Given
from codexa.services.bookings.booking import keep_booking
from codexa.services.errors import CorrectedMeanwhileError, CorrectionRefusedError, NotFoundError
from codexa.services.files_in_answers import files_in, with_ids, with_own_files
from codexa.services.follow_ups.keeping import Happened, keep_corrected
from codexa.services.form_columns import source_id
from codexa.services.own_pages import OwnPages
from codexa.services.payments.settling import Way
from codexa.services.response_grid import ResponseTable
from codexa.services.tables.looking_up import tables_for, tables_in
from codexa.store import claims, payments, responses, uploads
from codexa.store import editions as editions_store
from codexa.store.database import Connection
from codexa.store.payments import PaymentRow
from codexa.store.responses import ResponseRow

Then = Callable[[Connection, State], None]
_WHOLE = "whole"  # all of the form at once, however visitors see it


def _nothing_more(_connection: Connection, _state: State) -> None:
    return


@dataclass(frozen=True, kw_only=True, slots=True)
class Opened:
    """A response to be corrected: its answers as they were entered, and what tells whether it is still the same."""

    answers: dict[str, Any]
    version: str


@dataclass(frozen=True, kw_only=True, slots=True)
class Change:
    """What a correction changes in a column, in words; "" for a blank."""

    column: str
    label: str
    before: str
    after: str
    calculated: bool


@dataclass(frozen=True, kw_only=True, slots=True)
class Wrong:
    """What is wrong with an answer, and under which label."""

    label: str
    message: str


@dataclass(frozen=True, kw_only=True, slots=True)
class Difference:
    """What a correction would change, or what keeps it from being saved; `paid` is what that means for the payment."""

    changes: list[Change]
    wrong: list[Wrong]
    paid: str


@dataclass(frozen=True, kw_only=True, slots=True)
class Correcting:
    """A response of a form of the team that a person of it corrects, or its visitor (None).

    `at_part` is the part of the form that is open to them; what is closed stays as it was, whatever is sent.
    """

    way: Way
    team: UUID
    person: UUID | None
    form: UUID
    number: int
    at_part: str = EVERYBODY

    def opened(self) -> Opened:
        """Return what is to be corrected. Raises NotFoundError, CorrectionRefusedError."""
        row = self._find()
        program = self._program(row)
        unseen = program.owners_in(unseen_parts(program.form, self._context(program, row, NOTHING_TAKEN)))
        return Opened(answers=seen_answers(_entered(program, row), unseen), version=_version(row))

    def page(self) -> tuple[FormFace, dict[str, Any], int]:
        """Return the form that was filled in, its first state, and which edition it is. Raises as `opened` does."""
        row = self._find()
        program = self._program(row)
        look = brands.as_visitors_see_it(self.way.connect, program.form, form_id=self.form)
        # It stays in the language in which it was filled in.
        with tables_for(self.way.connect, self.form) as tables:
            state = evaluate(program, {}, self._context(program, row, NOTHING_TAKEN, tables))
        face = form_face(program, state.unseen).model_copy(update={"brand": look, "languages": ()})
        return face, form_state(state), row.edition

    def state(self, given: Given, changed: list[str] | None) -> dict[str, Any]:
        """Return what the form's state is with these answers; with `changed`, only what hangs on these blocks."""
        row = self._find()
        program = self._program(row)
        with self.way.connect() as connection:
            taken = self._taken(connection, program)
            answers = self._with_files(connection, program, row, given.answers)
        with tables_for(self.way.connect, self.form) as tables:
            state = evaluate(program, answers, self._context(program, row, taken, tables))
        return form_state(state, None if changed is None else program.affected(changed), given.checked)

    def offers(self, given: Given, sought: Sought) -> dict[str, Any]:
        """Return what a question offers with these answers: records that words find, or slots from a day on."""
        row = self._find()
        program = self._program(row)
        with self.way.connect() as connection:
            taken = self._taken(connection, program)
        with tables_for(self.way.connect, self.form) as tables:
            return offered_at(evaluate(program, given.answers, self._context(program, row, taken, tables)), sought)

    def compare(self, answers: Mapping[str, Any]) -> Difference:
        """Return what these answers would change. Raises as `opened` does."""
        ready = self._ready()
        with self.way.connect() as connection:
            result = self._accepted(connection, ready, answers)
            paid = payments.find_payment(connection, form=self.form, number=self.number)
        return _difference(ready, result, paid)

    def save(self, answers: Mapping[str, Any], *, version: str, because: str, then: Then = _nothing_more) -> Difference:
        """Keep these answers in the place of the former ones, which its events keep; return what was changed.

        Nothing is kept where something is wrong. Claims move with what is ordered, and reminders and entries in
        calendars with its days; payments and mails stay as they are.
        What is to be done `then`, with the new state, is done in the same transaction.
        Raises CorrectedMeanwhileError where the response is not of that version any more, NotFoundError,
        CorrectionRefusedError.
        """
        ready = self._ready()
        if _version(ready.row) != version:
            raise CorrectedMeanwhileError
        return self._keep(ready, answers, because, then)

    def refused(self, answers: Mapping[str, Any]) -> Refused | None:
        """Return what is wrong with these answers by address, None where nothing is. Raises as `opened` does."""
        ready = self._ready()
        with self.way.connect() as connection:
            result = self._accepted(connection, ready, answers)
        return result if isinstance(result, Refused) else None

    def choose(self, column: str, *, was: str, to: str) -> None:
        """Give one choice another option ("" for none), as on a board.

        Raises CorrectedMeanwhileError where it is not the one that was seen, CorrectionRefusedError where the answers
        would not be right any more, NotFoundError.
        """
        block, ready = source_id(column), self._ready()
        place = ready.program.places.get(block)
        if place is None or place.kind is not None or not place.answered:
            raise CorrectionRefusedError(f"Response {self.number} was given to an edition without this field.")
        answers = _entered(ready.program, ready.row)
        options = getattr(place.block, "options", ())
        now = _code(options, answers.get(block))
        if now == to:
            return
        if now != was:
            raise CorrectedMeanwhileError
        wanted = find_option(options, to) if to else None
        if to and wanted is None:
            raise CorrectionRefusedError(f"Response {self.number} can't be moved there. Correct its answer instead.")
        wrong = self._keep(ready, answers | {block: wanted.id if wanted else None}, "").wrong
        if wrong:
            told = f"{wrong[0].label}: {wrong[0].message}"
            raise CorrectionRefusedError(f"Response {self.number} can't be moved there. {told}")

    def _context(
        self, program: Program, row: ResponseRow, taken: Mapping[str, int], tables: Tables = NO_TABLES
    ) -> Context:
        context = _context(program, row, taken, tables)
        if not program.form.parts:
            return context
        return replace(context, at_part=self.at_part, others=_entered(program, row))

    def _find(self) -> ResponseRow:
        with self.way.connect() as connection:
            return _correctable(responses.find_response(connection, team=self.team, form=self.form, number=self.number))

    def _ready(self) -> "_Ready":
        """Return the response with what reads it, so that nothing else is looked up while it is kept from others."""
        row = self._find()
        with self.way.connect() as connection:
            numbers = editions_store.numbers_of_form(connection, team=self.team, form=self.form) or []
        table = ResponseTable(self.way.editions, form=self.form, numbers=numbers)
        table.cells(row, Medium.PAGE)
        return _Ready(row=row, program=self._program(row), table=table)

    def _program(self, row: ResponseRow) -> Program:
        # Of a part the form's own people read it, of all else who filled it in.
        language = row.told["locale"] if self.at_part in (EVERYBODY, FILLING_IN) else ""
        return self.way.editions.program(self.form, row.edition, shown=_WHOLE, language=language)

    def program(self) -> Program:
        """Return the form that was filled in, for files that are added. Raises as `opened` does."""
        return self._program(self._find())

    @property
    def visit(self) -> str:
        """The visit on which files are added, which no visitor can name."""
        return f"correction {self.number}"

    def _with_files(
        self, connection: Connection, program: Program, row: ResponseRow, answers: Mapping[str, Any]
    ) -> dict[str, Any]:
        return with_own_files(connection, program, answers, kept=row.answers, form=self.form, visit=self.visit)

    def _taken(self, connection: Connection, program: Program) -> dict[str, int]:
        """Return how much others have of what runs out."""
        if not program.runs_out:
            return {}
        own = claims.of_response(connection, form=self.form, number=self.number)
        has = {name: each.quantity for name, each in own.items() if each.waiting_since is None}
        taken = claims.taken(connection, form=self.form)
        return {name: count - has.get(name, 0) for name, count in taken.items()}

    def _accepted(self, connection: Connection, ready: "_Ready", answers: Mapping[str, Any]) -> Accepted | Refused:
        known = self._with_files(connection, ready.program, ready.row, answers)
        taken = self._taken(connection, ready.program)
        context = self._context(ready.program, ready.row, taken, tables_in(connection, self.form))
        result = accept(ready.program, known, context)
        return result if isinstance(result, Refused) else numbered(result, self.number)

    def _keep(
        self, ready: "_Ready", answers: Mapping[str, Any], because: str, then: Then = _nothing_more
    ) -> Difference:
        with self.way.connect() as connection:
            now = responses.lock_response(connection, team=self.team, form=self.form, number=self.number)
            if _version(_correctable(now)) != _version(ready.row):
                raise CorrectedMeanwhileError
            result = self._accepted(connection, ready, answers)
            paid = payments.find_payment(connection, form=self.form, number=self.number)
            found = _difference(ready, result, paid)
            if isinstance(result, Refused):
                return found
            if not found.changes:
                then(connection, result.state)
                return found
            ordered: tuple[Claim, ...] = () if ready.row.test else result.state.claims
            if claims.move(connection, form=self.form, number=self.number, claims=ordered) is not None:
                raise CorrectionRefusedError("Somebody has just taken what was left of it. Look again what there is.")
            keep_booking(connection, self.form, self.number, result.state)
            self._claim_files(connection, ready, result)
            changes = [{"label": each.label, "before": each.before, "after": each.after} for each in found.changes]
            former = {"answers": ready.row.answers, "computed": ready.row.computed}
            responses.correct(
                connection,
                form=self.form,
                number=self.number,
                answers=result.answers,
                computed=result.computed,
                path=result.path,
                confirmation=result.confirmation,
                person=self.person,
                trail={"changes": changes, "because": because, **former},
            )
            if not (ready.row.test or ready.row.booking == "cancelled" or ready.row.decision == "denied"):
                event = Happened(form=self.form, number=self.number, moments=(), which=uuid4().hex)
                before = state_of_kept(ready.program, ready.row.answers, result.state.context)
                keep_corrected(connection, before, result.state, event, OwnPages(settings=self.way.settings))
            then(connection, result.state)
        return found

    def _claim_files(self, connection: Connection, ready: "_Ready", result: Accepted) -> None:
        """Tie the files that were added to the response; those that it has no more stay with its trail."""
        own, now = (files_in(ready.program, each) for each in (ready.row.answers, result.answers))
        before = {each for files in own.values() for each in files}
        added = {each for files in now.values() for each in files} - before
        if added and uploads.lock_uploads(connection, form=self.form, ids=added) != added:
            raise CorrectionRefusedError("A file is not here any more. Remove it, and add it again.")
        uploads.claim_uploads(connection, form=self.form, number=self.number, ids=added)


@dataclass(frozen=True, kw_only=True, slots=True)
class _Ready:
    """A response with its edition's program, and the table that reads it."""

    row: ResponseRow
    program: Program
    table: ResponseTable


def _code(options: tuple[Option, ...], answer: Any) -> str:
    """Return the code of a choice as it is entered: "" for none, OTHER for a visitor's own words."""
    if answer is None:
        return ""
    option = find_option(options, answer) if isinstance(answer, str) else None
    return option.code if option else OTHER


def _entered(program: Program, row: ResponseRow) -> dict[str, Any]:
    return with_ids(program, entered_as_it_was(program, row.answers, _context(program, row, NOTHING_TAKEN)))


def _context(program: Program, row: ResponseRow, taken: Mapping[str, int], tables: Tables = NO_TABLES) -> Context:
    context = Context.from_json(row.told, number=row.number)
    kept = kept_tables(program, row.answers, tables)
    held = slots_held(state_of_kept(program, row.answers, context)) if program.has_slots else NOBODY
    return replace(context, locale=program.form.locale, taken=taken, tables=kept, held=held)


def _difference(ready: _Ready, result: Accepted | Refused, paid: PaymentRow | None) -> Difference:
    if isinstance(result, Refused):
        wrong = [_wrong(ready.program, address, error) for address, error in result.errors.items()]
        wrong += [Wrong(label=each, message="This edition has no such field.") for each in result.unknown]
        return Difference(changes=[], wrong=wrong, paid="")
    corrected = replace(ready.row, answers=result.answers, computed=result.computed)
    before, after = (ready.table.cells(each, Medium.PAGE) for each in (ready.row, corrected))
    changes = [
        Change(
            column=each.id,
            label=each.label,
            before=before.get(each.id, ""),
            after=after.get(each.id, ""),
            calculated=each.calculated,
        )
        for each in ready.table.columns
        if before.get(each.id, "") != after.get(each.id, "")
    ]
    return Difference(changes=changes, wrong=[], paid=_about_payment(result.state, paid))


def _correctable(row: ResponseRow | None) -> ResponseRow:
    """Return a response that may be corrected. Raises NotFoundError, CorrectionRefusedError."""
    if row is None:
        raise NotFoundError
    match row.stage:
        case "complete" | "expired":
            return row
        case "kept":
            raise CorrectionRefusedError("This visitor still fills in the form; there is nothing to correct yet.")
        case "removed":
            raise CorrectionRefusedError("This response was removed. Bring it back first.")
        case _:
            raise CorrectionRefusedError(
                "This response waits: for its payment, or for somebody to let it through. Correct it after that."
            )


def _version(row: ResponseRow) -> str:
    return hashlib.sha256(orjson.dumps([row.answers, row.computed], option=orjson.OPT_SORT_KEYS)).hexdigest()[:32]


def _wrong(program: Program, address: str, error: FieldError) -> Wrong:
    place = program.places.get(address.rsplit("/", 1)[-1])
    label = "" if place is None else str(getattr(place.block, "label", ""))
    return Wrong(label=label or address, message=error.message)


def _about_payment(state: State, paid: PaymentRow | None) -> str:
    """Return how far a payment is from what would be due by these answers; "" where they are the same, or none is."""
    if paid is None or paid.state != "paid":
        return ""
    due = payment_due(state)
    was, now = major_units(paid.amount, paid.currency), Decimal(0) if due is None else due.amount
    if was == now:
        return ""
    region = state.program.region
    told = f"{money(was, region)} was paid; by these answers it would be {money(now, region)}."
    return f"{told} The payment stays as it is: settle the difference with the payer, or refund it in Payment."
