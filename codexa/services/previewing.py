"""Preview: the saved draft, filled in as visitors would, and why anything in it is as it is."""

from dataclasses import dataclass
from random import Random
from typing import Any
from uuid import UUID

from codexa.core.definition.brand import Brand
from codexa.core.look_ups import NO_TABLES, Tables
from codexa.core.program.accept import Accepted, Refused, accept, numbered
from codexa.core.program.evaluate import State, evaluate
from codexa.core.program.explain import Explanation, explain_all
from codexa.core.program.faces import FormFace
from codexa.core.program.order import money
from codexa.core.program.payment import payment_due
from codexa.core.program.program import Program
from codexa.core.program.public import form_face
from codexa.core.program.samples import sample_answers
from codexa.services import brands
from codexa.services.answering import Given, state_with, unseen_by
from codexa.services.context import context_of
from codexa.services.errors import NotFoundError
from codexa.services.payments.asking import ToPay
from codexa.services.tables.rights import may_see
from codexa.services.visitors import GUEST, Visitor, visitor_named
from codexa.store import members
from codexa.store.database import Connect
from codexa.store.groups import list_groups
from codexa.store.sessions import SignedIn

ONESELF = "me"  # as whom a draft is looked at
_FIRST_NUMBER = 1  # of a response that is only tried


@dataclass(frozen=True, kw_only=True, slots=True)
class PreviewPage:
    """What the page of a preview carries: what may be known of the draft, and its first state."""

    face: FormFace
    state: dict[str, Any]


def page(connect: Connect, program: Program, given: Given, *, form: UUID, tables: Tables) -> PreviewPage:
    """Return the draft as visitors would get it first, with its brand's present look."""
    look: Brand = brands.as_it_looks_now(connect, program.form, form_id=form)
    return PreviewPage(
        face=form_face(program, unseen_by(program, given)).model_copy(update={"brand": look}),
        state=state_with(program, given, tables=tables),
    )


def visitor_as(connect: Connect, *, who: SignedIn, wanted: str) -> Visitor:
    """Return whom a draft is looked at as: "" for a guest, ONESELF, or "member." and the number of a member's record.

    Nobody of them keeps a response. Raises NotFoundError.
    """
    kind, _, member = wanted.partition(".")
    if not wanted:
        return GUEST
    with connect() as connection:
        if wanted == ONESELF:
            groups = [each.code for each in list_groups(connection, team=who.team_id) if who.person_id in each.people]
            return visitor_named(who.email, who.person_name, groups)
        row = members.members_table(connection, team=who.team_id)
        found = None
        if kind == "member" and row is not None and may_see(row, who) and member.isdigit() and len(member) < 10:
            found = members.find_as(connection, team=who.team_id, number=int(member))
    if found is None:
        raise NotFoundError("There is no such member any more. Choose another one.")
    return visitor_named(found.email, found.name, found.groups)


def hand_in(program: Program, given: Given, tables: Tables) -> Accepted | Refused:
    """Return what would be kept of these answers, or what is wrong with them; nothing is kept."""
    context = context_of(program.form, given.link, tables=tables, visitor=given.visitor)
    result = accept(program, given.answers, context)
    return result if isinstance(result, Refused) else numbered(result, _FIRST_NUMBER)


def why(program: Program, given: Given, part: str, tables: Tables) -> tuple[Explanation, ...]:
    """Return why everything about a part is as it is with these answers. Raises NoSuchFactError where there is none."""
    context = context_of(program.form, given.link, tables=tables, visitor=given.visitor)
    return explain_all(evaluate(program, given.answers, context), part)


def sample(program: Program, seed: int, tables: Tables = NO_TABLES) -> dict[str, Any]:
    """Return plausible answers, the same for the same seed, without what would be wrong in them."""
    context = context_of(program.form, tables=tables)
    answers = sample_answers(program, Random(seed), context)  # noqa: S311 - made-up answers, no secret
    wrong = {address.split("/")[0] for address in evaluate(program, answers, context).errors()}
    return {block: answer for block, answer in answers.items() if block not in wrong}


def to_pay(state: State) -> ToPay | None:
    """Return what a visitor would be asked to pay, with no bank behind it; None where nothing is due."""
    due = payment_due(state)
    if due is None:
        return None
    return ToPay(
        state="due",
        amount=money(due.amount, state.program.region) if due.amount else "",
        plan=due.words,
        page="",
        reason="",
        practice=state.program.form.payment.practice,
        in_frame=state.program.form.payment.in_frame,
        away=False,
    )
