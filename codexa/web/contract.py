"""The shapes of requests and replies; TypeScript types and the OpenAPI document are generated from them."""

from datetime import datetime
from typing import Annotated, Any
from uuid import UUID

from annotated_types import Interval, Len
from pydantic import BaseModel, ConfigDict, StringConstraints

from codexa.core.definition.form import Form
from codexa.core.definition.parts import Identifier
from codexa.core.errors import Problem
from codexa.core.formula.check import Severity
from codexa.core.program.notes import Links, Note
from codexa.core.program.public import ConfirmationFace, ErrorFace, FormFace, FormState


class Message(BaseModel):
    """A request or reply; unknown keys are refused."""

    model_config = ConfigDict(extra="forbid", from_attributes=True, json_schema_serialization_defaults_required=True)


class ErrorReply(Message):
    """What went wrong: a stable code, a sentence for people, and the places where known."""

    code: str
    message: str
    problems: list[Problem] = []


class SignInRequest(Message):
    """E-mail and password."""

    email: Annotated[str, StringConstraints(max_length=320)]
    password: Annotated[str, StringConstraints(max_length=1_000)]


class SignedInReply(Message):
    """Who is signed in; `csrf_token` goes into X-CSRF-Token of every changing request."""

    person_name: str
    email: str
    team_name: str
    team_slug: str
    role: str
    csrf_token: str


class FormRowReply(Message):
    """A form on the desk.

    `changed` says that the draft differs from the live edition; `days` are the responses of each of the last 14 days,
    today last.
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


class DeskReply(Message):
    """The team's forms, latest change first."""

    forms: list[FormRowReply]


class NewFormRequest(Message):
    """A blank form of that name, or the form of a JSON document."""

    name: Annotated[str, StringConstraints(min_length=1, max_length=200, pattern=r"\S")] = "Untitled form"
    document: dict[str, Any] | None = None


class MadeReply(Message):
    """A form was made."""

    id: UUID


class FindingReply(Message):
    """A finding of the proof; `start` and `end` are the place in the formula of `setting`."""

    severity: Severity
    code: str
    message: str
    remedy: str
    block: str | None
    setting: str | None
    start: int | None
    end: int | None


class AnalysisReply(Message):
    """What the core says of a draft."""

    findings: list[FindingReply]
    notes: dict[str, list[Note]]
    links: dict[str, Links]
    state: FormState


class FormReply(Message):
    """A form in the workbench; `changes` counts what differs from the live edition."""

    id: UUID
    slug: str
    address: str
    snippet: str
    sites: list[str]
    draft: Form
    revision: int
    live_edition: int | None
    changes: int
    changed_at: datetime
    changed_by: str | None
    responses: int
    analysis: AnalysisReply


class SaveDraftRequest(Message):
    """A draft made from that revision."""

    revision: int
    draft: dict[str, Any]


class SavedReply(Message):
    """The draft was kept; `changes` counts what differs from the live edition."""

    revision: int
    changed_at: datetime
    changes: int
    analysis: AnalysisReply


class RenameKeyRequest(Message):
    """A draft and the key that one of its blocks shall have."""

    draft: dict[str, Any]
    block: Identifier
    key: str


class DraftReply(Message):
    """A draft that was rewritten; it is not saved yet."""

    draft: Form


class PublishRequest(Message):
    """Publish this revision of the draft."""

    revision: int


class PublishedReply(Message):
    """The edition that visitors get from now on."""

    edition: int
    address: str
    snippet: str


class EditionReply(Message):
    """An edition of a form."""

    number: int
    published_at: datetime
    published_by: str | None
    responses: int


class EditionsReply(Message):
    """The editions of a form, newest first."""

    editions: list[EditionReply]


class SitesRequest(Message):
    """The websites that may show the form in a frame."""

    sites: Annotated[list[Annotated[str, StringConstraints(max_length=300)]], Len(max_length=50)]


class SitesReply(Message):
    """The websites as they were understood."""

    sites: list[str]


class ColumnReply(Message):
    """A field as a column of the responses; `number` is its outline number, "" where it is gone."""

    id: str
    label: str
    number: str
    calculated: bool
    numeric: bool


class RowReply(Message):
    """A response as a row; `cells` holds text by column id, nothing for a blank."""

    number: int
    edition: int
    received_at: str
    cells: dict[str, str]


class ResponsesReply(Message):
    """A page of responses, newest first."""

    columns: list[ColumnReply]
    rows: list[RowReply]
    count: int


class ResponseReply(Message):
    """One response."""

    columns: list[ColumnReply]
    row: RowReply


LinkValues = Annotated[
    dict[Annotated[str, StringConstraints(max_length=60)], Annotated[str, StringConstraints(max_length=500)]],
    Len(max_length=50),
]


class EvaluateRequest(Message):
    """What the visitor has entered, by block id, and what came with the address.

    `turn` is handed back, so that late replies are known. `changed` are the blocks whose answers are new since the last
    reply: only what hangs on them comes back. Without it all does.
    """

    answers: dict[str, Any]
    link: LinkValues = {}
    changed: Annotated[list[str], Len(max_length=2_000)] | None = None
    turn: int = 0


class EvaluateReply(Message):
    """The form's state with these answers."""

    turn: int
    state: FormState


class SubmitRequest(Message):
    """What the visitor hands in, by block id, and what came with the address."""

    answers: dict[str, Any]
    link: LinkValues = {}


class ReceivedReply(Message):
    """The response was kept under this number; what the visitor reads then."""

    number: int
    confirmation: ConfirmationFace


class UploadReply(Message):
    """A file was taken: `size` in bytes; `thumbnail` is the address of a small picture of it, where there is one."""

    id: str
    name: str
    size: int
    thumbnail: str | None


class RefusedReply(Message):
    """The response was not kept: what is wrong, by block id."""

    code: str
    message: str
    errors: dict[str, ErrorFace]


class ExplainRequest(Message):
    """Answers to a draft, and the fact to explain: "OWNER.FACT" or "REPEAT/ROW/BLOCK.FACT"."""

    answers: dict[str, Any]
    fact: Annotated[str, StringConstraints(min_length=1, max_length=200)]


class ExplanationReply(Message):
    """One fact in words, and what it hangs on."""

    owner: str
    name: str
    fact: str
    value: str
    sentence: str
    formula: str
    because: "list[ExplanationReply]"


class SampleRequest(Message):
    """Which of the samples: the same number gives the same answers."""

    seed: Annotated[int, Interval(ge=0, le=1_000_000)]


class SampleReply(Message):
    """Plausible answers, by block id."""

    answers: dict[str, Any]


class PublicPage(Message):
    """What the page of a public form carries: where to ask, what to show, and the first state.

    `address` is the form's own, without a page; `page` the address of the page that was asked for, or "". `token` is
    there in a preview alone: the session's, for asking about a draft.
    """

    form: UUID
    edition: int
    framed: bool
    link: LinkValues
    address: str
    page: str
    token: str | None = None
    face: FormFace
    state: FormState
