"""Drafts: saving with a clash warning, and what the core says of one."""

import datetime
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any
from uuid import UUID
from zoneinfo import ZoneInfo

from codexa.core.context import Context
from codexa.core.definition.form import Form, read_form
from codexa.core.program.compiling import compile_form
from codexa.core.program.evaluate import evaluate
from codexa.core.program.faces import FormState
from codexa.core.program.notes import Links, Note, links, notes
from codexa.core.program.proof import Finding, proof
from codexa.core.program.public import form_state
from codexa.services.errors import ClashError, NotFoundError
from codexa.store import forms
from codexa.store.database import Connection
from codexa.store.forms import Saved
from codexa.store.sessions import SignedIn


@dataclass(frozen=True, kw_only=True, slots=True)
class Analysis:
    """What the core says of a draft: findings, margin notes and links by block id, and the state with no answers."""

    findings: tuple[Finding, ...]
    notes: dict[str, tuple[Note, ...]]
    links: dict[str, Links]
    state: FormState


def analyse(form: Form) -> Analysis:
    """Return what the core says of a draft."""
    program = compile_form(form)
    return Analysis(
        findings=proof(program),
        notes=notes(program),
        links=links(program),
        state=FormState.model_validate(form_state(evaluate(program, {}, context_of(form)))),
    )


def context_of(form: Form, link: Mapping[str, str] | None = None) -> Context:
    """Return the surroundings of this moment in the form's time zone; `link` is what came with the address."""
    return Context(now=datetime.datetime.now(ZoneInfo(form.time_zone)), locale=form.locale, link=dict(link or {}))


def save_draft(
    connection: Connection, *, who: SignedIn, form: UUID, revision: int, document: Any
) -> tuple[Saved, Form]:
    """Keep a draft made from that revision.

    Raises DefinitionError where the document is no form, NotFoundError, and ClashError where somebody saved another
    since; nothing is kept then.
    """
    draft = read_form(document)
    saved = forms.save_draft(
        connection,
        team=who.team_id,
        form=form,
        person=who.person_id,
        revision=revision,
        name=draft.name,
        draft=draft.model_dump(mode="json"),
    )
    if saved is None:
        if forms.find_form(connection, team=who.team_id, form=form) is None:
            raise NotFoundError
        raise ClashError
    return saved, draft
