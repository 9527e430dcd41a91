"""A person's own account: links for a new password, and a new address until it is confirmed."""

from dataclasses import dataclass
from typing import Literal
from uuid import UUID

from codexa.store.database import Connection, exactly_one, one
from codexa.store.queries import queries

_QUERIES = queries("accounts")

# Where a new address is confirmed: at the one that somebody has, and at the one that they want.
End = Literal["old", "new"]


@dataclass(frozen=True, kw_only=True, slots=True)
class Account:
    """Somebody who signs in."""

    id: UUID
    name: str
    email: str
    password_hash: str
    language: str


@dataclass(frozen=True, kw_only=True, slots=True)
class AddressChange:
    """The address that somebody wants, and where it was confirmed."""

    email: str
    old_confirmed: bool
    new_confirmed: bool


@dataclass(frozen=True, kw_only=True, slots=True)
class Confirmed(AddressChange):
    """Such a change, just confirmed at an end, and whose it is."""

    person_id: UUID
    email_folded: str


def find_person(connection: Connection, *, person: UUID) -> Account | None:
    """Return somebody."""
    row = one(connection, _QUERIES["find_person"], person=person)
    return Account(**row) if row else None


def was_asked_of_late(connection: Connection, *, person: UUID, minutes: int) -> bool:
    """Say whether a link for a new password was asked for within so many minutes."""
    return bool(exactly_one(connection, _QUERIES["was_asked_of_late"], person=person, minutes=minutes)["asked"])


def insert_password_link(connection: Connection, *, person: UUID, digest: bytes, minutes: int) -> None:
    """Make a link by which a password is set anew within so many minutes."""
    connection.execute(_QUERIES["insert_password_link"], {"person": person, "digest": digest, "minutes": minutes})


def is_password_link(connection: Connection, *, digest: bytes) -> bool:
    """Say whether a link still works."""
    return bool(exactly_one(connection, _QUERIES["is_password_link"], digest=digest)["works"])


def use_password_link(connection: Connection, *, digest: bytes) -> UUID | None:
    """Use a link up and return whose it was; None where it does not work any more."""
    row = one(connection, _QUERIES["use_password_link"], digest=digest)
    return row["person_id"] if row else None


def set_password_of(connection: Connection, *, person: UUID, password_hash: str, staying: bytes = b"") -> None:
    """Give somebody another password; their sessions end but the one of the digest `staying`."""
    values = {"person": person, "password_hash": password_hash, "staying": staying}
    connection.execute(_QUERIES["set_password_of"], values)


def ask_address_change(connection: Connection, *, person: UUID, email: str, folded: str) -> None:
    """Note which address somebody wants, in place of what they wanted before."""
    connection.execute(_QUERIES["ask_address_change"], {"person": person, "email": email, "folded": folded})


def find_address_change(connection: Connection, *, person: UUID) -> AddressChange | None:
    """Return the address that somebody wants."""
    row = one(connection, _QUERIES["find_address_change"], person=person)
    return AddressChange(**row) if row else None


def set_address_digest(connection: Connection, *, person: UUID, email: str, end: End, digest: bytes) -> bool:
    """Note by what an end confirms; False where somebody wants another address by now, or none."""
    name = "set_old_digest" if end == "old" else "set_new_digest"
    row = one(connection, _QUERIES[name], person=person, email=email, digest=digest)
    return row is not None


def confirm_address(connection: Connection, *, digest: bytes) -> Confirmed | None:
    """Confirm a change at the end whose link this is; None where the link does not work any more."""
    row = one(connection, _QUERIES["confirm_address"], digest=digest)
    return Confirmed(**row) if row else None


def change_address(connection: Connection, *, person: UUID, email: str, folded: str) -> str | None:
    """Give somebody the address that they want, and return the one before; None where another person has it."""
    row = one(connection, _QUERIES["change_address"], person=person, email=email, folded=folded)
    return row["email"] if row else None


def forget_links(connection: Connection) -> None:
    """Forget links and changes whose time is over."""
    connection.execute(_QUERIES["forget_links"])
