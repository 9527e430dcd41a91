"""What came back: one response, those that are held, the export, files."""

import io
import tempfile
from pathlib import Path
from typing import Any, Literal, get_args
from uuid import UUID

from flask import Blueprint, Response, g, request, send_file

from codexa.core.fields.field_type import Medium
from codexa.core.program.faces import FileFace
from codexa.services import audit, drafts, held, received, response_grid, uploads
from codexa.services.errors import NotFoundError
from codexa.services.parts import handing_on, waiting
from codexa.services.response_csv import CsvFashion
from codexa.services.response_pdf import response_page
from codexa.services.response_set import documents, export_files
from codexa.services.response_set.export_files import FileKind
from codexa.services.response_set.exporting import Export
from codexa.services.roles import Right
from codexa.store import uploads as uploads_store
from codexa.web.contract.previews import ExplanationReply, ExplanationsReply
from codexa.web.contract.response_set import BegunReply
from codexa.web.contract.responses import (
    AllHeldReply,
    ColumnReply,
    EventReply,
    ExportFileReply,
    ExportFilesReply,
    GiveToRequest,
    HeldReply,
    PartReply,
    ResponseReply,
    RowReply,
    StandingReply,
)
from codexa.web.database import connection, editions, export_connection, files_folder, own_pages
from codexa.web.endpoint import endpoint, json_reply
from codexa.web.files import XLSX, streamed_file
from codexa.web.guard import frame_policy, may
from codexa.web.limits import HEAVY_RATE, limiter, who_is_counted
from codexa.web.payments import way
from codexa.web.public import pdf_reply
from codexa.web.reading import BadRequestError
from codexa.web.response_set import look_of_query

blueprint = Blueprint("responses", __name__, url_prefix="/api/forms/<uuid:form>")


@endpoint(blueprint, "GET", "/responses/held", reply=AllHeldReply)
def list_held(form: UUID) -> AllHeldReply:
    """List the responses that are held as suspected."""
    who = may(Right.SEE_RESPONSES)
    drafts.require(connection, who=who, form=form)
    found = held.list_held(connection, who=who, form=form)
    return AllHeldReply(held=[HeldReply.model_validate(each) for each in found])


@endpoint(blueprint, "POST", "/responses/<number:number>/let-through")
def let_through(form: UUID, number: int) -> None:
    """Take a response that is held for a person's."""
    who = may(Right.EDIT_FORMS)
    held.let_through(connection, editions(), own_pages(), who=who, form=form, number=number)


@endpoint(blueprint, "DELETE", "/responses/<number:number>/held")
def remove_held(form: UUID, number: int) -> None:
    """Remove a response that is held."""
    who = may(Right.EDIT_FORMS)
    held.remove(connection, who=who, form=form, number=number)


@endpoint(blueprint, "POST", "/responses/<number:number>/held")
def bring_back_held(form: UUID, number: int) -> None:
    """Bring back a response that was removed as suspected: it is held again."""
    who = may(Right.EDIT_FORMS)
    held.bring_back(connection, who=who, form=form, number=number)


@endpoint(blueprint, "GET", "/responses/<number:number>", reply=ResponseReply)
def show(form: UUID, number: int) -> ResponseReply:
    """Return one response, and what happened to it."""
    who = may(Right.SEE_RESPONSES)
    found = response_grid.single(connection, editions(), who=who, form=form, number=number)
    stands = waiting.where(way(), who=who, form=form, number=number)
    return ResponseReply(
        standing=None if stands.standing is None else StandingReply.model_validate(stands.standing),
        parts=[PartReply.model_validate(each) for each in stands.parts],
        columns=[ColumnReply.model_validate(column) for column in found.columns],
        row=RowReply.model_validate(found.row),
        files={column: [FileFace.model_validate(each) for each in files] for column, files in found.files.items()},
        way=found.how.came.get("way", ""),
        page=found.how.came.get("page", ""),
        seconds=found.how.came.get("seconds"),
        link=found.how.batch,
        visitor=", ".join(filter(None, (found.how.visitor.get(each, "") for each in ("name", "email")))),
        events=event_replies(found),
    )


def event_replies(found: response_grid.Single) -> list[EventReply]:
    """Return what happened to a response, in words."""
    return [
        EventReply(
            kind=event.kind,
            at=event.at,
            who=event.who,
            person=event.person,
            about=response_grid.about(event, found.statuses),
        )
        for event in found.events
    ]


