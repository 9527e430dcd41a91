"""The audit log of a team."""

from datetime import datetime
from typing import Literal
from uuid import UUID

from codexa.web.contract.message import Message

AuditArea = Literal["sign-ins", "rights", "publishing", "exports", "feeds and keys", "removals"]


class AuditEntryReply(Message):
    """What somebody did, in words; `person_name` is what they were called then."""

    id: int
    at: datetime
    person_id: UUID | None
    person_name: str
    area: AuditArea
    told: str


class AuditReply(Message):
    """Some of what was done, the latest first; with `more` there is more before the last."""

    entries: list[AuditEntryReply]
    more: bool
