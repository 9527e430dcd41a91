"""Signing in."""

from typing import Annotated
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
