"""Tables of the team's data, and their records."""

import io
import tempfile
from pathlib import Path
from uuid import UUID

from flask import Blueprint, Response, current_app, request, send_file

from codexa.core.definition.parts import Field
from codexa.core.fields import field_type_of
from codexa.core.fields.file_upload import FileUploadField
from codexa.core.fields.record_choice import RecordChoiceField
from codexa.core.fields.yes_no import YesNoField
from codexa.core.form.known_tables import label_of
from codexa.core.formula.types import NUMBERS
from codexa.core.responses.conditions import HOWS
from codexa.core.responses.holds import Holds
from codexa.core.tables.table import Table, known_table
from codexa.services import audit, uploads
from codexa.services.roles import Right
from codexa.services.tables import between, content, exporting, files, records, rights, tables
from codexa.services.tables.exporting import Extract
from codexa.services.tables.files import Arriving, Cell
from codexa.services.tables.filtering import holds_of, options_of
from codexa.services.tables.records import Typed
from codexa.services.tables.tables import OpenedTable
from codexa.store.sessions import SignedIn
from codexa.store.tables import Rights
from codexa.web.contract.forms import MadeReply
from codexa.web.contract.response_set import AskedColumnReply, OptionReply
from codexa.web.contract.tables import (
    ChangedRecordsReply,
    ChangeRecordsRequest,
    MadeTableReply,
    NewTableRequest,
    OfferRecordsRequest,
    PublishRecordsRequest,
    RecordHistoryReply,
    RecordNamedReply,
    RecordNamesReply,
    RecordNumbersReply,
    RecordNumbersRequest,
    RecordReply,
    RecordsReply,
    RemovedRecordsReply,
    RemoveRecordsRequest,
    SaveTableRequest,
    TableColumnReply,
    TableFace,
    TableOfFormReply,
    TableReply,
    TableRightsRequest,
    TablesReply,
)
from codexa.web.database import connection, files_folder
from codexa.web.endpoint import endpoint
from codexa.web.files import XLSX, arriving, streamed_file
from codexa.web.guard import may
from codexa.web.limits import HEAVY_RATE, limiter, who_is_counted
from codexa.web.reading import query_number
from codexa.web.response_set import filter_of_query

blueprint = Blueprint("tables", __name__, url_prefix="/api/tables")

_MOST_PAGE, _MOST_PLACE = 200, 10_000_000
_MOST_NAMED = 4_000  # signs of the ids of columns
_MOST_TYPED = 8_000_000  # bytes of records that are pasted at once


@endpoint(blueprint, "GET", "", reply=TablesReply)
def list_tables() -> TablesReply:
    """List the team's tables."""
    found = tables.list_tables(connection, who=may(Right.SEE_TABLES))
    return TablesReply(tables=[TableFace.model_validate(each) for each in found])


@endpoint(blueprint, "POST", "", body=NewTableRequest, reply=MadeTableReply)
def create(asked: NewTableRequest) -> MadeTableReply:
    """Make a table."""
    return MadeTableReply(id=tables.create(connection, who=may(Right.EDIT_TABLES), definition=asked.definition))


@endpoint(blueprint, "GET", "/<uuid:table>", reply=TableReply)
def show(table: UUID) -> TableReply:
    """Return a table: its definition and its columns."""
    who = may(Right.SEE_TABLES)
    return _reply(tables.show(connection, who=who, table=table), who)


@endpoint(blueprint, "PUT", "/<uuid:table>", body=SaveTableRequest, reply=TableReply)
def save(asked: SaveTableRequest, table: UUID) -> TableReply:
    """Give a table other columns or another name."""
    who = may(Right.EDIT_TABLES)
    saved = tables.save(connection, who=who, table=table, revision=asked.revision, definition=asked.definition)
    return _reply(saved, who)


@endpoint(blueprint, "PUT", "/<uuid:table>/rights", body=TableRightsRequest, reply=TableReply)
def grant(asked: TableRightsRequest, table: UUID) -> TableReply:
    """Say from which role on the people of the team see a table, and change its records."""
    who = may(Right.GRANT_TABLES)
    rights.grant(connection, Rights(**asked.model_dump()), who=who, table=table)
    return _reply(tables.show(connection, who=who, table=table), who)


@endpoint(blueprint, "DELETE", "/<uuid:table>")
def delete(table: UUID) -> None:
    """Delete a table with all its records."""
    tables.delete(connection, who=may(Right.EDIT_TABLES), table=table)


@endpoint(blueprint, "POST", "/<uuid:table>/form", reply=MadeReply)
def make_form(table: UUID) -> MadeReply:
    """Make a form that asks for a table's columns and keeps each answer there."""
    may(Right.SEE_TABLES)
    return MadeReply(id=between.make_form(connection, who=may(Right.EDIT_FORMS), table=table))


@endpoint(blueprint, "POST", "/of-form/<uuid:form>", reply=TableOfFormReply)
def make_of_form(form: UUID) -> TableOfFormReply:
    """Make a table with a column for each field of a form's draft."""
    may(Right.SEE_FORMS)
    made = between.make_table(connection, who=may(Right.EDIT_TABLES), form=form)
    return TableOfFormReply(id=made.id, left_out=made.left_out)


