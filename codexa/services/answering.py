"""What visitors do before they hand in: opening a form and getting its state."""

from collections.abc import Collection, Mapping
from dataclasses import dataclass, replace
from typing import Any
from uuid import UUID

from codexa.core.context import NOTHING_TAKEN
from codexa.core.program.evaluate import evaluate
from codexa.core.program.faces import FormFace
from codexa.core.program.program import Program
from codexa.core.program.public import form_face, form_state
from codexa.services import brands
from codexa.services.context import context_of
from codexa.services.editions import Editions
from codexa.services.errors import MovedError, NotFoundError
from codexa.services.files_in_answers import with_files
from codexa.store import claims
from codexa.store import editions as store
from codexa.store.database import Connect


@dataclass(frozen=True, kw_only=True, slots=True)
class OpenedForm:
    """What a visitor gets first; `sites` are the origins that may frame it."""

    form_id: UUID
    edition: int
    sites: list[str]
    face: FormFace
    state: dict[str, Any]


def open_form(
    connect: Connect, editions: Editions, *, team_slug: str, slug: str, link: Mapping[str, str]
) -> OpenedForm:
    """Return the live edition at a public address with its first state. Raises NotFoundError, MovedError."""
    with connect() as connection:
        live = store.find_live(connection, team_slug=team_slug, slug=slug)
        moved = None if live is not None else store.find_moved(connection, team_slug=team_slug, slug=slug)
    if moved is not None:
        raise MovedError(moved)
    if live is None:
        raise NotFoundError("There is no form at this address. Check the link, or ask whoever sent it.")
    program = editions.program(live.form_id, live.number)
    look = brands.as_it_looks_now(connect, program.form, form_id=live.form_id)
    return OpenedForm(
        form_id=live.form_id,
        edition=live.number,
        sites=live.sites,
        face=form_face(program).model_copy(update={"brand": look}),
        state=state_of(connect, program, live.form_id, Given(answers={}, link=dict(link))),
    )


@dataclass(frozen=True, kw_only=True, slots=True)
class Given:
    """What a visitor has entered, by block id, what came with the address, and the visit on which files were sent.

    `checked` are the questions of a quiz that the visitor is done with.
    """

    answers: dict[str, Any]
    link: dict[str, str]
    visit: str = ""
    checked: Collection[str] = ()


def state_of(
    connect: Connect, program: Program, form: UUID, given: Given, changed: Collection[str] | None = None
) -> dict[str, Any]:
    """Return what visitors may know of the form's state with these answers, in the shape of FormState.

    With `changed`, the ids of the blocks whose answers are new, only what hangs on them.
    """
    answers = given.answers
    taken: Mapping[str, int] = NOTHING_TAKEN
    if program.takes_files or program.runs_out:
        with connect() as connection:
            answers = with_files(connection, program, form, given.visit, answers)
            taken = claims.taken(connection, form=form)
    return state_with(program, replace(given, answers=answers), changed, taken)


def state_with(
    program: Program,
    given: Given,
    changed: Collection[str] | None = None,
    taken: Mapping[str, int] = NOTHING_TAKEN,
) -> dict[str, Any]:
    """Return what visitors may know with these answers, as `state_of` does; files in them are known already.

    `taken` is how much is gone of what runs out.
    """
    state = evaluate(program, given.answers, context_of(program.form, given.link, taken=taken))
    return form_state(state, None if changed is None else program.affected(changed), given.checked)
