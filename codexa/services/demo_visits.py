"""Visits to the demo's forms: of those who saw them some did not answer, some left on the way, and the others sent."""

import datetime
from contextlib import nullcontext
from random import Random
from uuid import UUID

from codexa.core.definition.parts import Block, Field, Repeat
from codexa.core.program.program import Program
from codexa.core.program.steps import Step, steps_of
from codexa.services.visits import Told, Whence, count_over, keep
from codexa.store.database import Connection

_MOST_SENT = 400  # of the visits whose responses are there
_WIDTHS = (("narrow", 6, 0.62), ("medium", 1, 0.8), ("wide", 4, 1.0))  # how often, and how patient
_WHENCE = (
    (Whence(edition=1, way="link", page="", link=""), 5),
    (Whence(edition=1, way="script", page="http://127.0.0.1:8790/visit", link=""), 3),
    (Whence(edition=1, way="pop-up", page="http://127.0.0.1:8790/shop", link=""), 1),
)
_NEVER_STARTED, _LEFT = 0.55, 0.7  # as many as sent, on a narrow screen more


def visit(connection: Connection, program: Program, *, form: UUID, sent: int, days: int) -> None:
    """Make so many visits that ended in sending over so many days, and those that did not; count what is over."""
    random = Random(f"visits {program.form.name}")  # noqa: S311 - the same demo every time
    now = datetime.datetime.now(datetime.UTC)
    steps = [each for each in steps_of(program.form) if _fields(each)]
    if not steps:
        return
    for _ in range(min(sent, _MOST_SENT)):
        at = now - datetime.timedelta(days=random.random() ** 1.3 * days, hours=1)
        for far, share in ((len(steps), 1.0), (-1, _NEVER_STARTED), (None, _LEFT)):
            width, _often, patience = random.choices(_WIDTHS, [each[1] for each in _WIDTHS])[0]
            if far == len(steps) or random.random() < share * (1.6 - patience):
                reached = far if far is not None else min(int(random.expovariate(0.7)), len(steps) - 1)
                told = _told(random, steps, reached, width)
                whence = random.choices([each for each, _ in _WHENCE], [often for _, often in _WHENCE])[0]
                keep(connection, program, form, told, whence, at=at)
    count_over(lambda: nullcontext(connection))


def _fields(step: Step) -> list[Block]:
    return [block for block in step.asked if isinstance(block, Field | Repeat)]


def _told(random: Random, steps: list[Step], reached: int, width: str) -> Told:
    """Return a visit that came to the step of this place, past all of them where it sent, to none where it is -1."""
    sent = reached == len(steps)
    passed = steps[: max(reached, 0) + 1]
    last = passed[-1]
    spent = {step.id: max(2, round(random.lognormvariate(2.4, 0.6) * len(step.asked))) for step in passed}
    asked = [block.id for step in passed for block in _fields(step)]
    slips = random.choices((0, 1, 2), (5, 3, 1))[0] if reached >= 0 else 0
    return Told(
        id=UUID(int=random.getrandbits(128), version=4),
        turn=1,
        width=width,
        started=reached >= 0,
        sent=sent,
        place=last.id,
        # Later questions of a step are read by fewer.
        field="" if reached < 0 else _fields(last)[min(int(random.expovariate(0.8)), len(_fields(last)) - 1)].id,
        steps=spent,
        wrong=random.sample(asked, min(slips, len(asked))),
        seconds=sum(spent.values()),
    )
