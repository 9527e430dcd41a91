"""Anonymising responses: what is left of them, and all that else would tell of a person."""

from collections.abc import Collection, Sequence
from dataclasses import dataclass
from typing import Any
from uuid import UUID

from psycopg.types.json import Jsonb

from codexa.store.database import Connection, many
from codexa.store.queries import queries

_QUERIES = queries("anonymising")


@dataclass(frozen=True, kw_only=True, slots=True)
class Named:
    """A response as it is kept, before anything of it is forgotten."""

    number: int
    edition: int
    answers: dict[str, Any]
    computed: dict[str, Any]
    told: dict[str, Any]


def lock(connection: Connection, *, form: UUID, numbers: Sequence[int]) -> list[Named]:
    """Return those of a form's responses that can be anonymised, kept from others until the transaction ends."""
    return [Named(**row) for row in many(connection, _QUERIES["lock"], form=form, numbers=list(numbers))]


def replace(
    connection: Connection, *, form: UUID, left_over: Sequence[Named], kept_files: Collection[UUID], person: UUID | None
) -> list[UUID]:
    """Put what is left of responses in their place, forget all else, and return the ids of files to be deleted."""
    numbers = [each.number for each in left_over]
    content = [
        {"number": each.number, "answers": each.answers, "computed": each.computed, "told": each.told}
        for each in left_over
    ]
    which = {"form": form, "numbers": numbers}
    connection.execute(_QUERIES["replace"], {"form": form, "left_over": Jsonb(content)})
    for name in ("forget_words", "forget_runs", "forget_kept", "forget_links"):
        connection.execute(_QUERIES[name], which)
    files = many(connection, _QUERIES["forget_files"], **which, kept=list(kept_files))
    connection.execute(_QUERIES["happened"], {**which, "person": person})
    return [row["id"] for row in files]
