"""Making sealed links of a table's lines, listing them, ending them, and sending them by mail."""

import csv
import html
import io
from collections.abc import Iterator, Mapping, Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Any
from uuid import UUID

import xlsxwriter

from codexa.core.errors import DefinitionError, Problem
from codexa.core.form.access import moment_in
from codexa.core.form.form import SEAL
from codexa.core.program.link_values import value_problem
from codexa.core.program.places import ALWAYS
from codexa.core.program.program import Program
from codexa.services.accounts.mail_words import notice
from codexa.services.errands.asking import ask
from codexa.services.errors import NotFoundError
from codexa.services.follow_ups import mailing
from codexa.services.follow_ups.outcomes import NeverError
from codexa.services.response_csv import defused
from codexa.services.sealing import new_key, new_mark, seal_of, signing_key
from codexa.services.spreadsheets import Line, Table
from codexa.settings import Settings
from codexa.store import sealed_links as store
from codexa.store.database import Connect, Connection
from codexa.store.sealed_links import ListedLink, NewLink, SealedLink, WaitingMail
from codexa.store.sessions import SignedIn

ERRAND = "sealed links sent by mail"
_MOST_SHOWN = 100  # lines that are told to be wrong
_SAMPLE = 5
_LISTED_AT_ONCE = 1_000
_MAILED_AT_ONCE = 50


@dataclass(frozen=True, kw_only=True, slots=True)
class Making:
    """How links are made of a table: `columns` maps a name of a value to the header that gives it.

    `until` is a moment where the form is at home, or ""; `uses` how often each may be used, None for any number of
    times; `email` the header of the addresses to which they can be sent, or "".
    """

    name: str
    columns: Mapping[str, str]
    until: str = ""
    uses: int | None = None
    email: str = ""


@dataclass(frozen=True, kw_only=True, slots=True)
class WrongLine:
    """A line that no link is made of, and why."""

    number: int
    message: str


@dataclass(frozen=True, kw_only=True, slots=True)
class Plan:
    """What would be made of a table: the values of its good lines, and what is wrong with the others."""

    good: tuple[tuple[Line, dict[str, str]], ...]
    wrong: tuple[WrongLine, ...]


def plan(program: Program, table: Table, making: Making) -> Plan:
    """Return what links would be made of a table. Raises DefinitionError where a column or a value is not there."""
    known = {link.name: block for block, (link, _) in program.linked.items()}
    problems = [
        Problem(path=f"columns.{name}", message=f"the form has no value {name} for links")
        for name in making.columns
        if name not in known
    ]
    problems += [
        Problem(path="columns", message=f"the table has no column “{header}”")
        for header in [*making.columns.values(), *([making.email] if making.email else [])]
        if header not in table.headers
    ]
    if not making.columns:
        problems.append(Problem(path="columns", message="pick at least one column that gives a value"))
    if problems:
        raise DefinitionError(problems)
    good, wrong = [], []
    for line in table.lines:
        given = {name: line.cells.get(header, "") for name, header in making.columns.items()}
        message = _wrong_with(program, line, given, known, making)
        if message is None:
            good.append((line, {name: text for name, text in given.items() if text}))
        else:
            wrong.append(WrongLine(number=line.number, message=message))
    return Plan(good=tuple(good), wrong=tuple(wrong))


def _wrong_with(
    program: Program, line: Line, given: Mapping[str, str], known: Mapping[str, str], making: Making
) -> str | None:
    if not any(given.values()):
        return "has none of the values"
    for name, text in given.items():
        block, link = known[name], program.linked[known[name]][0]
        if not text and link.visitor != "open" and program.places[block].conditions.required is ALWAYS:
            return f"has no {making.columns[name]}, which must be there"
        problem = value_problem(program, block, text) if text else None
        if problem is not None:
            return f"{making.columns[name]} “{text[:60]}”: {problem}"
    if making.email and not _is_address(line.cells.get(making.email, "")):
        return f"{making.email} “{line.cells.get(making.email, '')[:60]}” is no e-mail address"
    return None


def _is_address(text: str) -> bool:
    name, at, host = text.partition("@")
    return bool(at and name and "." in host) and not any(each.isspace() or each in ",;<>" for each in text)


def make(
    connect: Connect, settings: Settings, program: Program, *, who: SignedIn, form: UUID, planned: Plan, making: Making
) -> int:
    """Make the links and return what they are known by together. Raises NotFoundError, DefinitionError."""
    until = moment_in(making.until, program.form.time_zone) if making.until else None
    with connect() as connection:
        if not store.lock_keys(connection, team=who.team_id, form=form):
            raise NotFoundError
        key = signing_key(connection, settings, form=form)
        links = (_new_link(key, line, given, until, making) for line, given in planned.good)
        return store.insert_batch(connection, form=form, name=making.name, person=who.person_id, links=links)


