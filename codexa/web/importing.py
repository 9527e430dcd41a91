"""Taking in responses from a table."""

from uuid import UUID

from flask import Blueprint

from codexa.services import importing
from codexa.services.roles import Right
from codexa.services.spreadsheets import MOST_BYTES
from codexa.web.contract.importing import (
    ImportReply,
    ImportRequest,
    ImportsReply,
    PlanImportReply,
    PlanImportRequest,
    RefusedLineReply,
    TargetReply,
)
from codexa.web.contract.response_set import BegunReply
from codexa.web.database import connection, editions
from codexa.web.endpoint import SMALL, endpoint
from codexa.web.guard import may
from codexa.web.limits import HEAVY_RATE, limiter, who_is_counted
from codexa.web.reading import bytes_of

blueprint = Blueprint("importing", __name__, url_prefix="/api/forms/<uuid:form>/responses/import")

_MOST_BODY = MOST_BYTES * 4 // 3 + SMALL


@endpoint(blueprint, "POST", "/plan", body=PlanImportRequest, reply=PlanImportReply, most=_MOST_BODY)
@limiter.limit(HEAVY_RATE, key_func=who_is_counted)
def plan(asked: PlanImportRequest, form: UUID) -> PlanImportReply:
    """Say what a table would bring, and what is wrong with its lines; nothing is kept."""
    who = may(Right.EDIT_FORMS)
    found = importing.plan(
        connection, editions(), who=who, form=form, table=bytes_of(asked.table, "table"), columns=asked.columns
    )
    return PlanImportReply(
        headers=found.headers,
        lines=found.lines,
        empty=found.empty,
        targets=[TargetReply(key=each.key, label=each.label) for each in found.targets],
        columns=found.columns,
        tried=found.tried,
        wrong_count=found.wrong_count,
        wrong=[RefusedLineReply(line=line, message=message) for line, message in found.wrong],
    )


@endpoint(blueprint, "POST", "", body=ImportRequest, reply=BegunReply, most=_MOST_BODY)
def begin(asked: ImportRequest, form: UUID) -> BegunReply:
    """Have a table's lines taken in as responses; those that are wrong are left out and told."""
    who = may(Right.EDIT_FORMS)
    made = importing.begin(
        connection,
        editions(),
        who=who,
        form=form,
        table=bytes_of(asked.table, "table"),
        columns=asked.columns,
        name=asked.name,
    )
    return BegunReply(id=made)


@endpoint(blueprint, "GET", "", reply=ImportsReply)
def list_imports(form: UUID) -> ImportsReply:
    """List the tables that were taken in of late, with the lines that were refused."""
    found = importing.list_imports(connection, who=may(Right.SEE_RESPONSES), form=form)
    return ImportsReply(imports=[ImportReply.model_validate(each) for each in found])


@endpoint(blueprint, "POST", "/<uuid:table>/stop")
def stop(form: UUID, table: UUID) -> None:
    """Take in nothing more of a table; what is in stays."""
    importing.stop(connection, who=may(Right.EDIT_FORMS), form=form, taking=table)
