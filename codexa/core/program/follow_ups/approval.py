"""An approval: who decides about a response, in which steps, worked out with what was answered."""

from collections.abc import Iterator, Mapping
from typing import Any

from codexa.core.form.follow_ups import ApprovalFollowUp, ApprovalStep, Decider
from codexa.core.formula import convert
from codexa.core.formula.types import Kind
from codexa.core.formula.values import Failed
from codexa.core.program.evaluate import State
from codexa.core.program.findings import Finding, doubt, error
from codexa.core.program.follow_ups.kind import FollowUpKind, holds
from codexa.core.program.program import Program

_TEXTS = (Kind.TEXT, Kind.ANY, Kind.BLANK)
_MOST_SUBJECT = 200  # characters


class ApprovalKind(FollowUpKind[ApprovalFollowUp]):
    """Approval."""

    kind_name = "approval"
    title = "Approval"

    def content(self, state: State, follow_up: ApprovalFollowUp) -> dict[str, Any] | None:
        """The steps that apply, each with who decides there; nothing where none does."""
        steps = [
            _step(state, follow_up, at, step)
            for at, step in enumerate(follow_up.steps)
            if holds(state, follow_up.id, f"steps.{at}.only_when")
        ]
        if not steps:
            return None
        subject = " ".join(state.text(follow_up.id, "subject", follow_up.subject).split())[:_MOST_SUBJECT]
        return {"subject": subject, "steps": steps}

    def told(self, content: dict[str, Any]) -> str:
        """How many steps it has, and what it is about."""
        count = len(content["steps"])
        steps = "" if count == 1 else f" in {count} steps"
        return f"an approval{steps}" + (f": {content['subject']}" if content["subject"] else "")

    def findings(self, program: Program, follow_up: ApprovalFollowUp) -> Iterator[Finding]:
        """What is needed to decide, and not said."""
        if not follow_up.steps:
            yield error("no_step", "Nobody is asked to decide.", "Add a step.", follow_up.id, "steps")
        for at, step in enumerate(follow_up.steps):
            if not any(_is_somebody(each) for each in step.deciders):
                message = f"It is not said who decides in step {at + 1}."
                yield error("no_decider", message, "Add a person or a group.", follow_up.id, f"steps.{at}.deciders")
            yield from _of_time(follow_up, at, step)
            for index in range(len(step.deciders)):
                yield from _of_address(program, follow_up, f"steps.{at}.deciders.{index}.address")


def _of_time(follow_up: ApprovalFollowUp, at: int, step: ApprovalStep) -> Iterator[Finding]:
    owner, setting = follow_up.id, f"steps.{at}"
    if step.remind is not None and (step.hours is None or step.remind >= step.hours):
        message = f"In step {at + 1} people would be reminded before they are asked."
        yield doubt("no_reminder", message, "Give them more hours to decide.", owner, f"{setting}.remind")
    if _is_somebody(step.stand_in) and step.hours is None:
        message = f"Who stands in for step {at + 1} never does: it has no end."
        yield doubt("no_stand_in", message, "Say within how many hours it is decided.", owner, f"{setting}.hours")


def _is_somebody(decider: Decider) -> bool:
    return bool(decider.person or decider.group or decider.address.strip())


def _of_address(program: Program, follow_up: ApprovalFollowUp, setting: str) -> Iterator[Finding]:
    formula = program.formula(follow_up.id, setting)
    if formula is not None and formula.compiled.type.kind not in _TEXTS:
        message = f"Who decides is known by an e-mail address, and this gives {formula.compiled.type.name}."
        yield error("wrong_type", message, "Name a field of an address.", follow_up.id, setting)


def _step(state: State, follow_up: ApprovalFollowUp, at: int, step: ApprovalStep) -> dict[str, Any]:
    deciders = [
        who_is_meant(state, follow_up.id, f"steps.{at}.deciders.{index}", decider)
        for index, decider in enumerate(step.deciders)
        if holds(state, follow_up.id, f"steps.{at}.deciders.{index}.when")
    ]
    stand_in = who_is_meant(state, follow_up.id, f"steps.{at}.stand_in", step.stand_in)
    return {
        "name": step.name or (f"Step {at + 1}" if len(follow_up.steps) > 1 else ""),
        "deciders": [each for each in deciders if each],
        "stand_in": [stand_in] if stand_in else [],
        "every": step.every,
        "hours": step.hours,
        "remind": step.remind,
    }


def who_is_meant(state: State, owner: str, path: str, decider: Decider) -> dict[str, str]:
    """Return whom a setting of a follow-up means: a person by id, a group by code, or an address; {} for nobody."""
    if decider.person:
        return {"person": decider.person}
    if decider.group:
        return {"group": decider.group}
    formula = state.program.formula(owner, f"{path}.address")
    value = None if formula is None else formula.compiled.run(state.values, state.context)
    address = "" if value is None or isinstance(value, Failed) else convert.text(value).strip()
    return {"address": address} if address else {}


def decider_findings(follow_up: ApprovalFollowUp, people: Mapping[str, str]) -> Iterator[Finding]:
    """Yield an error for each decider by id who is not among the team's `people`."""
    for at, step in enumerate(follow_up.steps):
        for each in (*step.deciders, step.stand_in):
            if each.person and each.person not in people:
                message = f"Somebody who decides in step {at + 1} is not in the team any more."
                yield error("no_such_person", message, "Choose somebody else.", follow_up.id, f"steps.{at}.deciders")
