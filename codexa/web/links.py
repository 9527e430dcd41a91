"""Links with values: made of a table, listed, ended, and sent by mail."""

import base64
import binascii
from collections.abc import Iterator
from uuid import UUID

from flask import Blueprint, Response, current_app

from codexa.core.program.program import Program
from codexa.services import audit, links
from codexa.services.drafts import find
from codexa.services.errors import NotFoundError
from codexa.services.links import Making, Plan
from codexa.services.roles import Right
from codexa.services.spreadsheets import MOST_BYTES, Table, read_table
from codexa.settings import Settings
from codexa.store import sealed_links as store
from codexa.store.sealed_links import ListedLink
from codexa.store.sessions import SignedIn
from codexa.web.contract.publish import (
    BatchesReply,
    BatchReply,
    LinkMailsReply,
    LinkMailsRequest,
    LinksPlanReply,
    LinksRequest,
    MadeLinksReply,
    SealedLinkReply,
    SealedLinksReply,
    SealKeyReply,
    SealKeyRequest,
    WrongLineReply,
)
from codexa.web.database import connection, editions, export_connection
from codexa.web.drafts import address_of
from codexa.web.endpoint import endpoint
from codexa.web.files import XLSX, streamed_file
from codexa.web.guard import may
from codexa.web.limits import HEAVY_RATE, limiter, who_is_counted
from codexa.web.reading import BadRequestError, query_number

blueprint = Blueprint("links", __name__, url_prefix="/api/forms/<uuid:form>/links")
_MOST_TABLE = MOST_BYTES * 4 // 3 + 64 * 1024  # a table in base64, and what stands around it
_MOST_SHOWN, _FIRST = 100, 5
_MOST_LISTED = 200


@endpoint(blueprint, "POST", "/plan", body=LinksRequest, reply=LinksPlanReply, most=_MOST_TABLE)
@limiter.limit(HEAVY_RATE, key_func=who_is_counted)
def plan(asked: LinksRequest, form: UUID) -> LinksPlanReply:
    """Say what links would be made of a table, and which of its lines are wrong; nothing is made."""
    who = may(Right.EDIT_FORMS)
    find(connection, who=who, form=form)
    table = _table(asked)
    planned = _planned(who, form, table, asked) if asked.columns else Plan(good=(), wrong=())
    return LinksPlanReply(
        headers=[each for each in table.headers if each],
        lines=len(table.lines),
        empty=table.empty,
        links=len(planned.good),
        first=[given for _, given in planned.good[:_FIRST]],
        wrong=[WrongLineReply.model_validate(each) for each in planned.wrong[:_MOST_SHOWN]],
        wrong_count=len(planned.wrong),
    )


@endpoint(blueprint, "POST", "", body=LinksRequest, reply=MadeLinksReply, most=_MOST_TABLE)
@limiter.limit(HEAVY_RATE, key_func=who_is_counted)
def make(asked: LinksRequest, form: UUID) -> MadeLinksReply:
    """Make sealed links of the good lines of a table."""
    who = may(Right.EDIT_FORMS)
    planned = _planned(who, form, _table(asked), asked)
    if not planned.good:
        raise BadRequestError("No line of the table gives a link. Look at what is wrong with its lines.")
    program = _program(who, form)
    made = links.make(
        export_connection, _settings(), program, who=who, form=form, planned=planned, making=_making(asked)
    )
    return MadeLinksReply(batch=made, links=len(planned.good))


@endpoint(blueprint, "GET", "", reply=BatchesReply)
def list_batches(form: UUID) -> BatchesReply:
    """List what links were made together, newest first."""
    who = may(Right.SEE_FORMS)
    find(connection, who=who, form=form)
    with connection() as database:
        found = store.list_batches(database, team=who.team_id, form=form)
    return BatchesReply(batches=[BatchReply.model_validate(each) for each in found])


@endpoint(blueprint, "GET", "/<number:batch>", reply=SealedLinksReply)
def list_links(form: UUID, batch: int) -> SealedLinksReply:
    """List links that were made together, those after `after` in the query."""
    who = may(Right.EDIT_FORMS)
    base, after = _base(who, form), query_number("after", 0, 2**62)
    with connection() as database:
        found = store.list_links(database, team=who.team_id, form=form, batch=batch, after=after, limit=_MOST_LISTED)
    full = len(found) == _MOST_LISTED
    return SealedLinksReply(links=[_link(each, base, form) for each in found], next=found[-1].id if full else None)