@endpoint(blueprint, "POST", "/responses/<number:number>/standing", body=GiveToRequest)
def give_to(asked: GiveToRequest, form: UUID, number: int) -> None:
    """Let a response go to who filled it in, or to a part of its form, wherever it stands."""
    who = may(Right.EDIT_FORMS)
    handing_on.open_again(way(), who=who, form=form, number=number, to=asked.to, remark=asked.remark.strip())


@blueprint.get("/responses/<number:number>/pdf")
@limiter.limit(HEAVY_RATE, key_func=who_is_counted)
def as_pdf(form: UUID, number: int) -> Response:
    """Download a response as PDF, on the form's paper and in its brand; with `plain` yes, in black on white."""
    who = may(Right.SEE_RESPONSES)
    plain = request.args.get("plain") == "yes"
    return pdf_reply(received.document_for_team(way(), who=who, form=form, number=number, plain=plain))


@blueprint.get("/responses/<number:number>/sheet")
def as_sheet(form: UUID, number: int) -> Response:
    """Look at the same in the browser, in the form's brand; it can be printed from there."""
    who = may(Right.SEE_RESPONSES)
    document = received.document_for_team(way(), who=who, form=form, number=number, plain=False)
    g.frame_policy = frame_policy([])
    return Response(response_page(document, uploads=f"/api/forms/{form}/files", nonce=g.nonce))


@endpoint(blueprint, "GET", "/responses/<number:number>/why/<part>", reply=ExplanationsReply)
def why(form: UUID, number: int, part: str) -> ExplanationsReply:
    """Say why everything about a part of a response was as it was when it came."""
    who = may(Right.SEE_RESPONSES)
    facts = response_grid.why(connection, editions(), who=who, form=form, number=number, part=part)
    return ExplanationsReply(facts=[ExplanationReply.model_validate(each) for each in facts])


@endpoint(blueprint, "GET", "/responses.csv")
def export(form: UUID) -> Response:
    """Download what the query looks at as CSV (UTF-8, RFC 4180), written while it is read; all where it asks nothing.

    Besides in the query: `with` labels, for people; else options are codes and numbers plain, as programs want them.
    `separator` comma, semicolon or tab; `decimals` point or comma; `mark` yes, for a byte-order mark; `tries` yes, to
    have them too.
    """
    fashion = _fashion()
    slug, export = _export(form, tries=fashion.tries)
    return streamed_file(export.as_csv(fashion), Right.SEE_RESPONSES, "text/csv", f"{slug}-responses.csv")


@endpoint(blueprint, "GET", "/responses.json")
def export_json(form: UUID) -> Response:
    """Download what the query looks at as a JSON array: answers, figures and order of each by key, as they are kept."""
    slug, export = _export(form)
    return streamed_file(export.as_json(), Right.SEE_RESPONSES, "application/json", f"{slug}-responses.json")


@endpoint(blueprint, "GET", "/responses.jsonl")
def export_lines(form: UUID) -> Response:
    """Download the same as JSON Lines: an object a line."""
    slug, export = _export(form)
    return streamed_file(export.as_json_lines(), Right.SEE_RESPONSES, "application/jsonl", f"{slug}-responses.jsonl")


@endpoint(blueprint, "GET", "/responses.xlsx")
@limiter.limit(HEAVY_RATE, key_func=who_is_counted)
def export_workbook(form: UUID) -> Response:
    """Download what the query looks at as XLSX: typed cells, a sheet for each repeat; `with` and `tries` as for CSV."""
    fashion = _fashion()
    slug, export = _export(form, tries=fashion.tries)
    with tempfile.TemporaryDirectory(prefix="codexa-workbook-") as folder:
        path = Path(folder) / "responses.xlsx"
        export.as_workbook(path, fashion.medium)
        content = path.read_bytes()
    return send_file(io.BytesIO(content), XLSX, as_attachment=True, download_name=f"{slug}-responses.xlsx")


@endpoint(blueprint, "POST", "/responses/exports", reply=BegunReply)
def make_file(form: UUID) -> BegunReply:
    """Have a file made of what the query looks at, of any number: `kind` csv, xlsx, json or jsonl, else as for CSV."""
    who = may(Right.SEE_RESPONSES)
    found = drafts.find(connection, who=who, form=form)
    kind = next((each for each in get_args(FileKind) if each == request.args.get("kind")), None)
    if kind is None:
        raise BadRequestError(f"kind is one of {', '.join(get_args(FileKind))}.")
    name = f"{found.slug}-responses.{kind}"
    known: dict[str, Any] = {"who": who, "form": form, "look": look_of_query(), "fashion": _fashion(), "name": name}
    audit.keep(connection, who, "exported", form, what=f"a file {name}")
    return BegunReply(id=export_files.ask_for(connection, kind=kind, **known))


