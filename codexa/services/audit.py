"""The audit log of a team: who signed in, gave rights, published, exported, opened feeds and keys, removed.

An entry is written in the transaction of what it tells of: neither is there without the other.
"""

from collections.abc import Iterator
from datetime import datetime
from typing import Any
from uuid import UUID

from codexa.core.sentences import filled
from codexa.store import audit as store
from codexa.store.audit import Entry, Wanted
from codexa.store.database import Connect, Connection
from codexa.store.sessions import SignedIn

# What is noted, by area: each kind with the sentence that tells it.
AREAS: dict[str, dict[str, str]] = {
    "sign-ins": {
        "signed in": "signed in from {network}",
        "signed in with a passkey": "signed in with a passkey from {network}",
        "wrong password": "a wrong password was typed for {name} from {network}",
        "signed out": "signed out",
        "session ended": "ended a session of their own",
        "password changed": "changed their password",
        "name changed": "is called {name} from now on",
        "second factor set": "set up {name} as a second factor",
        "second factor taken away": "took away {name} as a second factor",
        "recovery code used": "used a recovery code",
    },
    "rights": {
        "invited": "invited {name} as {role}",
        "invitation taken back": "took back the invitation of {name}",
        "joined": "joined as {role}",
        "role given": "made {name} {role}, who was {before}",
        "taken out": "took {name} out of the team",
        "left": "left the team",
        "group made": "made the group {name}",
        "group renamed": "named the group {before} {name}",
        "group taken away": "took away the group {name}",
        "put into a group": "put {person} into the group {name}",
        "taken out of a group": "took {person} out of the group {name}",
        "exception made": "gave {person} the role {role} for the form {name}",
        "exception taken away": "took away the exception of {person} for the form {name}",
        "table rights": "let {seen} see the table {name}, and {changed} change it",
        "members begun": "began a table of members",
        "members invited": "wrote to {count} members that they have an account",
        "form moved here": "moved the form {name} here from {before}",
        "forms stayed": "could not bring {name} from a personal desk",
        "form moved away": "moved the form {name} to {to}",
    },
    "publishing": {
        "published": "published edition {edition} of {name}",
        "gone back": "made edition {edition} of {name} live again",
        "sites set": "said which websites may show {name}",
        "who and when set": "set who may fill in {name}, and when",
        "password set": "set the password of {name}",
        "password taken away": "took away the password of {name}",
    },
    "exports": {
        "exported": "exported {what} of {name}",
        "payments exported": "exported the payments of all forms",
        "table exported": "exported the table {name}",
        "audit exported": "exported the audit log",
        "person's data taken": "took out everything about a person",
    },
    "feeds and keys": {
        "feed opened": "opened a feed of {name}",
        "feed ended": "ended a feed of {name}",
        "key made": "made the key {name}",
        "key ended": "ended the key {name}",
        "calendar added": "added the calendar {name}",
        "calendar removed": "removed the calendar {name}",
    },
    "removals": {
        "responses removed": "removed {count} responses of {name}",
        "responses anonymised": "anonymised {count} responses of {name}",
        "retention set": "said how long responses of {name} are kept",
        "person forgotten": "forgot a person: {count} responses, {records} records",
        "form deleted": "deleted the form {name}",
        "form given": "gave the form {name} to somebody",
        "form brought back": "brought back the form {name}",
        "table deleted": "deleted the table {name}",
        "records removed": "removed {count} records of {name}",
        "member left": "a member left and was forgotten",
    },
}
KINDS = {kind: words for area in AREAS.values() for kind, words in area.items()}
_AT_ONCE = 500


def note(connection: Connection, who: SignedIn, kind: str, **about: Any) -> None:
    """Note what somebody who is signed in did; `about` fills in the kind's sentence."""
    note_of(connection, who.team_id, kind, by=who.person_id, called=who.person_name, **about)


def note_form(connection: Connection, who: SignedIn, kind: str, form: UUID, **about: Any) -> None:
    """Note what somebody did with a form of the team."""
    note(connection, who, kind, name=store.form_name(connection, team=who.team_id, form=form), **about)


def keep(connect: Connect, who: SignedIn, kind: str, form: UUID | None = None, **about: Any) -> None:
    """Note what somebody is about to be given: before it is."""
    with connect() as connection:
        if form is None:
            note(connection, who, kind, **about)
        else:
            note_form(connection, who, kind, form, **about)


def note_of(connection: Connection, team: UUID, kind: str, *, by: UUID | None, called: str, **about: Any) -> None:
    """Note the same of somebody who has no session, by id and name."""
    assert kind in KINDS, kind
    told = {each: value if isinstance(value, int) else str(value)[:200] for each, value in about.items()}
    store.insert_entry(connection, team=team, person=by, name=called[:200], kind=kind, about=told)


def told(entry: Entry) -> str:
    """Return what was done, in words."""
    return filled(KINDS.get(entry.kind, entry.kind), entry.about)


def area_of(kind: str) -> str:
    """Return the area of a kind."""
    return next(area for area, kinds in AREAS.items() if kind in kinds)


def kinds_of(area: str) -> list[str] | None:
    """Return the kinds of an area, None for all areas."""
    return list(AREAS[area]) if area in AREAS else None


def page(connect: Connect, *, who: SignedIn, wanted: Wanted, before: int | None, most: int) -> list[Entry]:
    """Return some of what was done in the team, the latest first, before an entry by its id."""
    with connect() as connection:
        return store.list_entries(connection, team=who.team_id, wanted=wanted, before=before, most=most)


def every(connect: Connect, *, who: SignedIn, wanted: Wanted) -> Iterator[Entry]:
    """Yield all of it, read while it is taken, and note that it was taken out."""
    with connect() as connection:
        note(connection, who, "audit exported")
    before: int | None = None
    while found := page(connect, who=who, wanted=wanted, before=before, most=_AT_ONCE):
        yield from found
        before = found[-1].id


def moment(text: str) -> datetime | None:
    """Return the moment of an ISO 8601 text with offset, None where it is none."""
    try:
        found = datetime.fromisoformat(text)
    except ValueError:
        return None
    return found if found.tzinfo else None
