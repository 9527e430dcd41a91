"""The draft of a form: reading it, saving it, renaming a key in it."""

from typing import cast
from uuid import UUID

from flask import Blueprint, current_app

from codexa.core.program.findings import Finding
from codexa.services import drafts
from codexa.services.drafts import Analysis
from codexa.services.roles import Right
from codexa.services.team import Role
from codexa.store.sessions import SignedIn
from codexa.web.contract.drafts import (
    AnalysisReply,
    DraftReply,
    FigureRange,
    FindingReply,
    FormReply,
    RenameRequest,
    SaveDraftRequest,
    SavedReply,
)
from codexa.web.database import compiled_drafts, connection, editions
from codexa.web.endpoint import endpoint
from codexa.web.guard import may
from codexa.web.limits import HEAVY_RATE, limiter, who_is_counted

blueprint = Blueprint("drafts", __name__, url_prefix="/api/forms")


MOST_DOCUMENT = 2 * 1024 * 1024  # bytes; the largest draft is well below


@endpoint(blueprint, "GET", "/<uuid:form>", reply=FormReply)
def show(form: UUID) -> FormReply:
    """Open a form in the workbench."""
    who = may(Right.SEE_FORMS)
    opened = drafts.open_draft(connection, editions(), compiled_drafts(), who=who, form=form)
    found = opened.row
    return FormReply(
        id=found.id,
        role=cast(Role, who.role),
        slug=found.slug,
        address=address_of(who, found.slug),
        sites=found.sites,
        draft=opened.draft,
        revision=found.revision,
        live_edition=found.live_edition,
        newest_edition=found.newest_edition,
        practice_website=current_app.config["SETTINGS"].practice_website,
        changes=opened.changes,
        changed_at=found.changed_at,
        changed_by=found.changed_by,
        responses=found.responses,
        analysis=_analysis(opened.analysis),
    )


@endpoint(blueprint, "PUT", "/<uuid:form>/draft", body=SaveDraftRequest, reply=SavedReply, most=MOST_DOCUMENT)
@limiter.limit(HEAVY_RATE, key_func=who_is_counted)
def save(asked: SaveDraftRequest, form: UUID) -> SavedReply:
    """Save the draft; 409 where somebody else has saved one since."""
    who = may(Right.EDIT_FORMS)
    kept = drafts.save_draft(
        connection,
        editions(),
        compiled_drafts(),
        who=who,
        form=form,
        revision=asked.revision,
        document=asked.draft,
    )
    return SavedReply(
        revision=kept.saved.revision,
        changed_at=kept.saved.changed_at,
        address=address_of(who, kept.slug),
        changes=kept.changes,
        analysis=_analysis(kept.analysis),
    )


@endpoint(blueprint, "POST", "/<uuid:form>/draft/rename", body=RenameRequest, reply=DraftReply, most=MOST_DOCUMENT)
@limiter.limit(HEAVY_RATE, key_func=who_is_counted)
def rename(asked: RenameRequest, form: UUID) -> DraftReply:
    """Give something another name and rewrite the formulas that use it; saves nothing."""
    who = may(Right.EDIT_FORMS)
    drafts.require(connection, who=who, form=form)
    return DraftReply(draft=drafts.rename(asked.draft, part=asked.part, setting=asked.setting, name=asked.name))


def address_of(who: SignedIn, slug: str) -> str:
    """Return the public address of a form."""
    return f"{current_app.config['SETTINGS'].public_address}/f/{who.team_slug}/{slug}"


def _analysis(analysis: Analysis) -> AnalysisReply:
    return AnalysisReply(
        findings=[_finding(each) for each in analysis.findings],
        notes={block: list(notes) for block, notes in analysis.notes.items()},
        links=analysis.links,
        ranges={figure: FigureRange.model_validate(each) for figure, each in analysis.ranges.items()},
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
