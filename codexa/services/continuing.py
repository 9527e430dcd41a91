"""Going on later: what a visitor has entered so far is kept for a set time, for whoever has a private link.

The first time gives the response its number, under which it is handed in at last. Of the link only a digest is kept.
"""

import hashlib
import html
from collections.abc import Mapping
from dataclasses import dataclass
from datetime import UTC, datetime
from typing import Any
from uuid import UUID

from codexa.core.form.form import Form
from codexa.core.program.accept import Refused, kept_of, unknown_in
from codexa.core.program.evaluate import State, evaluate
from codexa.core.program.follow_ups.email_findings import is_address
from codexa.core.program.program import Program
from codexa.services.accounts.mail_words import notice
from codexa.services.answering import Given
from codexa.services.context import context_of
from codexa.services.encryption import decrypted, encrypted
from codexa.services.errands.asking import ask
from codexa.services.errors import (
    AddressRefusedError,
    KeepingRefusedError,
    KeptElsewhereError,
    NotFoundError,
    TooBusyError,
)
from codexa.services.files_in_answers import with_files
from codexa.services.follow_ups.keeping import Happened, keep_due
from codexa.services.own_pages import OwnPages
from codexa.services.tables.looking_up import tables_in
from codexa.services.told_moments import day_words, moment_words
from codexa.settings import Settings
from codexa.store import kept_answers as store
from codexa.store import responses
from codexa.store.database import Connect, Connection
from codexa.store.kept_answers import KeptRow

ERRAND = "link to go on later"
_MOST_MAILS = 5  # with one link


@dataclass(frozen=True, kw_only=True, slots=True)
class Keeping:
    """What is to be kept, under which private token, and for how many days.

    `standing` is what else belongs to filling in: the page, what options are shuffled by, which link led here.
    `version` is the one that was seen last, 0 before the first; None puts these answers in the place of any.
    """

    form: UUID
    edition: int
    token: str
    given: Given
    standing: Mapping[str, Any]
    version: int | None
    days: int
    pages: OwnPages | None = None


@dataclass(frozen=True, kw_only=True, slots=True)
class KeptForLater:
    """Answers were kept: under which number and version, and until when, in words."""

    number: int
    version: int
    until: str


def digest_of(token: str) -> bytes:
    """Return what is kept of a private token."""
    return hashlib.sha256(token.encode()).digest()


def keep(connection: Connection, program: Program, keeping: Keeping) -> KeptForLater | Refused:
    """Keep what was entered so far, whatever is wrong or missing, or say what the edition does not know.

    Raises KeptElsewhereError where others were kept by the same link meanwhile, KeepingRefusedError where they were
    handed in, TooBusyError where the form is being changed or two keep at the same moment.
    """
    unknown = unknown_in(program, keeping.given.answers)
    if unknown:
        return Refused(errors={}, unknown=unknown)
    found = store.find(connection, digest=digest_of(keeping.token))
    answers = with_files(connection, program, keeping.form, keeping.given.visit, keeping.given.answers)
    tables = tables_in(connection, keeping.form)
    given = keeping.given
    context = context_of(program.form, given.link, tables=tables, visitor=given.visitor)
    state = evaluate(program, answers, context)
    if found is None:
        return _begin(connection, state, keeping)
    if found.form_id != keeping.form:
        raise NotFoundError
    return _replace(connection, state, keeping, found)


def _known(state: State) -> dict[str, Any]:
    return {"answers": kept_of(state), "told": state.context.as_json()}


def _content(keeping: Keeping) -> dict[str, Any]:
    return {
        "form": keeping.form,
        "entered": keeping.given.answers,
        "standing": keeping.standing,
        "visit": keeping.given.visit,
        "days": keeping.days,
    }


def _begin(connection: Connection, state: State, keeping: Keeping) -> KeptForLater:
    digest = digest_of(keeping.token)
    number = responses.insert_response(
        connection,
        form=keeping.form,
        edition=keeping.edition,
        computed={},
        path=[],
        confirmation=None,
        key=f"kept {digest.hex()}",
        digest=digest,
        received_at=state.context.now,
        events=["kept"],
        stage="kept",
        member=keeping.given.visitor.member_id,
        filled_by=keeping.given.visitor.person_id,
        **_known(state),
    )
    if number is None:
        raise TooBusyError
    kept = store.insert(connection, number=number, digest=digest, **_content(keeping))
    numbered = state.with_number(number)
    event = Happened(form=keeping.form, number=number, moments=("kept",))
    keep_due(connection, numbered, event, keeping.pages)
    return KeptForLater(number=number, version=kept.version, until=day_words(state.program.form, kept.until))


def _replace(connection: Connection, state: State, keeping: Keeping, found: KeptRow) -> KeptForLater:
    form = state.program.form
    say = form.say
    if found.stage != "kept":
        raise KeepingRefusedError(say("laterHandedIn"))
    kept = store.replace(
        connection,
        number=found.number,
        edition=keeping.edition,
        version=keeping.version,
        **_content(keeping),
        **_known(state),
    )
    if kept is None:
        raise KeptElsewhereError(say("laterElsewhere").replace("{moment}", moment_words(form, found.kept_at)))
    return KeptForLater(number=found.number, version=kept.version, until=day_words(form, kept.until))


def find_kept(connect: Connect, *, token: str) -> KeptRow | None:
    """Return what a private link stands for; None where there is nothing any more."""
    with connect() as connection:
        found = store.find(connection, digest=digest_of(token))
    return None if found is None or found.until <= datetime.now(UTC) else found


def ask_mail(connect: Connect, settings: Settings, form: Form, *, form_id: UUID, token: str, email: str) -> None:
    """Have a private link sent to an address, in the form's own words.

    Raises AddressRefusedError, NotFoundError where nothing is kept under it, KeepingRefusedError after too many.
    """
    if not is_address(email):
        raise AddressRefusedError(f"“{email[:80]}” can't receive mail. Type one such as name@example.org.")
    found = find_kept(connect, token=token)
    if found is None or found.form_id != form_id:
        raise NotFoundError
    text = form.say("laterMailText").replace("{moment}", day_words(form, found.until))
    about = {
        "to": email,
        "subject": form.say("laterMailTitle").replace("{form}", form.title or form.name),
        "text": text,
        # No table holds a link in clear.
        "token": encrypted(token, settings).decode(),
        "from": found.team_name,
        "locale": form.locale,
    }
    with connect() as connection:
        if not store.count_mail(connection, digest=digest_of(token), most=_MOST_MAILS):
            raise KeepingRefusedError(form.say("laterMailed"))
        ask(connection, ERRAND, about, team=found.team_id)


def link_mail(connect: Connect, settings: Settings, about: Mapping[str, Any]) -> dict[str, Any] | None:
    """The mail with a private link; None where nothing is kept under it any more."""
    token = decrypted(about["token"].encode(), settings)
    if token is None or find_kept(connect, token=token) is None:
        return None
    address = html.escape(address_of(token, settings))
    text = f'<p>{html.escape(about["text"])}</p><p><a href="{address}">{address}</a></p>'
    mail = notice(to=[about["to"]], subject=about["subject"], text=text)
    return mail | {"from_name": about["from"], "locale": about["locale"]}


def address_of(token: str, settings: Settings) -> str:
    """Return the private link to what was kept."""
    return f"{settings.public_address}/kept/{token}"
