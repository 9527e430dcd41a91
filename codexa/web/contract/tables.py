"""Tables of the team's data, and their records."""

from datetime import datetime
from typing import Annotated, Any, Literal
from uuid import UUID

from annotated_types import Len
from pydantic import Field as Setting
from pydantic import StringConstraints

from codexa.core.definition.parts import GroupCode
from codexa.core.form.known_tables import KnownTable
from codexa.core.tables.publication import Publication
from codexa.services.tables.rights import ChangedBy, SeenBy
from codexa.web.contract.importing import Header, ImportReply, RefusedLineReply, TableBytes
from codexa.web.contract.message import Message
from codexa.web.contract.response_set import AskedColumnReply

ColumnId = Annotated[str, StringConstraints(pattern=r"^[a-z0-9]{1,32}$")]
# As much as a long text may have, and more than any other cell.
CellText = Annotated[str, StringConstraints(max_length=20_000)]
RecordNumbers = Annotated[list[int], Setting(min_length=1, max_length=2_000)]


class TableFace(Message):
    """A table on the desk."""

    id: UUID
    name: str
    columns: int
    records: int
    changed_at: datetime


class TablesReply(Message):
    """The team's tables, by name."""

    tables: list[TableFace]


class TableRightsRequest(Message):
    """From which role on the people of the team see a table, and change its records; and which groups besides."""

    seen_by: SeenBy
    changed_by: ChangedBy
    seen_groups: Annotated[list[GroupCode], Len(max_length=200)] = Setting([])
    changed_groups: Annotated[list[GroupCode], Len(max_length=200)] = Setting([])


class NewTableRequest(Message):
    """A table to make: its definition, of which all but the name can be left out."""

    definition: dict[str, Any]


class MadeTableReply(Message):
    """The table that was made."""

    id: UUID


class TableOfFormReply(Message):
    """The table that was made of a form, and the labels of what it has no column for."""

    id: UUID
    left_out: list[str]


class SaveTableRequest(Message):
    """Other columns or another name for a table; `revision` is the one that was seen."""

    revision: int
    definition: dict[str, Any]


class TableColumnReply(Message):
    """A column: its type, what people call it, and how a cell of it is edited.

    `options` are the labels that a cell can have; `computed` where nobody types it: a formula gives it, or it has
    `files`; `once` where no two records have the same; `table` is the one whose records it names.
    """

    id: str
    key: str
    type: str
    label: str
    numeric: bool
    computed: bool
    files: bool
    required: bool
    once: bool
    options: list[str]
    table: UUID | None


class TableReply(Message):
    """A table: its definition, its columns as the grid needs them, and what its records can be `asked` for.

    `named_by` is the column that names a record, `known` what a form that offers its records is told of it. `published`
    says what anybody may read of it, at the address `read_at`, to which ".json" and ".atom" can be added. It is seen,
    and its records changed, by everybody of the team from a role on; `may_change` says whether whoever asks may.
    """

    id: UUID
    revision: int
    definition: dict[str, Any]
    columns: list[TableColumnReply]
    asked: list[AskedColumnReply]
    named_by: str
    known: KnownTable
    seen_by: SeenBy
    changed_by: ChangedBy
    seen_groups: list[str]
    changed_groups: list[str]
    may_change: bool
    published: Publication | None
    read_at: str | None


class RecordFileReply(Message):
    """A file in a column of a record; `is_picture` where there is a small picture of it to look at."""

    id: str
    name: str
    is_picture: bool


class RecordReply(Message):
    """A record as people read it, and as they would type it again, by column id; blanks are left out. So its `files`.

    What is not `offered` stays where it is named, and can't be chosen any more. `published_at` is since when anybody
    may read it, None where nobody else does.
    """

    number: int
    revision: int
    name: str
    cells: dict[str, str]
    typed: dict[str, str]
    files: dict[str, list[RecordFileReply]]
    offered: bool
    published_at: datetime | None


class RecordsReply(Message):
    """Records from a place on, of `count` that there are."""

    count: int
    records: list[RecordReply]


class TypedRecord(Message):
    """What was typed into a record's cells, by column id, "" to empty one; `number` None for a new record."""

    number: int | None = None
    revision: int | None = None
    cells: Annotated[dict[ColumnId, CellText], Setting(max_length=100)]


