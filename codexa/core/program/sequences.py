"""Lists of which the first that holds counts, confirmations and next pages: what never comes, and what is lacking."""

from collections.abc import Callable, Iterator, Sequence
from typing import Any

from codexa.core.definition.parts import Question
from codexa.core.program.candidates import names_read
from codexa.core.program.decide import Tried, UndecidedError, try_all
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
    for earlier, later, shared in _overlapping(program, whens):
        above = confirmations[earlier].name or confirmations[earlier].title or f"number {earlier + 1}"
        message = f"Both this and “{above}” above it hold for {shared}; then the one above follows."
        yield doubt("partly_follows", message, "Let one begin where the other ends.", confirmations[later].id, "when")
    example = _lacking(program, whens) if whens else None
    if example is not None:
        message = f"No confirmation follows for some answers, such as {example}."
        last = "Add a last one without a condition, for all the rest."
        yield doubt("no_confirmation", message, last, confirmations[-1].id, "when")
    for page in program.form.pages:
        rules = [program.formula(page.id, f"next.{at}.when") for at in range(len(page.next))]
        for index in _never(program, rules):
            message = f"Rule {index + 1} for the next page is never taken: those above it take all answers."
            yield doubt("never_follows", message, remedy, page.id, f"next.{index}.when")
        for earlier, later, shared in _overlapping(program, rules):
            message = f"Rule {earlier + 1} and rule {later + 1} for the next page both hold for {shared}."
            yield doubt("partly_follows", message, "Let one begin where the other ends.", page.id, f"next.{later}.when")


def dead_ends(program: Program) -> Iterator[Finding]:
    """Yield the fields that some answers lock while they must be answered and are blank."""
    for place in program.top_places:
        block = place.block
        if not isinstance(block, Question) or block.default.strip() or not block.locked.strip():
            continue
        required, locked = program.formula(block.id, "required"), program.formula(block.id, "locked")
        if locked is None or not block.required.strip() or block.locked.strip().upper() == "TRUE":
            continue
        try:
            tried = try_all(program, [each for each in (required, locked) if each is not None], handed_in=False)
        except UndecidedError:
            continue
        answers = tried.find(all)
        # Where its own answer locks it, it was filled in before.
        if answers is not None and answers.get(block.id) is None:
            others = _in_words(program, tried, {name: value for name, value in answers.items() if name != block.id})
            message = f"The field is locked, blank, and must be answered for some answers, such as {others}."
            remedy = "Give it a default, or don't require it while it is locked."
            yield error("dead_end", message, remedy, block.id, "locked")


def _always(formula: Formula | None) -> bool:
    return formula is None or formula.compiled.text.strip().upper() == "TRUE"


def _never(program: Program, conditions: Sequence[Formula | None]) -> Iterator[int]:
    """Yield the places of conditions that never are the first to hold; None always holds."""
    for index in range(1, len(conditions)):
        earlier = conditions[:index]
        if any(map(_always, earlier)):
            yield index
            continue
        known = [each for each in (*earlier, conditions[index]) if each is not None]
        try:
            tried = try_all(program, known, handed_in=True)
        except UndecidedError:
            continue
        if tried.find(_only_the_last(index)) is None:
            yield index


def _only_the_last(count: int) -> Callable[[Sequence[bool]], bool]:
    """Return what says whether none of the first conditions holds, and the one after them does, if there is one."""
    return lambda held: not any(held[:count]) and all(held[count:])


def _overlapping(program: Program, conditions: Sequence[Formula | None]) -> Iterator[tuple[int, int, str]]:
    """Yield pairs of conditions on one and the same thing of which neither is part of the other, with an example."""
    for later, condition in enumerate(conditions):
        for earlier, above in enumerate(conditions[:later]):
            if condition is None or above is None or len(names_read([above, condition])) != 1:
                continue
            try:
                tried = try_all(program, [above, condition], handed_in=True)
            except UndecidedError:
                continue
            both = tried.find(all)
            apart = (tried.find(lambda held: held[0] and not held[1]), tried.find(lambda held: held[1] and not held[0]))
            if both is not None and None not in apart:
                yield earlier, later, _in_words(program, tried, both)


def _lacking(program: Program, conditions: Sequence[Formula | None]) -> str | None:
    """Return answers for which none holds, in words; None where one always does, or it can't be told."""
    if any(map(_always, conditions)):
        return None
    try:
        tried = try_all(program, [each for each in conditions if each is not None], handed_in=True)
    except UndecidedError:
        return None
    answers = tried.find(lambda held: not any(held))
    return None if answers is None else _in_words(program, tried, answers)


def _in_words(program: Program, tried: Tried, answers: dict[str, Any]) -> str:
    said = [f"{name_of(program, owner)}: {tried.told(owner, value)}" for owner, value in answers.items()]
    return "; ".join(said[:3]) or "any"
