"""Members of a team: those who fill in and have an account. What is known of them stands in a record of their table."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime, timedelta
from typing import Literal
from uuid import UUID

from codexa.store.database import Connection, exactly_one, many, one
from codexa.store.queries import queries
from codexa.store.tables import TableRow

_QUERIES = queries("members")

SESSION_LIFETIME, SESSION_IDLE = timedelta(days=30), timedelta(days=7)
LinkKind = Literal["sign in", "address"]


@dataclass(frozen=True, kw_only=True, slots=True)
class Team:
    """A team as its members reach it."""

    id: UUID
    name: str
    slug: str


@dataclass(frozen=True, kw_only=True, slots=True)
class MemberRow:
    """A member: which record they are, and what they sign in with; `id` is None before the account is needed."""

    id: UUID | None
    number: int
    table_id: UUID
    email: str
    name: str
    password_hash: str | None
    confirmed_at: datetime | None


@dataclass(frozen=True, kw_only=True, slots=True)
class Visiting:
    """Who fills in a form and is signed in: a member, or somebody of the team; with the codes of their groups."""

    email: str
    name: str
    groups: list[str]
    member_id: UUID | None = None
    person_id: UUID | None = None


@dataclass(frozen=True, kw_only=True, slots=True)
class SignedInMember:
    """A member who is signed in at their team's own page."""

    session_id: UUID
    csrf_token: str
    id: UUID
    number: int
    table_id: UUID
    email: str
    name: str
    team_id: UUID
    team_name: str
    team_slug: str
    has_password: bool


@dataclass(frozen=True, kw_only=True, slots=True)
class Link:
    """What a link in a mail stands for: to sign in and go `back` somewhere, or to have the `email` from now on."""

    kind: LinkKind
    member_id: UUID
    email: str
    back: str


@dataclass(frozen=True, kw_only=True, slots=True)
class OwnResponse:
    """A response as its member finds it again; `until` is when one that is kept is forgotten."""

    form_id: UUID
    number: int
    stage: str
    payment: str
    received_at: datetime
    edition: int
    title: str | None
    name: str
    locale: str
    until: datetime | None


@dataclass(frozen=True, kw_only=True, slots=True)
class OwnForm:
    """A form that a member may fill in."""

    id: UUID
    slug: str
    title: str | None
    name: str


@dataclass(frozen=True, kw_only=True, slots=True)
class SeenResponse:
    """A response of somebody that a member may see; `by_name` is None where nobody was signed in."""

    number: int
    received_at: datetime
    by_name: str | None


@dataclass(frozen=True, kw_only=True, slots=True)
class Accounts:
    """How many members there are, how many have shown that their address is theirs, and how many are invited yet."""

    members: int
    confirmed: int
    invited: int


def members_table(connection: Connection, *, team: UUID) -> TableRow | None:
    """Return the table of a team's members; None where it has none."""
    row = one(connection, _QUERIES["members_table"], team=team)
    return TableRow(**row) if row else None


def team_of_form(connection: Connection, *, form: UUID) -> UUID:
    """Return the team that a form belongs to."""
    team: UUID = exactly_one(connection, _QUERIES["team_of_form"], form=form)["team_id"]
    return team


def is_members(connection: Connection, *, table: UUID) -> bool:
    """Say whether a table is that of a team's members."""
    return bool(exactly_one(connection, _QUERIES["is_members"], table=table)["is_members"])


def set_members_table(connection: Connection, *, team: UUID, table: UUID) -> bool:
    """Make a table that of a team's members; False where it has one."""
    return one(connection, _QUERIES["set_members_table"], team=team, table=table) is not None


def find_team(connection: Connection, *, slug: str) -> Team | None:
    """Return a team by its address."""
    row = one(connection, _QUERIES["find_team"], slug=slug)
    return Team(**row) if row else None


def find_team_of(connection: Connection, *, form: UUID) -> Team | None:
    """Return the team of a form; None where there is no such form any more."""
    row = one(connection, _QUERIES["find_team_of"], form=form)
    return Team(**row) if row else None


