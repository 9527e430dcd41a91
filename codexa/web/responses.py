"""What came back: pages of responses, one response, the export."""

from collections.abc import Iterator
from uuid import UUID

from flask import Blueprint, Response, request, send_file, stream_with_context

from codexa.services import response_grid, uploads
from codexa.services.errors import NotFoundError
from codexa.services.roles import Right
from codexa.store import forms
from codexa.store import uploads as uploads_store
from codexa.web.contract.responses import ColumnReply, ResponseReply, ResponsesReply, RowReply
from codexa.web.database import connection, files_folder
from codexa.web.endpoint import BadRequestError, endpoint
from codexa.web.guard import may

blueprint = Blueprint("responses", __name__, url_prefix="/api/forms/<uuid:form>")

_MOST_ROWS = 200


@endpoint(blueprint, "GET", "/responses", reply=ResponsesReply)
def list_page(form: UUID) -> ResponsesReply:
    """Return a page of responses, newest first; `limit` (at most 200) and `offset` in the query."""
    who = may(Right.SEE_RESPONSES)
    limit, offset = _whole_number("limit", 50, _MOST_ROWS), _whole_number("offset", 0, 10_000_000)
    with connection() as database:
        columns, rows, count = response_grid.page(database, who=who, form=form, limit=limit, offset=offset)
    return ResponsesReply(
        columns=[ColumnReply.model_validate(column) for column in columns],
        rows=[RowReply.model_validate(row) for row in rows],
        count=count,
    )


@endpoint(blueprint, "GET", "/responses/<int:number>", reply=ResponseReply)
def show(form: UUID, number: int) -> ResponseReply:
    """Return one response."""
    who = may(Right.SEE_RESPONSES)
    with connection() as database:
        columns, row = response_grid.single(database, who=who, form=form, number=number)
    return ResponseReply(
        columns=[ColumnReply.model_validate(column) for column in columns], row=RowReply.model_validate(row)
    )


@endpoint(blueprint, "GET", "/responses.csv")
def export(form: UUID) -> Response:
    """Download all responses as CSV (UTF-8, RFC 4180), written while it is read."""
    who = may(Right.SEE_RESPONSES)
    with connection() as database:
        found = forms.find_form(database, team=who.team_id, form=form)
    if found is None:
        raise NotFoundError

    def lines() -> Iterator[str]:
        with connection() as database:
            yield from response_grid.csv_lines(database, who=who, form=form)

    headers = {"Content-Disposition": f'attachment; filename="{found.slug}-responses.csv"'}
    return Response(stream_with_context(lines()), mimetype="text/csv", headers=headers)


@endpoint(blueprint, "GET", "/files/<uuid:upload>")
def download(form: UUID, upload: UUID) -> Response:
    """Download a file of a response: always as attachment, never run."""
    who = may(Right.SEE_RESPONSES)
    with connection() as database:
        found = uploads_store.find_upload_of_team(database, team=who.team_id, form=form, id=upload)
    if found is None:
        raise NotFoundError
    path = uploads.content(files_folder(), upload).absolute()
    response = send_file(path, "application/octet-stream", as_attachment=True, download_name=found.name)
    response.headers["Content-Security-Policy"] = "default-src 'none'; sandbox"
    return response


def _whole_number(name: str, default: int, most: int) -> int:
    text = request.args.get(name, str(default))
    if not (text.isascii() and text.isdigit() and len(text) < 12):
        raise BadRequestError(f'{name} is "{text[:40]}"; it must be a whole number from 0 to {most}.')
    return min(int(text), most)
