"""Rehearsing a form: its draft goes the whole way, in a team of its own, and nothing of it leaves the machine.

It is a form apart: it has numbers, stock and places of its own, is in no list and no count, and goes in one press.
"""

import secrets
from contextlib import suppress
from dataclasses import dataclass, replace
from datetime import datetime
from pathlib import Path
from typing import Any
from uuid import UUID

from codexa.core.definition.payment import Payment
from codexa.core.form.access import Access
from codexa.core.form.form import Form
from codexa.core.form.upgrades import read_stored
from codexa.services import desk, publishing, response_grid, uploads
from codexa.services.approvals import deciding
from codexa.services.approvals.deciding import Verdict
from codexa.services.drafts import require
from codexa.services.errors import NotFoundError, TooBusyError
from codexa.services.follow_ups import keeping
from codexa.services.follow_ups.keeping import RunInFull, ToldRun
from codexa.services.own_pages import OwnPages
from codexa.services.payments.settling import Way
from codexa.services.previewing import ONESELF, visitor_as
from codexa.services.response_grid import Single
from codexa.store import access, forms, members, rehearsals, standings
from codexa.store.rehearsals import OpenApproval, RehearsalRow
from codexa.store.sessions import SignedIn
from codexa.store.standings import Standing

_MOST = 20  # responses shown
_NONE = "There is no rehearsal of this form. Begin one."


@dataclass(frozen=True, kw_only=True, slots=True)
class Rehearsed:
    """A response of a rehearsal: itself, what followed, with whom it stands, and its visitor's own page."""

    single: Single
    runs: list[ToldRun]
    standing: Standing | None
    own_page: str


@dataclass(frozen=True, kw_only=True, slots=True)
class Rehearsal:
    """A rehearsal: where it is filled in, since when, the days that its clock was moved on, and all that it made.

    `filled_in_by` is as whom, as `visitor_as` names them, and `visitor_name` what a member is called.
    """

    form: UUID
    address: str
    since: datetime
    days: int
    filled_in_by: str
    visitor_name: str
    responses: list[Rehearsed]
    approvals: list[OpenApproval]


def begin(way: Way, *, who: SignedIn, form: UUID) -> None:
    """Begin a rehearsal of the draft, in the place of an earlier one, for whoever may fill in the form.

    Raises NotFoundError, NotProvenError where the proof has errors, and TooBusyError where it is begun twice at once.
    """
    with way.connect() as connection:
        found = forms.find_form(connection, team=who.team_id, form=form)
        settings = access.find_settings(connection, team=who.team_id, form=form)
    if found is None or settings is None:
        raise NotFoundError
    draft = _as_rehearsed(read_stored(found.draft))
    publishing.prove(way.connect, form, draft, despite_trials=True)
    end(way, who=who, form=form)
    with way.connect() as connection:
        slug = f"rehearsal-{secrets.token_hex(16)}"
        team = rehearsals.insert_team(connection, form=form, person=who.person_id, slug=slug)
        if team is None:
            raise TooBusyError  # begun twice at the same moment
        rehearser = replace(who, team_id=team, role="owner", team_role="owner")
        made = desk.insert(connection, who=rehearser, draft=draft)
        access.set_access(connection, team=team, form=made, access=_as_rehearsed_access(settings.access))
        publishing.make_live(connection, draft, who=rehearser, form=made, revision=1)


def _as_rehearsed(draft: Form) -> Form:
    """Return a draft that asks for payments for practice alone, and needs no link."""
    payment: Payment = draft.payment.model_copy(update={"practice": True, "account": ""})
    return draft.model_copy(update={"payment": payment, "sealed_only": False})


def _as_rehearsed_access(access_settings: dict[str, Any]) -> dict[str, Any]:
    """Return who may fill in as it holds for visitors, at any time and any number of them."""
    real = Access.model_validate(access_settings)
    rehearsed = Access(who=real.who, groups=real.groups, once=real.once, kept_days=real.kept_days)
    return rehearsed.model_dump(mode="json")


def end(way: Way, *, who: SignedIn, form: UUID) -> None:
    """Take a rehearsal away, with all that it made; where there is none, nothing is wrong. Raises NotFoundError."""
    require(way.connect, who=who, form=form)
    with way.connect() as connection:
        left = rehearsals.delete_team(connection, form=form, person=who.person_id)
    for upload in left:
        uploads.remove(Path(way.settings.files), upload)


