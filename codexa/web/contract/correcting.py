"""Correcting a response."""

from typing import Annotated, Any

from pydantic import StringConstraints

from codexa.web.contract.message import Message


class CorrectionReply(Message):
    """A response to be corrected: its answers as they were entered, and the version that a correction is made of."""

    answers: dict[str, Any]
    version: str


class CompareRequest(Message):
    """Answers as they would be entered, by block id."""

    answers: dict[str, Any]


class CorrectionRequest(Message):
    """Answers to keep in the place of those of a `version`; `because` is a remark for the team."""

    answers: dict[str, Any]
    version: Annotated[str, StringConstraints(max_length=64)]
    because: Annotated[str, StringConstraints(max_length=2_000, strip_whitespace=True)] = ""


class ChangeReply(Message):
    """What a correction changes in a column, in words; "" for a blank."""

    column: str
    label: str
    before: str
    after: str
    calculated: bool


class WrongReply(Message):
    """What is wrong with an answer, and under which label."""

    label: str
    message: str


class CorrectedReply(Message):
    """What a correction changes, or what keeps it from being saved; `paid` is what that means for the payment."""

    changes: list[ChangeReply]
    wrong: list[WrongReply]
    paid: str
