"""Filling in a part, handing a response on to the next or back to an earlier one; and who may."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any, Literal
from uuid import UUID

from codexa.core.context import FILLING_IN, NOTHING_ENTERED, HandedOnFacts
from codexa.core.form.form import Form, FormPart
from codexa.core.program.accept import Refused
from codexa.core.program.evaluate import State
from codexa.core.program.handing_on import part_after, parts_before
from codexa.core.program.parts import part_named
from codexa.services.correcting import Correcting
from codexa.services.errors import CorrectionRefusedError, NotAllowedError, NotFoundError, PartMovedError
from codexa.services.follow_ups.keeping import Happened, keep_due
from codexa.services.own_pages import OwnPages
from codexa.services.parts.standing import Move, Whereto, called, move_to
from codexa.services.payments.settling import Way
from codexa.services.received import state_of_row
from codexa.services.visitors import Visitor
from codexa.store import members, responses, standings
from codexa.store.database import Connection
from codexa.store.members import Team
from codexa.store.sessions import SignedIn
from codexa.store.standings import Standing

_GONE = "This response is not with you any more: somebody has handed it on, or it was removed."


@dataclass(frozen=True, kw_only=True, slots=True)
class AtPart:
    """A response at a part, opened by somebody who may change it there, and with what it is corrected.

    `back_to` are the parts that it may be sent back to, beside who filled it in.
    """

    form: UUID
    number: int
    standing: Standing
    who: Visitor
    correcting: Correcting
    back_to: list[FormPart]
    form_of: Form


def team_of(way: Way, form: UUID) -> Team:
    """Return the team of a form, where there may be something to fill in. Raises NotFoundError."""
    with way.connect() as connection:
        team = members.find_team_of(connection, form=form)
    if team is None:
        raise NotFoundError
    return team


def form_of(way: Way, form: UUID, number: int) -> Form:
    """Return the form that a response was given to, for its words and look. Raises NotFoundError."""
    with way.connect() as connection:
        row = responses.find_received(connection, form=form, number=number)
    if row is None:
        raise NotFoundError(_GONE)
    return way.editions.program(form, row.edition).form


def opened(way: Way, *, form: UUID, number: int, who: Visitor) -> AtPart:
    """Return a response at the part where it stands. Raises NotFoundError; NotAllowedError where it is for others."""
    with way.connect() as connection:
        standing = standings.find(connection, form=form, number=number)
        row = responses.find_received(connection, form=form, number=number)
        if standing is None or row is None or standing.part == FILLING_IN:
            raise NotFoundError(_GONE)
        _require(connection, standing, who)
    state = state_of_row(way, form, row, for_team=True)
    return AtPart(
        form=form,
        number=number,
        standing=standing,
        who=who,
        correcting=Correcting(
            way=way,
            team=standing.team_id,
            person=who.person_id,
            form=form,
            number=number,
            at_part=standing.part,
        ),
        back_to=parts_before(state, standing.part),
        form_of=state.program.form,
    )


def _require(connection: Connection, standing: Standing, who: Visitor) -> None:
    mine = {code.casefold() for code in who.groups}
    if not mine.isdisjoint(code.casefold() for code in standing.groups):
        return
    person = who.person_id
    if person is None or not standings.may_change(
        connection, team=standing.team_id, person=person, groups=standing.groups
    ):
        raise NotAllowedError("This part is for others to fill in. Nothing was changed.")


def hand_on(way: Way, at: AtPart, answers: Mapping[str, Any]) -> State | Refused:
    """Keep a part's answers and let the response go on; return it, or what is wrong with them.

    Raises PartMovedError where it was handed on meanwhile, CorrectedMeanwhileError, CorrectionRefusedError.
    """
    if (refused := at.correcting.refused(answers)) is not None:
        return refused
    ended: list[State] = []

    def then(connection: Connection, state: State) -> None:
        _require_unmoved(connection, at)
        to, by = part_after(state, at.standing.part), _by(at.who, "handed on")
        ended.append(_Going(way, connection, at.form, at.number).to(to, state, by))

    difference = at.correcting.save(answers, version=at.correcting.opened().version, because="", then=then)
    if difference.wrong:
        raise CorrectionRefusedError(f"{difference.wrong[0].label}: {difference.wrong[0].message}")
    return ended[0]


def hand_back(way: Way, at: AtPart, *, to: str, remark: str) -> None:
    """Let a response go back to who filled it in (""), or an earlier part, with what is asked there.

    Raises NotFoundError where it can't go there, PartMovedError where it was handed on meanwhile.
    """
    part: Whereto = FILLING_IN if to == FILLING_IN else _named(at.back_to, to)
    if part is None:
        raise NotFoundError("There is no such part before this one.")
    state = _as_it_stands(way, at.form, at.number)
    with way.connect() as connection:
        responses.lock_received(connection, form=at.form, number=at.number)
        _require_unmoved(connection, at)
        move = replace(_by(at.who, "handed back"), remark=remark, sent_back_by=at.standing.part)
        _Going(way, connection, at.form, at.number).to(part, state, move)


def open_again(way: Way, *, who: SignedIn, form: UUID, number: int, to: str, remark: str) -> None:
    """Let a complete response go to who filled it in (""), or to a part, wherever it stands now.

    Raises NotFoundError where there is no such response or part, PartMovedError where it is not complete.
    """
    with way.connect() as connection:
        ours = responses.find_response(connection, team=who.team_id, form=form, number=number)
    if ours is None:
        raise NotFoundError
    state = _as_it_stands(way, form, number)
    part: Whereto = FILLING_IN if to == FILLING_IN else part_named(state.program.form, to)
    if part is None:
        raise NotFoundError("The form that was filled in has no such part.")
    with way.connect() as connection:
        now = responses.lock_received(connection, form=form, number=number)
        if now is None or now.stage != "complete":
            raise PartMovedError("Only a response that is complete goes to somebody again.")
        move = Move(kind="handed back", who="person", person=who.person_id, by_name=who.person_name, remark=remark)
        _Going(way, connection, form, number).to(part, state, move)


def sent_again(way: Way, connection: Connection, state: State, form: UUID, number: int) -> None:
    """Let a response that its visitor changed, as they were asked, go back to the part that asked; else to nobody."""
    standing = standings.find(connection, form=form, number=number)
    if standing is not None and standing.part == FILLING_IN:
        to = part_named(state.program.form, standing.sent_back_by or "")
        _Going(way, connection, form, number).to(to, state, Move())


@dataclass(frozen=True, slots=True)
class _Going:
    """A response on its way, within the transaction that keeps it from others."""

    way: Way
    connection: Connection
    form: UUID
    number: int

    def to(self, to: Whereto, state: State, move: Move) -> State:
        """Move it, with what follows from that; return it as it is then."""
        turn = move_to(self.connection, self.form, self.number, to, move)
        facts = HandedOnFacts(name="" if to is None else called(to), remark=move.remark, by=move.by_name)
        # Mails to who filled in tell what they may see, whoever has handed it on.
        now = replace(state, context=replace(state.context, handed_on=facts, at_part=None, others=NOTHING_ENTERED))
        event = Happened(form=self.form, number=self.number, moments=(move.kind,), which=turn)
        keep_due(self.connection, now, event, OwnPages(settings=self.way.settings))
        return now


def _as_it_stands(way: Way, form: UUID, number: int) -> State:
    """Return the state of a response, compiled, if need be, before anything is locked. Raises NotFoundError."""
    with way.connect() as connection:
        row = responses.find_received(connection, form=form, number=number)
    if row is None:
        raise NotFoundError(_GONE)
    return state_of_row(way, form, row)


def _named(parts: list[FormPart], part: str) -> FormPart | None:
    return next((each for each in parts if each.id == part), None)


def _by(who: Visitor, kind: Literal["handed on", "handed back"]) -> Move:
    known = "person" if who.person_id else "visitor"
    return Move(kind=kind, who=known, person=who.person_id, by_name=who.facts.get("name", ""))


def _require_unmoved(connection: Connection, at: AtPart) -> None:
    """Raise PartMovedError where a response went on meanwhile; it is kept from others."""
    now = standings.find(connection, form=at.form, number=at.number)
    if now is None or now.turn != at.standing.turn:
        raise PartMovedError(_GONE)
