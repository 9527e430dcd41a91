"""Mails of Codexa itself. Links in them are made when they are sent, so that no job and no table holds one in clear."""

import secrets
from collections.abc import Callable, Mapping
from typing import Any
from uuid import UUID

from codexa.core.sentences import Sentence
from codexa.services.accounts.mail_words import USUAL, Say, notice_in, notice_to
from codexa.services.signing_in import digest_of
from codexa.settings import Settings
from codexa.store import accounts, team
from codexa.store.database import Connect

LINK_MINUTES = 60
# Makes the content of a mail of what it is about; None where there is nothing to tell any more.
Make = Callable[[Connect, Settings, Mapping[str, Any]], dict[str, Any] | None]


_WORKS = Sentence("Mail works")
_CAME_THROUGH = Sentence("This mail came through {host}: mail works. {name} asked for it.")
_PASSWORD = Sentence("Your password for Codexa")
_ASKED_FOR = Sentence("{name}, somebody asked for a new password for this address.")
_CHOOSE = Sentence("Choose a new password")
_ONCE = Sentence(
    "The link works once, within {minutes} minutes. If it was not you, do nothing: the password stays as it is."
)
_INVITES = Sentence("{name} invites you into {team}")
_INVITES_AS = {
    "owner": Sentence("{name} invites you to work with the forms of {team}, as owner."),
    "editor": Sentence("{name} invites you to work with the forms of {team}, as editor."),
    "reviewer": Sentence("{name} invites you to work with the forms of {team}, as reviewer."),
    "viewer": Sentence("{name} invites you to work with the forms of {team}, as viewer."),
}
_LOOK_AT_IT = Sentence("Look at the invitation")
_WITHIN = Sentence("It works once, within two weeks. If you know nothing of it, do nothing.")
_SOMEBODY = Sentence("Somebody")
_CHANGED = Sentence("Your password was changed")
_ENDED = Sentence("{name}, your password was changed; all sessions have ended.")
_NOT_YOU = Sentence("If this was not you, tell an owner of your team.")
_CONFIRM_ADDRESS = Sentence("Confirm your new address for Codexa")
_WANTS = Sentence("{name} wants to sign in to Codexa as {new} instead of {old}.")
_CONFIRM = Sentence("Confirm this")
_AT_BOTH = Sentence(
    "It is changed once it was confirmed at both addresses, within a day. If you know nothing of it, do nothing: it "
    "stays as it is."
)
_NEW_ADDRESS = Sentence("Your address was changed")
_FROM_NOW_ON = Sentence("You sign in to Codexa as {new} from now on, not as {old} any more.")


def mail_that_works(connect: Connect, settings: Settings, about: Mapping[str, Any]) -> dict[str, Any]:
    """The mail that shows that mail works."""
    known = {"host": f"{settings.smtp_host}:{settings.smtp_port}", "name": about["name"]}
    return notice_to(connect, [about["to"]], lambda say: (say(_WORKS), say.paragraph(_CAME_THROUGH, **known)))


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

    def write(say: Say) -> tuple[str, str]:
        lines = say.paragraph(_ASKED_FOR, name=person.name), say.link(address, _CHOOSE)
        return say(_PASSWORD), "".join(lines) + say.paragraph(_ONCE, minutes=LINK_MINUTES)

    return notice_in(person.language, [person.email], write)


def invitation(connect: Connect, settings: Settings, about: Mapping[str, Any]) -> dict[str, Any] | None:
    """The mail that invites somebody into a team."""
    token = secrets.token_urlsafe(32)
    with connect() as connection:
        sent = team.set_token(connection, invitation=UUID(about["invitation"]), digest=digest_of(token))
    if sent is None:
        return None
    known = {"name": sent.invited_by or _SOMEBODY, "team": sent.team_name}

    def write(say: Say) -> tuple[str, str]:
        link = say.link(f"{settings.public_address}/join#{token}", _LOOK_AT_IT)
        return say(_INVITES, **known), say.paragraph(_INVITES_AS[sent.role], **known) + link + say.paragraph(_WITHIN)

    return notice_to(connect, [sent.email], write, otherwise=sent.language or USUAL)


def password_changed(connect: Connect, _settings: Settings, about: Mapping[str, Any]) -> dict[str, Any] | None:
    """The mail that tells that the password was changed."""
    with connect() as connection:
        person = accounts.find_person(connection, person=UUID(about["person"]))
    if person is None:
        return None
    return notice_in(
        person.language,
        [person.email],
        lambda say: (say(_CHANGED), say.paragraph(_ENDED, name=person.name) + say.paragraph(_NOT_YOU)),
    )


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
    known = {"name": person.name, "new": about["email"], "old": person.email}

    def write(say: Say) -> tuple[str, str]:
        link = say.link(f"{settings.public_address}/address#{token}", _CONFIRM)
        return say(_CONFIRM_ADDRESS), say.paragraph(_WANTS, **known) + link + say.paragraph(_AT_BOTH)

    return notice_in(person.language, [person.email if end == "old" else about["email"]], write)


def address_changed(connect: Connect, _settings: Settings, about: Mapping[str, Any]) -> dict[str, Any]:
    """The mail, to both addresses, that the address was changed."""
    known = {"new": about["new"], "old": about["old"]}

    def write(say: Say) -> tuple[str, str]:
        return say(_NEW_ADDRESS), say.paragraph(_FROM_NOW_ON, **known) + say.paragraph(_NOT_YOU)

    # Nobody has the old one any more.
    content = notice_to(connect, [about["new"]], write)
    return content | {"to": [about["new"], about["old"]]}
