"""Preview: the saved draft, filled in as visitors would, and why anything in it is as it is."""

from dataclasses import dataclass
from functools import lru_cache
from random import Random
from typing import Any
from uuid import UUID

import orjson

from codexa.core.definition.form import read_form
from codexa.core.program.accept import Accepted, Refused, accept, number_result, sample_answers
from codexa.core.program.compiling import compile_form
from codexa.core.program.evaluate import evaluate
from codexa.core.program.explain import Explanation, NoSuchFactError, explain_all
from codexa.core.program.program import Program
from codexa.services.drafts import context_of
from codexa.services.errors import NotFoundError
from codexa.store import forms
from codexa.store.database import Connection
from codexa.store.sessions import SignedIn

_FIRST_NUMBER = 1  # of a response that is only tried


@dataclass(frozen=True, kw_only=True, slots=True)
class Previewed:
    """A draft to try: its program and the revision that it was made from."""

    program: Program
    revision: int


@lru_cache(maxsize=50)
def _compiled(_form: UUID, _revision: int, document: bytes) -> Program:
    return compile_form(read_form(orjson.loads(document)))


def open_draft(connection: Connection, *, who: SignedIn, form: UUID) -> Previewed:
    """Return the form's saved draft, compiled. Raises NotFoundError."""
    found = forms.find_form(connection, team=who.team_id, form=form)
    if found is None:
        raise NotFoundError
    return Previewed(program=_compiled(form, found.revision, orjson.dumps(found.draft)), revision=found.revision)


def hand_in(program: Program, answers: dict[str, Any], link: dict[str, str]) -> Accepted | Refused:
    """Return what would be kept of these answers, or what is wrong with them; nothing is kept."""
    result = accept(program, answers, context_of(program.form, link))
    return result if isinstance(result, Refused) else number_result(result, answers, _FIRST_NUMBER)


def why(program: Program, answers: dict[str, Any], link: dict[str, str], part: str) -> tuple[Explanation, ...]:
    """Return why everything about a part is as it is with these answers. Raises NotFoundError where there is none."""
    try:
        return explain_all(evaluate(program, answers, context_of(program.form, link)), part)
    except NoSuchFactError as error:
        raise NotFoundError(str(error)) from None


def sample(program: Program, seed: int) -> dict[str, Any]:
    """Return plausible answers, the same for the same seed, without what would be wrong in them."""
    context = context_of(program.form)
    answers = sample_answers(program, Random(seed), context)  # noqa: S311 - made-up answers, no secret
    wrong = {address.split("/")[0] for address in evaluate(program, answers, context).errors()}
    return {block: answer for block, answer in answers.items() if block not in wrong}