def show(way: Way, *, who: SignedIn, form: UUID) -> Rehearsal | None:
    """Return a person's rehearsal of a form; None where there is none. Raises NotFoundError."""
    require(way.connect, who=who, form=form)
    with way.connect() as connection:
        found = rehearsals.find(connection, form=form, person=who.person_id)
        numbers = [] if found is None else rehearsals.numbers(connection, form=found.form_id, most=_MOST)
        approvals = [] if found is None else rehearsals.open_approvals(connection, form=found.form_id)
    if found is None:
        return None
    rehearser, filled_in_by = _rehearser(who, found), _named(found.filled_in_by)
    return Rehearsal(
        form=found.form_id,
        address=f"{way.settings.public_address}/f/{found.team_slug}/{found.slug}",
        since=found.created_at,
        days=found.days,
        filled_in_by=filled_in_by,
        visitor_name=_member_name(way, who, filled_in_by),
        responses=[_rehearsed(way, rehearser, found.form_id, number) for number in numbers],
        approvals=approvals,
    )


def _rehearsed(way: Way, who: SignedIn, form: UUID, number: int) -> Rehearsed:
    with way.connect() as connection:
        standing = standings.find(connection, form=form, number=number)
    return Rehearsed(
        single=response_grid.single(way.connect, way.editions, who=who, form=form, number=number),
        runs=keeping.runs_of(way.connect, who=who, form=form, number=number),
        standing=standing,
        own_page=OwnPages(settings=way.settings).address(form, number),
    )


def decide(way: Way, *, who: SignedIn, form: UUID, approval: UUID, step: int, verdict: Verdict, remark: str) -> None:
    """Decide in the place of whoever is asked. Raises as `deciding.decide` does, and NotFoundError."""
    rehearser = _rehearser(who, _found(way, who, form))
    deciding.decide(way, who=rehearser, approval=approval, step=step, verdict=verdict, remark=remark)


def run_in_full(way: Way, *, who: SignedIn, form: UUID, run: int) -> RunInFull:
    """Return what a follow-up would have sent. Raises NotFoundError."""
    found = _found(way, who, form)
    return keeping.run_in_full(way.connect, who=_rehearser(who, found), form=found.form_id, run=run)


def move_on(way: Way, *, who: SignedIn, form: UUID, days: int) -> None:
    """Let so many days pass for a rehearsal. Raises NotFoundError."""
    found = _found(way, who, form)
    with way.connect() as connection:
        rehearsals.move_on(connection, original=form, person=who.person_id, form=found.form_id, days=days)


def fill_in_as(way: Way, *, who: SignedIn, form: UUID, wanted: str) -> None:
    """Have a rehearsal filled in as a guest, a member or oneself, as `visitor_as` names them. Raises NotFoundError."""
    _found(way, who, form)
    visitor_as(way.connect, who=who, wanted=wanted)
    number = None if wanted == ONESELF else int(wanted.partition(".")[2] or 0)
    with way.connect() as connection:
        table = members.members_table(connection, team=who.team_id) if number else None
        if table is not None and number:
            members.as_member(connection, table=table.id, number=number)
        rehearsals.fill_in_as(connection, original=form, person=who.person_id, number=number)


def _named(number: int | None) -> str:
    return ONESELF if number is None else f"member.{number}" if number else ""


def _member_name(way: Way, who: SignedIn, filled_in_by: str) -> str:
    if filled_in_by in ("", ONESELF):
        return ""
    with suppress(NotFoundError):
        return visitor_as(way.connect, who=who, wanted=filled_in_by).facts["name"]
    return ""


def _found(way: Way, who: SignedIn, form: UUID) -> RehearsalRow:
    with way.connect() as connection:
        found = rehearsals.find(connection, form=form, person=who.person_id)
    if found is None:
        raise NotFoundError(_NONE)
    return found


def _rehearser(who: SignedIn, found: RehearsalRow) -> SignedIn:
    """Return a person as the one owner of their rehearsal."""
    return replace(who, team_id=found.team_id, role="owner", team_role="owner")
