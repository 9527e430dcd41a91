"""What people show beside their password: codes of an app, passkeys, and codes for recovery."""

from collections.abc import Sequence
from dataclasses import dataclass
from datetime import datetime
from typing import Literal
from uuid import UUID

from codexa.store.database import Connection, exactly_one, many, one
from codexa.store.queries import queries

_QUERIES = queries("second_factors")
FactorKind = Literal["codes", "passkey"]


@dataclass(frozen=True, kw_only=True, slots=True)
class Factor:
    """A second factor as its person sees it."""

    id: UUID
    kind: FactorKind
    name: str
    made_at: datetime


@dataclass(frozen=True, kw_only=True, slots=True)
class CodesSecret:
    """What codes are made of, encrypted, and the last step in which one was taken."""

    id: UUID
    secret: bytes
    last_step: int


@dataclass(frozen=True, kw_only=True, slots=True)
class Passkey:
    """A passkey, and how often it says that it was used."""

    id: UUID
    person_id: UUID
    name: str
    public_key: bytes
    uses: int


@dataclass(frozen=True, kw_only=True, slots=True)
class Step:
    """Somebody on the way in: known by a password, or nobody yet; `challenge` is what a passkey is asked to sign."""

    person_id: UUID | None
    team_id: UUID | None
    challenge: bytes | None


def list_factors(connection: Connection, *, person: UUID) -> list[Factor]:
    """Return the second factors of a person that count, the oldest first."""
    return [Factor(**row) for row in many(connection, _QUERIES["list_factors"], person=person)]


def has_factor(connection: Connection, *, person: UUID) -> bool:
    """Say whether a person has a second factor."""
    return bool(exactly_one(connection, _QUERIES["has_factor"], person=person)["has_one"])


def insert_codes(connection: Connection, *, person: UUID, name: str, secret: bytes) -> UUID:
    """Begin with codes of an app, which count once one was typed; return the factor's id."""
    made: UUID = exactly_one(connection, _QUERIES["insert_codes"], person=person, name=name, secret=secret)["id"]
    return made


def secrets_of(connection: Connection, *, person: UUID, factor: UUID | None = None) -> list[CodesSecret]:
    """Return what a person's codes are made of; of a `factor` that is yet to be confirmed, its own."""
    return [CodesSecret(**row) for row in many(connection, _QUERIES["secrets_of"], person=person, factor=factor)]


def use_step(connection: Connection, *, factor: UUID, step: int) -> bool:
    """Take the code of a step; False where one of it, or of a later one, was taken."""
    return one(connection, _QUERIES["use_step"], factor=factor, step=step) is not None


def insert_passkey(
    connection: Connection, *, person: UUID, name: str, credential: bytes, public_key: bytes, uses: int
) -> bool:
    """Keep a passkey; False where somebody has it."""
    known = {"person": person, "name": name, "credential": credential, "public_key": public_key, "uses": uses}
    return one(connection, _QUERIES["insert_passkey"], **known) is not None


def passkeys_of(connection: Connection, *, person: UUID) -> list[bytes]:
    """Return what the passkeys of a person call themselves."""
    return [bytes(row["credential"]) for row in many(connection, _QUERIES["passkeys_of"], person=person)]


def find_passkey(connection: Connection, *, credential: bytes) -> Passkey | None:
    """Return a passkey by what it calls itself."""
    row = one(connection, _QUERIES["find_passkey"], credential=credential)
    return Passkey(**row) if row else None


def use_passkey(connection: Connection, *, factor: UUID, uses: int) -> bool:
    """Note how often a passkey was used; False where it says a number that was seen: it may be a copy."""
    return one(connection, _QUERIES["use_passkey"], factor=factor, uses=uses) is not None


def delete_factor(connection: Connection, *, person: UUID, factor: UUID) -> str | None:
    """Take a second factor away, and return its name; None where there is none such."""
    row = one(connection, _QUERIES["delete_factor"], person=person, factor=factor)
    return row["name"] if row else None


def set_recovery_codes(connection: Connection, *, person: UUID, marks: Sequence[str]) -> None:
    """Give a person other codes for recovery."""
    connection.execute(_QUERIES["forget_codes"], {"person": person})
    connection.execute(_QUERIES["insert_codes_for_recovery"], {"person": person, "marks": list(marks)})


def use_recovery_code(connection: Connection, *, person: UUID, mark: str) -> bool:
    """Use a code for recovery; False where it is none, or was used."""
    return one(connection, _QUERIES["use_recovery_code"], person=person, mark=mark) is not None


def count_recovery_codes(connection: Connection, *, person: UUID) -> int:
    """Return how many codes for recovery a person has left."""
    return int(exactly_one(connection, _QUERIES["count_recovery_codes"], person=person)["count"])


def insert_step(
    connection: Connection, *, digest: bytes, person: UUID | None, team: UUID | None, challenge: bytes | None
) -> None:
    """Note that somebody is on the way in, or what a passkey is asked to sign on it."""
    known = {"digest": digest, "person": person, "team": team, "challenge": challenge}
    connection.execute(_QUERIES["insert_step"], known)


def find_step(connection: Connection, *, digest: bytes) -> Step | None:
    """Return who is on the way in."""
    row = one(connection, _QUERIES["find_step"], digest=digest)
    return Step(**row) if row else None


def use_step_in(connection: Connection, *, digest: bytes) -> Step | None:
    """End somebody's way in; None where it has ended."""
    row = one(connection, _QUERIES["use_step_in"], digest=digest)
    return Step(**row) if row else None
