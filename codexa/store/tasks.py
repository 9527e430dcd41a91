"""Tasks: what people of a team have to do about responses."""

from dataclasses import dataclass
from datetime import date, datetime
from typing import Any
from uuid import UUID

from codexa.store.database import Connection, many, one
from codexa.store.queries import queries

_QUERIES = queries("tasks")


@dataclass(frozen=True, kw_only=True, slots=True)
class OpenTask:
    """Something to do: about which response, until which day, and whether that is over."""

    id: int
    form_id: UUID
    form_name: str
    number: int
    words: str
    due_on: date | None
    made_at: datetime
    late: bool | None


def insert(connection: Connection, *, form: UUID, number: int, run: str, content: dict[str, Any]) -> None:
    """Keep something to do, as the core has worked it out, once for each run."""
    who = {name: content["who"].get(name) for name in ("person", "group", "address")}
    known = {"form": form, "number": number, "run": run, "words": content["words"], "days": content["days"]}
    connection.execute(_QUERIES["insert_task"], known | who)


def open_of(connection: Connection, *, team: UUID, person: UUID, owner: bool, most: int) -> list[OpenTask]:
    """Return what a person has to do, what is due first."""
    rows = many(connection, _QUERIES["open_of"], team=team, person=person, owner=owner, most=most)
    return [OpenTask(**row) for row in rows]


def done(connection: Connection, *, team: UUID, task: int, person: UUID, remark: str) -> tuple[UUID, int, str] | None:
    """Note that somebody has done it; return of which form and response it was, and its words; None once more."""
    row = one(connection, _QUERIES["done"], team=team, task=task, person=person, remark=remark)
    return None if row is None else (row["form_id"], row["number"], row["words"])
