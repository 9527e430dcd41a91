"""What is done to many responses at once: to all that a filter chooses, a part at a time, by a job that may die.

Each part is one transaction with how far it has come, so that nothing is done twice and nothing is left out.
"""

from collections.abc import Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Any, Literal, get_args
from uuid import UUID

from codexa.services import uploads
from codexa.services.audit import note_form
from codexa.services.editions import Editions
from codexa.services.errands.asking import ask
from codexa.services.errors import BehindError, NotFoundError, TooManyError, ViewRefusedError
from codexa.services.follow_ups.keeping import run_last_again
from codexa.services.response_set import filling, marking, removing
from codexa.services.response_set.anonymising import Anonymising
from codexa.services.response_set.export_files import remove
from codexa.services.response_set.looking import Look
from codexa.services.response_set.opening import open_set
from codexa.services.roles import Right, require
from codexa.store import bulks, export_files, ledger_queries
from codexa.store import editions as editions_store
from codexa.store import marking as marking_store
from codexa.store.bulks import BulkRow, Part
from codexa.store.database import Connect, Connection
from codexa.store.marking import Mark
from codexa.store.sessions import SignedIn

ERRAND = "something done to many responses"
Does = Literal["status", "tag", "untag", "person", "remove", "bring back", "anonymise", "mail again"]
_MARKS: frozenset[str] = frozenset(get_args(Mark))
_AT_ONCE = 500
_MOST = 1_000_000
_MOST_PARTS = 200
# What brings back what was done.
_UNDOES: dict[str, Does] = {"remove": "bring back", "tag": "untag", "bring back": "remove"}


_NOTED = {"remove": "responses removed", "anonymise": "responses anonymised"}


def ask_for(
    connect: Connect,
    editions: Editions,
    *,
    who: SignedIn,
    form: UUID,
    chosen: Look | Sequence[int],
    does: Does,
    value: str,
) -> UUID:
    """Have something done to responses that are named by number, or that are looked at now; return its id.

    Raises NotAllowedError, NotFoundError, ViewRefusedError, ConditionError, BehindError, TooManyError.
    """
    require(who, Right.MARK_RESPONSES if does in _MARKS else Right.EDIT_FORMS)
    if does in _MARKS:
        with connect() as connection:
            marking.require_value(connection, who, form, kind=_mark(does), value=value)
    numbers = _numbers(connect, editions, who, form, chosen) if isinstance(chosen, Look) else chosen
    if not numbers:
        raise ViewRefusedError("There is no such response any more. Look again.")
    return _begin(connect, who=who, form=form, numbers=numbers, does=does, value=value)


def _begin(connect: Connect, *, who: SignedIn, form: UUID, numbers: Sequence[int], does: str, value: str) -> UUID:
    with connect() as connection:
        bulk = bulks.insert_bulk(
            connection,
            team=who.team_id,
            form=form,
            person=who.person_id,
            does=does,
            value=value,
            numbers=sorted(numbers),
        )
        if bulk is None:
            raise NotFoundError
        if does in _NOTED:
            note_form(connection, who, _NOTED[does], form, count=len(numbers))
        ask(connection, ERRAND, {"bulk": str(bulk)}, team=who.team_id)
    return bulk


def _numbers(connect: Connect, editions: Editions, who: SignedIn, form: UUID, look: Look) -> list[int]:
    opened = open_set(connect, editions, who=who, form=form)
    if opened.behind:
        raise BehindError("Some responses are still being read in. Try again in a minute.")
    chosen = opened.asking.chosen(look.filter)
    with connect() as connection:
        numbers = ledger_queries.numbers(connection, opened.ledger, chosen, most=_MOST + 1)
    if len(numbers) > _MOST:
        raise TooManyError(f"These are more than {_MOST:,} responses. Filter them.")
    return numbers


def list_bulks(connect: Connect, *, who: SignedIn, form: UUID) -> list[BulkRow]:
    """Return what was done within a day to responses of a form, and what is being done, newest first.

    Raises NotFoundError.
    """
    with connect() as connection:
        if bulks.retention(connection, team=who.team_id, form=form) is None:
            raise NotFoundError
        return bulks.list_bulks(connection, team=who.team_id, form=form)


def stop(connect: Connect, *, who: SignedIn, form: UUID, bulk: UUID) -> None:
    """End what is not done yet; what was gone through stays as it is. Raises NotFoundError."""
    with connect() as connection:
        if not bulks.stop_bulk(connection, team=who.team_id, form=form, bulk=bulk):
            raise NotFoundError("This has ended already.")


