"""A person's own account: the password forgotten or changed, and the address changed."""

from uuid import UUID

from flask import Blueprint, Response

from codexa.core.languages import LANGUAGES
from codexa.services import digests
from codexa.services.accounts import own_account
from codexa.web import guard
from codexa.web.contract.accounts import (
    AddressRequest,
    ConfirmAddressRequest,
    ConfirmedAddressReply,
    Digest,
    LanguageChoice,
    LanguageReply,
    LanguageRequest,
    LinkRequest,
    NameRequest,
    NewPasswordRequest,
    PasswordRequest,
    WantedAddressReply,
)
from codexa.web.contract.team import SessionsReply
from codexa.web.database import connection
from codexa.web.endpoint import endpoint, json_reply
from codexa.web.limits import LINK_RATE, limiter
from codexa.web.network import network

blueprint = Blueprint("accounts", __name__, url_prefix="/api/account")


@endpoint(blueprint, "POST", "/link", body=LinkRequest)
@limiter.limit(LINK_RATE, key_func=network)
def ask_for_link(asked: LinkRequest) -> Response:
    """Send a link for a new password to whoever signs in so; the reply is the same where nobody does."""
    guard.refuse_foreign_origin()
    own_account.ask_for_link(connection, asked.email)
    return json_reply(None)


@endpoint(blueprint, "POST", "/password/by-link", body=NewPasswordRequest)
@limiter.limit(LINK_RATE, key_func=network)
def set_by_link(asked: NewPasswordRequest) -> Response:
    """Set a password by the link that came by mail; all sessions end."""
    guard.refuse_foreign_origin()
    own_account.set_by_link(connection, asked.token, asked.password)
    return json_reply(None)


@endpoint(blueprint, "GET", "/digest", reply=Digest)
def show_digest() -> Digest:
    """Say how often a mail tells of what came in and what waits."""
    return Digest.model_validate({"every": digests.how_often(connection, who=guard.signed_in())})


@endpoint(blueprint, "PUT", "/digest", body=Digest)
def set_digest(asked: Digest) -> None:
    """Have it told so often from now on."""
    digests.tell(connection, who=guard.signed_in(), every=asked.every)


@endpoint(blueprint, "GET", "/language", reply=LanguageReply)
def show_language() -> LanguageReply:
    """Say in which language mails of Codexa come, and in which they could."""
    language = own_account.language(connection, who=guard.signed_in())
    choices = [LanguageChoice(code=code, name=name) for code, name in LANGUAGES.items()]
    return LanguageReply(language=language, languages=choices)


@endpoint(blueprint, "PUT", "/language", body=LanguageRequest)
def set_language(asked: LanguageRequest) -> None:
    """Have mails of Codexa come in this language from now on."""
    own_account.set_language(connection, who=guard.signed_in(), language=asked.language)


@endpoint(blueprint, "GET", "/sessions", reply=SessionsReply)
def list_sessions() -> SessionsReply:
    """List where one is signed in, the last used first."""
    found = own_account.list_sessions(connection, who=guard.signed_in(), session=guard.token(), idle=guard.idle_time())
    return SessionsReply.model_validate({"sessions": found}, from_attributes=True)


@endpoint(blueprint, "DELETE", "/sessions/<uuid:session>")
def end_session(session: UUID) -> None:
    """End a session of one's own, wherever it is."""
    own_account.end_session(connection, who=guard.signed_in(), session=session)


@endpoint(blueprint, "PUT", "/name", body=NameRequest)
def set_name(asked: NameRequest) -> None:
    """Give oneself another name."""
    own_account.set_name(connection, who=guard.signed_in(), name=asked.name)


@endpoint(blueprint, "POST", "/password", body=PasswordRequest)
@limiter.limit(LINK_RATE, key_func=network)
def change_password(asked: PasswordRequest) -> Response:
    """Change one's own password; other sessions end."""
    who = guard.signed_in()
    own_account.change_password(connection, who=who, old=asked.old, new=asked.new, session=guard.token())
    return json_reply(None)


@endpoint(blueprint, "POST", "/address", body=AddressRequest)
@limiter.limit(LINK_RATE, key_func=network)
def ask_address(asked: AddressRequest) -> Response:
    """Want another address; it is confirmed by mail at both."""
    own_account.ask_address(connection, who=guard.signed_in(), password=asked.password, email=asked.email)
    return json_reply(None)


@endpoint(blueprint, "GET", "/address", reply=WantedAddressReply)
def wanted_address() -> WantedAddressReply:
    """Return the address that somebody wants, and where it was confirmed."""
    found = own_account.wanted_address(connection, who=guard.signed_in())
    if found is None:
        return WantedAddressReply(email=None, old_confirmed=False, new_confirmed=False)
    return WantedAddressReply.model_validate(found)


@endpoint(blueprint, "POST", "/address/confirm", body=ConfirmAddressRequest, reply=ConfirmedAddressReply)
@limiter.limit(LINK_RATE, key_func=network)
def confirm_address(asked: ConfirmAddressRequest) -> ConfirmedAddressReply:
    """Confirm a new address at one of its two ends; at the second it is changed."""
    guard.refuse_foreign_origin()
    return ConfirmedAddressReply.model_validate(own_account.confirm_address(connection, asked.token))
