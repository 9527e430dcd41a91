"""Mails of Codexa itself. Links in them are made when they are sent, so that no job and no table holds one in clear."""

import html
import secrets
from collections.abc import Callable, Mapping, Sequence
from typing import Any
from uuid import UUID

from codexa.services.signing_in import digest_of
from codexa.settings import Settings
from codexa.store import accounts, team
from codexa.store.database import Connect

LINK_MINUTES = 60
_LOOK = {
    "accent": "#2B3A8C",
    "ground": "#EDF0F7",
    "paper": "#FFFFFF",
    "ink": "#16202B",
    "letters": "sans-serif",
    "logo": "",
    "logo_alternative": "",
}
_NOT_YOU = "<p>If this was not you, tell an owner of your team.</p>"

# Makes the content of a mail of what it is about; None where there is nothing to tell any more.
Make = Callable[[Connect, Settings, Mapping[str, Any]], dict[str, Any] | None]


def notice(*, to: Sequence[str], subject: str, text: str) -> dict[str, Any]:
    """Return the content of a mail of Codexa itself; `text` is HTML."""
    return {
        "to": list(to),
        "cc": [],
        "bcc": [],
        "reply_to": "",
        "from_name": "Codexa",
        "subject": " ".join(subject.split())[:200],
        "locale": "en",
        "brand": _LOOK,
        "pieces": [{"html": text}],
        "files": [],
        "pdf": None,
        "entry": None,
    }


def mail_that_works(_connect: Connect, settings: Settings, about: Mapping[str, Any]) -> dict[str, Any]:
    """The mail that shows that mail works."""
    host = html.escape(f"{settings.smtp_host}:{settings.smtp_port}")
    text = f"<p>This mail came through {host}: mail works. {html.escape(about['name'])} asked for it.</p>"
    return notice(to=[about["to"]], subject="Mail works", text=text)


def tried_mail(_connect: Connect, _settings: Settings, about: Mapping[str, Any]) -> dict[str, Any]:
    """A follow-up's mail, tried: as it was worked out, to who asked alone."""
    content: dict[str, Any] = about["content"]
    return content


def password_link(connect: Connect, settings: Settings, about: Mapping[str, Any]) -> dict[str, Any] | None:
    """The mail with the link by which a password is set anew, once."""
    token = secrets.token_urlsafe(32)
    with connect() as connection:
        person = accounts.find_person(connection, person=UUID(about["person"]))
        if person is None:
            return None
        accounts.insert_password_link(connection, person=person.id, digest=digest_of(token), minutes=LINK_MINUTES)
    address = f"{settings.public_address}/password#{token}"
    return notice(
        to=[person.email],
        subject="Your password for Codexa",
        text=f"<p>{html.escape(person.name)}, somebody asked for a new password for this address.</p>"
        f'<p><a href="{address}">Choose a new password</a></p>'
        f"<p>The link works once, within {LINK_MINUTES} minutes. If it was not you, do nothing: "
        "the password stays as it is.</p>",
    )


def invitation(connect: Connect, settings: Settings, about: Mapping[str, Any]) -> dict[str, Any] | None:
    """The mail that invites somebody into a team."""
    token = secrets.token_urlsafe(32)
    with connect() as connection:
        sent = team.set_token(connection, invitation=UUID(about["invitation"]), digest=digest_of(token))
    if sent is None:
        return None
    by, name = html.escape(sent.invited_by or "Somebody"), html.escape(sent.team_name)
    return notice(
        to=[sent.email],
        subject=f"{sent.invited_by or 'Somebody'} invites you into {sent.team_name}",
        text=f"<p>{by} invites you to work with the forms of {name}, as {html.escape(sent.role)}.</p>"
        f'<p><a href="{settings.public_address}/join#{token}">Look at the invitation</a></p>'
        "<p>It works once, within two weeks. If you know nothing of it, do nothing.</p>",
    )


def password_changed(connect: Connect, _settings: Settings, about: Mapping[str, Any]) -> dict[str, Any] | None:
    """The mail that tells that the password was changed."""
    with connect() as connection:
        person = accounts.find_person(connection, person=UUID(about["person"]))
    if person is None:
        return None
    text = f"<p>{html.escape(person.name)}, your password was changed; all sessions have ended.</p>{_NOT_YOU}"
    return notice(to=[person.email], subject="Your password was changed", text=text)


def address_at_old(connect: Connect, settings: Settings, about: Mapping[str, Any]) -> dict[str, Any] | None:
    """The mail to the address that somebody has, with the link that lets it go."""
    return _address_mail(connect, settings, about, end="old")


def address_at_new(connect: Connect, settings: Settings, about: Mapping[str, Any]) -> dict[str, Any] | None:
    """The mail to the address that somebody wants, with the link that shows that it is theirs."""
    return _address_mail(connect, settings, about, end="new")


def _address_mail(
    connect: Connect, settings: Settings, about: Mapping[str, Any], *, end: accounts.End
) -> dict[str, Any] | None:
    token = secrets.token_urlsafe(32)
    with connect() as connection:
        person = accounts.find_person(connection, person=UUID(about["person"]))
        change = accounts.set_address_digest(
            connection, person=UUID(about["person"]), email=about["email"], end=end, digest=digest_of(token)
        )
    if person is None or not change:
        return None
    link = f"{settings.public_address}/address#{token}"
    new = html.escape(about["email"])
    return notice(
        to=[person.email if end == "old" else about["email"]],
        subject="Confirm your new address for Codexa",
        text=f"<p>{html.escape(person.name)} wants to sign in to Codexa as {new} instead of "
        f'{html.escape(person.email)}.</p><p><a href="{link}">Confirm this</a></p>'
        "<p>It is changed once it was confirmed at both addresses, within a day. "
        "If you know nothing of it, do nothing: it stays as it is.</p>",
    )


def address_changed(_connect: Connect, _settings: Settings, about: Mapping[str, Any]) -> dict[str, Any]:
    """The mail, to both addresses, that the address was changed."""
    old, new = html.escape(about["old"]), html.escape(about["new"])
    text = f"<p>You sign in to Codexa as {new} from now on, not as {old} any more.</p>{_NOT_YOU}"
    return notice(to=[about["new"], about["old"]], subject="Your address was changed", text=text)
