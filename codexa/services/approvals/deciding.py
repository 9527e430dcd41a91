"""Deciding: one of those who may says yes, no, or asks back; the second of two at once is told, and changes nothing."""

from dataclasses import dataclass, replace
from typing import Any, Literal
from uuid import UUID

from codexa.core.context import DecisionFacts
from codexa.core.form.follow_ups import Moment
from codexa.core.program.evaluate import State
from codexa.core.program.response_document import response_document
from codexa.services.approvals.asking import begin_turn, keep_decision
from codexa.services.bookings import booking
from codexa.services.errors import DecidedMeanwhileError, NotAllowedError, NotFoundError
from codexa.services.follow_ups.keeping import Happened, keep_due
from codexa.services.own_pages import OwnPages
from codexa.services.payments.settling import Way
from codexa.services.received import state_of_row
from codexa.store import approvals as store
from codexa.store import responses
from codexa.store.approvals import Approval, Decided, MayDecide, Said, Waiting
from codexa.store.database import Connection
from codexa.store.sessions import SignedIn

Verdict = Literal["approve", "deny", "ask back", "remark"]
_MOST = 200
_GONE = "There is nothing to decide here any more: the response or its form was removed."


@dataclass(frozen=True, kw_only=True, slots=True)
class Inbox:
    """What waits for somebody, and what they have decided, the latest first."""

    waiting: list[Waiting]
    decided: list[Decided]


@dataclass(frozen=True, kw_only=True, slots=True)
class OneDecision:
    """An approval with the response in words, who decides now, what was said, and whether who asks may decide."""

    approval: Approval
    form_name: str
    document: dict[str, Any]
    deciders: list[MayDecide]
    said: list[Said]
    may_decide: bool


def inbox(way: Way, *, who: SignedIn) -> Inbox:
    """Return what waits for somebody."""
    with way.connect() as connection:
        team, person = who.team_id, who.person_id
        return Inbox(
            waiting=store.waiting_for(connection, team=team, person=person, owner=who.role == "owner", most=_MOST),
            decided=store.decided_by(connection, team=team, person=person, most=_MOST),
        )


def show(way: Way, *, who: SignedIn, approval: UUID) -> OneDecision:
    """Return one approval. Raises NotFoundError where it is another team's, or not for who asks."""
    with way.connect() as connection:
        found = _of_team(store.find(connection, approval=approval), who)
        deciders = store.who_may(connection, approval=approval)
        said = store.said_of(connection, form=found.form_id, number=found.number)
        row = responses.find_received(connection, form=found.form_id, number=found.number)
        has_part = store.has_part(connection, approval=approval, person=who.person_id)
    mine = any(each.id == who.person_id for each in deciders)
    # Whoever decides sees the response, whatever their role; of others the owners, from whom no form is hidden.
    if row is None or not (has_part or who.role == "owner"):
        raise NotFoundError(_GONE)
    state = state_of_row(way, found.form_id, row, for_team=True)
    return OneDecision(
        approval=found,
        form_name=state.program.form.name,
        document=response_document(state),
        deciders=deciders,
        said=said,
        may_decide=mine and found.state == "asked",
    )


def decide(way: Way, *, who: SignedIn, approval: UUID, step: int, verdict: Verdict, remark: str) -> None:
    """Say yes or no to a step of an approval, ask its visitor back, or only remark something.

    Raises NotFoundError, NotAllowedError where it is not for who asks, DecidedMeanwhileError where that step was
    decided before: nothing is changed then.
    """
    with way.connect() as connection:
        found = _of_team(store.find(connection, approval=approval), who)
        row = responses.find_received(connection, form=found.form_id, number=found.number)
    if row is None:
        raise NotFoundError(_GONE)
    # Compiled, if need be, before anything is locked.
    state = state_of_row(way, found.form_id, row)
    with way.connect() as connection:
        locked = _of_team(store.lock(connection, approval=approval), who)
        mine = [each for each in store.who_may(connection, approval=approval) if each.id == who.person_id]
        if verdict != "remark" and (locked.state != "asked" or locked.at_step != step):
            raise _decided_by_another(connection, locked)
        if not mine:
            raise NotAllowedError("This is for others to decide. Nothing was changed.")
        _Deciding(way, connection, locked, who, remark.strip(), state).do(verdict, mine)


