"""The desk: forms and the ways to start one."""

from datetime import datetime
from typing import Annotated, Any, Literal
from uuid import UUID

from annotated_types import Len
from pydantic import Field as Setting
from pydantic import StringConstraints

from codexa.core.form.form import Page
from codexa.core.form.outline_text import OutlineLine
from codexa.web.contract.message import Message

# A word or two that a team sorts its forms by.
DeskLabel = Annotated[str, StringConstraints(min_length=1, max_length=40, pattern=r"\S")]
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
    today last; `failed` counts the follow-ups of late that did not work, `deciding` the responses that wait for a
    decision; `closes` is when it closes, if it does. So many visitors have `seen` it in the last 30 days, and so many
    of them have `sent` it. `held` are suspected responses, `mine` those that whoever asks has in hand.
    `tables_changed` says what visitors' edition names of tables that is not there any more. `owner` is whose it is;
    `sites` are websites that may frame it.
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
    deciding: int
    closes: datetime | None
    seen: int
    sent: int
    held: int
    mine: int
    labels: list[str]
    sites: list[str]
    owner_id: UUID | None
    owner: str | None


class DeletedFormReply(Message):
    """A form in the bin, from which it is taken after so many days; what came in by it goes with it."""

    id: UUID
    name: str
    deleted_at: datetime
    responses: int
    live_edition: int | None


class BinReply(Message):
    """What lies in the bin, and for how many days."""

    forms: list[DeletedFormReply]
    kept_days: int


class DeskView(Message):
    """Which forms are shown, and in which order: words that are looked for, a state, an owner, labels (all of them).

    `owner` is a person's id, `sort` a column's name with "-" before it downwards; "" stands for what is usual.
    """

    words: Annotated[str, StringConstraints(max_length=100)] = ""
    state: Literal["", "live", "draft", "changed"] = ""
    owner: Annotated[str, StringConstraints(max_length=40)] = ""
    labels: Annotated[list[DeskLabel], Len(max_length=25)] = Setting([])
    sort: Annotated[str, StringConstraints(max_length=20)] = ""


class DeskViewReply(Message):
    """A filter that a person keeps."""

    name: str
    view: DeskView


class SaveDeskViewRequest(Message):
    """A filter to be kept under a name."""

    name: Annotated[str, StringConstraints(min_length=1, max_length=60, pattern=r"\S")]
    view: DeskView


class DeskReply(Message):
    """The team's forms, latest change first, and the filters that one keeps."""

    forms: list[FormRowReply]
    views: list[DeskViewReply]


class LabelsRequest(Message):
    """The labels of a form, all of them."""

    labels: Annotated[list[DeskLabel], Len(max_length=20)]


class OwnerRequest(Message):
    """Whose a form is, by a person's id."""

    person: UUID


class FoundPartReply(Message):
    """Something in a form: its form, itself, and its number, title and key."""

    form: UUID
    form_name: str
    part: str
    number: str
    title: str
    key: str


class FoundPartsReply(Message):
    """What was found, form by form."""

    parts: list[FoundPartReply]


class NewFormRequest(Message):
    """A blank form of that name, the form of a JSON document, of a template by its name, or of a pasted outline."""

    name: Annotated[str, StringConstraints(min_length=1, max_length=200, pattern=r"\S")] = "Untitled form"
    document: dict[str, Any] | None = None
    template: str | None = None
    outline: PastedText | None = None


class MadeReply(Message):
    """A form was made."""

    id: UUID
