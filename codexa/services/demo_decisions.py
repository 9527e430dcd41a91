"""What the demo's team has to decide or fill in, and has decided: the newest responses of forms that ask for it."""

from dataclasses import asdict
from uuid import UUID

from codexa.core.program.follow_ups import due
from codexa.services.approvals import asking, deciding
from codexa.services.approvals.deciding import Verdict
from codexa.services.parts import standing
from codexa.services.payments.settling import Way
from codexa.services.received import state_of_row
from codexa.store import approvals as store
from codexa.store import responses
from codexa.store.sessions import SignedIn

_ASKED = 9  # of the newest responses
# What was said to the first of them, by the turn of who says it.
_SAID: tuple[tuple[Verdict, str], ...] = (
    ("approve", "Welcome. Bring a red torch."),
    ("approve", ""),
    ("deny", "The dome is shut that week: the new drive is fitted."),
    ("approve", "We keep the small room for the children."),
)


def decide(way: Way, *, form: UUID, count: int, team: list[SignedIn]) -> None:
    """Ask for decisions about a form's newest responses, and say what has been said about the first of them."""
    asked = []
    for number in range(max(1, count - _ASKED + 1), count + 1):
        with way.connect() as connection:
            row = responses.find_received(connection, form=form, number=number)
        if row is None:
            continue
        state = state_of_row(way, form, row, for_team=True)
        with way.connect() as connection:
            standing.begin(connection, state, form, number)
        found = due(state, "complete")
        for each in (one for one in found if one.kind == "approval"):
            with way.connect() as connection:
                asking.begin(connection, form=form, number=number, due=asdict(each))
                asked += [each for each, _, _ in store.open_of_response(connection, form=form, number=number)]
    for turn, (approval, (verdict, remark)) in enumerate(zip(asked, _SAID, strict=False)):
        deciding.decide(way, who=team[turn % 2], approval=approval, step=0, verdict=verdict, remark=remark)
