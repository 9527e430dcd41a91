"""The draft of a form: reading it, saving it, renaming a key in it."""

from uuid import UUID

from flask import Blueprint, current_app

from codexa.core.definition.comparing import count_changes
from codexa.core.definition.form import Form, read_form
from codexa.core.definition.renaming import rename_key
from codexa.core.program.proof import Finding
from codexa.services import brands, drafts
from codexa.services.drafts import Analysis
from codexa.services.errors import NotFoundError
from codexa.services.roles import Right
from codexa.store import editions
from codexa.store import forms as store
from codexa.store.database import Connection
from codexa.store.forms import FormWithDraft
from codexa.store.sessions import SignedIn
from codexa.web.contract.drafts import (
    AnalysisReply,
    DraftReply,
    FindingReply,
    FormReply,
    RenameKeyRequest,
    SaveDraftRequest,
    SavedReply,
)
from codexa.web.database import connection
from codexa.web.endpoint import endpoint
from codexa.web.guard import may

blueprint = Blueprint("drafts", __name__, url_prefix="/api/forms")


@endpoint(blueprint, "GET", "/<uuid:form>", reply=FormReply)
def show(form: UUID) -> FormReply:
    """Open a form in the workbench."""
    who = may(Right.SEE_FORMS)
    with connection() as database:
        found = _find(database, who, form)
        draft = read_form(found.draft)
        changes = _changes(database, found, draft)
        look = brands.as_it_looks_now(database, draft, form_id=form)
    draft = draft.model_copy(update={"brand": look})
    address = address_of(who, found.slug)
    return FormReply(
        id=found.id,
        slug=found.slug,
        address=address,
        snippet=snippet_of(who, found.slug),
        sites=found.sites,
        draft=draft,
        revision=found.revision,
        live_edition=found.live_edition,
        changes=changes,
        changed_at=found.changed_at,
        changed_by=found.changed_by,
        responses=found.responses,
        analysis=_analysis(drafts.analyse(draft)),
    )


@endpoint(blueprint, "PUT", "/<uuid:form>/draft", body=SaveDraftRequest, reply=SavedReply)
def save(asked: SaveDraftRequest, form: UUID) -> SavedReply:
    """Save the draft; 409 where somebody else has saved one since."""
    who = may(Right.EDIT_FORMS)
    with connection() as database:
        saved, draft = drafts.save_draft(database, who=who, form=form, revision=asked.revision, document=asked.draft)
        changes = _changes(database, _find(database, who, form), draft)
    return SavedReply(
        revision=saved.revision,
        changed_at=saved.changed_at,
        changes=changes,
        analysis=_analysis(drafts.analyse(draft)),
    )


@endpoint(blueprint, "POST", "/<uuid:form>/draft/rename-key", body=RenameKeyRequest, reply=DraftReply)
def rename(asked: RenameKeyRequest, form: UUID) -> DraftReply:
    """Give a block another key and rewrite the formulas that use it; saves nothing."""
    who = may(Right.EDIT_FORMS)
    with connection() as database:
        _find(database, who, form)
    return DraftReply(draft=read_form(rename_key(read_form(asked.draft), asked.block, asked.key).model_dump()))


def address_of(who: SignedIn, slug: str) -> str:
    """Return the public address of a form."""
    return f"{current_app.config['SETTINGS'].public_address}/f/{who.team_slug}/{slug}"


def snippet_of(who: SignedIn, slug: str) -> str:
    """Return what a website puts where the form shall stand."""
    script = f"{current_app.config['SETTINGS'].public_address}/embed.js"
    return f'<div data-codexa="{who.team_slug}/{slug}"></div>\n<script async src="{script}"></script>'


def _find(database: Connection, who: SignedIn, form: UUID) -> FormWithDraft:
    found = store.find_form(database, team=who.team_id, form=form)
    if found is None:
        raise NotFoundError
    return found


def _changes(database: Connection, found: FormWithDraft, draft: Form) -> int:
    if found.live_edition is None or found.live_revision == found.revision:
        return 0
    live = editions.find_definition(database, form=found.id, number=found.live_edition)
    return count_changes(read_form(live), draft)


def _analysis(analysis: Analysis) -> AnalysisReply:
    return AnalysisReply(
        findings=[_finding(each) for each in analysis.findings],
        notes={block: list(notes) for block, notes in analysis.notes.items()},
        links=analysis.links,
        state=analysis.state,
    )


def _finding(finding: Finding) -> FindingReply:
    return FindingReply(
        severity=finding.severity,
        code=finding.code,
        message=finding.message,
        remedy=finding.remedy,
        block=finding.block,
        setting=finding.setting,
        start=finding.span.start if finding.span else None,
        end=finding.span.end if finding.span else None,
    )