def find_by_email(connection: Connection, *, team: UUID, email: str) -> MemberRow | None:
    """Return the member of a team with an e-mail, as it is compared."""
    row = one(connection, _QUERIES["find_by_email"], team=team, email=email)
    return MemberRow(**row) if row else None


def as_member(connection: Connection, *, table: UUID, number: int) -> UUID:
    """Return the id of the account of a member's record; it is made where there is none."""
    member: UUID = exactly_one(connection, _QUERIES["as_member"], table=table, number=number)["id"]
    return member


def find_member(connection: Connection, *, team: UUID, member: UUID) -> MemberRow | None:
    """Return a member of a team by id."""
    row = one(connection, _QUERIES["find_member"], team=team, member=member)
    return MemberRow(**row) if row else None


def find_visiting(connection: Connection, *, session: UUID, form: UUID) -> Visiting | None:
    """Return who fills in a form by a session of a member."""
    row = one(connection, _QUERIES["find_visiting"], session=session, form=form, idle=SESSION_IDLE)
    return Visiting(**row) if row else None


def find_as(connection: Connection, *, team: UUID, number: int) -> Visiting | None:
    """Return a member as forms know them, by the number of their record."""
    row = one(connection, _QUERIES["find_as"], team=team, number=number)
    return Visiting(**row) if row else None


def find_person_visiting(connection: Connection, *, session: UUID, form: UUID, idle: timedelta) -> Visiting | None:
    """Return who fills in a form by a session of somebody of its team."""
    row = one(connection, _QUERIES["find_person_visiting"], session=session, form=form, idle=idle)
    return Visiting(**row) if row else None


def session_of_person(connection: Connection, *, digest: bytes) -> UUID | None:
    """Return the id of a session of the workbench."""
    row = one(connection, _QUERIES["session_of_person"], digest=digest)
    return row["id"] if row else None


def insert_session(connection: Connection, *, digest: bytes, member: UUID, csrf_token: str, confirmed: bool) -> UUID:
    """Sign a member in, and return the session's id; `confirmed` where their address was shown to be theirs."""
    known = {"digest": digest, "member": member, "csrf_token": csrf_token, "confirmed": confirmed}
    session: UUID = exactly_one(connection, _QUERIES["insert_session"], lifetime=SESSION_LIFETIME, **known)["id"]
    return session


def find_session(connection: Connection, *, digest: bytes, team_slug: str) -> SignedInMember | None:
    """Return the member who is signed in at a team by the cookie of that digest."""
    row = one(connection, _QUERIES["find_session"], digest=digest, team=team_slug, idle=SESSION_IDLE)
    return SignedInMember(**row) if row else None


def end_session(connection: Connection, *, digest: bytes) -> None:
    """Sign a member out."""
    connection.execute(_QUERIES["end_session"], {"digest": digest})


def set_password(connection: Connection, *, member: UUID, password_hash: str, staying: bytes) -> None:
    """Give a member another password; their other sessions end."""
    connection.execute(_QUERIES["set_password"], {"member": member, "password_hash": password_hash})
    connection.execute(_QUERIES["end_others"], {"member": member, "staying": staying})


def note_confirmed(connection: Connection, *, member: UUID) -> None:
    """Note that a member's address was shown to be theirs."""
    connection.execute(_QUERIES["note_confirmed"], {"member": member})


def insert_link(
    connection: Connection, *, digest: bytes, link: Link, asked: bytes | None, code: str, lifetime: timedelta
) -> None:
    """Make a link for a member, for so long; the page that asked may take the code of that mark instead."""
    known = {"digest": digest, "kind": link.kind, "member": link.member_id, "email": link.email, "back": link.back}
    connection.execute(_QUERIES["insert_link"], {**known, "asked": asked, "code": code, "lifetime": lifetime})


