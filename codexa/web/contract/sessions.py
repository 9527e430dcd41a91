"""Signing in."""

from datetime import datetime
from typing import Annotated, Any, Literal
from uuid import UUID

from pydantic import StringConstraints

from codexa.web.contract.message import Message


class SignInRequest(Message):
    """E-mail and password."""

    email: Annotated[str, StringConstraints(max_length=320)]
    password: Annotated[str, StringConstraints(max_length=1_000)]


class SignedInReply(Message):
    """Who is signed in; `csrf_token` goes into X-CSRF-Token of every changing request."""

    person_id: UUID
    person_name: str
    email: str
    team_id: UUID
    team_name: str
    team_slug: str
    role: str
    csrf_token: str


class SecondFactorReply(Message):
    """The password was right, and a second factor is still to be shown."""

    second_factor: Literal[True]


class SecondCodeRequest(Message):
    """The code of an app, or one for recovery."""

    code: Annotated[str, StringConstraints(max_length=40)]


class PasskeyOptionsReply(Message):
    """What a browser is told to make a passkey, or to ask for one (Web Authentication, 5.4 and 5.5, as JSON)."""

    options: dict[str, Any]


class PasskeyRequest(Message):
    """What a browser has of a passkey (Web Authentication, 5.1, as JSON), and what its person calls it."""

    credential: dict[str, Any]
    name: Annotated[str, StringConstraints(max_length=60)] = ""


class FactorReply(Message):
    """A second factor of one's own."""

    id: UUID
    kind: Literal["codes", "passkey"]
    name: str
    made_at: datetime


class FactorsReply(Message):
    """One's own second factors, and how many codes for recovery are left."""

    factors: list[FactorReply]
    codes_left: int


class BeginFactorRequest(Message):
    """One's own password, and what the second factor is called."""

    password: Annotated[str, StringConstraints(max_length=1_000)]
    name: Annotated[str, StringConstraints(max_length=60)] = ""


class BegunCodesReply(Message):
    """What an app has to know: the secret, and a picture of it (SVG, as a data address)."""

    id: UUID
    secret: str
    picture: str


class RecoveryCodesReply(Message):
    """Codes for recovery, shown once; none where there are some already."""

    codes: list[str] | None
