"""Taking in responses from a table: columns are fields, and every line goes through the core.

What is wrong is told by line. Nobody is written to and nothing is asked for: these responses came some other way. Each
line is kept once, however often a worker dies over it.
"""

import datetime
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from typing import Any
from uuid import UUID
from zoneinfo import ZoneInfo

from codexa.core.fields.file_upload import FileUploadField
from codexa.core.look_ups import Tables
from codexa.core.program.accept import Refused, accept
from codexa.core.program.by_key import entered_by_key, path_of
from codexa.core.program.evaluate import FieldError
from codexa.core.program.places import Place, RepeatPlace
from codexa.core.program.program import Program
from codexa.services.answering import Given
from codexa.services.context import context_of
from codexa.services.editions import Editions
from codexa.services.errands.asking import ask
from codexa.services.errors import NotFoundError, ServiceError, TableRefusedError
from codexa.services.receiving import Incoming, receive
from codexa.services.spreadsheets import Line, Table, read_table
from codexa.services.tables.looking_up import tables_for
from codexa.store import forms, imports
from codexa.store.database import Connect, Connection
from codexa.store.imports import Import, ImportRow
from codexa.store.sessions import SignedIn

ERRAND = "responses taken in from a table"
RECEIVED = "response.received"  # the column that says when a response came
_AT_ONCE = 100
_TRIED = 2_000  # lines that are gone through before anything is kept
_MOST_TOLD = 100
_MOST_REFUSED = 10_000


@dataclass(frozen=True, kw_only=True, slots=True)
class Target:
    """A field that a column may be: its key and label."""

    key: str
    label: str


@dataclass(frozen=True, kw_only=True, slots=True)
class Plan:
    """What a table would bring: which column is which field, and of the lines that were `tried` those that are wrong.

    `wrong` are the first of them, with the number of the line as spreadsheets count, and why.
    """

    headers: list[str]
    lines: int
    empty: int
    targets: list[Target]
    columns: dict[str, str]
    tried: int
    wrong_count: int
    wrong: list[tuple[int, str]]


def plan(
    connect: Connect, editions: Editions, *, who: SignedIn, form: UUID, table: bytes, columns: Mapping[str, str] | None
) -> Plan:
    """Return what a table would bring; `columns` are keys by header, None for what its headers say.

    Raises TableRefusedError, NotFoundError.
    """
    program, _ = _program(connect, editions, who, form)
    read = read_table(table)
    targets = _targets(program)
    chosen = _likely(read.headers, targets) if columns is None else _known(columns, read, targets)
    tried = read.lines[:_TRIED]
    with tables_for(connect, form) as tables:
        told = [(line.number, _problem(program, _taken(line, chosen), tables)) for line in tried]
    wrong = [(line, message) for line, message in told if message]
    return Plan(
        headers=[each for each in read.headers if each],
        lines=len(read.lines),
        empty=read.empty,
        targets=targets,
        columns=chosen,
        tried=len(tried),
        wrong_count=len(wrong),
        wrong=wrong[:_MOST_TOLD],
    )


def begin(
    connect: Connect,
    editions: Editions,
    *,
    who: SignedIn,
    form: UUID,
    table: bytes,
    columns: Mapping[str, str],
    name: str,
) -> UUID:
    """Have a table's lines taken in, and return its id. Raises TableRefusedError, NotFoundError."""
    program, edition = _program(connect, editions, who, form)
    read = read_table(table)
    chosen = _known(columns, read, _targets(program))
    if not read.lines:
        raise TableRefusedError("The table has no lines below its headers.")
    with connect() as connection:
        made = imports.insert_import(
            connection,
            team=who.team_id,
            form=form,
            person=who.person_id,
            name=name,
            edition=edition,
            lines=[_taken(line, chosen) for line in read.lines],
        )
        if made is None:
            raise NotFoundError
        ask(connection, ERRAND, {"import": str(made)}, team=who.team_id)
    return made


def list_imports(connect: Connect, *, who: SignedIn, form: UUID) -> list[ImportRow]:
    """Return what was taken in of late into a form, newest first. Raises NotFoundError."""
    with connect() as connection:
        if not forms.list_for_programs(connection, team=who.team_id, form=form):
            raise NotFoundError
        return imports.list_imports(connection, team=who.team_id, into=form)


def stop(connect: Connect, *, who: SignedIn, form: UUID, taking: UUID) -> None:
    """Take in nothing more; what is in stays. Raises NotFoundError."""
    with connect() as connection:
        if not imports.stop_import(connection, team=who.team_id, into=form, taking=taking):
            raise NotFoundError("This has ended already.")


def carry_out(connect: Connect, editions: Editions, taking: UUID) -> str:
    """Take in what is left of a table, and say how it ended."""
    with connect() as connection:
        found = imports.find_import(connection, taking=taking)
    if found is None:
        return "there was nothing to take in any more"
    program, kept = editions.program(found.form_id, found.edition), 0
    while True:
        with connect() as connection:
            place = imports.lock_import(connection, taking=taking)
            if place is None:
                return f"{kept} responses taken in"
            part = found.lines[place : place + _AT_ONCE]
            # Whoever has so many wrong lines corrects the table, and needs no longer list for that.
            refused = list(_take(connection, program, found, taking, part))
            imports.end_part(
                connection,
                taking=taking,
                gone=len(part),
                kept=len(part) - len(refused),
                refused=refused[: max(0, _MOST_REFUSED - place)],
            )
        kept += len(part) - len(refused)


