"""Keeping what a response says as records of the team's tables: all of a follow-up's, or none."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from pathlib import Path
from typing import Any
from uuid import UUID

from codexa.core.fields import field_type_of
from codexa.core.form.known_tables import label_of
from codexa.core.look_ups import Condition, Every, Is, IsBlank, LookUp, keys_of
from codexa.core.tables.table import Table
from codexa.services.follow_ups.outcomes import NeverError
from codexa.services.tables import files
from codexa.services.tables.looking_up import tables_beside
from codexa.services.tables.records import Changing, Typed
from codexa.services.tables.tables import OpenedTable, opened
from codexa.store import record_files, tables
from codexa.store.database import Connection
from codexa.store.runs import Run

_Numbers = list[int | None]


@dataclass(frozen=True, kw_only=True, slots=True)
class Keeping:
    """A run whose records are kept: in which transaction, with which folder of files."""

    connection: Connection
    run: Run
    folder: Path


def keep(connection: Connection, run: Run, folder: Path) -> str:
    """Make and change the records that a run says, in the transaction that ends it; return what was done, in words.

    `folder` is that of files: records have copies of those that the response has brought.

    Raises NeverError where one can't be kept, or two are found where one is meant; then nothing may be kept.
    """
    keeping = Keeping(connection=connection, run=run, folder=folder)
    steps = run.content["steps"]
    known = _locked(connection, run, steps)
    made: dict[str, _Numbers] = {}
    told = []
    for step in steps:
        table = known[UUID(step["table"])]
        records = [_answers(step, at, made) for at in range(len(step["records"]))]
        numbers = _found(connection, step, table, records)
        if step["way"] == "change" and None in numbers:
            raise NeverError(f"No record of {step['name']} was found that could be changed.")
        kept = _kept(keeping, step, table, numbers, records)
        for number, before in zip(kept, numbers, strict=True):
            kind = "made" if before is None else "changed"
            tables.note_origin(
                connection, table=table.id, number=number, form=run.form_id, response=run.number, kind=kind
            )
            told.append(f"record {number} of {step['name']} {kind}")
        made[step["id"]] = list(kept)
    return "; ".join(told) or "nothing to keep"


def _locked(connection: Connection, run: Run, steps: Sequence[Mapping[str, Any]]) -> dict[UUID, OpenedTable]:
    """Return the tables by id, which nobody else changes until the transaction ends; in one order for all."""
    names = {UUID(each["table"]): each["name"] for each in steps}
    found = {}
    for table_id in sorted(names):
        row = tables.lock_table_of_form(connection, form=run.form_id, table=table_id)
        if row is None:
            raise NeverError(f"The table {names[table_id]} is not there any more.")
        found[table_id] = opened(row)
    return found


def _answers(step: Mapping[str, Any], at: int, made: Mapping[str, _Numbers]) -> dict[str, Any]:
    """Return what is entered into a record, with the record above it that it belongs to."""
    record = step["records"][at]
    if record["wrong"]:
        raise NeverError(f"{step['name']}, {record['wrong'][0]}")
    if not step["under"]:
        return dict(record["cells"])
    above = made.get(step["under"], [])
    number = above[0] if len(above) == 1 else above[at] if at < len(above) else None
    if number is None:
        raise NeverError(f"There is no record that this one of {step['name']} could belong to.")
    return {**record["cells"], step["linked_by"]: str(number)}


def _found(
    connection: Connection, step: Mapping[str, Any], opened_table: OpenedTable, records: Sequence[Mapping[str, Any]]
) -> _Numbers:
    """Return the records that are meant; None where there is none, or one is to be made in any case."""
    if step["way"] == "make":
        return [None] * len(records)
    meant = [_meant(step, opened_table.table, each) for each in records]
    if any(each in meant[:at] for at, each in enumerate(meant)):
        raise NeverError(f"Two rows mean the same record of {step['name']}.")
    return [_one(connection, step, opened_table, each) for each in meant]


def _meant(step: Mapping[str, Any], table: Table, answers: Mapping[str, Any]) -> Condition:
    """Return what tells the record that is meant from all others."""
    columns = [table.columns[each] for each in step["found_by"] if each in table.columns]
    blank = [label_of(each) for each in columns if answers.get(each.id) is None]
    if blank or not columns:
        raise NeverError(f"{', '.join(blank) or 'What tells records apart'} is blank: no record can be found by it.")
    return Every(tuple(_is(table, each.id, answers[each.id]) for each in columns))


def _one(
    connection: Connection, step: Mapping[str, Any], opened_table: OpenedTable, condition: Condition
) -> int | None:
    asked = LookUp(table=opened_table.id.hex, condition=condition, first=2)
    found = tables_beside(connection, opened_table.id, offered_only=False).look_up(asked).listed
    if len(found) > 1:
        columns = opened_table.table.columns
        labels = " and ".join(label_of(columns[each]) for each in step["found_by"] if each in columns)
        numbers = " and ".join(str(each.number) for each in found)
        raise NeverError(f"Records {numbers} of {step['name']} have the same {labels}: it is not clear which is meant.")
    return found[0].number if found else None


def _is(table: Table, column_id: str, answer: Any) -> Condition:
    column = table.columns[column_id]
    raw = answer.strip() if isinstance(answer, str) else answer
    value = field_type_of(column).parse(raw, column, table.form.region)
    keys = tuple(str(each) for each in value) if column.type == "record_choice" else keys_of(value)
    return IsBlank(column_id) if value is None else Is(column_id, keys)


def _kept(
    keeping: Keeping,
    step: Mapping[str, Any],
    opened_table: OpenedTable,
    numbers: Sequence[int | None],
    records: Sequence[Mapping[str, Any]],
) -> list[int]:
    connection = keeping.connection
    table = opened_table.table
    with_files = [
        files.copies(connection, keeping.folder, form=keeping.run.form_id, table=table, answers=answers)
        for answers in records
    ]
    changes = [
        Typed(number=number, revision=None, cells={}, answers=answers)
        for number, (answers, _) in zip(numbers, with_files, strict=True)
    ]
    rows, wrong = Changing(connection, opened_table.id, table, None).keep(changes)
    if wrong:
        column = table.columns.get(wrong[0].column)
        label = "" if column is None else f"{label_of(column)}: "
        raise NeverError(f"{step['name']}, {label}{wrong[0].message}")
    for at, (_, copied) in enumerate(with_files):
        for each in copied:
            record_files.insert_file(connection, each, table=opened_table.id, number=rows[at].number)
    return [rows[at].number for at in range(len(changes))]
