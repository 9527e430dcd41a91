"""A member's own page: what they filled in, their name, password and address, and leaving."""

from collections.abc import Mapping
from dataclasses import dataclass, replace
from typing import Any
from uuid import UUID

from codexa.core.errors import AnswerError
from codexa.core.program.response_document import response_document
from codexa.core.tables.members import EMAIL, NAME, compared_email, member_address
from codexa.services.audit import note_of
from codexa.services.continuing import digest_of as kept_digest
from codexa.services.errands.asking import ask
from codexa.services.errors import AddressRefusedError, LinkUsedError, NameTakenError, NotFoundError
from codexa.services.marks import mark_of
from codexa.services.members.mails import ADDRESS
from codexa.services.members.signing_in import NewMemberSession, by_link, new_session
from codexa.services.payments.settling import Way
from codexa.services.people import refuse_short
from codexa.services.received import state_of_row
from codexa.services.signing_in import digest_of, hash_password
from codexa.services.tables.records import Changing, Typed
from codexa.services.tables.tables import opened
from codexa.settings import Settings
from codexa.store import members as store
from codexa.store import responses, standings, tables
from codexa.store.database import Connect, Connection
from codexa.store.members import Link, OwnForm, OwnResponse, SeenResponse, SignedInMember
from codexa.store.standings import WaitingPart

_MOST_SHOWN = 500
_GONE = "This is not among your answers any more."


@dataclass(frozen=True, kw_only=True, slots=True)
class OwnPage:
    """What a member's own page has: what waits for them, their responses, the latest first, and the forms for them."""

    waiting: list[WaitingPart]
    responses: list[OwnResponse]
    forms: list[OwnForm]
    seen: list[OwnForm]


def signed_in(connect: Connect, *, token: str, team_slug: str) -> SignedInMember | None:
    """Return the member who is signed in at a team by a cookie; None where nobody is."""
    if not token:
        return None
    with connect() as connection:
        return store.find_session(connection, digest=digest_of(token), team_slug=team_slug)


def show(connect: Connect, member: SignedInMember) -> OwnPage:
    """Return what a member's own page has."""
    with connect() as connection:
        groups = _groups(connection, member)
        return OwnPage(
            waiting=standings.waiting_for_member(
                connection, team=member.team_id, member=member.id, groups=groups, most=_MOST_SHOWN
            ),
            responses=store.own_responses(connection, team=member.team_id, member=member.id, most=_MOST_SHOWN),
            forms=store.own_forms(connection, team=member.team_id, groups=groups, most=_MOST_SHOWN),
            seen=store.seen_forms(connection, team=member.team_id, groups=groups, most=_MOST_SHOWN),
        )


def _groups(connection: Connection, member: SignedInMember) -> list[str]:
    known = store.find_as(connection, team=member.team_id, number=member.number)
    return known.groups if known else []


def see(way: Way, member: SignedInMember, *, form: UUID, number: int) -> dict[str, Any]:
    """Return a response that a member may see, their own or another's, as a document. Raises NotFoundError.

    Of another's they see the parts that who filled it in sees, and those of their own groups.
    """
    with way.connect() as connection:
        groups = _groups(connection, member)
        own = store.own_response(connection, member=member.id, form=form, number=number)
        seen = store.seen_responses(connection, team=member.team_id, form=form, groups=groups, most=1, number=number)
        may = own not in (None, "kept") or bool(seen)
        row = responses.find_received(connection, form=form, number=number) if may else None
    if row is None:
        raise NotFoundError(_GONE)
    state = state_of_row(way, form, row)
    return response_document(replace(state, context=replace(state.context, groups=frozenset(groups))))


def others(connect: Connect, member: SignedInMember, *, form: UUID) -> tuple[OwnForm, list[SeenResponse]]:
    """Return a form with what a member may see of others' responses to it, the latest. Raises NotFoundError."""
    with connect() as connection:
        groups = _groups(connection, member)
        forms = store.seen_forms(connection, team=member.team_id, groups=groups, most=_MOST_SHOWN)
        found = next((each for each in forms if each.id == form), None)
        if found is None:
            raise NotFoundError(_GONE)
        seen = store.seen_responses(connection, team=member.team_id, form=form, groups=groups, most=_MOST_SHOWN)
    return found, seen


def go_on(connect: Connect, settings: Settings, member: SignedInMember, *, form: UUID, number: int) -> str:
    """Return the token by which a member goes on with what they kept. Raises NotFoundError."""
    token = mark_of(f"kept of member {member.id} {form} {number}", settings)
    with connect() as connection:
        if not store.open_kept(connection, member=member.id, form=form, number=number, digest=kept_digest(token)):
            raise NotFoundError(_GONE)
    return token


def set_name(connect: Connect, member: SignedInMember, name: str) -> None:
    """Give a member another name. Raises AddressRefusedError with what is wrong with it."""
    with connect() as connection:
        answers = {NAME: " ".join(name.split()) or None}
        _keep(connection, member.team_id, (member.table_id, member.number), answers)


def set_password(connect: Connect, member: SignedInMember, password: str, *, token: str) -> None:
    """Give a member a password; other sessions than this one end. Raises PasswordRefusedError."""
    refuse_short(password)
    hashed = hash_password(password)
    with connect() as connection:
        store.set_password(connection, member=member.id, password_hash=hashed, staying=digest_of(token))


def ask_address(connect: Connect, member: SignedInMember, email: str, *, locale: str) -> None:
    """Want another address: it is confirmed by a mail to it. Raises AddressRefusedError."""
    try:
        address = member_address(email)
    except AnswerError as error:
        raise AddressRefusedError(error.message) from None
    with connect() as connection:
        about = {"team": str(member.team_id), "member": str(member.id), "email": address, "locale": locale}
        ask(connection, ADDRESS, about, team=member.team_id)


def use_link(connect: Connect, team: UUID, token: str) -> tuple[Link, NewMemberSession]:
    """Use a link up: sign in by it, with the address that it confirms. Raises LinkUsedError, NameTakenError."""
    with connect() as connection:
        link = by_link(connection, team, token)
        if link.kind == "address":
            _set_address(connection, team, link)
        return link, new_session(connection, link.member_id, confirmed=True)


def _set_address(connection: Connection, team: UUID, link: Link) -> None:
    member = store.find_member(connection, team=team, member=link.member_id)
    if member is None:
        raise LinkUsedError
    other = store.find_by_email(connection, team=team, email=compared_email(link.email))
    if other is not None and other.number != member.number:
        raise NameTakenError(f"Somebody else has {link.email} by now. Take another address.")
    _keep(connection, team, (member.table_id, member.number), {EMAIL: link.email})


def _keep(connection: Connection, team: UUID, record: tuple[UUID, int], answers: Mapping[str, Any]) -> None:
    table, number = record
    known = opened(tables.lock_table(connection, team=team, table=table)).table
    typed = Typed(number=number, revision=None, cells={}, answers=answers)
    _, wrong = Changing(connection, table, known, None).keep([typed])
    if wrong:
        raise AddressRefusedError(wrong[0].message)


def leave(connect: Connect, member: SignedInMember) -> None:
    """Forget a member for good: record, history, account, sessions. Their responses are nobody's from now on."""
    with connect() as connection:
        tables.lock_table(connection, team=member.team_id, table=member.table_id)
        tables.free_values(connection, table=member.table_id, numbers=[member.number])
        store.forget_member(connection, table=member.table_id, number=member.number)
        note_of(connection, member.team_id, "member left", by=None, called="a member")