@blueprint.get("/<number:batch>.csv")
@limiter.limit(HEAVY_RATE, key_func=who_is_counted)
def as_csv(form: UUID, batch: int) -> Response:
    """The links as CSV."""
    who = may(Right.EDIT_FORMS)
    base, names = _base(who, form), _names(who, form)
    audit.keep(connection, who, "exported", form, what=f"links {batch}")

    def lines() -> Iterator[str]:
        with export_connection() as database:
            found = links.all_links(database, who=who, form=form, batch=batch)
            yield from links.as_csv(links.table_rows(_settings(), base, form, found, names))

    return streamed_file(lines(), Right.EDIT_FORMS, "text/csv", _name_of(batch, "csv"))


@blueprint.get("/<number:batch>.xlsx")
@limiter.limit(HEAVY_RATE, key_func=who_is_counted)
def as_xlsx(form: UUID, batch: int) -> Response:
    """The links as a spreadsheet, in which they can be clicked."""
    who = may(Right.EDIT_FORMS)
    base, names = _base(who, form), _names(who, form)
    audit.keep(connection, who, "exported", form, what=f"links {batch}")
    with export_connection() as database:
        found = links.all_links(database, who=who, form=form, batch=batch)
        made = links.as_xlsx(links.table_rows(_settings(), base, form, found, names), len(names) + 1)
    headers = {"Content-Disposition": f'attachment; filename="{_name_of(batch, "xlsx")}"'}
    return Response(made, mimetype=XLSX, headers=headers)


@endpoint(blueprint, "DELETE", "/one/<number:link>")
def end(form: UUID, link: int) -> None:
    """End one link: it opens nothing any more."""
    who = may(Right.EDIT_FORMS)
    with connection() as database:
        if not store.end_link(database, team=who.team_id, form=form, link=link):
            raise NotFoundError


@endpoint(blueprint, "POST", "/<number:batch>/mails", body=LinkMailsRequest, reply=LinkMailsReply)
def mail(asked: LinkMailsRequest, form: UUID, batch: int) -> LinkMailsReply:
    """Send each link of a batch to its address, once."""
    who = may(Right.EDIT_FORMS)
    find(connection, who=who, form=form)
    count = links.ask_for_mails(connection, who=who, form=form, batch=batch, subject=asked.subject, words=asked.words)
    return LinkMailsReply(count=count)


@endpoint(blueprint, "POST", "/key", body=SealKeyRequest, reply=SealKeyReply)
def change_key(asked: SealKeyRequest, form: UUID) -> SealKeyReply:
    """Sign new links with a new key, and end the others if that is asked."""
    who = may(Right.EDIT_FORMS)
    key = links.change_key(connection, _settings(), who=who, form=form, end_others=asked.end_others)
    return SealKeyReply(key=key)


def _settings() -> Settings:
    settings: Settings = current_app.config["SETTINGS"]
    return settings


def _table(asked: LinksRequest) -> Table:
    try:
        return read_table(base64.b64decode(asked.table, validate=True))
    except binascii.Error:
        raise BadRequestError("table is no base64; send the bytes of the table so.") from None


def _making(asked: LinksRequest) -> Making:
    return Making(name=asked.name, columns=asked.columns, until=asked.until, uses=asked.uses, email=asked.email)


def _planned(who: SignedIn, form: UUID, table: Table, asked: LinksRequest) -> Plan:
    return links.plan(_program(who, form), table, _making(asked))


def _program(who: SignedIn, form: UUID) -> Program:
    """Return what visitors get; links are made for that. Raises BadRequestError where nothing is published."""
    found = find(connection, who=who, form=form)
    if found.live_edition is None:
        raise BadRequestError("Publish the form first: links are made for what visitors get.")
    return editions().program(form, found.live_edition)


def _names(who: SignedIn, form: UUID) -> list[str]:
    return [each.name for each in _program(who, form).form.links]


def _base(who: SignedIn, form: UUID) -> str:
    return address_of(who, find(connection, who=who, form=form).slug)


def _link(link: ListedLink, base: str, form: UUID) -> SealedLinkReply:
    known = {name: getattr(link, name) for name in SealedLinkReply.model_fields if name != "address"}
    return SealedLinkReply(address=links.sealed_address(base, form, link, _settings()), **known)


def _name_of(batch: int, kind: str) -> str:
    return f"links-{batch}.{kind}"
