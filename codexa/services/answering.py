"""What visitors do: getting a form's state, and handing in a response that is kept once."""

import hashlib
import json
from collections.abc import Callable, Collection, Mapping
from contextlib import AbstractContextManager
from dataclasses import dataclass
from datetime import datetime
from functools import lru_cache
from typing import Any
from uuid import UUID

from psycopg.errors import UniqueViolation
from psycopg_pool import ConnectionPool

from codexa.core.definition.form import read_form
from codexa.core.program.accept import Refused, accept, number_result
from codexa.core.program.compiling import compile_form
from codexa.core.program.evaluate import evaluate
from codexa.core.program.faces import ConfirmationFace, FormFace
from codexa.core.program.program import Program
from codexa.core.program.public import confirmation_face, form_face, form_state
from codexa.services import brands, uploads
from codexa.services.drafts import context_of
from codexa.services.errors import ClosedError, KeyReusedError, NotFoundError
from codexa.store import editions, responses
from codexa.store import uploads as uploads_store
from codexa.store.database import Connection
from codexa.store.responses import Kept


@dataclass(frozen=True, kw_only=True, slots=True)
class OpenedForm:
    """What a visitor gets first; `sites` are the origins that may frame it."""

    form_id: UUID
    edition: int
    sites: list[str]
    face: FormFace
    state: dict[str, Any]


@dataclass(frozen=True, kw_only=True, slots=True)
class Received:
    """A response was kept; `repeated` where it had been kept before."""

    number: int
    repeated: bool
    confirmation: ConfirmationFace


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


def open_form(
    connection: Connection, programs: Programs, *, team_slug: str, slug: str, link: Mapping[str, str]
) -> OpenedForm:
    """Return the live edition at a public address with its first state. Raises NotFoundError."""
    live = editions.find_live(connection, team_slug=team_slug, slug=slug)
    if live is None:
        raise NotFoundError("There is no form at this address. Check the link, or ask whoever sent it.")
    program = programs.of(live.form_id, live.number)
    look = brands.as_it_looks_now(connection, program.form, form_id=live.form_id)
    return OpenedForm(
        form_id=live.form_id,
        edition=live.number,
        sites=live.sites,
        face=form_face(program).model_copy(update={"brand": look}),
        state=form_state(evaluate(program, {}, context_of(program.form, link))),
    )


@dataclass(frozen=True, kw_only=True, slots=True)
class Given:
    """What a visitor has entered, by block id, and what came with the address."""

    answers: dict[str, Any]
    link: dict[str, str]


def state_of(
    connect: Callable[[], AbstractContextManager[Connection]],
    program: Program,
    form: UUID,
    given: Given,
    changed: Collection[str] | None = None,
) -> dict[str, Any]:
    """Return what visitors may know of the form's state with these answers, in the shape of FormState.

    With `changed`, the ids of the blocks whose answers are new, only what hangs on them.
    """
    answers = given.answers
    if program.takes_files:
        with connect() as connection:
            answers, _ = uploads.with_files(connection, program, form, answers)
    state = evaluate(program, answers, context_of(program.form, given.link))
    return form_state(state, None if changed is None else program.affected(changed))


def receive(
    connection: Connection,
    program: Program,
    *,
    form: UUID,
    edition: int,
    key: str,
    given: Given,
    received_at: datetime | None = None,
) -> Received | Refused:
    """Keep a response once, however often it is sent under its key, or return what is wrong with it.

    Raises KeyReusedError where the key was used with other answers, ClosedError where the form is gone.
    """
    content = [edition, given.answers, given.link]
    digest = hashlib.sha256(json.dumps(content, sort_keys=True, default=str).encode()).digest()
    kept = responses.find_by_key(connection, form=form, key=key)
    if kept is not None:
        return _repeated(program, kept, digest, given)
    answers, files = uploads.with_files(connection, program, form, given.answers)
    result = accept(program, answers, context_of(program.form, given.link))
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
                path=result.path,
                confirmation=result.confirmation,
                key=key,
                digest=digest,
                received_at=received_at,
            )
            uploads_store.claim_uploads(connection, form=form, number=number, ids=files)
            numbered = number_result(result, answers, number)
            if program.needs_number:
                responses.set_computed(connection, form=form, number=number, computed=numbered.computed)
    except UniqueViolation:
        # The same request came twice at the same moment; the other one was quicker.
        kept = responses.find_by_key(connection, form=form, key=key)
        assert kept is not None
        return _repeated(program, kept, digest, given)
    return Received(number=number, repeated=False, confirmation=confirmation_face(numbered.state))


def _repeated(program: Program, kept: Kept, digest: bytes, given: Given) -> Received:
    if kept.content_digest != digest:
        raise KeyReusedError
    context = context_of(program.form, given.link).with_number(kept.number)
    state = evaluate(program, given.answers, context)
    return Received(number=kept.number, repeated=True, confirmation=confirmation_face(state))