def undo(connect: Connect, *, who: SignedIn, form: UUID, bulk: UUID) -> UUID:
    """Have undone what was done to those to which it happened. Raises NotFoundError, NotAllowedError."""
    with connect() as connection:
        found = bulks.changed_by(connection, team=who.team_id, form=form, bulk=bulk)
    if found is None or found.does not in _UNDOES or not found.changed:
        raise NotFoundError("There is nothing of it to undo.")
    does = _UNDOES[found.does]
    require(who, Right.MARK_RESPONSES if does in _MARKS else Right.EDIT_FORMS)
    return _begin(connect, who=who, form=form, numbers=found.changed, does=does, value=found.value)


def ask_for_due(connect: Connect) -> None:
    """Have anonymised or removed what forms keep no longer."""
    with connect() as connection:
        for bulk, team in bulks.insert_due(connection):
            ask(connection, ERRAND, {"bulk": str(bulk)}, team=team)


def retention(connect: Connect, *, who: SignedIn, form: UUID) -> dict[str, Any]:
    """Return after how many `days` a form's responses are what ("anonymise", "remove"); {} where they are kept.

    Raises NotFoundError.
    """
    with connect() as connection:
        found = bulks.retention(connection, team=who.team_id, form=form)
    if found is None:
        raise NotFoundError
    return found


def set_retention(connect: Connect, *, who: SignedIn, form: UUID, retention: dict[str, Any]) -> None:
    """Have a form's responses anonymised or removed after so many days; {} keeps them. Raises NotFoundError."""
    with connect() as connection:
        if not bulks.set_retention(connection, team=who.team_id, form=form, retention=retention):
            raise NotFoundError
        note_form(connection, who, "retention set", form)


@dataclass(frozen=True, kw_only=True, slots=True)
class Way:
    """What it is done with; `files` is the folder of uploads."""

    connect: Connect
    editions: Editions
    files: Path


def carry_out(way: Way, bulk: UUID) -> str:
    """Do what was asked for, from where it had come to, and say how it ended."""
    anonymising: Anonymising | None = None
    done = 0
    while True:
        with way.connect() as connection:
            part = bulks.take_part(connection, bulk=bulk, most=0)
        if part is None:
            return f"{done} responses gone through"
        if part.does == "anonymise" and anonymising is None:
            anonymising = _anonymising(way, part.form_id)
            # What was written before names people still.
            with way.connect() as connection:
                written = export_files.delete_of_form(connection, form=part.form_id)
            remove(way.files, written)
        with way.connect() as connection:
            # Each part writes down anew to which it happened: of very many there are larger ones, not more of them.
            part = bulks.take_part(connection, bulk=bulk, most=max(_AT_ONCE, part.count // _MOST_PARTS))
            if part is None:
                continue
            changed, files = _do(connection, part, anonymising)
            bulks.end_part(connection, bulk=bulk, gone=len(part.numbers), changed=changed)
        done += len(part.numbers)
        for file in files:
            uploads.remove(way.files, file)
        if part.does == "anonymise":
            # Nothing of it is found by searching any more either.
            filling.of_form(way.connect, way.editions, part.form_id).catch_up()


def _anonymising(way: Way, form: UUID) -> Anonymising:
    with way.connect() as connection:
        numbers = editions_store.all_numbers(connection, form=form)
    return Anonymising(way.editions, form=form, numbers=numbers)


def _mark(does: str) -> Mark:
    return next(each for each in get_args(Mark) if each == does)


def _do(connection: Connection, part: Part, anonymising: Anonymising | None) -> tuple[list[int], list[UUID]]:
    """Do it to one part; return the numbers to which it happened, and files to be deleted afterwards."""
    who: dict[str, Any] = {"team": part.team_id, "form": part.form_id, "actor": part.person_id, "numbers": part.numbers}
    match part.does:
        case "remove":
            return removing.remove_within(connection, **who), []
        case "bring back":
            return removing.bring_back_within(connection, **who), []
        case "mail again":
            return run_last_again(
                connection,
                team=part.team_id,
                form=part.form_id,
                person=part.person_id,
                numbers=part.numbers,
                follow_up=part.value,
            ), []
        case "anonymise":
            assert anonymising is not None
            return anonymising.anonymise(connection, numbers=part.numbers, person=part.person_id)
        case _:
            return marking_store.mark(connection, **who, kind=_mark(part.does), value=part.value), []
