"""A response that was received, seen again: its confirmation by its own address, and itself as a document."""

import hmac
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from codexa.core.definition.brand import Brand
from codexa.core.program.evaluate import State
from codexa.core.program.faces import ConfirmationFace, FormFace
from codexa.core.program.public import confirmation_face, form_face, form_state, order_face
from codexa.core.program.response_document import response_document
from codexa.services import brands
from codexa.services.answering import Given, state_with
from codexa.services.errors import NotFoundError
from codexa.services.marks import mark_of
from codexa.services.payments import asking
from codexa.services.payments.asking import ToPay, payment_of
from codexa.services.payments.settling import Way, state_with_payment
from codexa.settings import Settings
from codexa.store import payments, responses
from codexa.store.responses import ReceivedRow
from codexa.store.sessions import SignedIn

_PLAIN = Brand(accent="#000000", ground="#FFFFFF", paper="#FFFFFF", ink="#000000").model_dump(
    mode="json", exclude={"header_picture", "background_picture", "saved"}
)
_GONE = "There is nothing at this address any more. Check the link, or ask whoever has the form."


def address_of(form: UUID, number: int, settings: Settings) -> str:
    """Return the address at which a response's confirmation can be seen again, by whoever has it."""
    return f"/received/{form}/{number}/{_mark(form, number, settings)}"


def _mark(form: UUID, number: int, settings: Settings) -> str:
    """Return what nobody can guess and no table holds."""
    return mark_of(f"received {form} {number}", settings)[:40]


@dataclass(frozen=True, kw_only=True, slots=True)
class SeenAgain:
    """The page of a confirmation: `address` is the form's own, `sites` may frame it."""

    edition: int
    address: str
    sites: list[str]
    face: FormFace
    state: dict[str, Any]
    confirmation: ConfirmationFace
    payment: ToPay | None
    order: dict[str, Any] | None


def seen_again(way: Way, *, form: UUID, number: int, mark: str) -> SeenAgain:
    """Return the confirmation of a response. Raises NotFoundError where the address is wrong, or the response gone."""
    row = _find(way, form, number, mark)
    state = state_of_row(way, form, row)
    program = state.program
    look = brands.as_visitors_see_it(way.connect, program.form, form_id=form)
    return SeenAgain(
        edition=row.edition,
        address=f"/f/{row.team_slug}/{row.slug}",
        sites=row.sites,
        face=form_face(program, state.unseen).model_copy(update={"brand": look}),
        state=state_with(program, Given(answers={}, link={})) | _way_taken(state),
        confirmation=confirmation_face(state),
        payment=payment_of(way, form=form, number=number, program=program),
        order=order_face(state),
    )


def _way_taken(state: State) -> dict[str, Any]:
    """Return the pages that were gone through, with their titles, for what tells the progress."""
    seen = form_state(state, only={page.id for page in state.program.form.pages})
    return {"path": seen["path"], "texts": seen.get("texts", {})}


@dataclass(frozen=True, kw_only=True, slots=True)
class Paid:
    """How a payment stands, and what is read once it is paid."""

    payment: ToPay
    confirmation: ConfirmationFace
    order: dict[str, Any] | None


def pay(way: Way, *, form: UUID, number: int, mark: str) -> Paid:
    """Have the provider take a response's payment, or look how it stands. Raises NotFoundError."""
    row = _find(way, form, number, mark)
    back_to = way.settings.public_address + address_of(form, number, way.settings)
    program = way.editions.program(form, row.edition, language=row.told["locale"])
    payment = asking.pay(way, form=form, number=number, program=program, back_to=back_to)
    state = state_of_row(way, form, row)
    return Paid(payment=payment, confirmation=confirmation_face(state), order=order_face(state))


def document_for_visitor(way: Way, *, form: UUID, number: int, mark: str) -> dict[str, Any]:
    """Return a response as a document, for who handed it in. Raises NotFoundError, also where its form offers none."""
    row = _find(way, form, number, mark)
    state = state_of_row(way, form, row)
    if not confirmation_face(state).printing:
        raise NotFoundError(_GONE)
    return response_document(state)


def document_for_team(way: Way, *, who: SignedIn, form: UUID, number: int, plain: bool) -> dict[str, Any]:
    """Return a response as a document, for the team, in the form's brand or `plain`. Raises NotFoundError."""
    with way.connect() as connection:
        is_ours = responses.find_response(connection, team=who.team_id, form=form, number=number) is not None
        row = responses.find_received(connection, form=form, number=number) if is_ours else None
    if row is None:
        raise NotFoundError
    document = response_document(state_of_row(way, form, row, for_team=True))
    return document | ({"brand": _PLAIN} if plain else {})


def _find(way: Way, form: UUID, number: int, mark: str) -> ReceivedRow:
    if not hmac.compare_digest(mark.encode(), _mark(form, number, way.settings).encode()):
        raise NotFoundError(_GONE)
    with way.connect() as connection:
        row = responses.find_received(connection, form=form, number=number)
    if row is None:
        raise NotFoundError(_GONE)
    return row


def state_of_row(way: Way, form: UUID, row: ReceivedRow, *, for_team: bool = False) -> State:
    """Return the state of a response as it was accepted, with how its payment stands."""
    with way.connect() as connection:
        payment = payments.find_payment(connection, form=form, number=row.number)
    return state_with_payment(way, row, form, payment, for_team=for_team)
