"""A second factor: codes of an app, passkeys, codes for recovery; set up by its person, and asked for on the way in.

Codes are those of RFC 6238, each taken once. Passkeys follow Web Authentication, level 2; they are asked to know their
person, and so are both factors in one.
"""

import json
import secrets
import time
from collections.abc import Mapping
from dataclasses import dataclass
from typing import Any
from uuid import UUID

import pyotp
import segno
import webauthn
from webauthn.helpers.exceptions import WebAuthnException
from webauthn.helpers.structs import (
    AuthenticatorSelectionCriteria,
    PublicKeyCredentialDescriptor,
    ResidentKeyRequirement,
    UserVerificationRequirement,
)

from codexa.services.accounts.own_account import require_password
from codexa.services.audit import note, note_of
from codexa.services.encryption import decrypted, encrypted
from codexa.services.errors import FactorRefusedError, NoTeamError, NotFoundError, StepOverError
from codexa.services.marks import mark_of
from codexa.services.signing_in import NewSession, digest_of, folded, limits_of, new_session, refuse_waiting
from codexa.settings import Settings
from codexa.store import accounts, people, sessions
from codexa.store import second_factors as store
from codexa.store.database import Connect, Connection
from codexa.store.second_factors import CodesSecret, Factor
from codexa.store.sessions import SignedIn

_RECOVERY_CODES, _RECOVERY_LETTERS = 10, "abcdefghjkmnpqrstuvwxyz23456789"
_WRONG_CODE = "This code is not right, or was used. Take the one that the app shows now."
_WRONG_PASSKEY = "This passkey was not taken. Try it again, or use another way."


@dataclass(frozen=True, kw_only=True, slots=True)
class Site:
    """Where passkeys are asked for: the host that they belong to, and the origin of the page."""

    host: str
    origin: str


@dataclass(frozen=True, kw_only=True, slots=True)
class OwnFactors:
    """The second factors of a person, and how many codes for recovery they have left."""

    factors: list[Factor]
    codes_left: int


@dataclass(frozen=True, kw_only=True, slots=True)
class BegunCodes:
    """Codes that are to be confirmed: what an app has to know, typed or read off a picture (SVG, as a data address)."""

    id: UUID
    secret: str
    picture: str


def own_factors(connect: Connect, *, who: SignedIn) -> OwnFactors:
    """Return the second factors of who is signed in."""
    with connect() as connection:
        return OwnFactors(
            factors=store.list_factors(connection, person=who.person_id),
            codes_left=store.count_recovery_codes(connection, person=who.person_id),
        )


def begin_codes(connect: Connect, settings: Settings, *, who: SignedIn, password: str, name: str) -> BegunCodes:
    """Begin with the codes of an app; they count once one was typed. Raises WrongPasswordError."""
    require_password(connect, who, password)
    secret = pyotp.random_base32()
    with connect() as connection:
        made = store.insert_codes(
            connection, person=who.person_id, name=_named(name, "App"), secret=encrypted(secret, settings)
        )
    address = pyotp.TOTP(secret).provisioning_uri(name=who.email, issuer_name="Codexa")
    picture = segno.make(address, error="m", micro=False).svg_data_uri(scale=4, border=4)
    return BegunCodes(id=made, secret=secret, picture=picture)


def confirm_codes(connect: Connect, settings: Settings, *, who: SignedIn, factor: UUID, code: str) -> list[str] | None:
    """Confirm codes by one; return codes for recovery with the first factor. Raises FactorRefusedError."""
    with connect() as connection:
        is_first = not store.has_factor(connection, person=who.person_id)
        found = store.secrets_of(connection, person=who.person_id, factor=factor)
        if not _takes(connection, settings, found, code):
            raise FactorRefusedError(_WRONG_CODE)
        return _set_up(connection, settings, who, "codes of an app", is_first=is_first)


