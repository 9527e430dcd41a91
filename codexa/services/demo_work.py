"""How the demo's team works with its responses: statuses, who has what in hand, notes, and saved views."""

from collections.abc import Sequence
from random import Random
from uuid import UUID

from codexa.services.response_set import marking, views
from codexa.store.database import Connect
from codexa.store.sessions import SignedIn

_VISIT, _TALKS = "plan_a_visit.json", "talk_feedback.json"
_STATUSES = (
    {"code": "to-answer", "label": "To answer", "colour": "#B83218"},
    {"code": "asked-back", "label": "Asked back", "colour": "#8A5D00"},
    {"code": "confirmed", "label": "Confirmed", "colour": "#0F6B6B"},
    {"code": "came", "label": "Came", "colour": "#55636F"},
)
_TALKS_COMPARED = {
    "shown": "charts",
    "charts": [["liked", "talk"], ["liked", ""], ["level", ""], ["response.received", ""], ["level", "talk"]],
}
_VIEWS = {
    _VISIT: (
        (
            "Large groups to answer",
            {
                "filter": {
                    "conditions": [
                        {"column": "b2adults", "how": "at_least", "values": ["12"]},
                        {"column": "response.status", "how": "any_of", "values": ["to-answer", "asked-back"]},
                    ]
                },
                "sorts": ["-b2adults"],
            },
            False,
        ),
        ("Board", {"shown": "board", "cards": ["c1name", "b1kind", "b2adults", "c5day"]}, False),
    ),
    _TALKS: (("Talks compared", _TALKS_COMPARED, True),),
}


def work_with(connect: Connect, *, file: str, form: UUID, team: Sequence[SignedIn], count: int) -> None:
    """Mark a form's responses as its team would have, and save its views; other forms stay as they are."""
    if file == _VISIT:
        _mark(connect, form, team, count)
    for name, content, opens_first in _VIEWS.get(file, ()):
        views.save(connect, who=team[0], form=form, name=name, content=dict(content), opens_first=opens_first)


def _mark(connect: Connect, form: UUID, team: Sequence[SignedIn], count: int) -> None:
    """The older a response, the further it is; the newest nobody has looked at."""
    views.set_statuses(connect, who=team[0], form=form, statuses=_STATUSES)
    random = Random("work")  # noqa: S311 - the same demo every time
    stages: dict[str, list[int]] = {each["code"]: [] for each in _STATUSES}
    for number in range(1, count - 5):
        age = 1 - number / count
        place = 3 if age > 0.35 else 2 if random.random() < 0.4 + age else 1 if random.random() < 0.4 else 0
        stages[_STATUSES[place]["code"]].append(number)
    for at, (status, numbers) in enumerate(stages.items()):
        who = team[at % 2]
        marking.mark(connect, who=who, form=form, numbers=numbers, kind="status", value=status)
    open_ones = [*stages["to-answer"], *stages["asked-back"]]
    for at, person in enumerate(team[:2]):
        marking.mark(
            connect, who=team[0], form=form, numbers=open_ones[at::2], kind="person", value=str(person.person_id)
        )
    marking.mark(connect, who=team[0], form=form, numbers=open_ones[::7], kind="tag", value="press")
    for number in stages["asked-back"][:3]:
        marking.note(
            connect, who=team[1], form=form, number=number, words="Called: they come in two cars, not by coach."
        )
