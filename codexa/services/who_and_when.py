"""Who may fill in a form and when, its password, and how links to it look elsewhere: set by the team, at once."""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Any
from uuid import UUID
from zoneinfo import ZoneInfo

from codexa.core.form.access import Access, closing, opening, require_fitting
from codexa.core.form.form import Form
from codexa.core.form.sharing import Sharing
from codexa.core.form.upgrades import read_stored
from codexa.services.admission import words_early, words_over
from codexa.services.audit import note_form
from codexa.services.errors import NotFoundError
from codexa.services.signing_in import hash_password
from codexa.store import access as store
from codexa.store import forms, kept_answers
from codexa.store.access import AccessSettings
from codexa.store.database import Connect, Connection
from codexa.store.sessions import SignedIn


@dataclass(frozen=True, kw_only=True, slots=True)
class WhoAndWhen:
    """What is set, and how far it has come: `taken` responses count, `kept` may be gone on with.

    `opens` and `closes` are moments with offset; where clocks show that time twice, it tells which of the two is meant.
    """

    access: Access
    has_password: bool
    sharing: Sharing
    taken: int
    kept: int
    opens: str
    closes: str


def who_and_when(connect: Connect, *, who: SignedIn, form: UUID) -> WhoAndWhen:
    """Return what is set for a form. Raises NotFoundError."""
    with connect() as connection:
        return _told(connection, who, form)


def set_access(connect: Connect, *, who: SignedIn, form: UUID, access: Access) -> WhoAndWhen:
    """Set who may fill in a form and when; what came before counts towards a limit.

    Raises NotFoundError, DefinitionError where it does not fit what is live (or the draft of a form that never was).
    """
    with connect() as connection:
        require_fitting(access, _form_in_force(connection, who, form))
        store.begin_change(connection, form=form)
        if not store.set_access(connection, team=who.team_id, form=form, access=access.model_dump(mode="json")):
            raise NotFoundError
        if access.most is not None:
            store.count_responses(connection, form=form)
        if access.most_each is not None:
            store.count_people(connection, form=form, each=access.each)
        if access.once:
            store.count_visitors(connection, form=form)
        note_form(connection, who, "who and when set", form)
        return _told(connection, who, form)


def set_password(connect: Connect, *, who: SignedIn, form: UUID, password: str) -> WhoAndWhen:
    """Set a form's password, or with "" take it away; who typed another is asked again. Raises NotFoundError."""
    password_hash = hash_password(password) if password else None
    with connect() as connection:
        store.begin_change(connection, form=form)
        if not store.set_password(connection, team=who.team_id, form=form, password_hash=password_hash):
            raise NotFoundError
        note_form(connection, who, "password set" if password else "password taken away", form)
        return _told(connection, who, form)


def set_sharing(connect: Connect, *, who: SignedIn, form: UUID, sharing: Sharing) -> WhoAndWhen:
    """Set how links to a form look in other programs. Raises NotFoundError."""
    with connect() as connection:
        if not store.set_sharing(connection, team=who.team_id, form=form, sharing=sharing.model_dump(mode="json")):
            raise NotFoundError
        return _told(connection, who, form)


def words_instead(connect: Connect, *, who: SignedIn, form: UUID, state: str) -> tuple[str, Form]:
    """Return what visitors would read instead of a form in a state, and the form. Raises NotFoundError.

    `state` is early, over, full, offline, password or sign-in; moments that are not set are those of this hour.
    """
    with connect() as connection:
        found = store.find_settings(connection, team=who.team_id, form=form)
        if found is None:
            raise NotFoundError
        of_form = _form_in_force(connection, who, form)
    if state == "password":
        return of_form.say("askPassword"), of_form
    if state == "sign-in":
        return of_form.say("signIn").replace("{team}", who.team_name), of_form
    access = Access.model_validate(found.access)
    now = datetime.now(ZoneInfo(of_form.time_zone))
    if state == "early":
        return words_early(access, of_form, opening(access, of_form.time_zone) or now), of_form
    if state == "over":
        return words_over(access, of_form, closing(access, of_form.time_zone) or now), of_form
    return getattr(access, state) or of_form.say(state), of_form


def closes(access: Mapping[str, Any], zone: str | None) -> datetime | None:
    """Return when a form closes with what is set for it, None where it does not; `zone` is where it is at home."""
    return None if zone is None else closing(Access.model_validate(access), zone)


def _told(connection: Connection, who: SignedIn, form: UUID) -> WhoAndWhen:
    found: AccessSettings | None = store.find_settings(connection, team=who.team_id, form=form)
    if found is None:
        raise NotFoundError
    row = store.find_access(connection, form=form)
    access = Access.model_validate(found.access)
    zone = _form_in_force(connection, who, form).time_zone
    opens, closes = opening(access, zone), closing(access, zone)
    return WhoAndWhen(
        access=access,
        has_password=found.has_password,
        sharing=Sharing.model_validate(found.sharing),
        taken=0 if row is None else row.taken,
        kept=kept_answers.count_kept(connection, form=form),
        opens=_with_offset(opens, zone),
        closes=_with_offset(closes, zone),
    )


def _with_offset(moment: Any, zone: str) -> str:
    return "" if moment is None else moment.astimezone(ZoneInfo(zone)).isoformat()


def _form_in_force(connection: Connection, who: SignedIn, form: UUID) -> Form:
    """Return what visitors get, or the draft of a form that was never published."""
    found = forms.find_in_force(connection, team=who.team_id, form=form)
    if found is None:
        raise NotFoundError
    return read_stored(found)