def begin_passkey(connect: Connect, site: Site, *, who: SignedIn, password: str, step: str) -> dict[str, Any]:
    """Return what a browser needs to make a passkey, as JSON. Raises WrongPasswordError."""
    require_password(connect, who, password)
    with connect() as connection:
        known = store.passkeys_of(connection, person=who.person_id)
        options = webauthn.generate_registration_options(
            rp_id=site.host,
            rp_name="Codexa",
            user_id=who.person_id.bytes,
            user_name=who.email,
            user_display_name=who.person_name,
            exclude_credentials=[PublicKeyCredentialDescriptor(id=each) for each in known],
            authenticator_selection=AuthenticatorSelectionCriteria(
                resident_key=ResidentKeyRequirement.REQUIRED, user_verification=UserVerificationRequirement.REQUIRED
            ),
        )
        store.insert_step(
            connection, digest=digest_of(step), person=who.person_id, team=who.team_id, challenge=options.challenge
        )
    found: dict[str, Any] = json.loads(webauthn.options_to_json(options))
    return found


def keep_passkey(
    connect: Connect,
    settings: Settings,
    site: Site,
    *,
    who: SignedIn,
    step: str,
    name: str,
    credential: Mapping[str, Any],
) -> list[str] | None:
    """Keep a passkey that a browser has made; return codes for recovery with the first factor.

    Raises FactorRefusedError, StepOverError.
    """
    with connect() as connection:
        begun = store.use_step_in(connection, digest=digest_of(step))
        if begun is None or begun.challenge is None or begun.person_id != who.person_id:
            raise StepOverError
        try:
            made = webauthn.verify_registration_response(
                credential=dict(credential),
                expected_challenge=bytes(begun.challenge),
                expected_rp_id=site.host,
                expected_origin=site.origin,
                require_user_verification=True,
            )
        except (WebAuthnException, ValueError, KeyError, TypeError):
            raise FactorRefusedError(_WRONG_PASSKEY) from None
        is_first = not store.has_factor(connection, person=who.person_id)
        named = _named(name, "Passkey")
        if not store.insert_passkey(
            connection,
            person=who.person_id,
            name=named,
            credential=made.credential_id,
            public_key=made.credential_public_key,
            uses=made.sign_count,
        ):
            raise FactorRefusedError("This passkey is somebody's already.")
        return _set_up(connection, settings, who, f"the passkey {named}", is_first=is_first)


def take_away(connect: Connect, *, who: SignedIn, factor: UUID, password: str) -> None:
    """Take a second factor away. Raises WrongPasswordError, NotFoundError."""
    require_password(connect, who, password)
    with connect() as connection:
        name = store.delete_factor(connection, person=who.person_id, factor=factor)
        if name is None:
            raise NotFoundError("This second factor is gone already.")
        note(connection, who, "second factor taken away", name=name)


def new_recovery_codes(connect: Connect, settings: Settings, *, who: SignedIn, password: str) -> list[str]:
    """Return other codes for recovery; those that were there work no more. Raises WrongPasswordError."""
    require_password(connect, who, password)
    with connect() as connection:
        return _recovery_codes(connection, settings, who.person_id)


def _set_up(
    connection: Connection, settings: Settings, who: SignedIn, name: str, *, is_first: bool
) -> list[str] | None:
    note(connection, who, "second factor set", name=name)
    return _recovery_codes(connection, settings, who.person_id) if is_first else None


def _recovery_codes(connection: Connection, settings: Settings, person: UUID) -> list[str]:
    def part() -> str:
        return "".join(secrets.choice(_RECOVERY_LETTERS) for _ in range(5))

    codes = [f"{part()}-{part()}" for _ in range(_RECOVERY_CODES)]
    store.set_recovery_codes(connection, person=person, marks=[_mark(person, each, settings) for each in codes])
    return codes


def _mark(person: UUID, code: str, settings: Settings) -> str:
    plain = "".join(each for each in code.lower() if each.isalnum())
    return mark_of(f"recovery {person} {plain}", settings)


def _named(name: str, usual: str) -> str:
    return " ".join(name.split())[:60] or usual


def _takes(connection: Connection, settings: Settings, found: list[CodesSecret], code: str) -> bool:
    """Take a code of one of some apps, of now or half a minute around, once."""
    typed, now = "".join(code.split()), int(time.time()) // 30
    for each in found:
        secret = decrypted(bytes(each.secret), settings)
        if secret is None:
            continue
        codes = pyotp.TOTP(secret)
        for step in (now, now - 1, now + 1):
            if pyotp.utils.strings_equal(typed, codes.generate_otp(step)):
                return store.use_step(connection, factor=each.id, step=step)
    return False


@dataclass(frozen=True, kw_only=True, slots=True)
class Whence:
    """From which network somebody signs in, by which program."""

    network: str
    program: str