class ChangeRecordsRequest(Message):
    """What was typed or pasted, record by record."""

    changes: Annotated[list[TypedRecord], Setting(min_length=1, max_length=2_000)]


class WrongCellReply(Message):
    """What is wrong with a cell: `at` is the place of its change; `column` "" where it is the whole record."""

    at: int
    column: str
    message: str


class ChangedRecordsReply(Message):
    """The records as they are kept now, by the place of their change, None where something is wrong; and what is."""

    records: list[RecordReply | None]
    wrong: list[WrongCellReply]


class RecordNumbersRequest(Message):
    """Records by number."""

    numbers: RecordNumbers


class RecordNumbersReply(Message):
    """The records that it was done to."""

    numbers: list[int]


class RemoveRecordsRequest(Message):
    """Records to remove, and what becomes of those that others name: "ask" refuses and tells who does."""

    numbers: RecordNumbers
    way: Literal["ask", "empty", "keep"] = "ask"


class RemovedRecordsReply(Message):
    """The records that were removed, and those that stay and are offered no more."""

    removed: list[int]
    kept: list[int]


class OfferRecordsRequest(Message):
    """Records that are offered to be chosen from now on, or no more."""

    numbers: RecordNumbers
    offered: bool


class RecordNamesReply(Message):
    """What records are called, by number, and whether there are more than so many."""

    names: list[str]
    more: bool


class PublishRecordsRequest(Message):
    """Records that anybody may read from now on, or no more."""

    numbers: RecordNumbers
    published: bool


class RecordChangeReply(Message):
    """What was done to a record; of a change the cells as they were before."""

    kind: str
    at: datetime
    person: str | None
    cells: dict[str, str]


class RecordHistoryReply(Message):
    """What happened to a record, newest first."""

    changes: list[RecordChangeReply]


class NamingReply(Message):
    """How many records of a table name a record, and by which of its columns."""

    table: UUID
    name: str
    column: str
    count: int


class OriginReply(Message):
    """A response that made or changed a record."""

    form: UUID
    name: str
    number: int
    kind: str
    at: datetime


class FormNamedReply(Message):
    """A form, by id and name."""

    id: UUID
    name: str


class RecordNamedReply(Message):
    """What names a record, which responses made or changed it, and which forms offer it to visitors now."""

    naming: list[NamingReply]
    forms: list[FormNamedReply]
    responses: list[OriginReply]


class FileWriting(Message):
    """How a file writes: decimals with a comma or a point, the day or the month first."""

    comma: bool
    days: Literal["day", "month"]


# By header: the id of a column, "new" for one that the header becomes, "" to leave it out.
FileColumns = Annotated[dict[Header, Annotated[str, StringConstraints(max_length=32)]], Setting(max_length=400)]


class PlanRecordsRequest(Message):
    """A CSV or XLSX file in base64 (RFC 4648), what its headers are, and how it writes; None for what is likely."""

    file: TableBytes
    columns: FileColumns | None = None
    writing: FileWriting | None = None


class PlannedColumnReply(Message):
    """What a header of the file is, and of which type a new column of it would be."""

    header: str
    column: str
    type: str


class PlanRecordsReply(Message):
    """What a file would bring; of the lines that were `tried` those that are wrong, and the first of them."""

    columns: list[PlannedColumnReply]
    lines: int
    empty: int
    writing: FileWriting
    tried: int
    wrong_count: int
    wrong: list[RefusedLineReply]


class ImportRecordsRequest(Message):
    """A file to take in; with a `key_column` a line changes the record that has its value."""

    file: TableBytes
    name: Annotated[str, StringConstraints(min_length=1, max_length=200)]
    columns: FileColumns
    writing: FileWriting
    key_column: Annotated[str, StringConstraints(max_length=32)] = ""


class TableOfFileRequest(Message):
    """A file to make a table of."""

    file: TableBytes
    name: Annotated[str, StringConstraints(min_length=1, max_length=200, pattern=r"\S")]


class TableImportsReply(Message):
    """The files that were taken in of late, with the lines that were refused."""

    imports: list[ImportReply]
