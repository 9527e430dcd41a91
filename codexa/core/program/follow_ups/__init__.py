"""Which follow-ups are due, with everything worked out: recipients, texts, values. Jobs only carry them out."""

from collections.abc import Iterator
from dataclasses import dataclass
from typing import Any, get_args

from codexa.core.form.follow_ups import EmailFollowUp, FollowUp, Moment, WebhookFollowUp
from codexa.core.program.evaluate import State
from codexa.core.program.findings import Finding
from codexa.core.program.follow_ups.email import EmailKind
from codexa.core.program.follow_ups.kind import FollowUpKind, holds
from codexa.core.program.follow_ups.webhook import WebhookKind
from codexa.core.program.program import Program

KINDS: dict[type[FollowUp], FollowUpKind[Any]] = {EmailFollowUp: EmailKind(), WebhookFollowUp: WebhookKind()}
MOMENTS: tuple[Moment, ...] = get_args(Moment)


@dataclass(frozen=True, kw_only=True, slots=True)
class Due:
    """What a follow-up does, as JSON that a job carries out; `told` says it in one line."""

    follow_up: str
    name: str
    moment: str
    kind: str
    content: dict[str, Any]
    told: str


def due(state: State, moment: Moment) -> list[Due]:
    """Return what an event of this response sets off, in the order of the form; the state has the response's number."""
    found = []
    for each in state.program.form.follow_ups:
        if not each.active or each.on != moment or not holds(state, each.id, "only_when"):
            continue
        kind = KINDS[type(each)]
        content = kind.content(state, each)
        if content is not None:
            told = kind.told(content)
            name = each.name or kind.title
            found.append(Due(follow_up=each.id, name=name, moment=moment, kind=each.kind, content=content, told=told))
    return found


def follow_up_findings(program: Program) -> Iterator[Finding]:
    """Yield what a follow-up lacks, or can't do."""
    for each in program.form.follow_ups:
        if each.active:
            yield from KINDS[type(each)].findings(program, each)