def by_code(connect: Connect, settings: Settings, *, step: str, code: str, whence: Whence, attempts: int) -> NewSession:
    """Finish signing in by the code of an app, or one for recovery. Each try is counted before it is looked at.

    Raises StepOverError, FactorRefusedError, TooManyAttemptsError, NoTeamError.
    """
    digest = digest_of(step)
    with connect() as connection:
        begun = store.find_step(connection, digest=digest)
        if begun is None or begun.person_id is None:
            raise StepOverError
        limits = limits_of(f"second {begun.person_id}", whence.network, attempts, at_home=False)
        wait = sessions.count_try(connection, limits)
    refuse_waiting(wait)
    with connect() as connection:
        found = store.secrets_of(connection, person=begun.person_id)
        recovered = False
        if not _takes(connection, settings, found, code):
            mark = _mark(begun.person_id, code, settings)
            recovered = store.use_recovery_code(connection, person=begun.person_id, mark=mark)
            if not recovered:
                raise FactorRefusedError(_WRONG_CODE)
        if store.use_step_in(connection, digest=digest) is None:
            raise StepOverError
        sessions.forget_tries(connection, subjects=[each.subject for each in limits])
        session = _session(connection, begun.person_id, begun.team_id, "signed in", whence)
        if recovered:
            told = accounts.find_person(connection, person=begun.person_id)
            if told is not None and begun.team_id is not None:
                note_of(connection, begun.team_id, "recovery code used", by=begun.person_id, called=told.name)
        return session


def ask_passkey(connect: Connect, site: Site, *, step: str) -> dict[str, Any]:
    """Return what a browser needs to ask for a passkey, as JSON: one of who has typed a password, or anybody's."""
    with connect() as connection:
        begun = store.find_step(connection, digest=digest_of(step))
        person = None if begun is None else begun.person_id
        known = store.passkeys_of(connection, person=person) if person is not None else []
        options = webauthn.generate_authentication_options(
            rp_id=site.host,
            allow_credentials=[PublicKeyCredentialDescriptor(id=each) for each in known] or None,
            user_verification=UserVerificationRequirement.REQUIRED,
        )
        team = None if begun is None else begun.team_id
        store.insert_step(connection, digest=digest_of(step), person=person, team=team, challenge=options.challenge)
    found: dict[str, Any] = json.loads(webauthn.options_to_json(options))
    return found


def by_passkey(connect: Connect, site: Site, *, step: str, credential: Mapping[str, Any], whence: Whence) -> NewSession:
    """Sign in by a passkey, with a password before it or without.

    Raises StepOverError, FactorRefusedError, NoTeamError.
    """
    with connect() as connection:
        begun = store.use_step_in(connection, digest=digest_of(step))
    if begun is None or begun.challenge is None:
        raise StepOverError
    with connect() as connection:
        try:
            parsed = webauthn.helpers.parse_authentication_credential_json(dict(credential))
            passkey = store.find_passkey(connection, credential=parsed.raw_id)
            if passkey is None or begun.person_id not in (None, passkey.person_id):
                raise FactorRefusedError(_WRONG_PASSKEY)
            verified = webauthn.verify_authentication_response(
                credential=parsed,
                expected_challenge=bytes(begun.challenge),
                expected_rp_id=site.host,
                expected_origin=site.origin,
                credential_public_key=bytes(passkey.public_key),
                credential_current_sign_count=passkey.uses,
                require_user_verification=True,
            )
        except (WebAuthnException, ValueError, KeyError, TypeError):
            raise FactorRefusedError(_WRONG_PASSKEY) from None
        if not store.use_passkey(connection, factor=passkey.id, uses=verified.new_sign_count):
            raise FactorRefusedError(_WRONG_PASSKEY)
        return _session(connection, passkey.person_id, begun.team_id, "signed in with a passkey", whence)


def _session(connection: Connection, person_id: UUID, team: UUID | None, kind: str, whence: Whence) -> NewSession:
    person = accounts.find_person(connection, person=person_id)
    known = None if person is None else people.find_person_by_email(connection, email=folded(person.email))
    team = team or (None if known is None else known.team_id)
    if known is None or team is None:
        raise NoTeamError
    sessions.note_network(connection, person=person_id, network=whence.network)
    note_of(connection, team, kind, by=person_id, called=known.name, network=whence.network)
    return new_session(connection, person=person_id, team=team, program=whence.program)
