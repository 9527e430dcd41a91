"""A task: something to do for somebody of the team, with the response beside it."""

from collections.abc import Iterator
from typing import Any

from codexa.core.form.follow_ups import TaskFollowUp
from codexa.core.program.evaluate import State
from codexa.core.program.findings import Finding, error
from codexa.core.program.follow_ups.approval import who_is_meant
from codexa.core.program.follow_ups.kind import FollowUpKind
from codexa.core.program.program import Program

_MOST_WORDS = 300  # characters


class TaskKind(FollowUpKind[TaskFollowUp]):
    """Task."""

    kind_name = "task"
    title = "Task"

    def content(self, state: State, follow_up: TaskFollowUp) -> dict[str, Any] | None:
        """What is to be done, by whom, within how many days; nothing where nobody is meant."""
        who = who_is_meant(state, follow_up.id, "who", follow_up.who)
        words = " ".join(state.text(follow_up.id, "words", follow_up.words).split())[:_MOST_WORDS]
        return {"words": words, "who": who, "days": follow_up.days} if who else None

    def told(self, content: dict[str, Any]) -> str:
        """What is to be done."""
        return f"a task: {content['words']}"

    def findings(self, program: Program, follow_up: TaskFollowUp) -> Iterator[Finding]:
        """What is needed, and not said."""
        owner = follow_up.id
        if not (follow_up.who.person or follow_up.who.group or follow_up.who.address.strip()):
            yield error("nobody", "It is not said who has this to do.", "Choose a person or a group.", owner, "who")
        if not follow_up.words.strip():
            yield error("no_words", "It is not said what is to be done.", "Write it in a few words.", owner, "words")
