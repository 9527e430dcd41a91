"""Taking a response: what answers point to is looked up, the core accepts, what runs out is claimed, all is kept.

One transaction from the first step to the last: what the core was told is what is kept.
"""

import hashlib
import json
from collections.abc import Collection, Iterator, Mapping
from dataclasses import dataclass, field
from datetime import UTC, datetime, timedelta
from typing import Any
from uuid import UUID

from codexa.core.context import NOBODY, NOTHING_TAKEN, Context
from codexa.core.definition.payment import Payment
from codexa.core.form.follow_ups import Moment
from codexa.core.program.accept import Accepted, Refused, accept, numbered
from codexa.core.program.claim_names import PERSON_OF_SLOTS
from codexa.core.program.claims import Claim
from codexa.core.program.evaluate import FieldError, State
from codexa.core.program.faces import ConfirmationFace
from codexa.core.program.follow_ups.account import addresses_of_accounts
from codexa.core.program.kept import state_of_kept
from codexa.core.program.payment import PaymentDue, minor_units, payment_due
from codexa.core.program.program import Program
from codexa.core.program.public import confirmation_face
from codexa.core.program.record_offers import changed_since
from codexa.core.sentences import Sentence, in_language
from codexa.core.tables.members import compared_email
from codexa.services.admission import Terms, closed_words, full_words
from codexa.services.answering import Given
from codexa.services.bookings.booking import booking_of
from codexa.services.context import context_of
from codexa.services.continuing import digest_of as kept_digest
from codexa.services.errors import (
    AccountGoneError,
    ClosedError,
    KeepingRefusedError,
    KeyReusedError,
    SealError,
    TermsChangedError,
    TooBusyError,
)
from codexa.services.files_in_answers import files_in, with_files
from codexa.services.follow_ups.keeping import Happened, keep_due
from codexa.services.own_pages import OwnPages
from codexa.services.sealing import Sealed
from codexa.services.tables.looking_up import tables_in
from codexa.store import access as access_store
from codexa.store import claims, kept_answers, members, payments, people, responses
from codexa.store import uploads as uploads_store
from codexa.store.database import Connection, Rollback
from codexa.store.kept_answers import KeptRow
from codexa.store.responses import NOT_TOLD, Kept

# The names of claims beside those of what is ordered.
_ALL, _LINK = "responses", "link:"
# What happens to a response when nothing is due: it is handed in and complete at once; else it waits for the money.
_FIRST_EVENTS: tuple[Moment, ...] = ("handed in", "complete")
_FIRST_EVENTS_WAITING = ("handed in", "payment asked")
_FIRST_EVENTS_HELD = ("handed in", "held")
_AS_JSON = json.JSONEncoder(sort_keys=True, default=str).encode
_LOOKS = 3  # at what is left, where others take of it at the same moment
# What these set off, and what they let wait for a day.
_FIRST_MOMENTS: tuple[Moment, ...] = (*_FIRST_EVENTS, "day")
_FIRST_MOMENTS_WAITING: tuple[Moment, ...] = ("handed in",)


@dataclass(frozen=True, kw_only=True, slots=True)
class Received:
    """A response was kept; `repeated` where it had been kept before."""

    number: int
    repeated: bool
    confirmation: ConfirmationFace


@dataclass(frozen=True, kw_only=True, slots=True)
class Incoming:
    """A response on its way in: to which edition of which form, under which key, and what the visitor gave.

    `came` is how it came, `sealed` the link that it came by, `suspected` why it may be a machine's, by name; `seen` are
    the stamps of chosen records as the visitor saw them; `kept` is
    the private token of answers that were kept for later, "" where there were none.
    """

    form: UUID
    edition: int
    key: str
    given: Given
    came: Mapping[str, Any] = field(default_factory=lambda: NOT_TOLD)
    sealed: Sealed | None = None
    seen: Mapping[str, str] = field(default_factory=lambda: NOT_TOLD)
    kept: str = ""
    suspected: tuple[str, ...] = ()
    pages: OwnPages | None = None

    @property
    def digest(self) -> bytes:
        """What tells whether the same key comes with other answers."""
        content = [self.edition, self.given.answers, self.given.link]
        content += [] if self.sealed is None else [self.sealed.id]
        return hashlib.sha256(_AS_JSON(content).encode()).digest()


