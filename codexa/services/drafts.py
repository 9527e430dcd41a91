"""Drafts: opening one, saving with a clash warning, renaming in one, and what the core says of one."""

from contextlib import suppress
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from codexa.core.definition.brand import Brand
from codexa.core.errors import DefinitionError
from codexa.core.form.comparing import count_changes
from codexa.core.form.form import Form, read_form
from codexa.core.form.upgrades import read_imported, read_stored
from codexa.core.program.evaluate import evaluate
from codexa.core.program.faces import FormState
from codexa.core.program.findings import Finding
from codexa.core.program.notes import Links, Note
from codexa.core.program.public import form_state
from codexa.core.program.renaming_words import renamed
from codexa.services import addresses, brands, groups
from codexa.services.compiled_drafts import CompiledDrafts
from codexa.services.context import context_of
from codexa.services.editions import Editions
from codexa.services.errors import ClashError, NotFoundError
from codexa.services.people import written_to
from codexa.services.proving import beside_the_draft
from codexa.services.tables.looking_up import tables_for
from codexa.services.tables.rights import refuse_beyond_rights
from codexa.store import forms
from codexa.store.database import Connect
from codexa.store.forms import FormWithDraft, Saved
from codexa.store.sessions import SignedIn


@dataclass(frozen=True, kw_only=True, slots=True)
class Analysis:
    """What the core says of a draft: findings, margin notes and links by block id, and the state with no answers.

    `ranges` are those of numeric figures by id: their `least` and `greatest` as plain text, None where there is no such
    end.
    """

    findings: tuple[Finding, ...]
    notes: dict[str, tuple[Note, ...]]
    links: dict[str, Links]
    ranges: dict[str, dict[str, str | None]]
    state: FormState


@dataclass(frozen=True, kw_only=True, slots=True)
class OpenedDraft:
    """A draft in the workbench.

    `row` is the form as it is stored, `draft` what it says, with its brand's present look; `changes` are those since
    the live edition.
    """

    row: FormWithDraft
    draft: Form
    changes: int
    analysis: Analysis


@dataclass(frozen=True, kw_only=True, slots=True)
class SavedDraft:
    """A draft was kept: as which revision and when, the form's address, changes since the live edition, analysis."""

    saved: Saved
    slug: str
    changes: int
    analysis: Analysis


def analyse(connect: Connect, compiled: CompiledDrafts, form: UUID, draft: Form) -> Analysis:
    """Return what the core says of a draft, knowing the team's people and tables."""
    said = compiled.said(draft, written_to(connect, draft, form), groups.codes_for(connect, form))
    with tables_for(connect, form) as tables:
        state = evaluate(said.program, {}, context_of(draft, tables=tables))
    return Analysis(
        findings=(*said.findings, *beside_the_draft(connect, form, said.program)),
        notes=said.notes,
        links=said.links,
        ranges=said.ranges,
        state=FormState.model_validate(form_state(state)),
    )


def find(connect: Connect, *, who: SignedIn, form: UUID) -> FormWithDraft:
    """Return a form of the team with its draft as it is stored. Raises NotFoundError."""
    with connect() as connection:
        found = forms.find_form(connection, team=who.team_id, form=form)
    if found is None:
        raise NotFoundError
    return found


def require(connect: Connect, *, who: SignedIn, form: UUID) -> None:
    """Raise NotFoundError where the team has no such form."""
    with connect() as connection:
        if forms.find_revision(connection, team=who.team_id, form=form) is None:
            raise NotFoundError


def open_draft(
    connect: Connect, editions: Editions, compiled: CompiledDrafts, *, who: SignedIn, form: UUID
) -> OpenedDraft:
    """Return a draft with what the core says of it. Raises NotFoundError, DefinitionError where it can't be read."""
    row = find(connect, who=who, form=form)
    draft = read_stored(row.draft)
    changes = _changes(editions, row, draft)
    look: Brand = brands.as_it_looks_now(connect, draft, form_id=form)
    draft = draft.model_copy(update={"brand": look})
    return OpenedDraft(row=row, draft=draft, changes=changes, analysis=analyse(connect, compiled, form, draft))


def save_draft(
    connect: Connect,
    editions: Editions,
    compiled: CompiledDrafts,
    *,
    who: SignedIn,
    form: UUID,
    revision: int,
    document: Any,
) -> SavedDraft:
    """Keep a draft made from that revision; what the core says of it is known before anything is kept.

    Raises DefinitionError where the document is no form, NotFoundError, and ClashError where somebody saved another
    since; nothing is kept then.
    """
    draft = read_imported(document)
    former = _readable(find(connect, who=who, form=form).draft)
    refuse_beyond_rights(connect, who=who, former=former, draft=draft)
    analysis = analyse(connect, compiled, form, draft)
    with connect() as connection:
        saved = forms.save_draft(
            connection,
            team=who.team_id,
            form=form,
            person=who.person_id,
            revision=revision,
            name=draft.name,
            draft=draft.model_dump(mode="json"),
            changes=1 if former is None else count_changes(former, draft),
        )
        if saved is not None:
            addresses.follow_name(connection, team=who.team_id, form=form, name=draft.name)
    row = find(connect, who=who, form=form)
    if saved is None:
        raise ClashError
    return SavedDraft(saved=saved, slug=row.slug, changes=_changes(editions, row, draft), analysis=analysis)


def _readable(document: dict[str, Any]) -> Form | None:
    """Return a stored draft; None for one that this version can't read, which may be saved over."""
    with suppress(DefinitionError):
        return read_stored(document)
    return None


def _changes(editions: Editions, row: FormWithDraft, draft: Form) -> int:
    if row.live_edition is None or row.live_revision == row.revision:
        return 0
    return count_changes(editions.form(row.id, row.live_edition), draft)


def rename(document: Any, *, part: str, setting: str, name: str) -> Form:
    """Return a draft in which that setting of a part is called otherwise, and every formula uses the new name.

    Raises DefinitionError.
    """
    return read_form(renamed(read_imported(document), part, setting, name).model_dump())
