"""Calendars of other systems, and the entries that follow-ups keep there."""

from dataclasses import dataclass
from uuid import UUID

from codexa.store.database import Connection, many, one
from codexa.store.queries import queries

_QUERIES = queries("calendars")


@dataclass(frozen=True, kw_only=True, slots=True)
class Calendar:
    """A calendar of a team: its address, and who signs in there."""

    id: UUID
    name: str
    address: str
    user_name: str


@dataclass(frozen=True, kw_only=True, slots=True)
class CalendarRow(Calendar):
    """The same with the password, encrypted."""

    password: bytes


@dataclass(frozen=True, kw_only=True, slots=True)
class Entry:
    """Where the entry of a response stands, under which UID, and how often it was changed."""

    calendar_id: UUID
    uid: str
    sequence: int


def list_calendars(connection: Connection, *, team: UUID) -> list[Calendar]:
    """Return the calendars of a team, by name."""
    return [Calendar(**row) for row in many(connection, _QUERIES["list_calendars"], team=team)]


def insert_calendar(
    connection: Connection, *, team: UUID, name: str, address: str, user_name: str, password: bytes
) -> UUID | None:
    """Take up a calendar and return its id; None where the team has one of that name."""
    known = {"team": team, "name": name, "address": address, "user_name": user_name, "password": password}
    row = one(connection, _QUERIES["insert_calendar"], **known)
    return None if row is None else row["id"]


def find_calendar(connection: Connection, *, team: UUID, calendar: UUID) -> CalendarRow | None:
    """Return a calendar of a team."""
    row = one(connection, _QUERIES["find_calendar"], team=team, calendar=calendar)
    return None if row is None else CalendarRow(**row)


def calendar_of_form(connection: Connection, *, form: UUID, calendar: UUID) -> CalendarRow | None:
    """Return a calendar, where it is of the team that a form belongs to."""
    row = one(connection, _QUERIES["calendar_of_form"], form=form, calendar=calendar)
    return None if row is None else CalendarRow(**row)


def ids_for(connection: Connection, *, form: UUID) -> list[UUID]:
    """Return the ids of the calendars of a form's team."""
    return [row["id"] for row in many(connection, _QUERIES["ids_for"], form=form)]


def forms_with(connection: Connection, *, team: UUID, calendar: UUID) -> list[str]:
    """Return the names of the first forms that keep entries in a calendar."""
    return [row["name"] for row in many(connection, _QUERIES["forms_with"], team=team, calendar=calendar)]


def delete_calendar(connection: Connection, *, team: UUID, calendar: UUID) -> str | None:
    """Remove a calendar and return what it was called; None where there is none."""
    row = one(connection, _QUERIES["delete_calendar"], team=team, calendar=calendar)
    return None if row is None else row["name"]


def find_entry(connection: Connection, *, form: UUID, number: int, follow_up: str) -> Entry | None:
    """Return where the entry of a response stands that a follow-up has made; None where nowhere."""
    row = one(connection, _QUERIES["find_entry"], form=form, number=number, follow_up=follow_up)
    return None if row is None else Entry(**row)


def put_entry(
    connection: Connection, *, form: UUID, number: int, follow_up: str, calendar: UUID, uid: str, sequence: int
) -> None:
    """Note where the entry of a response stands."""
    known = {"form": form, "number": number, "follow_up": follow_up}
    connection.execute(_QUERIES["put_entry"], known | {"calendar": calendar, "uid": uid, "sequence": sequence})


def remove_entry(connection: Connection, *, form: UUID, number: int, follow_up: str) -> None:
    """Note that it stands nowhere any more."""
    connection.execute(_QUERIES["remove_entry"], {"form": form, "number": number, "follow_up": follow_up})