def receive(
    connection: Connection,
    program: Program,
    incoming: Incoming,
    *,
    terms: Terms | None = None,
    at: datetime | None = None,
) -> Received | Refused:
    """Keep a response once, however often it is sent under its key, or return what is wrong with it.

    A repeat gets what the first got. `terms` say who may fill in the form, as it was known; without them anybody may.
    `at` is another moment than now, for demo data. Raises KeyReusedError where the key was used with other answers,
    ClosedError where the form is gone or takes no more, SealError where its link was used, KeepingRefusedError where
    what was kept for later was handed in already, TermsChangedError where something else holds than `terms` say.
    """
    result = _take_as_allowed(connection, program, incoming, terms, at)
    if isinstance(result, Received):
        return result
    # What can't be kept may have been kept already: by the same request, sent before or at the same moment.
    is_open, kept = responses.find_by_key(connection, form=incoming.form, key=incoming.key)
    if kept is not None:
        return _repeated(program, kept, incoming)
    if isinstance(result, ClosedError | SealError | KeepingRefusedError):
        raise result
    if result is not None and is_open:
        return result
    if terms is None or not is_open:
        raise ClosedError
    raise TermsChangedError


def _take_as_allowed(
    connection: Connection, program: Program, incoming: Incoming, terms: Terms | None, at: datetime | None
) -> Received | Refused | ClosedError | SealError | KeepingRefusedError | None:
    """Take the response where the form takes any; what keeps it from that is returned."""
    words = None if terms is None else closed_words(terms, datetime.now(UTC))
    if words is not None:
        return ClosedError(words)
    if incoming.sealed is not None and incoming.sealed.refused:
        return _refused_link(program, incoming.sealed.refused)
    stands_as = _kept(connection, incoming)
    if stands_as is not None and stands_as.stage != "kept":
        return KeepingRefusedError(program.form.say("laterHandedIn"))
    try:
        return _claim_and_take(connection, program, incoming, terms, at)
    except _FullError as full:
        return _told_full(program, incoming, terms, full.name)


def _told_full(
    program: Program, incoming: Incoming, terms: Terms | None, name: str
) -> Refused | ClosedError | SealError:
    """Return what a visitor is told who wants more than one may have, by the name of the claim."""
    if name.startswith(PERSON_OF_SLOTS):
        error = FieldError(code="slot_each", message=program.form.say("slot_each"))
        return Refused(errors={name.split(":")[1]: error})
    assert terms is not None
    if name == _ALL:
        return ClosedError(full_words(terms))
    if name.startswith(_LINK):
        return _refused_link(program, "linkUsed")
    if name == incoming.given.visitor.claim:
        return ClosedError(program.form.say("onceEach"))
    message = program.form.say("each_full")
    return Refused(errors={terms.access.each: FieldError(code="each_full", message=message)})


def _refused_link(program: Program, name: str) -> SealError:
    return SealError(name, program.form.say(name))


def _kept(connection: Connection, incoming: Incoming) -> KeptRow | None:
    """Return what was kept for later of this response; None where nothing was, or it is there no more."""
    found = kept_answers.find(connection, digest=kept_digest(incoming.kept)) if incoming.kept else None
    return found if found is not None and found.form_id == incoming.form else None


class _GoneError(Exception):
    """Something that runs out went to somebody else between the look at what is left and taking it."""


class _FullError(Exception):
    """There are as many responses as may be: in all, of one person, or by one link."""

    def __init__(self, name: str) -> None:
        self.name = name
        super().__init__(name)


def _claim_and_take(
    connection: Connection, program: Program, incoming: Incoming, terms: Terms | None, at: datetime | None
) -> Received | Refused | None:
    """Take the response with what it claims, or nothing of either."""
    for _ in range(_LOOKS):
        try:
            return _take_whole(connection, program, incoming, terms, at)
        except _GoneError:
            continue  # looked at again, what is left is told
    raise TooBusyError


def _take_whole(
    connection: Connection, program: Program, incoming: Incoming, terms: Terms | None, at: datetime | None
) -> Received | Refused | None:
    if not program.runs_out and not _is_counted(incoming, terms):
        return _take(connection, program, incoming, terms, at)
    with connection.transaction() as step:
        result = _take(connection, program, incoming, terms, at)
        if not isinstance(result, Received):
            raise Rollback(step)
    return result


