"""Forms and their drafts."""

from dataclasses import dataclass
from datetime import datetime
from typing import Any
from uuid import UUID

from psycopg.types.json import Jsonb

from codexa.store.database import Connection, exactly_one, many, one
from codexa.store.queries import queries

_QUERIES = queries("forms")


@dataclass(frozen=True, kw_only=True, slots=True)
class SavedAndLive:
    """Which revision of a draft is saved, and which edition visitors get."""

    revision: int
    live_edition: int | None


@dataclass(frozen=True, kw_only=True, slots=True)
class FormForPrograms:
    """A form as programs are told of it: `address` is where visitors fill it in, once it has an `edition`."""

    id: UUID
    name: str
    address: str
    edition: int | None
    changed_at: datetime
    responses: int


@dataclass(frozen=True, kw_only=True, slots=True)
class FormRow:
    """A form on the desk.

    `changed` says that the draft differs from the live edition; `days` are the responses of each of the last 14 days,
    today last; `unreadable` says why this version can't read it; `failed` counts follow-ups that did not work,
    `deciding` responses that wait for a decision;
    `tables_changed` says what it names of tables that is not there any more;
    `access` is who may fill it in and when, and `zone` its time zone where it closes at a moment. `sites` may frame it.
    """

    id: UUID
    name: str
    slug: str
    revision: int
    live_edition: int | None
    changed: bool
    changed_at: datetime
    changed_by: str | None
    responses: int
    days: list[int]
    unreadable: str | None
    tables_changed: str | None
    failed: int
    deciding: int
    access: dict[str, Any]
    zone: str | None
    labels: list[str]
    sites: list[str]
    owner_id: UUID | None
    owner: str | None


@dataclass(frozen=True, kw_only=True, slots=True)
class FormWithDraft:
    """A form with its draft as JSON; `revision` grows by one with each save. No `newest_edition` is 0."""

    id: UUID
    name: str
    slug: str
    sites: list[str]
    draft: dict[str, Any]
    revision: int
    live_edition: int | None
    live_revision: int | None
    newest_edition: int
    changed_at: datetime
    changed_by: str | None
    responses: int


@dataclass(frozen=True, kw_only=True, slots=True)
class Saved:
    """A draft was kept as this revision."""

    revision: int
    changed_at: datetime


def list_forms(connection: Connection, *, team: UUID, person: UUID) -> list[FormRow]:
    """Return the team's forms that are not hidden from a person, latest change first."""
    return [FormRow(**row) for row in many(connection, _QUERIES["list_forms"], team=team, person=person)]


def list_for_programs(connection: Connection, *, team: UUID, form: UUID | None) -> list[FormForPrograms]:
    """Return the team's forms, or the one of that id, latest change first."""
    return [FormForPrograms(**row) for row in many(connection, _QUERIES["list_for_programs"], team=team, form=form)]


def insert_form(
    connection: Connection, *, team: UUID, person: UUID, name: str, slug: str, draft: dict[str, Any], sites: list[str]
) -> UUID:
    """Make a form and return its id."""
    values = {"team": team, "person": person, "name": name, "slug": slug, "draft": Jsonb(draft), "sites": sites}
    form_id: UUID = exactly_one(connection, _QUERIES["insert_form"], **values)["id"]
    return form_id


def find_form(connection: Connection, *, team: UUID, form: UUID) -> FormWithDraft | None:
    """Return one form of the team."""
    row = one(connection, _QUERIES["find_form"], team=team, form=form)
    return FormWithDraft(**row) if row else None


def team_of(connection: Connection, *, form: UUID) -> UUID | None:
    """Return the team of a form; None where there is no such form."""
    row = one(connection, _QUERIES["team_of"], form=form)
    return None if row is None else row["team_id"]


def calendar_of(connection: Connection, *, form: UUID) -> int | None:
    """Return which address of a form's calendar holds; None where there is none."""
    row = one(connection, _QUERIES["calendar_of"], form=form)
    return None if row is None else int(row["calendar_turn"])


