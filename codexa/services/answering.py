"""What visitors do: getting a form's state, and handing in a response that is kept once."""

import hashlib
import json
from dataclasses import dataclass
from datetime import datetime
from functools import lru_cache
from typing import Any
from uuid import UUID

from psycopg.errors import UniqueViolation
from psycopg_pool import ConnectionPool

from codexa.core.definition.form import read_form
from codexa.core.program.accept import Refused, accept
from codexa.core.program.evaluate import evaluate
from codexa.core.program.program import Program, compile_form
from codexa.core.program.public import FormFace, FormState, form_face, form_state
from codexa.services.drafts import context_of
from codexa.services.errors import ClosedError, KeyReusedError, NotFoundError
from codexa.store import editions, responses
from codexa.store.database import Connection
from codexa.store.responses import Kept


@dataclass(frozen=True, kw_only=True, slots=True)
class OpenedForm:
    """What a visitor gets first; `sites` are the origins that may frame it."""

    form_id: UUID
    edition: int
    sites: list[str]
    face: FormFace
    state: FormState


@dataclass(frozen=True, kw_only=True, slots=True)
class Received:
    """A response was kept; `repeated` where it had been kept before."""

    number: int
    repeated: bool


class Programs:
    """The compiled editions of this process. Editions never change, so nothing here can be out of date."""

    def __init__(self, pool: ConnectionPool[Connection], most: int = 500) -> None:
        self._pool = pool
        self.of = lru_cache(maxsize=most)(self._compile)

    def _compile(self, form: UUID, edition: int) -> Program:
        """Return the program of an edition. Raises NotFoundError."""
        with self._pool.connection() as connection:
            definition = editions.find_definition(connection, form=form, number=edition)
        if definition is None:
            raise NotFoundError
        return compile_form(read_form(definition))


def open_form(connection: Connection, programs: Programs, *, team_slug: str, slug: str) -> OpenedForm:
    """Return the live edition at a public address with its first state. Raises NotFoundError."""
    live = editions.find_live(connection, team_slug=team_slug, slug=slug)
    if live is None:
        raise NotFoundError("There is no form at this address. Check the link, or ask whoever sent it.")
    program = programs.of(live.form_id, live.number)
    return OpenedForm(
        form_id=live.form_id,
        edition=live.number,
        sites=live.sites,
        face=form_face(program),
        state=state_of(program, {}),
    )


def state_of(program: Program, answers: dict[str, Any]) -> FormState:
    """Return what visitors may know of the form's state with these answers."""
    return form_state(evaluate(program, answers, context_of(program.form)))


def receive(
    connection: Connection,
    program: Program,
    *,
    form: UUID,
    edition: int,
    key: str,
    answers: dict[str, Any],
    received_at: datetime | None = None,
) -> Received | Refused:
    """Keep a response once, however often it is sent under its key, or return what is wrong with it.

    Raises KeyReusedError where the key was used with other answers, ClosedError where the form is gone.
    """
    digest = hashlib.sha256(json.dumps([edition, answers], sort_keys=True, default=str).encode()).digest()
    kept = responses.find_by_key(connection, form=form, key=key)
    if kept is not None:
        return _repeated(kept, digest)
    result = accept(program, answers, context_of(program.form))
    if isinstance(result, Refused):
        return result
    if not editions.takes_responses(connection, form=form):
        raise ClosedError
    try:
        with connection.transaction():
            number = responses.insert_response(
                connection,
                form=form,
                edition=edition,
                answers=result.answers,
                computed=result.computed,
                key=key,
                digest=digest,
                received_at=received_at,
            )
    except UniqueViolation:
        # The same request came twice at the same moment; the other one was quicker.
        kept = responses.find_by_key(connection, form=form, key=key)
        assert kept is not None
        return _repeated(kept, digest)
    return Received(number=number, repeated=False)


def _repeated(kept: Kept, digest: bytes) -> Received:
    if kept.content_digest != digest:
        raise KeyReusedError
    return Received(number=kept.number, repeated=True)
