"""Records of a table from files."""

from uuid import UUID

from flask import Blueprint

from codexa.core.tables.guessing import Writing
from codexa.services.roles import Right
from codexa.services.spreadsheets import MOST_BYTES
from codexa.services.tables import importing
from codexa.web.contract.importing import ImportReply, RefusedLineReply
from codexa.web.contract.response_set import BegunReply
from codexa.web.contract.tables import (
    FileWriting,
    ImportRecordsRequest,
    MadeTableReply,
    PlannedColumnReply,
    PlanRecordsReply,
    PlanRecordsRequest,
    TableImportsReply,
    TableOfFileRequest,
)
from codexa.web.database import connection
from codexa.web.endpoint import SMALL, endpoint
from codexa.web.guard import may
from codexa.web.limits import HEAVY_RATE, limiter, who_is_counted
from codexa.web.reading import bytes_of

blueprint = Blueprint("table_imports", __name__, url_prefix="/api/tables")

_MOST_BODY = MOST_BYTES * 4 // 3 + SMALL


@endpoint(blueprint, "POST", "/from-file", body=TableOfFileRequest, reply=MadeTableReply, most=_MOST_BODY)
@limiter.limit(HEAVY_RATE, key_func=who_is_counted)
def create_from(asked: TableOfFileRequest) -> MadeTableReply:
    """Make a table of a file; its lines are taken in by a job."""
    who = may(Right.EDIT_TABLES)
    made = importing.create_from(connection, who=who, name=asked.name, content=bytes_of(asked.file, "file"))
    return MadeTableReply(id=made)


@endpoint(
    blueprint,
    "POST",
    "/<uuid:table>/import/plan",
    body=PlanRecordsRequest,
    reply=PlanRecordsReply,
    most=_MOST_BODY,
)
@limiter.limit(HEAVY_RATE, key_func=who_is_counted)
def plan(asked: PlanRecordsRequest, table: UUID) -> PlanRecordsReply:
    """Say what a file would bring, and what is wrong with its lines; nothing is kept."""
    found = importing.plan(
        connection,
        who=may(Right.EDIT_TABLES),
        table=table,
        content=bytes_of(asked.file, "file"),
        columns=asked.columns,
        writing=_writing(asked.writing),
    )
    return PlanRecordsReply(
        columns=[
            PlannedColumnReply(header=each.header, column=each.column, type=each.guess.type) for each in found.columns
        ],
        lines=found.lines,
        empty=found.empty,
        writing=FileWriting(comma=found.writing.comma, days=found.writing.days),
        tried=found.tried,
        wrong_count=found.wrong_count,
        wrong=[RefusedLineReply(line=line, message=message) for line, message in found.wrong],
    )


@endpoint(blueprint, "POST", "/<uuid:table>/import", body=ImportRecordsRequest, reply=BegunReply, most=_MOST_BODY)
def begin(asked: ImportRecordsRequest, table: UUID) -> BegunReply:
    """Have a file's lines taken in as records; those that are wrong are left out and told."""
    made = importing.begin(
        connection,
        who=may(Right.EDIT_TABLES),
        table=table,
        content=bytes_of(asked.file, "file"),
        name=asked.name,
        columns=asked.columns,
        writing=_writing(asked.writing),
        key_column=asked.key_column,
    )
    return BegunReply(id=made)


@endpoint(blueprint, "GET", "/<uuid:table>/import", reply=TableImportsReply)
def list_imports(table: UUID) -> TableImportsReply:
    """List the files that were taken in of late, with the lines that were refused."""
    found = importing.list_imports(connection, who=may(Right.SEE_TABLES), table=table)
    return TableImportsReply(imports=[ImportReply.model_validate(each) for each in found])


@endpoint(blueprint, "POST", "/<uuid:table>/import/<uuid:file>/stop")
def stop(table: UUID, file: UUID) -> None:
    """Take in nothing more of a file; what is in stays."""
    importing.stop(connection, who=may(Right.EDIT_TABLES), table=table, taking=file)


def _writing(asked: FileWriting | None) -> Writing | None:
    return None if asked is None else Writing(comma=asked.comma, days=asked.days)
