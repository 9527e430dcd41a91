"""Teams and the people in them: as the command line and the demo make them, and as a form writes to them."""

from collections.abc import Mapping
from uuid import UUID

from codexa.core.context import NOBODY
from codexa.core.form.form import Form
from codexa.services.addresses import slug_of
from codexa.services.errors import NameTakenError, PasswordRefusedError
from codexa.services.signing_in import SHORTEST_PASSWORD, folded, hash_password
from codexa.store import people
from codexa.store.database import Connect, Connection
from codexa.store.sessions import SignedIn


def make_person(
    connection: Connection, *, team: UUID, role: str, email: str, name: str, password_hash: str
) -> SignedIn:
    """Make somebody in a team, and return them as who they are when they have signed in there.

    Raises NameTakenError where somebody signs in with that e-mail already.
    """
    if people.find_person_by_email(connection, email=folded(email)) is not None:
        raise NameTakenError(f"Somebody signs in as {email} already. Take another e-mail.")
    person = people.insert_person(
        connection,
        team=team,
        role=role,
        email=email,
        folded=folded(email),
        name=name,
        password_hash=password_hash,
    )
    return people.as_signed_in(connection, person=person, team=team)


def create_owner(connection: Connection, *, team: str, email: str, name: str, password: str) -> SignedIn:
    """Make an owner, and their team where there is none of that name. Raises NameTakenError, PasswordRefusedError."""
    refuse_short(password)
    slug = slug_of(team)
    found = people.find_team(connection, slug=slug) or people.insert_team(connection, slug=slug, name=team)
    hashed = hash_password(password)
    return make_person(connection, team=found, role="owner", email=email, name=name, password_hash=hashed)


def written_to(connect: Connect, form: Form, form_id: UUID) -> Mapping[str, str]:
    """Return those of the team whom a form writes to, by id, with their address; who has left is not among them."""
    if not form.people:
        return NOBODY
    with connect() as connection:
        return people.addresses(connection, form=form_id, ids=form.people)


def refuse_short(password: str) -> None:
    """Raise PasswordRefusedError where a password is too short to be kept."""
    if len(password) < SHORTEST_PASSWORD:
        raise PasswordRefusedError(f"This password has {len(password)} characters; take at least {SHORTEST_PASSWORD}.")
