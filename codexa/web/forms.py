"""The desk: the team's forms."""

from uuid import UUID

from flask import Blueprint

from codexa.core.definition.form import read_form
from codexa.core.program.compiling import compile_form
from codexa.core.program.notes import notes
from codexa.services import desk, templates
from codexa.services.roles import Right
from codexa.services.templates import Template
from codexa.store import forms as store
from codexa.web.contract.forms import (
    DeskReply,
    FormRowReply,
    MadeReply,
    NewFormRequest,
    OutlineReply,
    OutlineRequest,
    TemplateReply,
    TemplatesReply,
)
from codexa.web.database import connection
from codexa.web.endpoint import endpoint
from codexa.web.guard import may

blueprint = Blueprint("forms", __name__, url_prefix="/api/forms")


@endpoint(blueprint, "GET", "", reply=DeskReply)
def list_all() -> DeskReply:
    """List the team's forms, latest change first."""
    who = may(Right.SEE_FORMS)
    with connection() as database:
        rows = store.list_forms(database, team=who.team_id)
    return DeskReply(forms=[FormRowReply.model_validate(row) for row in rows])


@endpoint(blueprint, "POST", "", body=NewFormRequest, reply=MadeReply)
def make(asked: NewFormRequest) -> MadeReply:
    """Make a blank form, or the form of a JSON document, a template or a pasted outline."""
    who = may(Right.EDIT_FORMS)
    document = asked.document
    if asked.template is not None:
        document = templates.find_template(asked.template).document
    elif asked.outline is not None:
        document = {"name": asked.name, "title": asked.name, "pages": desk.outlined(asked.outline).pages}
    with connection() as database:
        if document is not None:
            return MadeReply(id=desk.import_form(database, who=who, document=document))
        return MadeReply(id=desk.make_form(database, who=who, name=asked.name))


@endpoint(blueprint, "POST", "/outline", body=OutlineRequest, reply=OutlineReply)
def outline(asked: OutlineRequest) -> OutlineReply:
    """Say what pasted text would make; makes nothing."""
    may(Right.EDIT_FORMS)
    outlined = desk.outlined(asked.text)
    return OutlineReply(pages=read_form({"name": "outline", "pages": outlined.pages}).pages, lines=outlined.lines)


@endpoint(blueprint, "GET", "/templates", reply=TemplatesReply)
def list_templates() -> TemplatesReply:
    """List our own templates."""
    may(Right.SEE_FORMS)
    return TemplatesReply(templates=[_template(each) for each in templates.templates()])


def _template(template: Template) -> TemplateReply:
    form = template.form
    rules = sum(note.condition and bool(note.reads) for found in notes(compile_form(form)).values() for note in found)
    return TemplateReply(
        name=template.name,
        title=template.title,
        purpose=template.purpose,
        shows=template.shows,
        pages=len(form.pages),
        fields=sum(1 for _ in form.fields()),
        rules=rules,
        figures=len(form.figures),
    )


@endpoint(blueprint, "POST", "/<uuid:form>/copies", reply=MadeReply)
def duplicate(form: UUID) -> MadeReply:
    """Make a copy of a form's draft."""
    who = may(Right.EDIT_FORMS)
    with connection() as database:
        return MadeReply(id=desk.duplicate_form(database, who=who, form=form))


@endpoint(blueprint, "DELETE", "/<uuid:form>")
def delete(form: UUID) -> None:
    """Delete a form; it can be brought back."""
    who = may(Right.EDIT_FORMS)
    with connection() as database:
        desk.set_deleted(database, who=who, form=form, deleted=True)


@endpoint(blueprint, "POST", "/<uuid:form>/restore")
def restore(form: UUID) -> None:
    """Bring a deleted form back."""
    who = may(Right.EDIT_FORMS)
    with connection() as database:
        desk.set_deleted(database, who=who, form=form, deleted=False)
