"""A person's own account."""

from typing import Annotated, Literal

from pydantic import AfterValidator, StringConstraints

from codexa.core.languages import LANGUAGES
from codexa.web.contract.message import Message

Email = Annotated[str, StringConstraints(max_length=320)]
Password = Annotated[str, StringConstraints(max_length=1_000)]
Token = Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9_-]{1,100}$")]


def _has_words(language: str) -> str:
    if language not in LANGUAGES:
        raise ValueError(f'Codexa has no words in "{language}"; choose one of {", ".join(LANGUAGES)}')
    return language


class LinkRequest(Message):
    """The address that somebody signs in with who has forgotten the password."""

    email: Email


class NewPasswordRequest(Message):
    """A new password, by the link that came by mail."""

    token: Token
    password: Password


class PasswordRequest(Message):
    """A new password in place of the old one."""

    old: Password
    new: Password


class AddressRequest(Message):
    """The address that somebody wants to sign in with, and their password."""

    email: Email
    password: Password


class Digest(Message):
    """How often a mail tells of what came in and what waits."""

    every: Literal["none", "daily", "weekly"]


class LanguageRequest(Message):
    """The language in which somebody wants to be written to."""

    language: Annotated[str, StringConstraints(max_length=10), AfterValidator(_has_words)]


class LanguageChoice(Message):
    """A language, by its own name."""

    code: str
    name: str


class LanguageReply(Message):
    """The language in which somebody is written to, and all that there are."""

    language: str
    languages: list[LanguageChoice]


class WantedAddressReply(Message):
    """The address that somebody wants, and where it was confirmed; null where they want no other."""

    email: str | None
    old_confirmed: bool
    new_confirmed: bool


class ConfirmAddressRequest(Message):
    """The link that came by mail."""

    token: Token


class ConfirmedAddressReply(Message):
    """Whether the address was changed now, or where it must be confirmed yet."""

    email: str
    changed: bool
    waits_for: str


class NameRequest(Message):
    """What somebody is called."""

    name: Annotated[str, StringConstraints(min_length=1, max_length=200, pattern=r"\S")]