def _take(
    connection: Connection, program: Program, found: Import, taking: UUID, part: Sequence[Mapping[str, Any]]
) -> Iterator[dict[str, Any]]:
    """Take in lines; yield those that are refused, with why."""
    for line in part:
        read = _read(program, line)
        message = read.wrong
        if not message:
            incoming = Incoming(
                form=found.form_id,
                edition=found.edition,
                key=f"import {taking} {line['line']}",
                given=Given(answers=dict(read.answers), link={}),
                came={"way": "table", "page": "", "seconds": None},
            )
            try:
                result = receive(connection, program, incoming, at=read.moment)
                message = _first(program, result) if isinstance(result, Refused) else ""
            except ServiceError as error:
                message = error.message
        if message:
            yield {"line": line["line"], "message": message}


def _program(connect: Connect, editions: Editions, who: SignedIn, form: UUID) -> tuple[Program, int]:
    with connect() as connection:
        found = forms.list_for_programs(connection, team=who.team_id, form=form)
    if not found:
        raise NotFoundError
    edition = found[0].edition
    if edition is None:
        raise TableRefusedError("This form has no edition yet that could take responses. Publish it first.")
    return editions.program(form, edition), edition


def _targets(program: Program) -> list[Target]:
    fields = [
        Target(key=each.block.key, label=each.block.label)
        for each in program.top_places
        if _is_target(each) and hasattr(each.block, "key") and hasattr(each.block, "label")
    ]
    return [*fields, Target(key=RECEIVED, label="Received")]


def _is_target(place: Place) -> bool:
    return place.answered and not isinstance(place, RepeatPlace) and not isinstance(place.block, FileUploadField)


def _plain(text: str) -> str:
    return "".join(sign for sign in text.casefold() if sign.isalnum())


def _likely(headers: Sequence[str], targets: Sequence[Target]) -> dict[str, str]:
    """Return the fields that headers mean: by key or label, each once."""
    by_name = {_plain(each.label): each.key for each in targets} | {_plain(each.key): each.key for each in targets}
    found: dict[str, str] = {}
    for header in headers:
        key = by_name.get(_plain(header)) if _plain(header) else None
        if key is not None and key not in found.values():
            found[header] = key
    return found


def _known(columns: Mapping[str, str], table: Table, targets: Sequence[Target]) -> dict[str, str]:
    keys = {each.key for each in targets}
    for header, key in columns.items():
        if header not in table.headers:
            raise TableRefusedError(f"The table has no column “{header}”.")
        if key not in keys:
            raise TableRefusedError(f"The form has no field of the key “{key}” that a column could be.")
    if len(set(columns.values())) < len(columns):
        raise TableRefusedError("Two columns are the same field. Leave one of them out.")
    return dict(columns)


def _taken(line: Line, columns: Mapping[str, str]) -> dict[str, Any]:
    """Return a line by key; a blank cell is no answer."""
    cells = {key: line.cells.get(header, "") for header, key in columns.items()}
    received = cells.pop(RECEIVED, "")
    return {"line": line.number, "answers": {key: cell for key, cell in cells.items() if cell}, "received": received}


@dataclass(frozen=True, kw_only=True, slots=True)
class _Read:
    """A line as it would be handed in: raw answers and when it came; or what can't be read in it."""

    answers: Mapping[str, Any]
    moment: datetime.datetime | None
    wrong: str


def _read(program: Program, line: Mapping[str, Any]) -> _Read:
    try:
        moment = _moment(program, line)
    except ValueError:
        wrong = f"Received – “{line['received'][:40]}” is no date or moment as in ISO 8601, such as 2026-11-29."
        return _Read(answers={}, moment=None, wrong=wrong)
    entered = entered_by_key(program, line["answers"])
    path, error = next(iter(entered.wrong.items()), ("", None))
    return _Read(answers=entered.answers, moment=moment, wrong=f"{path} – {error.message}" if error else "")


def _problem(program: Program, line: Mapping[str, Any], tables: Tables) -> str:
    """Return what is wrong with a line, "" where it can be taken in, as far as that can be known before."""
    read = _read(program, line)
    if read.wrong:
        return read.wrong
    result = accept(program, read.answers, context_of(program.form, at=read.moment, tables=tables))
    return _first(program, result) if isinstance(result, Refused) else ""


def _first(program: Program, refused: Refused) -> str:
    """Return the first thing that is wrong, under the label that people know."""
    if not refused.errors:
        return "The form has not all of these fields any more."
    address, error = next(iter(refused.errors.items()))
    return _told(program, address, error)


def _told(program: Program, address: str, error: FieldError) -> str:
    place = program.places.get(address.rsplit("/", 1)[-1])
    label = "" if place is None else str(getattr(place.block, "label", ""))
    return f"{label or path_of(program, address)} – {error.message}"


def _moment(program: Program, line: Mapping[str, Any]) -> datetime.datetime:
    """Return when a response came: as its line says, else now. Raises ValueError."""
    zone = ZoneInfo(program.form.time_zone)
    if not line["received"]:
        return datetime.datetime.now(zone)
    moment = datetime.datetime.fromisoformat(line["received"])
    return moment if moment.tzinfo is not None else moment.replace(tzinfo=zone)
