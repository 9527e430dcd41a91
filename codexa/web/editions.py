"""Publishing and the editions of a form."""

from uuid import UUID

from flask import Blueprint

from codexa.services import addresses, publishing
from codexa.services.errors import NotFoundError
from codexa.services.roles import Right
from codexa.store import editions as store
from codexa.store import forms
from codexa.web.contract.editions import (
    EditionReply,
    EditionsReply,
    PublicAddressReply,
    PublicAddressRequest,
    PublishedReply,
    PublishRequest,
    SitesReply,
    SitesRequest,
)
from codexa.web.contract.history import ChangesReply
from codexa.web.database import connection, editions
from codexa.web.drafts import address_of, snippet_of
from codexa.web.endpoint import endpoint
from codexa.web.guard import may

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
        connection, who=who, form=form, revision=asked.revision, despite_trials=asked.despite_trials
    )
    with connection() as database:
        found = forms.find_form(database, team=who.team_id, form=form)
    if found is None:
        raise NotFoundError
    return PublishedReply(edition=edition, address=address_of(who, found.slug), snippet=snippet_of(who, found.slug))


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
    return PublicAddressReply(slug=slug, address=address_of(who, slug), snippet=snippet_of(who, slug))


@endpoint(blueprint, "PUT", "/sites", body=SitesRequest, reply=SitesReply)
def set_sites(asked: SitesRequest, form: UUID) -> SitesReply:
    """Set the websites that may show the form in a frame."""
    who = may(Right.EDIT_FORMS)
    with connection() as database:
        return SitesReply(sites=publishing.set_sites(database, who=who, form=form, sites=asked.sites))
