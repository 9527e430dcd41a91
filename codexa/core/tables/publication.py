"""What anybody may read of a table: its published records, with the columns that were chosen and no others."""

from collections.abc import Mapping
from dataclasses import dataclass
from datetime import datetime
from typing import Annotated, Any

from pydantic import Field as Setting
from pydantic import StringConstraints

from codexa.core.definition.parts import Identifier, OptionalIdentifier, Part, PlainLabel
from codexa.core.form.known_tables import MAX_TABLE_COLUMNS

Address = Annotated[str, StringConstraints(pattern=r"^[a-z0-9]+(-[a-z0-9]+)*$", max_length=60)]


class Publication(Part):
    """How a table's records are published: at which `address` of the team, under which title, with which columns.

    Their order is the one in which they are read. `author` is the column that says who wrote a record, "" for none.
    With `at_once` a new record is published as it is made; else it waits until somebody of the team lets it go.
    """

    address: Address
    title: PlainLabel = ""
    columns: Annotated[tuple[Identifier, ...], Setting(max_length=MAX_TABLE_COLUMNS)] = ()
    author: OptionalIdentifier = ""
    at_once: bool = False


@dataclass(frozen=True, kw_only=True, slots=True)
class PublishedCell:
    """What stands in a column of a published record: for programs (`value`) and as people read it (`text`).

    `pictures` are the ids of files in it of which small pictures are shown.
    """

    key: str
    label: str
    value: str
    text: str
    pictures: tuple[str, ...] = ()


@dataclass(frozen=True, kw_only=True, slots=True)
class PublishedRecord:
    """A published record: number and name, who wrote it ("" for nobody), since when, and what it says; no blanks."""

    number: int
    name: str
    author: str
    published_at: datetime
    changed_at: datetime
    cells: tuple[PublishedCell, ...]


@dataclass(frozen=True, kw_only=True, slots=True)
class KeptContent:
    """A record as it is kept, and since when it is published."""

    number: int
    name: str
    kept: Mapping[str, Any]
    published_at: datetime
    changed_at: datetime