def open_calendar(connection: Connection, *, team: UUID, form: UUID, is_open: bool) -> int | None:
    """Give a form's calendar another address, or none, and return which; None where there is no such form."""
    row = one(connection, _QUERIES["open_calendar"], team=team, form=form, open=is_open)
    return None if row is None else int(row["calendar_turn"])


def find_in_force(connection: Connection, *, team: UUID, form: UUID) -> dict[str, Any] | None:
    """Return what visitors get of a form, or its draft where it was never published."""
    row = one(connection, _QUERIES["find_in_force"], team=team, form=form)
    return row["document"] if row else None


def find_revision(connection: Connection, *, team: UUID, form: UUID) -> int | None:
    """Return the revision of a form's draft."""
    row = one(connection, _QUERIES["find_revision"], team=team, form=form)
    return int(row["revision"]) if row else None


def find_saved(connection: Connection, *, team: UUID, form: UUID) -> SavedAndLive | None:
    """Return which revision of a form is saved and which edition is live."""
    row = one(connection, _QUERIES["find_saved"], team=team, form=form)
    return SavedAndLive(**row) if row else None


def all_ids(connection: Connection) -> list[UUID]:
    """Return every form of every team."""
    return [row["id"] for row in many(connection, _QUERIES["all_ids"])]


def documents(connection: Connection, *, form: UUID) -> list[Any]:
    """Return a form's draft and what is live of it, as JSON."""
    return [row["document"] for row in many(connection, _QUERIES["documents"], form=form)]


def set_unreadable(connection: Connection, *, form: UUID, problem: str | None) -> None:
    """Note why a form can't be read by this version, or with None that it can."""
    connection.execute(_QUERIES["set_unreadable"], {"form": form, "problem": problem})


def wait_for_slugs(connection: Connection, *, team: UUID) -> None:
    """Wait until nobody else gives an address to a form of the team; until the transaction's end nobody else can."""
    connection.execute(_QUERIES["wait_for_slugs"], {"team": team})


def slugs_like(connection: Connection, *, team: UUID, slug: str, form: UUID | None) -> set[str]:
    """Return the addresses of other forms than this one that are `slug` or begin with it and a hyphen."""
    return {row["slug"] for row in many(connection, _QUERIES["slugs_like"], team=team, slug=slug, form=form)}


def slug_that_follows(connection: Connection, *, team: UUID, form: UUID) -> str | None:
    """Return a form's address where it goes by its name: nobody chose it, and it was never published; else None."""
    row = one(connection, _QUERIES["slug_that_follows"], team=team, form=form)
    return row["slug"] if row else None


def set_slug(connection: Connection, *, team: UUID, form: UUID, slug: str, chosen: bool) -> bool:
    """Give a form its address, the present one leading on once it was published; False where there is no such form."""
    row = one(connection, _QUERIES["set_slug"], team=team, form=form, slug=slug, chosen=chosen)
    return row is not None


def save_draft(
    connection: Connection,
    *,
    team: UUID,
    form: UUID,
    person: UUID,
    revision: int,
    name: str,
    draft: dict[str, Any],
    changes: int,
) -> Saved | None:
    """Keep a draft made from that revision, with so many changes; None where somebody has saved another since."""
    values = {"team": team, "form": form, "person": person, "revision": revision, "name": name, "draft": Jsonb(draft)}
    row = one(connection, _QUERIES["save_draft"], **values, changes=changes)
    return Saved(**row) if row else None


def set_sites(connection: Connection, *, team: UUID, form: UUID, sites: list[str]) -> bool:
    """Set the websites that may frame the form; False where the team has no such form."""
    return one(connection, _QUERIES["set_sites"], team=team, form=form, sites=sites) is not None


def set_deleted(connection: Connection, *, team: UUID, form: UUID, deleted: bool) -> bool:
    """Delete a form or bring it back; False where there is nothing to change."""
    return one(connection, _QUERIES["set_deleted"], team=team, form=form, deleted=deleted) is not None
