"""Publishing and the editions of a form."""

from datetime import datetime
from uuid import UUID

from flask import Blueprint, request

from codexa.core.form.comparing import count_changes
from codexa.core.form.upgrades import read_stored
from codexa.services import addresses, publishing, replaying
from codexa.services.errors import NotFoundError
from codexa.services.roles import Right
from codexa.store import editions as store
from codexa.store import forms
from codexa.store.responses import After
from codexa.store.sessions import SignedIn
from codexa.web.contract.editions import (
    EditionReply,
    EditionsReply,
    GoLiveRequest,
    PublicAddressReply,
    PublicAddressRequest,
    PublishedReply,
    PublishRequest,
    ReplayedReply,
    ReplayReply,
    SitesReply,
    SitesRequest,
)
from codexa.web.contract.history import ChangesReply
from codexa.web.contract.responses import MOST_NUMBER
from codexa.web.database import compiled_drafts, connection, editions
from codexa.web.drafts import address_of
from codexa.web.endpoint import endpoint
from codexa.web.guard import may
from codexa.web.limits import HEAVY_RATE, limiter, who_is_counted
from codexa.web.reading import BadRequestError

blueprint = Blueprint("editions", __name__, url_prefix="/api/forms/<uuid:form>")


@endpoint(blueprint, "GET", "/editions", reply=EditionsReply)
def list_all(form: UUID) -> EditionsReply:
    """List the editions of a form, newest first."""
    who = may(Right.SEE_FORMS)
    with connection() as database:
        rows = store.list_editions(database, team=who.team_id, form=form)
        if not rows and forms.find_form(database, team=who.team_id, form=form) is None:
            raise NotFoundError
    return EditionsReply(editions=[EditionReply.model_validate(row) for row in rows])


@endpoint(blueprint, "POST", "/editions", body=PublishRequest, reply=PublishedReply)
def publish(asked: PublishRequest, form: UUID) -> PublishedReply:
    """Publish the draft as the next edition."""
    who = may(Right.EDIT_FORMS)
    edition = publishing.publish(
        connection,
        who=who,
        form=form,
        revision=asked.revision,
        live=asked.live,
        note=asked.note,
        despite_trials=asked.despite_trials,
    )
    return _published(who, form, edition)


@endpoint(blueprint, "POST", "/editions/<number:edition>/live", body=GoLiveRequest, reply=PublishedReply)
def go_live(asked: GoLiveRequest, form: UUID, edition: int) -> PublishedReply:
    """Give visitors an edition that was published before."""
    who = may(Right.EDIT_FORMS)
    return _published(
        who, form, publishing.go_live(connection, editions(), who=who, form=form, edition=edition, live=asked.live)
    )


def _published(who: SignedIn, form: UUID, edition: int) -> PublishedReply:
    with connection() as database:
        found = forms.find_form(database, team=who.team_id, form=form)
    if found is None:
        raise NotFoundError
    live = editions().form(form, edition)
    return PublishedReply(
        edition=edition,
        newest_edition=found.newest_edition,
        changes=count_changes(live, read_stored(found.draft)),
        address=address_of(who, found.slug),
    )


@endpoint(blueprint, "GET", "/replay", reply=ReplayReply)
@limiter.limit(HEAVY_RATE, key_func=who_is_counted)
def replay(form: UUID) -> ReplayReply:
    """Put some responses through the draft, newest first; `after`, a reply's `next`, in the query."""
    who = may(Right.SEE_RESPONSES)
    program = compiled_drafts().program(who=who, form=form)
    found = replaying.replay_page(connection, editions(), program, who=who, form=form, after=_after_of_query())
    return ReplayReply(
        looked_at=found.looked_at,
        differing=[ReplayedReply.model_validate(each) for each in found.differing],
        unreadable=found.unreadable,
        next=None if found.next is None else _as_text(found.next),
    )


@endpoint(blueprint, "GET", "/changes", reply=ChangesReply)
def to_come(form: UUID) -> ChangesReply:
    """Say what publishing the draft would change for visitors."""
    who = may(Right.SEE_FORMS)
    return ChangesReply(changes=publishing.changes_to_come(connection, editions(), who=who, form=form))


@endpoint(blueprint, "PUT", "/address", body=PublicAddressRequest, reply=PublicAddressReply)
def set_address(asked: PublicAddressRequest, form: UUID) -> PublicAddressReply:
    """Give the form the public address that its people choose; 409 where another form has it."""
    who = may(Right.EDIT_FORMS)
    with connection() as database:
        slug = addresses.choose_address(database, who=who, form=form, address=asked.address)
    return PublicAddressReply(slug=slug, address=address_of(who, slug))


@endpoint(blueprint, "PUT", "/sites", body=SitesRequest, reply=SitesReply)
def set_sites(asked: SitesRequest, form: UUID) -> SitesReply:
    """Set the websites that may show the form in a frame."""
    who = may(Right.EDIT_FORMS)
    with connection() as database:
        return SitesReply(sites=publishing.set_sites(database, who=who, form=form, sites=asked.sites))


def _as_text(place: After) -> str:
    """Return a place in the order of responses as a query has it."""
    return f"{place.received_at.isoformat()}_{place.number}"


def _after_of_query() -> After | None:
    """Return the place that the query's `after` names. Raises BadRequestError where it is none."""
    text = request.args.get("after", "")
    if not text:
        return None
    moment, _, number = text.rpartition("_")
    try:
        place = After(received_at=datetime.fromisoformat(moment), number=int(number))
    except ValueError:
        place = None
    if place is None or place.received_at.tzinfo is None or not 0 <= place.number <= MOST_NUMBER:
        raise BadRequestError(f'after is "{text[:40]}"; take it from the reply before.')
    return place
