"""The desk: the team's forms."""

import datetime
from uuid import UUID

from flask import Blueprint, request

from codexa.services import desk, moving, templates, who_and_when
from codexa.services.roles import Right
from codexa.services.templates import Template
from codexa.services.tidying import KEPT_DAYS
from codexa.store import attention, visits
from codexa.store import desk as desk_store
from codexa.store import forms as store
from codexa.store.attention import Waiting
from codexa.store.forms import FormRow
from codexa.web.contract.forms import (
    BinReply,
    DeletedFormReply,
    DeskReply,
    DeskView,
    DeskViewReply,
    FormRowReply,
    FoundPartReply,
    FoundPartsReply,
    LabelsRequest,
    MadeReply,
    NewFormRequest,
    OutlineReply,
    OutlineRequest,
    OwnerRequest,
    SaveDeskViewRequest,
    TemplateReply,
    TemplatesReply,
)
from codexa.web.contract.team import GoToTeamRequest, HindrancesReply
from codexa.web.database import connection
from codexa.web.drafts import MOST_DOCUMENT
from codexa.web.endpoint import endpoint
from codexa.web.guard import may
from codexa.web.limits import HEAVY_RATE, limiter, who_is_counted

blueprint = Blueprint("forms", __name__, url_prefix="/api/forms")
_VISITS_DAYS = 30
MOST_OUTLINE = 256 * 1024  # bytes


@endpoint(blueprint, "GET", "", reply=DeskReply)
def list_all() -> DeskReply:
    """List the team's forms, latest change first."""
    who = may(Right.SEE_FORMS)
    with connection() as database:
        rows = store.list_forms(database, team=who.team_id, person=who.person_id)
        since = datetime.datetime.now(datetime.UTC).date() - datetime.timedelta(days=_VISITS_DAYS)
        finished = visits.finished(database, team=who.team_id, since=since)
        found = attention.waiting(database, team=who.team_id, person=who.person_id)
        views = desk_store.list_views(database, team=who.team_id, person=who.person_id)
    waiting = {each.form_id: each for each in found}
    return DeskReply(
        forms=[_row_reply(row, finished.get(row.id, (0, 0)), waiting.get(row.id)) for row in rows],
        views=[DeskViewReply(name=name, view=DeskView.model_validate(content)) for name, content in views],
    )


def _row_reply(row: FormRow, finished: tuple[int, int], waiting: Waiting | None) -> FormRowReply:
    known = {name: getattr(row, name) for name in FormRowReply.model_fields if hasattr(row, name)}
    return FormRowReply(
        **known,
        closes=who_and_when.closes(row.access, row.zone),
        seen=finished[0],
        sent=finished[1],
        held=waiting.held if waiting else 0,
        mine=waiting.mine if waiting else 0,
    )


@endpoint(blueprint, "GET", "/bin", reply=BinReply)
def list_deleted() -> BinReply:
    """List what was deleted and can be brought back."""
    who = may(Right.EDIT_FORMS)
    with connection() as database:
        deleted = desk_store.list_deleted(database, team=who.team_id, person=who.person_id, days=KEPT_DAYS)
    return BinReply(forms=[DeletedFormReply.model_validate(each) for each in deleted], kept_days=KEPT_DAYS)


@endpoint(blueprint, "GET", "/find", reply=FoundPartsReply)
def find() -> FoundPartsReply:
    """Find fields, pages and figures in all forms, by the query's `words`."""
    who = may(Right.SEE_FORMS)
    with connection() as database:
        found = desk.find_parts(database, who=who, words=request.args.get("words", "")[:200])
    return FoundPartsReply(
        parts=[
            FoundPartReply(form=form, form_name=name, part=part.id, number=part.number, title=part.title, key=part.key)
            for form, name, part in found
        ]
    )


@endpoint(blueprint, "PUT", "/views", body=SaveDeskViewRequest)
def save_view(asked: SaveDeskViewRequest) -> None:
    """Keep a filter of the desk for oneself, in the place of one that had its name."""
    who, name = may(Right.SEE_FORMS), " ".join(asked.name.split())
    with connection() as database:
        content = asked.view.model_dump(mode="json")
        desk_store.save_view(database, team=who.team_id, person=who.person_id, name=name, content=content)