def _new_link(key: int, line: Line, given: dict[str, str], until: datetime | None, making: Making) -> NewLink:
    email = line.cells.get(making.email, "") if making.email else ""
    return NewLink(mark=new_mark(), key=key, given=given, until=until, uses=making.uses, email=email)


def change_key(connect: Connect, settings: Settings, *, who: SignedIn, form: UUID, end_others: bool) -> int:
    """Sign new links with a new key, and return its number; with `end_others` no earlier link opens any more."""
    with connect() as connection:
        if not store.lock_keys(connection, team=who.team_id, form=form):
            raise NotFoundError
        number = new_key(connection, settings, form=form)
        if end_others:
            store.end_keys(connection, form=form, keep=number)
    return number


def sealed_address(base: str, form: UUID, link: SealedLink, settings: Settings) -> str:
    """Return the address of a link that was made, to a form at `base`."""
    return f"{base}?{SEAL}={seal_of(link, settings, form=form)}"


def all_links(connection: Connection, *, who: SignedIn, form: UUID, batch: int) -> Iterator[ListedLink]:
    """Yield all links that were made together, some fetched at a time."""
    after = 0
    while found := store.list_links(
        connection, team=who.team_id, form=form, batch=batch, after=after, limit=_LISTED_AT_ONCE
    ):
        yield from found
        after = found[-1].id


def table_rows(
    settings: Settings, base: str, form: UUID, links: Iterator[ListedLink], names: Sequence[str]
) -> Iterator[list[str]]:
    """Yield the rows of a table of links, its headers first."""
    yield [*names, "E-mail", "Link", "Responses", "State"]
    for link in links:
        address = sealed_address(base, form, link, settings)
        state = "ended" if link.ended else link.mail or "open"
        values = [link.given.get(name, "") for name in names]
        yield [*values, link.email, address, str(link.responses), state]


def as_csv(rows: Iterator[list[str]]) -> Iterator[str]:
    """Yield a table as CSV (RFC 4180), with spreadsheet formulas defused."""
    for row in rows:
        buffer = io.StringIO()
        csv.writer(buffer, lineterminator="\r\n").writerow([defused(cell) for cell in row])
        yield buffer.getvalue()


def as_xlsx(rows: Iterator[list[str]], link_at: int) -> bytes:
    """Return a table as a spreadsheet (ISO/IEC 29500): every cell is text, that at `link_at` a link."""
    made = io.BytesIO()
    book = xlsxwriter.Workbook(made, {"in_memory": True, "constant_memory": True, "strings_to_urls": False})
    sheet = book.add_worksheet("Links")
    bold, link = book.add_format({"bold": True}), book.get_default_url_format()
    sheet.freeze_panes(1, 0)
    for at, row in enumerate(rows):
        for column, cell in enumerate(row):
            # Excel takes 65,530 links on a sheet; more of them stay as text that can be copied.
            if at and column == link_at and at <= _MOST_URLS:
                sheet.write_url(at, column, cell, link, cell)
            else:
                sheet.write_string(at, column, cell, bold if at == 0 else None)
    book.close()
    return made.getvalue()


_MOST_URLS = 65_000


def ask_for_mails(connect: Connect, *, who: SignedIn, form: UUID, batch: int, subject: str, words: str) -> int:
    """Have every link of a batch sent to its address, each once, and return how many that are."""
    with connect() as connection:
        count = store.to_mail(connection, team=who.team_id, form=form, batch=batch)
        if count:
            about = {"batch": batch, "subject": subject, "words": words}
            ask(connection, ERRAND, about, team=who.team_id)
    return count


def send_mails(connect: Connect, settings: Settings, about: Mapping[str, Any], team: UUID | None) -> str:
    """Send links that wait for it, some at a time; what is left over is another errand. Raises TryLaterError."""
    with connect() as connection:
        waiting = store.waiting_mails(connection, batch=about["batch"], limit=_MAILED_AT_ONCE + 1)
    for link in waiting[:_MAILED_AT_ONCE]:
        try:
            result, state = mailing.send(_mail(link, about, settings), key=f"link.{link.id}", settings=settings), "sent"
        except NeverError as error:
            result, state = str(error), "failed"
        with connect() as connection:
            store.set_mail(connection, link=link.id, state=state, result=result[:500])
    if len(waiting) > _MAILED_AT_ONCE:
        with connect() as connection:
            ask(connection, ERRAND, dict(about), team=team)
    return f"{min(len(waiting), _MAILED_AT_ONCE)} links"


def _mail(link: WaitingMail, about: Mapping[str, Any], settings: Settings) -> dict[str, Any]:
    base = f"{settings.public_address}/f/{link.team_slug}/{link.slug}"
    address = html.escape(sealed_address(base, link.form_id, link, settings))
    words = "".join(f"<p>{html.escape(each)}</p>" for each in about["words"].split("\n") if each.strip())
    text = f'{words}<p><a href="{address}">{address}</a></p>'
    return notice(to=[link.email], subject=about["subject"], text=text) | {"from_name": link.team_name}
