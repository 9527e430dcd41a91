"""A form in the workbench."""

from datetime import datetime
from typing import Annotated, Any
from uuid import UUID

from annotated_types import Interval
from pydantic import StringConstraints

from codexa.core.definition.parts import Identifier
from codexa.core.form.form import Form
from codexa.core.formula.check import Severity
from codexa.core.program.faces import FormState
from codexa.core.program.notes import Links, Note
from codexa.services.team import Role
from codexa.web.contract.message import Message


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


class FigureRange(Message):
    """Between which numbers a figure lies, as plain text; null where there is no such end, or none is known."""

    least: str | None
    greatest: str | None


class AnalysisReply(Message):
    """What the core says of a draft; `ranges` are those of figures by id."""

    findings: list[FindingReply]
    notes: dict[str, list[Note]]
    links: dict[str, Links]
    ranges: dict[str, FigureRange]
    state: FormState


class FormReply(Message):
    """A form in the workbench; `changes` counts what differs from the live edition.

    `role` is that of who asks, for this form. `practice_website` is where a live picture of it on a website is shown,
    "" for nowhere.
    """

    id: UUID
    role: Role
    slug: str
    address: str
    sites: list[str]
    draft: Form
    revision: int
    live_edition: int | None
    newest_edition: int
    practice_website: str
    changes: int
    changed_at: datetime
    changed_by: str | None
    responses: int
    analysis: AnalysisReply


MOST_REVISION = 2**31 - 1
Revision = Annotated[int, Interval(ge=0, le=MOST_REVISION)]


class SaveDraftRequest(Message):
    """A draft made from that revision."""

    revision: Revision
    draft: dict[str, Any]


class SavedReply(Message):
    """The draft was kept; until the first edition the address follows the name. `changes` counts as in FormReply."""

    revision: int
    changed_at: datetime
    address: str
    changes: int
    analysis: AnalysisReply


class RenameRequest(Message):
    """A draft and what a name in it shall be: a "key", "options.2.code", "bands.0.label" and the like."""

    draft: dict[str, Any]
    part: Identifier
    setting: Annotated[str, StringConstraints(max_length=100)]
    name: Annotated[str, StringConstraints(max_length=300)]


class DraftReply(Message):
    """A draft that was rewritten; it is not saved yet."""

    draft: Form