@endpoint(blueprint, "GET", "/<uuid:table>/records", reply=RecordsReply)
def page(table: UUID) -> RecordsReply:
    """Return records from `first` on, at most `limit`, by column `sort`, "-" before it downwards.

    `where` (a JSON list of conditions, each [column, how, value …]), `match` and `words` choose them, as of responses.
    """
    found = records.page(
        connection,
        who=may(Right.SEE_TABLES),
        table=table,
        filter_=filter_of_query(),
        sort=request.args.get("sort", "")[:40],
        first=query_number("first", 0, _MOST_PLACE),
        most=query_number("limit", 100, _MOST_PAGE),
    )
    return RecordsReply.model_validate(found)


@endpoint(
    blueprint, "POST", "/<uuid:table>/records", body=ChangeRecordsRequest, reply=ChangedRecordsReply, most=_MOST_TYPED
)
def change(asked: ChangeRecordsRequest, table: UUID) -> ChangedRecordsReply:
    """Keep what was typed, record by record; what is wrong is not kept, and told by cell."""
    typed = [Typed(number=each.number, revision=each.revision, cells=each.cells) for each in asked.changes]
    outcome = records.change(connection, who=may(Right.CHANGE_RECORDS), table=table, changes=typed)
    return ChangedRecordsReply.model_validate(outcome)


@endpoint(blueprint, "POST", "/<uuid:table>/records/remove", body=RemoveRecordsRequest, reply=RemovedRecordsReply)
def remove(asked: RemoveRecordsRequest, table: UUID) -> RemovedRecordsReply:
    """Remove records; they can be brought back for 30 days."""
    who = may(Right.CHANGE_RECORDS)
    gone = records.remove(connection, who=who, table=table, numbers=asked.numbers, way=asked.way)
    return RemovedRecordsReply.model_validate(gone)


@endpoint(blueprint, "POST", "/<uuid:table>/records/offer", body=OfferRecordsRequest, reply=RecordNumbersReply)
def offer(asked: OfferRecordsRequest, table: UUID) -> RecordNumbersReply:
    """Have records offered to be chosen, or no more."""
    who = may(Right.CHANGE_RECORDS)
    done = records.offer(connection, who=who, table=table, numbers=asked.numbers, offered=asked.offered)
    return RecordNumbersReply(numbers=done)


@endpoint(blueprint, "POST", "/<uuid:table>/records/publish", body=PublishRecordsRequest, reply=RecordNumbersReply)
def publish(asked: PublishRecordsRequest, table: UUID) -> RecordNumbersReply:
    """Let anybody read records at the table's address, or no more."""
    who = may(Right.CHANGE_RECORDS)
    done = content.publish(connection, who=who, table=table, numbers=asked.numbers, published=asked.published)
    return RecordNumbersReply(numbers=done)


@endpoint(blueprint, "POST", "/<uuid:table>/records/bring-back", body=RecordNumbersRequest, reply=RecordNumbersReply)
def bring_back(asked: RecordNumbersRequest, table: UUID) -> RecordNumbersReply:
    """Bring removed records back."""
    back = records.bring_back(connection, who=may(Right.CHANGE_RECORDS), table=table, numbers=asked.numbers)
    return RecordNumbersReply(numbers=back)


@endpoint(blueprint, "GET", "/<uuid:table>/names", reply=RecordNamesReply)
def names(table: UUID) -> RecordNamesReply:
    """Return what the records that are offered are called, by number; for the options of a choice."""
    found, more = records.names(connection, who=may(Right.SEE_TABLES), table=table)
    return RecordNamesReply(names=found, more=more)


@endpoint(blueprint, "GET", "/<uuid:table>/records/<number:number>/history", reply=RecordHistoryReply)
def history(table: UUID, number: int) -> RecordHistoryReply:
    """Return what happened to a record."""
    found = records.history(connection, who=may(Right.SEE_TABLES), table=table, number=number)
    return RecordHistoryReply.model_validate({"changes": found}, from_attributes=True)


@endpoint(blueprint, "GET", "/<uuid:table>/records/<number:number>/named", reply=RecordNamedReply)
def named(table: UUID, number: int) -> RecordNamedReply:
    """Return which records name a record, which responses made or changed it, and which forms offer it."""
    who = may(Right.SEE_TABLES)
    found = records.named(connection, who=who, table=table, number=number)
    made = records.origins(connection, who=who, table=table, number=number)
    offering = records.offered_in(connection, who=who, table=table)
    forms = [{"id": form, "name": name} for form, name in offering]
    return RecordNamedReply.model_validate({"naming": found, "responses": made, "forms": forms}, from_attributes=True)


