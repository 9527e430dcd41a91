"""The shapes of requests and replies; TypeScript types and the OpenAPI document are generated from them."""

from datetime import date, datetime
from typing import Annotated, Any
from uuid import UUID

from annotated_types import Interval, Len
from pydantic import BaseModel, ConfigDict, StringConstraints

from codexa.core.definition.brand import Brand
from codexa.core.definition.comparing import Change
from codexa.core.definition.form import Form, Page
from codexa.core.definition.outline_text import OutlineLine
from codexa.core.definition.parts import Identifier
from codexa.core.definition.trials import Expected
from codexa.core.errors import Problem
from codexa.core.formula.check import Severity
from codexa.core.formula.rows import ConditionRows
from codexa.core.program.faces import BarFace, ConfirmationFace, ErrorFace, FormFace, FormState
from codexa.core.program.notes import Links, Note
from codexa.core.program.trials import RuleCoverage, TrialResult


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


class RowsRequest(Message):
    """A condition as a formula."""

    formula: Annotated[str, StringConstraints(max_length=10_000)]


class RowsReply(Message):
    """The condition as rows; null where it can't be read."""

    rows: ConditionRows | None


class ConditionRequest(Message):
    """A condition as rows."""

    rows: ConditionRows


class ConditionReply(Message):
    """The condition as a formula."""

    formula: str


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
    """A blank form of that name, the form of a JSON document, of a template by its name, or of a pasted outline."""

    name: Annotated[str, StringConstraints(min_length=1, max_length=200, pattern=r"\S")] = "Untitled form"
    document: dict[str, Any] | None = None
    template: str | None = None
    outline: PastedText | None = None


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
    """Publish this revision of the draft; with `despite_trials` also where trials of it fail."""

    revision: int
    despite_trials: bool = False


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
    """Answers to a draft, what came with the address, and the part to explain: "OWNER" or "REPEAT/ROW/BLOCK".

    A block, page or figure is named by id or key, what holds for the whole form as "form".
    """

    answers: dict[str, Any]
    link: LinkValues = {}
    part: Annotated[str, StringConstraints(min_length=1, max_length=200)]


class ExplanationReply(Message):
    """One fact in words, and what it hangs on."""

    owner: str
    name: str
    fact: str
    value: str
    sentence: str
    formula: str
    because: "list[ExplanationReply]"


class ExplanationsReply(Message):
    """All facts of one part, in the order in which people ask."""

    facts: list[ExplanationReply]


class SampleRequest(Message):
    """Which of the samples: the same number gives the same answers."""

    seed: Annotated[int, Interval(ge=0, le=1_000_000)]


class SampleReply(Message):
    """Plausible answers, by block id."""

    answers: dict[str, Any]


class OutcomeRequest(Message):
    """Answers to a draft, what came with the address, and the day on which they are given, or now."""

    answers: dict[str, Any]
    link: LinkValues = {}
    day: date | None = None


class OutcomeReply(Message):
    """What comes out of answers: what a trial would look at; which conditions hold, by owner and setting.

    `values` are the texts of fields and figures by id; `charts` the bars of figures; `looked_at` the numbers that
    figures of bands look at, as plain text; `state` what visitors would see.
    """

    outcome: Expected
    holding: dict[str, dict[str, bool]]
    values: dict[str, str]
    charts: dict[str, list[BarFace]]
    looked_at: dict[str, str]
    state: FormState


class TrialsReply(Message):
    """How the trials of a saved draft ended."""

    results: list[TrialResult]
    coverage: list[RuleCoverage]


class TriedResponseReply(Message):
    """A response as the draft would see it: its answers as entered, and the draft's figures as text."""

    number: int
    answers: dict[str, Any]
    figures: dict[str, str]


class TriedResponsesReply(Message):
    """The newest responses as the draft would see them."""

    responses: list[TriedResponseReply]


class StateReply(Message):
    """A saved state of a draft; `edition` is its number where it was published."""

    revision: int
    saved_at: datetime
    saved_by: str | None
    edition: int | None


class StatesReply(Message):
    """Saved states, newest first."""

    states: list[StateReply]


class ChangesReply(Message):
    """What changed between two states, in words."""

    changes: list[Change]


class PresenceRequest(Message):
    """A tab that shows a form: the area, and the part that is selected in it."""

    tab: Annotated[str, StringConstraints(pattern=r"^[a-z0-9]{1,40}$")]
    area: Annotated[str, StringConstraints(max_length=40)]
    part: Identifier | None = None


class PresentReply(Message):
    """Somebody else with the form open."""

    name: str
    area: str
    part: str | None


class PresenceReply(Message):
    """Who else is here, and the revision that is saved now."""

    people: list[PresentReply]
    revision: int


class LeaveRequest(Message):
    """A tab that was closed."""

    tab: Annotated[str, StringConstraints(pattern=r"^[a-z0-9]{1,40}$")]


class SavedBrandReply(Message):
    """A brand of the team, and how many forms use it."""

    id: UUID
    name: str
    look: Brand
    forms: int


class BrandsReply(Message):
    """The team's brands by name."""

    brands: list[SavedBrandReply]


class NewBrandRequest(Message):
    """A look to keep under a name."""

    name: Annotated[str, StringConstraints(min_length=1, max_length=100, pattern=r"\S")]
    look: dict[str, Any]


class BrandRequest(Message):
    """The look of a brand from now on."""

    look: dict[str, Any]


class PictureReply(Message):
    """A picture was kept: where it is, and its size in pixels."""

    source: str
    width: int
    height: int


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
