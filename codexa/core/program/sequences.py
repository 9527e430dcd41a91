"""Lists of which the first that holds counts, confirmations and next pages: what never comes, and what is lacking."""

from collections.abc import Callable, Iterator, Sequence
from typing import Any

from codexa.core.definition.parts import Question
from codexa.core.fields.field_type import Medium
from codexa.core.program.decide import UndecidedError, find_answers
from codexa.core.program.facts import Formula
from codexa.core.program.findings import Finding, doubt, error
from codexa.core.program.names import name_of
from codexa.core.program.program import Program


def of_sequences(program: Program) -> Iterator[Finding]:
    """Yield what is doubtful in the order of confirmations and of the rules for the next page."""
    confirmations = program.form.confirmations
    whens = [program.formula(each.id, "when") for each in confirmations]
    remedy = "Move it up, or change the conditions above it."
    for index in _never(program, whens):
        message = "This confirmation never follows: those above it take all answers."
        yield doubt("never_follows", message, remedy, confirmations[index].id, "when")
    example = _lacking(program, whens) if whens else None
    if example is not None:
        message = f"No confirmation follows for some answers, such as {_in_words(program, example)}."
        last = "Add a last one without a condition, for all the rest."
        yield doubt("no_confirmation", message, last, confirmations[-1].id, "when")
    for page in program.form.pages:
        rules = [program.formula(page.id, f"next.{at}.when") for at in range(len(page.next))]
        for index in _never(program, rules):
            message = f"Rule {index + 1} for the next page is never taken: those above it take all answers."
            yield doubt("never_follows", message, remedy, page.id, f"next.{index}.when")


def dead_ends(program: Program) -> Iterator[Finding]:
    """Yield the fields that some answers lock while they must be answered and are blank."""
    for place in program.top_places:
        block = place.block
        if not isinstance(block, Question) or block.default.strip() or not block.locked.strip():
            continue
        required, locked = program.formula(block.id, "required"), program.formula(block.id, "locked")
        if locked is None or not block.required.strip() or block.locked.strip().upper() == "TRUE":
            continue
        formulas = [each for each in (required, locked) if each is not None]
        try:
            answers = find_answers(program, formulas, all)
        except UndecidedError:
            continue
        # Where its own answer locks it, it was filled in before.
        if answers is not None and answers.get(block.id) is None:
            others = _in_words(program, {name: value for name, value in answers.items() if name != block.id})
            message = f"The field is locked, blank, and must be answered for some answers, such as {others}."
            remedy = "Give it a default, or don't require it while it is locked."
            yield error("dead_end", message, remedy, block.id, "locked")


def _never(program: Program, conditions: Sequence[Formula | None]) -> Iterator[int]:
    """Yield the places of conditions that never are the first to hold; None always holds."""
    for index in range(1, len(conditions)):
        earlier = conditions[:index]
        if any(each is None or each.compiled.text.strip().upper() == "TRUE" for each in earlier):
            yield index
            continue
        known = [each for each in (*earlier, conditions[index]) if each is not None]
        try:
            found = find_answers(program, known, _only_the_last(index))
        except UndecidedError:
            continue
        if found is None:
            yield index


def _only_the_last(count: int) -> Callable[[Sequence[bool]], bool]:
    """Return what says whether none of the first conditions holds, and the one after them does, if there is one."""
    return lambda held: not any(held[:count]) and all(held[count:])


def _lacking(program: Program, conditions: Sequence[Formula | None]) -> dict[str, Any] | None:
    """Return answers for which none holds; None where one always does, or it can't be told."""
    known = [each for each in conditions if each is not None and each.compiled.text.strip().upper() != "TRUE"]
    if len(known) < len(conditions):
        return None
    try:
        return find_answers(program, known, lambda held: not any(held))
    except UndecidedError:
        return None


def _in_words(program: Program, answers: dict[str, Any]) -> str:
    said = []
    for block_id, value in answers.items():
        place = program.places[block_id]
        assert place.field_type is not None
        shown = "blank" if value is None else place.field_type.present(value, place.block, program.region, Medium.PAGE)
        said.append(f"{name_of(program, block_id)}: {shown}")
    return "; ".join(said[:3]) or "any"
