"""Tasks of a team's people: kept by a follow-up, done with a remark, which stands in the response's timeline."""

from pathlib import Path

from codexa.services.errors import DecidedMeanwhileError, NotAllowedError
from codexa.store import responses
from codexa.store import tasks as store
from codexa.store.database import Connect, Connection
from codexa.store.runs import Run
from codexa.store.sessions import SignedIn
from codexa.store.tasks import OpenTask

_MOST = 200


def keep(connection: Connection, run: Run, _folder: Path) -> str:
    """Keep what a run asks for, and return that in one line."""
    key = f"{run.follow_up} {run.moment} {run.again}"
    store.insert(connection, form=run.form_id, number=run.number, run=key, content=run.content)
    return f"to do: {run.content['words']}"


def open_tasks(connect: Connect, *, who: SignedIn) -> list[OpenTask]:
    """Return what somebody has to do, what is due first."""
    with connect() as connection:
        return _open(connection, who)


def _open(connection: Connection, who: SignedIn) -> list[OpenTask]:
    return store.open_of(connection, team=who.team_id, person=who.person_id, owner=who.role == "owner", most=_MOST)


def done(connect: Connect, *, who: SignedIn, task: int, remark: str) -> None:
    """Note that something was done. Raises NotAllowedError where it is for others, DecidedMeanwhileError once more."""
    with connect() as connection:
        mine = {each.id for each in _open(connection, who)}
        found = store.done(connection, team=who.team_id, task=task, person=who.person_id, remark=remark.strip())
        if found is None:
            raise DecidedMeanwhileError("Somebody has done this meanwhile. Nothing was changed.")
        if task not in mine:
            raise NotAllowedError("This is for others to do. Nothing was changed.")
        form, number, words = found
        responses.add_event(
            connection,
            form=form,
            number=number,
            kind="task done",
            key=str(task),
            who="person",
            person=who.person_id,
            data={"name": words, "remark": remark.strip()},
        )