def _is_held(incoming: Incoming, due: PaymentDue | None) -> bool:
    """Whether the team looks at a response before it counts; who pays is a person."""
    return bool(incoming.suspected) and due is None


def _is_counted(incoming: Incoming, terms: Terms | None) -> bool:
    """Whether a response counts towards a limit."""
    limited = terms is not None and (
        terms.access.most is not None or terms.access.most_each is not None or terms.access.once
    )
    return limited or (incoming.sealed is not None and incoming.sealed.uses is not None)


def _counted(connection: Connection, incoming: Incoming, terms: Terms | None, accepted: Accepted) -> Iterator[Claim]:
    """Yield what a response claims beside what it orders: its place in all, its person's, and a use of its link."""
    if terms is not None and (most := terms.access.most) is not None:
        yield Claim(name=_ALL, quantity=1, capacity=most, block="")
    if terms is not None and (most := terms.access.most_each) is not None:
        each = terms.access.each
        answer = accepted.answers.get(each)
        if answer is not None:
            name = access_store.name_of_person(connection, each=each, answer=answer)
            yield Claim(name=name, quantity=1, capacity=most, block=each)
    if terms is not None and terms.access.once and (mine := incoming.given.visitor.claim):
        yield Claim(name=mine, quantity=1, capacity=1, block="")
    if incoming.sealed is not None and incoming.sealed.uses is not None:
        yield Claim(name=f"{_LINK}{incoming.sealed.id}", quantity=1, capacity=incoming.sealed.uses, block="")


def _take(
    connection: Connection, program: Program, incoming: Incoming, terms: Terms | None, at: datetime | None
) -> Received | Refused | None:
    """Accept, claim and keep; None where the form can't be answered any more, or the key has stood for a response."""
    given = incoming.given
    answers = with_files(connection, program, incoming.form, given.visit, given.answers)
    form = program.form
    team = people.addresses(connection, form=incoming.form, ids=form.people) if form.people else NOBODY
    taken = claims.taken(connection, form=incoming.form, at=at) if program.runs_out else NOTHING_TAKEN
    tables = tables_in(connection, incoming.form)
    context = context_of(form, given.link, at=at, people=team, taken=taken, tables=tables, visitor=given.visitor)
    accepted = accept(program, answers, context)
    if isinstance(accepted, Accepted) and (changed := changed_since(accepted.state, incoming.seen)):
        return Refused(errors=changed)
    if isinstance(accepted, Refused):
        return accepted
    if terms is not None and (known := _known_member(connection, terms, incoming, accepted.state)):
        return Refused(errors=known)
    # What came at another moment is made up: nothing is asked for it, and nobody is written to about it.
    due = payment_due(accepted.state) if at is None else None
    # A try takes nothing from visitors.
    is_try = due is not None and form.payment.practice
    claimed = () if is_try else (*accepted.state.claims, *_counted(connection, incoming, terms, accepted))
    gone_claim = claims.take(connection, form=incoming.form, claims=claimed)
    if gone_claim is not None:
        ordered = {each.name for each in accepted.state.claims if not each.name.startswith(PERSON_OF_SLOTS)}
        raise _GoneError if gone_claim in ordered else _FullError(gone_claim)
    files = files_in(program, accepted.answers)
    if (gone := _claimed_elsewhere(connection, incoming.form, files)) is not None:
        message = in_language(_FILE_GONE, form.locale)
        return Refused(errors={gone: FieldError(code="not_files", message=message)})
    turn = None if terms is None else terms.turn
    ids = [each for of_field in files.values() for each in of_field]
    kept = _keep(connection, incoming, accepted, files=ids, due=due, turn=turn)
    if kept is None:
        return None
    number, state = kept
    state = _with_own_page(incoming, state)
    claims.keep(connection, form=incoming.form, number=number, claims=claimed)
    if due is not None:
        _ask_for(connection, incoming.form, number, due, form.payment)
    if at is None and not _is_held(incoming, due):
        moments = _FIRST_MOMENTS if due is None else _FIRST_MOMENTS_WAITING
        event = Happened(form=incoming.form, number=number, moments=moments)
        keep_due(connection, state, event, None)
    return Received(number=number, repeated=False, confirmation=confirmation_face(state))