@endpoint(blueprint, "DELETE", "/views/<name>")
def delete_view(name: str) -> None:
    """Forget a filter of one's own."""
    who = may(Right.SEE_FORMS)
    with connection() as database:
        desk_store.delete_view(database, team=who.team_id, person=who.person_id, name=name)


@endpoint(blueprint, "PUT", "/<uuid:form>/labels", body=LabelsRequest)
def set_labels(asked: LabelsRequest, form: UUID) -> None:
    """Set a form's labels."""
    who = may(Right.EDIT_FORMS)
    with connection() as database:
        desk.set_labels(database, who=who, form=form, labels=asked.labels)


@endpoint(blueprint, "PUT", "/<uuid:form>/owner", body=OwnerRequest)
def give(asked: OwnerRequest, form: UUID) -> None:
    """Give a form to somebody in the team."""
    who = may(Right.EDIT_FORMS)
    with connection() as database:
        desk.give(database, who=who, form=form, person=asked.person)


@endpoint(blueprint, "POST", "", body=NewFormRequest, reply=MadeReply, most=MOST_DOCUMENT)
@limiter.limit(HEAVY_RATE, key_func=who_is_counted)
def make(asked: NewFormRequest) -> MadeReply:
    """Make a blank form, or the form of a JSON document, a template or a pasted outline."""
    who = may(Right.EDIT_FORMS)
    if asked.template is not None:
        document = templates.find_template(asked.template).document
        return MadeReply(id=desk.import_form(connection, who=who, document=document))
    if asked.outline is not None:
        return MadeReply(id=desk.outline_form(connection, who=who, name=asked.name, text=asked.outline))
    if asked.document is not None:
        return MadeReply(id=desk.import_form(connection, who=who, document=asked.document))
    with connection() as database:
        return MadeReply(id=desk.make_form(database, who=who, name=asked.name))


@endpoint(blueprint, "POST", "/outline", body=OutlineRequest, reply=OutlineReply, most=MOST_OUTLINE)
@limiter.limit(HEAVY_RATE, key_func=who_is_counted)
def outline(asked: OutlineRequest) -> OutlineReply:
    """Say what pasted text would make; makes nothing."""
    may(Right.EDIT_FORMS)
    found = desk.try_outline(asked.text)
    return OutlineReply(pages=found.form.pages, lines=found.lines)


@endpoint(blueprint, "GET", "/templates", reply=TemplatesReply)
def list_templates() -> TemplatesReply:
    """List our own templates."""
    may(Right.SEE_FORMS)
    return TemplatesReply(templates=[_template(each) for each in templates.templates()])


def _template(template: Template) -> TemplateReply:
    held = templates.held_in(template)
    return TemplateReply(
        name=template.name,
        title=template.title,
        purpose=template.purpose,
        shows=template.shows,
        pages=held.pages,
        fields=held.fields,
        rules=held.rules,
        figures=held.figures,
    )


@endpoint(blueprint, "POST", "/<uuid:form>/copies", reply=MadeReply)
def duplicate(form: UUID) -> MadeReply:
    """Make a copy of a form's draft."""
    who = may(Right.EDIT_FORMS)
    return MadeReply(id=desk.duplicate_form(connection, who=who, form=form))


@endpoint(blueprint, "GET", "/<uuid:form>/moving/<uuid:team>", reply=HindrancesReply)
def hindrances(form: UUID, team: UUID) -> HindrancesReply:
    """Say what keeps a form from moving to another of one's teams."""
    found = moving.hindrances(connection, who=may(Right.EDIT_FORMS), form=form, to=team)
    return HindrancesReply(hindrances=found)


@endpoint(blueprint, "POST", "/<uuid:form>/moving", body=GoToTeamRequest)
def move(asked: GoToTeamRequest, form: UUID) -> None:
    """Move a form to another of one's teams: its link, embeds, responses and statistics stay as they are."""
    moving.move(connection, who=may(Right.EDIT_FORMS), form=form, to=asked.team)


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
