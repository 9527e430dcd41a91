"""The desk: forms and the ways to start one."""

from datetime import datetime
from typing import Annotated, Any
from uuid import UUID

from pydantic import StringConstraints

from codexa.core.form.form import Page
from codexa.core.form.outline_text import OutlineLine
from codexa.web.contract.message import Message

PastedText = Annotated[str, StringConstraints(max_length=100_000)]


class OutlineRequest(Message):
    """Pasted text, a line a field."""

    text: PastedText


class OutlineReply(Message):
    """What the text makes: pages of a form's document, and what became of each line."""

    pages: tuple[Page, ...]
    lines: list[OutlineLine]


class TemplateReply(Message):
    """A form to begin from, in a sentence and in numbers."""

    name: str
    title: str
    purpose: str
    shows: str
    pages: int
    fields: int
    rules: int
    figures: int


class TemplatesReply(Message):
    """All templates."""

    templates: list[TemplateReply]


class FormRowReply(Message):
    """A form on the desk.

    `changed` says that the draft differs from the live edition; `days` are the responses of each of the last 14 days,
    today last; `failed` counts the follow-ups of late that did not work; `closes` is when it closes, if it does.
    So many visitors have `seen` it in the last 30 days, and so many of them have `sent` it. `held` are suspected
    responses, `mine` those that whoever asks has in hand. `tables_changed` says what visitors' edition names of tables
    that is not there any more.
    """

    id: UUID
    name: str
    slug: str
    revision: int
    live_edition: int | None
    changed: bool
    changed_at: datetime
    changed_by: str | None
    responses: int
    days: list[int]
    unreadable: str | None
    tables_changed: str | None
    failed: int
    closes: datetime | None
    seen: int
    sent: int
    held: int
    mine: int


class DeskReply(Message):
    """The team's forms, latest change first."""

    forms: list[FormRowReply]


class NewFormRequest(Message):
    """A blank form of that name, the form of a JSON document, of a template by its name, or of a pasted outline."""

    name: Annotated[str, StringConstraints(min_length=1, max_length=200, pattern=r"\S")] = "Untitled form"
    document: dict[str, Any] | None = None
    template: str | None = None
    outline: PastedText | None = None


class MadeReply(Message):
    """A form was made."""

    id: UUID
