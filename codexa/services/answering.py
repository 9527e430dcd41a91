"""What visitors do before they hand in: opening a form and getting its state."""

from collections.abc import Collection, Mapping
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from codexa.core.context import NOTHING_TAKEN, Context
from codexa.core.look_ups import NO_TABLES, Tables
from codexa.core.program.evaluate import State, evaluate
from codexa.core.program.faces import FormFace
from codexa.core.program.kept import entered_in_language
from codexa.core.program.link_values import link_problems, sealed_names
from codexa.core.program.offers import Sought, offered_at
from codexa.core.program.parts import unseen_parts
from codexa.core.program.program import Program
from codexa.core.program.public import form_face, form_state
from codexa.services import brands
from codexa.services.context import context_of
from codexa.services.errors import MovedError, NotFoundError
from codexa.services.files_in_answers import with_files
from codexa.services.sealing import Sealed
from codexa.services.tables.looking_up import tables_for
from codexa.services.visitors import GUEST, Visitor
from codexa.store import claims
from codexa.store import editions as store
from codexa.store.database import Connect
from codexa.store.editions import LiveEdition


@dataclass(frozen=True, kw_only=True, slots=True)
class OpenedForm:
    """What a visitor gets first; `wrong` is what the link brings and visitors can't mend, in words."""

    face: FormFace
    state: dict[str, Any]
    wrong: str | None


def find_live(connect: Connect, *, team_slug: str, slug: str) -> LiveEdition:
    """Return the live edition at a public address. Raises NotFoundError, MovedError."""
    with connect() as connection:
        live = store.find_live(connection, team_slug=team_slug, slug=slug)
        moved = None if live is not None else store.find_moved(connection, team_slug=team_slug, slug=slug)
    if moved is not None:
        raise MovedError(*moved)
    if live is None:
        raise NotFoundError("There is no form at this address. Check the link, or ask whoever sent it.")
    return live


def open_form(
    connect: Connect, program: Program, form: UUID, link: Mapping[str, str], visitor: Visitor = GUEST
) -> OpenedForm:
    """Return an edition as a visitor sees it first, with what the link brings."""
    look = brands.as_visitors_see_it(connect, program.form, form_id=form)
    state = _worked_out(connect, program, form, Given(answers={}, link=dict(link), visitor=visitor))
    return OpenedForm(
        face=form_face(program, state.unseen).model_copy(update={"brand": look}),
        state=form_state(state),
        wrong=_wrong(state),
    )


def _wrong(state: State) -> str | None:
    problem = next((each for each in link_problems(state) if each.held), None)
    if problem is None:
        return None
    words = state.program.form.say("linkWrong")
    return words.replace("{label}", problem.label).replace("{reason}", problem.error.message)


def link_of(program: Program, plain: Mapping[str, str], sealed: Sealed | None) -> dict[str, str]:
    """Return the values that a form is told of a link: of what is sealed only what the seal gives."""
    held = sealed_names(program.form)
    return {name: value for name, value in plain.items() if name not in held} | dict(sealed.given if sealed else {})


@dataclass(frozen=True, kw_only=True, slots=True)
class Given:
    """What a visitor has entered, by block id, what came with the address, and the visit on which files were sent.

    `checked` are the questions of a quiz that the visitor is done with; `visitor` is who fills in.
    """

    answers: dict[str, Any]
    link: dict[str, str]
    visit: str = ""
    checked: Collection[str] = ()
    visitor: Visitor = GUEST


def state_of(
    connect: Connect, program: Program, form: UUID, given: Given, changed: Collection[str] | None = None
) -> dict[str, Any]:
    """Return what visitors may know of the form's state with these answers, in the shape of FormState.

    With `changed`, the ids of the blocks whose answers are new, only what hangs on them.
    """
    state = _worked_out(connect, program, form, given)
    return form_state(state, None if changed is None else program.affected(changed), given.checked)


def unseen_by(program: Program, given: Given) -> frozenset[str]:
    """Return the ids of what is in parts of a form that who fills in sees nothing of."""
    context = context_of(program.form, given.link, visitor=given.visitor)
    return program.owners_in(unseen_parts(program.form, context)) if program.form.parts else frozenset()


def typed_in(before: Program, program: Program, answers: dict[str, Any]) -> dict[str, Any]:
    """Return answers typed in the language of one program as they are typed in that of another of the same edition."""
    if before.form.locale == program.form.locale:
        return answers
    return entered_in_language(evaluate(before, answers, context_of(before.form)), program)


def _context(program: Program, given: Given, tables: Tables, taken: Mapping[str, int] = NOTHING_TAKEN) -> Context:
    return context_of(program.form, given.link, taken=taken, tables=tables, visitor=given.visitor)


def _worked_out(connect: Connect, program: Program, form: UUID, given: Given) -> State:
    answers = given.answers
    taken: Mapping[str, int] = NOTHING_TAKEN
    if program.takes_files or program.runs_out:
        with connect() as connection:
            answers = with_files(connection, program, form, given.visit, answers)
            taken = claims.taken(connection, form=form)
    with tables_for(connect, form) as tables:
        return evaluate(program, answers, _context(program, given, tables, taken))


def offers_of(connect: Connect, program: Program, form: UUID, given: Given, sought: Sought) -> dict[str, Any]:
    """Return what a question offers with these answers: records that words find, or slots from a day on."""
    taken: Mapping[str, int] = NOTHING_TAKEN
    if program.has_slots:
        with connect() as connection:
            taken = claims.taken(connection, form=form)
    with tables_for(connect, form) as tables:
        return offers_with(program, given, sought, tables, taken)


def offers_with(
    program: Program, given: Given, sought: Sought, tables: Tables, taken: Mapping[str, int] = NOTHING_TAKEN
) -> dict[str, Any]:
    """Do the same with tables that are at hand."""
    return offered_at(evaluate(program, given.answers, _context(program, given, tables, taken)), sought)


def state_with(
    program: Program,
    given: Given,
    changed: Collection[str] | None = None,
    taken: Mapping[str, int] = NOTHING_TAKEN,
    tables: Tables = NO_TABLES,
) -> dict[str, Any]:
    """Return what visitors may know with these answers, as `state_of` does; files in them are known already.

    `taken` is how much is gone of what runs out, `tables` what the team's tables answer.
    """
    state = evaluate(program, given.answers, _context(program, given, tables, taken))
    return form_state(state, None if changed is None else program.affected(changed), given.checked)