def find_link(connection: Connection, *, team: UUID, digest: bytes) -> Link | None:
    """Return what a link of a team's member stands for while it works."""
    row = one(connection, _QUERIES["find_link"], team=team, digest=digest)
    return Link(**row) if row else None


def use_link(connection: Connection, *, team: UUID, digest: bytes) -> Link | None:
    """Use a link up; None where it was used, or is over."""
    row = one(connection, _QUERIES["use_link"], team=team, digest=digest)
    return Link(**row) if row else None


def count_code(connection: Connection, *, asked: bytes, most: int) -> str | None:
    """Count a try of a code, and return the mark of the right one; None after too many, or where there is none."""
    row = one(connection, _QUERIES["count_code"], asked=asked, most=most)
    return row["code_mark"] if row else None


def use_code(connection: Connection, *, team: UUID, asked: bytes, code: str) -> UUID | None:
    """Use up the link of a code by its mark, and return the member; None where somebody has just done so."""
    row = one(connection, _QUERIES["use_code"], team=team, asked=asked, code=code)
    return row["member_id"] if row else None


def count_links(connection: Connection, *, member: UUID) -> int:
    """Return how many links were made for a member within a quarter of an hour."""
    return int(exactly_one(connection, _QUERIES["count_links"], member=member)["count"])


def note_invited(connection: Connection, *, member: UUID) -> None:
    """Note that a member was invited by mail."""
    connection.execute(_QUERIES["note_invited"], {"member": member})


def accounts(connection: Connection, *, table: UUID) -> Accounts:
    """Return how the accounts of members stand."""
    return Accounts(**exactly_one(connection, _QUERIES["list_accounts"], table=table))


def own_responses(connection: Connection, *, team: UUID, member: UUID, most: int) -> list[OwnResponse]:
    """Return the responses of a member that their forms show them, the latest first."""
    rows = many(connection, _QUERIES["own_responses"], team=team, member=member, most=most)
    return [OwnResponse(**row) for row in rows]


def own_response(connection: Connection, *, member: UUID, form: UUID, number: int) -> str | None:
    """Return the stage of one of them; None where it is none of theirs."""
    row = one(connection, _QUERIES["own_response"], member=member, form=form, number=number)
    return row["stage"] if row else None


def own_forms(connection: Connection, *, team: UUID, groups: Sequence[str], most: int) -> list[OwnForm]:
    """Return the forms that a member of these groups may fill in, and that say so on their own page."""
    return [
        OwnForm(**row) for row in many(connection, _QUERIES["own_forms"], team=team, groups=list(groups), most=most)
    ]


def open_kept(connection: Connection, *, member: UUID, form: UUID, number: int, digest: bytes) -> bool:
    """Let a member go on with what they kept, by that digest; False where nothing is kept of theirs."""
    row = one(connection, _QUERIES["open_kept"], member=member, form=form, number=number, digest=digest)
    return row is not None


def claim_for_member(connection: Connection, *, member: UUID, form: UUID, number: int) -> None:
    """Make a response a member's, where it is nobody's."""
    connection.execute(_QUERIES["claim_for_member"], {"member": member, "form": form, "number": number})


def forget_member(connection: Connection, *, table: UUID, number: int) -> None:
    """Forget a member for good."""
    connection.execute(_QUERIES["forget_member"], {"table": table, "number": number})


def seen_forms(connection: Connection, *, team: UUID, groups: Sequence[str], most: int) -> list[OwnForm]:
    """Return the forms of which a member of these groups sees the responses of others."""
    rows = many(connection, _QUERIES["seen_forms"], team=team, groups=list(groups), most=most)
    return [OwnForm(**row) for row in rows]


def seen_responses(
    connection: Connection, *, team: UUID, form: UUID, groups: Sequence[str], most: int, number: int | None = None
) -> list[SeenResponse]:
    """Return what a member of these groups may see of others' responses to a form, the latest first; or one of them."""
    known = {"team": team, "form": form, "groups": list(groups), "most": most, "number": number}
    return [SeenResponse(**row) for row in many(connection, _QUERIES["seen_responses"], **known)]
