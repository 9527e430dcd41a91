"""How the server works behind the pages: jobs, and mail; and who is in the team."""

from datetime import datetime
from uuid import UUID

from codexa.web.contract.message import Message


class ErrandReply(Message):
    """A job that follows from no response: what it is, how often it was tried, and how it stands or ended."""

    id: int
    kind: str
    state: str
    tries: int
    result: str
    created_at: datetime
    ended_at: datetime | None


class QueueReply(Message):
    """How many jobs are due and wait, how many wait for a later day, how many are carried out; living workers."""

    waiting: int
    later: int
    running: int
    workers: int


class WorkingsReply(Message):
    """How the queue stands, the latest errands, and how mail is sent; the password for it is never told."""

    queue: QueueReply
    errands: list[ErrandReply]
    smtp_host: str
    smtp_port: str
    smtp_tls: str
    smtp_user: str
    mail_from: str
    mails_per_hour: str


class AskedReply(Message):
    """An errand was asked for."""

    errand: int


class TeamPersonReply(Message):
    """Somebody of the team."""

    id: UUID
    name: str
    email: str
    role: str


class PeopleReply(Message):
    """The people of the team, by name."""

    people: list[TeamPersonReply]