@endpoint(blueprint, "GET", "/responses/exports", reply=ExportFilesReply)
def list_files(form: UUID) -> ExportFilesReply:
    """List the files that were made of the form's responses, and how far those have come that are being made."""
    who = may(Right.SEE_RESPONSES)
    drafts.require(connection, who=who, form=form)
    found = export_files.list_files(connection, who=who, form=form)
    return ExportFilesReply(files=[ExportFileReply.model_validate(each) for each in found])


@endpoint(blueprint, "GET", "/responses/exports/<uuid:file>")
def fetch_file(form: UUID, file: UUID) -> Response:
    """Download a file that was made; a download that broke off goes on where it was (Range, RFC 9110)."""
    who = may(Right.SEE_RESPONSES)
    path, name = export_files.find(connection, files_folder(), who=who, form=form, file=file)
    return send_file(path.absolute(), "application/octet-stream", as_attachment=True, download_name=name)


@endpoint(blueprint, "DELETE", "/responses/exports/<uuid:file>")
def delete_file(form: UUID, file: UUID) -> None:
    """Forget a file, or make it no further."""
    who = may(Right.SEE_RESPONSES)
    export_files.delete(connection, files_folder(), who=who, form=form, file=file)


@endpoint(blueprint, "GET", "/responses.schema.json")
def answers_schema(form: UUID) -> Response:
    """Return the JSON Schema of the answers to the live edition, by key."""
    who = may(Right.SEE_RESPONSES)
    found = drafts.find(connection, who=who, form=form)
    if found.live_edition is None:
        raise NotFoundError("This form has no edition yet, and so no answers. Publish it first.")
    return json_reply(documents.schema(editions().form(form, found.live_edition)))


def _export(form: UUID, *, tries: bool = False) -> tuple[str, Export]:
    """Return the form's address and what the query looks at; what is wrong with it is told before a file has begun."""
    who = may(Right.SEE_RESPONSES)
    found = drafts.find(connection, who=who, form=form)
    export = Export(export_connection, editions(), who=who, form=form, look=look_of_query(), tries=tries)
    audit.keep(connection, who, "exported", form, what=request.path.rpartition("/")[2])
    return found.slug, export


_SEPARATORS: dict[str, Literal[",", ";", "\t"]] = {"comma": ",", "semicolon": ";", "tab": "\t"}


def _fashion() -> CsvFashion:
    """Return how the query wants an export. Raises BadRequestError."""
    allowed = {
        "with": ("codes", "labels"),
        "separator": tuple(_SEPARATORS),
        "decimals": ("point", "comma"),
        "mark": ("no", "yes"),
        "tries": ("no", "yes"),
    }
    asked = {name: request.args.get(name, words[0]) for name, words in allowed.items()}
    for name, words in allowed.items():
        if asked[name] not in words:
            raise BadRequestError(f"{name} is one of {', '.join(words)}, or left out.")
    return CsvFashion(
        medium=Medium.PAGE if asked["with"] == "labels" else Medium.CSV,
        separator=_SEPARATORS[asked["separator"]],
        decimal_comma=asked["decimals"] == "comma",
        marked=asked["mark"] == "yes",
        tries=asked["tries"] == "yes",
    )


def _name_of_file(form: UUID, upload: UUID) -> str:
    """Return what a file of a response is called, for whoever may see it."""
    who = may(Right.SEE_RESPONSES)
    with connection() as database:
        found = uploads_store.find_upload_of_team(database, team=who.team_id, form=form, id=upload)
    if found is None:
        raise NotFoundError
    return found.name


@endpoint(blueprint, "GET", "/files/<uuid:upload>/picture")
def picture(form: UUID, upload: UUID) -> Response:
    """A picture of a response to look at: made anew by us, as JPEG, and no larger than a screen."""
    name = _name_of_file(form, upload)
    made = io.BytesIO(uploads.as_picture(files_folder(), upload, name))
    response = send_file(made, "image/jpeg", download_name=f"{name}.jpg")
    response.headers["Content-Security-Policy"] = "default-src 'none'; sandbox"
    return response


@endpoint(blueprint, "GET", "/files/<uuid:upload>")
def download(form: UUID, upload: UUID) -> Response:
    """Download a file of a response: always as attachment, never run."""
    name = _name_of_file(form, upload)
    path = uploads.content(files_folder(), upload).absolute()
    response = send_file(path, "application/octet-stream", as_attachment=True, download_name=name)
    response.headers["Content-Security-Policy"] = "default-src 'none'; sandbox"
    return response
