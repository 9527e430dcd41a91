"""Mails to members: the link by which they sign in, or confirm another address; made as the mail is sent."""

import html
import secrets
from collections.abc import Mapping
from datetime import timedelta
from typing import Any
from uuid import UUID

from codexa.core.sentences import Sentence
from codexa.services.accounts.mail_words import Say, notice
from codexa.services.marks import mark_of
from codexa.services.signing_in import digest_of
from codexa.settings import Settings
from codexa.store import members as store
from codexa.store import people
from codexa.store.database import Connect
from codexa.store.members import Link, LinkKind

# Errands.
SIGN_IN, INVITATION, ADDRESS = "link for a member", "member invited", "new address of a member"
LINK_MINUTES, INVITATION_DAYS = 30, 14
_CODE_DIGITS = 6

_SUBJECT_LINK = Sentence("Sign in to {team}")
_SUBJECT_INVITED = Sentence("You have an account at {team}")
_SUBJECT_ADDRESS = Sentence("Confirm your new address for {team}")
_LINK = Sentence("Sign in")
_CONFIRM = Sentence("Confirm this address")
_CODE = Sentence("Or type this code on the page that asks for it: {code}")
_ONCE = Sentence("It works once, within {minutes} minutes. If you did not ask for it, do nothing.")
_INVITED = Sentence("{team} has an account for you, by which you fill in forms and find your answers again.")
_INVITED_ONCE = Sentence("The link works once, within {days} days; later ask for another one on the same page.")


def code_mark(asked: bytes, code: str, settings: Settings) -> str:
    """Return what is kept of a code that stands beside a link."""
    return mark_of(f"member code {asked.hex()} {code}", settings)


def sign_in_mail(connect: Connect, settings: Settings, about: Mapping[str, Any]) -> dict[str, Any] | None:
    """The mail with the link by which a member signs in once, and with the code for the page that asked."""
    asked = bytes.fromhex(about["asked"])
    code = "".join(secrets.choice("0123456789") for _ in range(_CODE_DIGITS))
    mark = code_mark(asked, code, settings)
    made = _made(connect, settings, about, kind="sign in", lifetime=timedelta(minutes=LINK_MINUTES), code=mark)
    if made is None:
        return None
    say = Say(about["locale"])
    return _mail(made, about, say(_SUBJECT_LINK, team=made["team"]), say(_LINK), [
        say(_CODE, code=f"{code[:3]} {code[3:]}"),
        say(_ONCE, minutes=LINK_MINUTES),
    ])  # fmt: skip


def invitation_mail(connect: Connect, settings: Settings, about: Mapping[str, Any]) -> dict[str, Any] | None:
    """The mail that tells somebody of their account, with a link to sign in the first time."""
    made = _made(connect, settings, about, kind="sign in", lifetime=timedelta(days=INVITATION_DAYS))
    if made is None:
        return None
    say = Say(about.get("locale", "en"))
    return _mail(made, about, say(_SUBJECT_INVITED, team=made["team"]), say(_LINK), [
        say(_INVITED, team=made["team"]),
        say(_INVITED_ONCE, days=INVITATION_DAYS),
    ])  # fmt: skip


def address_mail(connect: Connect, settings: Settings, about: Mapping[str, Any]) -> dict[str, Any] | None:
    """The mail to an address that a member wants to have, with the link that shows that it is theirs."""
    made = _made(connect, settings, about, kind="address", lifetime=timedelta(minutes=LINK_MINUTES))
    if made is None:
        return None
    say = Say(about["locale"])
    subject = say(_SUBJECT_ADDRESS, team=made["team"])
    return _mail(made, about, subject, say(_CONFIRM), [say(_ONCE, minutes=LINK_MINUTES)])


def _made(
    connect: Connect,
    settings: Settings,
    about: Mapping[str, Any],
    *,
    kind: LinkKind,
    lifetime: timedelta,
    code: str = "",
) -> dict[str, str] | None:
    """Make the link, and return its address with whom it is for; None where they are no member any more."""
    token, team = secrets.token_urlsafe(32), UUID(about["team"])
    asked = bytes.fromhex(about["asked"]) if code else None
    with connect() as connection:
        member = store.find_member(connection, team=team, member=UUID(about["member"]))
        known = people.team_by_id(connection, team=team)
        if member is None or member.id is None:
            return None
        link = Link(kind=kind, member_id=member.id, email=about.get("email", ""), back=about.get("back", ""))
        store.insert_link(connection, digest=digest_of(token), link=link, asked=asked, code=code, lifetime=lifetime)
    address = f"{settings.public_address}/m/{known.slug}/link/{token}"
    return {"team": known.name, "to": link.email or member.email, "address": address}


def _mail(
    made: Mapping[str, str], about: Mapping[str, Any], subject: str, press: str, lines: list[str]
) -> dict[str, Any]:
    address = html.escape(made["address"])
    text = f'<p><a href="{address}">{html.escape(press)}</a></p>' + "".join(
        f"<p>{html.escape(each)}</p>" for each in lines
    )
    mail = notice(to=[made["to"]], subject=subject, text=text, locale=about.get("locale", "en"))
    return mail | {"from_name": made["team"]}