@endpoint(blueprint, "POST", "/<uuid:table>/records/<number:number>/files/<column>", reply=RecordReply)
def add_file(table: UUID, number: int, column: str) -> RecordReply:
    """Put a file into a column of a record: the body is its content, the query's `name` its name."""
    who = may(Right.CHANGE_RECORDS)
    field = files.file_column(tables.show(connection, who=who, table=table).table, column)
    # It is the column that refuses, in its own words.
    request.max_content_length = max(field.megabytes * 1_000_000, request.content_length or 0) + 1
    file = Arriving(
        name=request.args.get("name", "file"),
        length=request.content_length,
        content=arriving(Right.CHANGE_RECORDS),
        free=int(current_app.config["SETTINGS"].least_free_disk),
    )
    record = files.add(connection, files_folder(), Cell(who=who, table=table, number=number, column=column), file)
    return RecordReply.model_validate(record)


@endpoint(blueprint, "DELETE", "/<uuid:table>/records/<number:number>/files/<column>/<uuid:file>", reply=RecordReply)
def take_file_out(table: UUID, number: int, column: str, file: UUID) -> RecordReply:
    """Take a file out of a column of a record; its history still has it."""
    who = may(Right.CHANGE_RECORDS)
    record = files.take_out(connection, Cell(who=who, table=table, number=number, column=column), file)
    return RecordReply.model_validate(record)


@endpoint(blueprint, "GET", "/<uuid:table>/files/<uuid:file>")
def download(table: UUID, file: UUID) -> Response:
    """Download a file of a record: always as attachment, never run."""
    found = files.find(connection, who=may(Right.SEE_TABLES), table=table, file=file)
    path = uploads.content(files_folder(), file).absolute()
    response = send_file(path, "application/octet-stream", as_attachment=True, download_name=found.name)
    response.headers["Content-Security-Policy"] = "default-src 'none'; sandbox"
    return response


@endpoint(blueprint, "GET", "/<uuid:table>/records.csv")
def export(table: UUID) -> Response:
    """Download records as CSV (UTF-8, RFC 4180): codes, plain numbers, days as in ISO 8601.

    `where`, `match` and `words` choose them as in the worksheet, `columns` (ids with commas) what stands there of each.
    """
    who = may(Right.SEE_TABLES)
    lines = exporting.as_csv(connection, who=who, table=table, extract=_extract())
    _note_export(who, table)
    return streamed_file(lines, Right.SEE_TABLES, "text/csv", "records.csv")


@endpoint(blueprint, "GET", "/<uuid:table>/records.xlsx")
@limiter.limit(HEAVY_RATE, key_func=who_is_counted)
def workbook(table: UUID) -> Response:
    """Download records as a workbook, with labels and typed cells; chosen as for CSV."""
    who = may(Right.SEE_TABLES)
    with tempfile.TemporaryDirectory(prefix="codexa-workbook-") as folder:
        path = Path(folder) / "records.xlsx"
        exporting.write_workbook(connection, path, who=who, table=table, extract=_extract())
        written = path.read_bytes()
    _note_export(who, table)
    return send_file(io.BytesIO(written), XLSX, as_attachment=True, download_name="records.xlsx")


def _note_export(who: SignedIn, table: UUID) -> None:
    name = tables.show(connection, who=who, table=table).table.definition.name
    audit.keep(connection, who, "table exported", name=name)


def _extract() -> Extract:
    columns = request.args.get("columns", "")[:_MOST_NAMED]
    return Extract(filter=filter_of_query(), columns=[each for each in columns.split(",") if each])


def _reply(opened: OpenedTable, who: SignedIn) -> TableReply:
    table = opened.table
    published = table.definition.published
    content_address = f"{current_app.config['SETTINGS'].public_address}/content/{who.team_slug}/"
    return TableReply(
        id=opened.id,
        revision=opened.revision,
        definition=tables.document_of(table),
        columns=[_column(each, table) for each in table.columns.values()],
        asked=[_asked(each) for each in table.columns.values()],
        named_by=table.named_by,
        known=known_table(opened.id.hex, table),
        seen_by=opened.seen_by,
        seen_groups=opened.seen_groups,
        changed_groups=opened.changed_groups,
        changed_by=opened.changed_by,
        may_change=rights.may_change(opened, who),
        published=published,
        read_at=None if published is None else content_address + published.address,
    )


def _asked(column: Field) -> AskedColumnReply:
    holds = holds_of(column)
    return AskedColumnReply(
        id=column.id,
        label=label_of(column),
        number="",
        holds=holds,
        numeric=holds is Holds.NUMBER,
        calculated=not field_type_of(column).answered,
        earlier=False,
        facet=False,
        hows=list(HOWS[holds]),
        options=[OptionReply(code=code, label=label) for code, label in options_of(column)],
        parts=[],
    )


def _column(column: Field, table: Table) -> TableColumnReply:
    kind = field_type_of(column)
    labels = [each.label for each in getattr(column, "options", ())]
    return TableColumnReply(
        id=column.id,
        key=column.key,
        type=column.type,
        label=label_of(column),
        numeric=kind.value_type(column).kind in NUMBERS,
        computed=not kind.answered or isinstance(column, FileUploadField),
        files=isinstance(column, FileUploadField),
        required=getattr(column, "required", "") == "TRUE",
        once=column.id in table.definition.once,
        options=[column.yes, column.no] if isinstance(column, YesNoField) else labels,
        table=UUID(column.table) if isinstance(column, RecordChoiceField) and column.table else None,
    )