def _ask_for(connection: Connection, form: UUID, number: int, due: PaymentDue, how: Payment) -> None:
    """Keep what is to be paid. Raises AccountGoneError where the form's account is not there any more."""
    account = payments.find_account(connection, account=None)
    account_id = account.id if how.practice and account else None
    if not how.practice:
        account_id = payments.account_of_form(connection, form=form, account=UUID(how.account))
    if account_id is None:
        raise AccountGoneError
    payment = payments.insert_payment(
        connection,
        form=form,
        number=number,
        account=account_id,
        amount=minor_units(due.amount, due.currency),
        currency=due.currency,
        payer={"name": due.payer_name, "email": due.payer_email, "delivery": due.delivery},
        cards=how.cards,
        due_until=datetime.now(UTC) + timedelta(hours=how.hours),
    )
    if (later := due.later) is not None:
        known = {name: getattr(later, name) for name in ("every", "unit", "times", "starts_on", "paid_now")}
        known |= {"amount": minor_units(later.amount, due.currency), "words": due.words}
        payments.insert_plan(connection, payment=payment, known=known)


def _known_member(connection: Connection, terms: Terms, incoming: Incoming, state: State) -> dict[str, FieldError]:
    """Return at which fields a guest has typed the address of a member, where the form makes accounts."""
    if incoming.given.visitor.is_known:
        return {}
    say = state.program.form.say
    return {
        field: FieldError(code="known_member", message=say("knownMember"))
        for address, field in addresses_of_accounts(state)
        if members.find_by_email(connection, team=terms.team, email=compared_email(address)) is not None
    }


_FILE_GONE = Sentence("A file is not here any more. Remove it and send it again.")


def _claimed_elsewhere(connection: Connection, form: UUID, files: dict[str, list[UUID]]) -> str | None:
    """Keep the files for this response; return the address of a field whose file another has, or None."""
    wanted = [each for ids in files.values() for each in ids]
    locked = uploads_store.lock_uploads(connection, form=form, ids=wanted) if wanted else set()
    return next((address for address, ids in files.items() if not locked.issuperset(ids)), None)


def _keep(
    connection: Connection,
    incoming: Incoming,
    accepted: Accepted,
    *,
    files: Collection[UUID],
    due: PaymentDue | None,
    turn: int | None,
) -> tuple[int, State] | None:
    context, held = accepted.state.context, _is_held(incoming, due)
    stands_as = _kept(connection, incoming)
    waits = _FIRST_EVENTS_HELD if held else _FIRST_EVENTS_WAITING
    number = responses.insert_response(
        connection,
        form=incoming.form,
        edition=incoming.edition,
        answers=accepted.answers,
        computed=accepted.computed,
        path=accepted.path,
        confirmation=accepted.confirmation,
        key=incoming.key,
        digest=incoming.digest,
        received_at=context.now,
        told=context.as_json(),
        events=waits if held or due is not None else _FIRST_EVENTS,
        stage="waiting" if held or due is not None else "complete",
        held=held,
        payment="none" if due is None else "due",
        test=due is not None and accepted.state.program.form.payment.practice,
        turn=turn,
        came={**incoming.came, "suspected": incoming.suspected} if held else incoming.came,
        sealed_link=None if incoming.sealed is None else incoming.sealed.id,
        member=incoming.given.visitor.member_id,
        filled_by=incoming.given.visitor.person_id,
        number=None if stands_as is None else stands_as.number,
        booking=booking_of(accepted.state),
    )
    if number is None:
        return None
    state = accepted.state.with_number(number)
    if state.program.needs_number:
        known = numbered(accepted, number)
        state = known.state
        responses.set_numbered(
            connection,
            form=incoming.form,
            number=number,
            answers=known.answers,
            computed=known.computed,
            path=known.path,
            confirmation=known.confirmation,
        )
    if files:
        uploads_store.claim_uploads(connection, form=incoming.form, number=number, ids=files)
    return number, state


def _repeated(program: Program, kept: Kept, incoming: Incoming) -> Received:
    if kept.content_digest != incoming.digest:
        raise KeyReusedError
    state = state_of_kept(program, kept.answers, Context.from_json(kept.told, number=kept.number))
    confirmation = confirmation_face(_with_own_page(incoming, state))
    return Received(number=kept.number, repeated=True, confirmation=confirmation)


def _with_own_page(incoming: Incoming, state: State) -> State:
    """Return the state in which texts know the response's own page, where it has one."""
    number = state.context.number
    return state if incoming.pages is None or number is None else incoming.pages.known_in(state, incoming.form, number)