def _of_team(found: Approval | None, who: SignedIn) -> Approval:
    if found is None or found.team_id != who.team_id:
        raise NotFoundError(_GONE)
    return found


def _decided_by_another(connection: Connection, approval: Approval) -> DecidedMeanwhileError:
    said = store.said_of(connection, form=approval.form_id, number=approval.number)
    last = next((each for each in reversed(said) if each.kind not in ("remark", "decision asked")), None)
    who = "Somebody" if last is None else last.person or "Somebody"
    what = {"approved": "has approved it", "denied": "has denied it", "asked back": "has asked the visitor back"}
    told = what.get("" if last is None else last.kind, "has decided this step")
    return DecidedMeanwhileError(f"{who} {told} meanwhile. Nothing was changed by you.")


@dataclass(frozen=True, slots=True)
class _Deciding:
    """One decision, within its transaction."""

    way: Way
    connection: Connection
    approval: Approval
    who: SignedIn
    remark: str
    state: State

    def do(self, verdict: Verdict, mine: list[MayDecide]) -> None:
        match verdict:
            case "remark":
                self._note("remark", f"{self.approval.id} {self._count()}")
            case "ask back":
                self._move("asked back", self.approval.at_step)
                self._happened("asked back", f"{self.approval.id} {self._count()}")
            case "deny":
                self._move("denied", self.approval.at_step)
                self._withdraw_others()
                self._end("denied")
            case "approve":
                self._approve(mine)

    def _approve(self, mine: list[MayDecide]) -> None:
        approval, connection = self.approval, self.connection
        store.approve_for(
            connection, person=self.who.person_id, deciders=[each.decider for each in mine if each.decider]
        )
        own_word = any(each.stands_in or each.decider is None for each in mine)
        left = store.still_to_approve(connection, approval=approval.id, position=approval.at_step)
        if approval.every and left and not own_word:
            self._note("step approved", f"{approval.id} {approval.at_step} {self.who.person_id}")
        elif approval.at_step + 1 < approval.steps:
            self._note("step approved", f"{approval.id} {approval.at_step} {self.who.person_id}")
            self._move("asked", approval.at_step + 1)
            begin_turn(connection, approval.id, approval.at_step + 1)
        else:
            self._move("approved", approval.at_step)
            self._end("approved")

    def _end(self, verdict: Literal["approved", "denied"]) -> None:
        """Keep what the response comes to, and what follows once nothing is asked any more."""
        form, number = self.approval.form_id, self.approval.number
        decision = keep_decision(self.connection, form, number)
        if verdict == "denied":
            booking.release(self.connection, form, number)
        if decision == verdict:
            self._happened(verdict, str(self.approval.id))
        else:
            self._note("step approved", f"{self.approval.id} all")

    def _happened(self, kind: Moment, key: str) -> None:
        self._note(kind, key)
        facts = DecisionFacts(state=kind, remark=self.remark, by=self.who.person_name)
        state = replace(self.state, context=replace(self.state.context, decision=facts))
        event = Happened(form=self.approval.form_id, number=self.approval.number, moments=(kind,), which=key)
        keep_due(self.connection, state, event, OwnPages(settings=self.way.settings))

    def _move(self, to: store.State, step: int) -> None:
        store.set_state(self.connection, approval=self.approval.id, state=to, step=step)

    def _withdraw_others(self) -> None:
        form, number = self.approval.form_id, self.approval.number
        for other, _, step in store.open_of_response(self.connection, form=form, number=number):
            store.set_state(self.connection, approval=other, state="withdrawn", step=step)

    def _count(self) -> int:
        return len(store.said_of(self.connection, form=self.approval.form_id, number=self.approval.number))

    def _note(self, kind: str, key: str) -> None:
        responses.add_event(
            self.connection,
            form=self.approval.form_id,
            number=self.approval.number,
            kind=kind,
            key=key,
            who="person",
            person=self.who.person_id,
            data={"remark": self.remark, "step": self.approval.step_name, "name": self.approval.name},
        )
