"""What is wrong where a form names a group the team does not have: nobody is in it, and nobody can be put there."""

import difflib
from collections.abc import Collection, Iterable, Iterator
from dataclasses import replace

from codexa.core.errors import Span
from codexa.core.form.follow_ups import AccountFollowUp, ApprovalFollowUp, FollowUp, TaskFollowUp
from codexa.core.form.form import FORM
from codexa.core.formula import tree
from codexa.core.formula.check import Typed
from codexa.core.program.findings import Finding, error
from codexa.core.program.program import Program

_MOST_LISTED = 6


def group_findings(program: Program, groups: Collection[str] | None) -> Iterator[Finding]:
    """Yield an error for each group, in INGROUP or of an account, that is no code of the team's `groups`.

    Without them none is doubted.
    """
    if groups is None:
        return
    for part in program.form.parts:
        for code in sorted({*part.groups} - {*groups}):
            message = f'The group "{code}" is to change the part {part.name}, and the team does not have it.'
            yield error("no_such_group", message, "Choose another, or make it in Team.", part.id, "groups")
    for each in program.form.follow_ups:
        yield from _of_follow_up(each, groups)
    by_fold = {code.casefold(): code for code in sorted(groups)}
    for formula in program.formulas:
        owner = None if formula.owner == FORM else formula.owner
        for text in _groups_in(formula.compiled.typed.walk() if formula.compiled.typed else ()):
            if text.value.casefold() not in by_fold:
                message = f'The team has no group "{text.value}".{_hint(text.value, by_fold)}'
                remedy = "Choose one that there is, or make it in Team; else this never holds."
                span = Span(start=text.span.start, end=text.span.end)
                yield replace(error("no_such_group", message, remedy, owner, formula.setting), span=span)


def _of_follow_up(follow_up: FollowUp, groups: Collection[str]) -> Iterator[Finding]:
    if isinstance(follow_up, AccountFollowUp):
        for code in sorted({*follow_up.groups} - {*groups}):
            message = f'An account is put into the group "{code}", which the team does not have.'
            yield error("no_such_group", message, "Take it out, or make it in Team.", follow_up.id, "groups")
    if isinstance(follow_up, ApprovalFollowUp):
        for code in sorted(_deciding(follow_up) - {*groups}):
            message = f'The group "{code}" is to decide, and the team does not have it.'
            yield error("no_such_group", message, "Choose another, or make it in Team.", follow_up.id, "steps")
    if isinstance(follow_up, TaskFollowUp) and follow_up.who.group not in ("", *groups):
        message = f'The group "{follow_up.who.group}" has something to do, and the team does not have it.'
        yield error("no_such_group", message, "Choose another, or make it in Team.", follow_up.id, "who")


def _deciding(follow_up: ApprovalFollowUp) -> set[str]:
    """Return the codes of the groups that decide in any step."""
    return {one.group for step in follow_up.steps for one in (*step.deciders, step.stand_in) if one.group}


def groups_named(program: Program) -> set[str]:
    """Return the codes of the groups that a form asks for or puts accounts into, in small letters."""
    asked = {
        text.value.casefold()
        for formula in program.formulas
        if formula.compiled.typed
        for text in _groups_in(formula.compiled.typed.walk())
    }
    accounts = (each for each in program.form.follow_ups if isinstance(each, AccountFollowUp))
    approvals = (each for each in program.form.follow_ups if isinstance(each, ApprovalFollowUp))
    deciding = {code for each in approvals for code in _deciding(each)}
    doing = {each.who.group for each in program.form.follow_ups if isinstance(each, TaskFollowUp) and each.who.group}
    changing = {code for part in program.form.parts for code in part.groups}
    return asked | {code for each in accounts for code in each.groups} | deciding | doing | changing


def _groups_in(parts: Iterable[Typed]) -> Iterator[tree.Text]:
    for part in parts:
        if isinstance(part.node, tree.Call) and part.node.function == "INGROUP" and part.parts:
            group = part.parts[0].node
            if isinstance(group, tree.Text):
                yield group


def _hint(given: str, by_fold: dict[str, str]) -> str:
    near = difflib.get_close_matches(given.casefold(), by_fold, 1)
    if near:
        return f' Did you mean "{by_fold[near[0]]}"?'
    listed = ", ".join(f'"{code}"' for code in list(by_fold.values())[:_MOST_LISTED])
    return f" There is {listed}." if listed else " It has no groups yet."
