"""Files that answers point to: what is known of each is put in its place, and a response's own are found again."""

from collections.abc import Iterator, Mapping
from typing import Any
from uuid import UUID

from codexa.core.program.program import Program
from codexa.store import uploads
from codexa.store.database import Connection
from codexa.store.uploads import Upload

_MOST_FILES = 2_000  # in one set of answers; what is named beyond is unknown


def with_files(
    connection: Connection, program: Program, form: UUID, visit: str, answers: Mapping[str, Any]
) -> dict[str, Any]:
    """Return the answers with what is known of each file in place of its id.

    Only what the database knows of this visit is believed; an id that it does not know is refused by the field.
    """
    blocks = program.file_fields
    if not blocks:
        return dict(answers)
    ids = [each for raw in _file_answers(program, blocks, answers) for each in _ids_in(raw)][:_MOST_FILES]
    known = uploads.find_uploads(connection, form=form, visit=visit, ids=ids) if ids else {}
    return _filled(program, blocks, answers, known)


def with_own_files(
    connection: Connection,
    program: Program,
    answers: Mapping[str, Any],
    *,
    kept: Mapping[str, Any],
    form: UUID,
    visit: str,
) -> dict[str, Any]:
    """Return the same for a response that is `kept`, which knows its own files besides."""
    blocks = program.file_fields
    if not blocks:
        return dict(answers)
    own = {
        each["id"]: Upload(
            id=UUID(each["id"]),
            block_id=address.rsplit("/", 1)[-1],
            name=each["name"],
            size=each["size"],
            media_type=each["type"],
            has_thumbnail=False,
        )
        for address, files in _kept_files(program, blocks, kept)
        for each in files
    }
    named = {str(each) for raw in _file_answers(program, blocks, answers) for each in _ids_in(raw)}
    others = [UUID(each) for each in named - own.keys()][:_MOST_FILES]
    arrived = uploads.find_uploads(connection, form=form, visit=visit, ids=others) if others else {}
    return _filled(program, blocks, answers, own | arrived)


def with_ids(program: Program, answers: Mapping[str, Any]) -> dict[str, Any]:
    """Return answers with each file's id in place of what is known of it, as a browser sends them."""
    blocks = program.file_fields

    def ids(block: str, value: Any) -> Any:
        return [each["id"] for each in value] if block in blocks and value else value

    def row_ids(row: Any) -> Any:
        return {**row, "values": {block: ids(block, value) for block, value in row["values"].items()}}

    return {
        block: [row_ids(row) for row in value] if block in program.repeats and value else ids(block, value)
        for block, value in answers.items()
    }


def files_in(program: Program, kept: Mapping[str, Any]) -> dict[str, list[UUID]]:
    """Return the ids of the files in answers as they are kept, by address: a block's id, or "repeat/row/block"."""
    blocks = program.file_fields
    return {address: [UUID(each["id"]) for each in files] for address, files in _kept_files(program, blocks, kept)}


def _kept_files(program: Program, blocks: frozenset[str], kept: Mapping[str, Any]) -> Iterator[tuple[str, Any]]:
    yield from ((block, kept[block]) for block in blocks if block in kept)
    for repeat in program.repeats:
        for row in kept.get(repeat, ()):
            files = ((block, given) for block, given in row["values"].items() if block in blocks)
            yield from ((f"{repeat}/{row['id']}/{block}", given) for block, given in files)


def _file_answers(program: Program, blocks: frozenset[str], answers: Mapping[str, Any]) -> list[Any]:
    found = [answers[block] for block in blocks if block in answers]
    for row in _rows_of(program, answers):
        found += [raw for block, raw in row["values"].items() if block in blocks]
    return found


def _rows_of(program: Program, answers: Mapping[str, Any]) -> list[dict[str, Any]]:
    lists = [answers[repeat] for repeat in program.repeats if isinstance(answers.get(repeat), list)]
    return [row for rows in lists for row in rows if isinstance(row, dict) and isinstance(row.get("values"), dict)]


def _ids_in(raw: Any) -> list[UUID]:
    ids = []
    for each in raw if isinstance(raw, list) else []:
        try:
            ids.append(UUID(each))
        except (ValueError, AttributeError, TypeError):
            continue
    return ids


def _filled(
    program: Program, blocks: frozenset[str], answers: Mapping[str, Any], known: Mapping[str, Upload]
) -> dict[str, Any]:
    def filled(raw: Any, block: str) -> Any:
        if not isinstance(raw, list):
            return raw
        found = [known.get(each) if isinstance(each, str) else None for each in raw]
        return [_facts(each) if each is not None and each.block_id == block else None for each in found]

    result = {block: filled(raw, block) if block in blocks else raw for block, raw in answers.items()}
    for repeat in program.repeats:
        rows = answers.get(repeat)
        if isinstance(rows, list):
            result[repeat] = [_filled_row(row, blocks, filled) for row in rows]
    return result


def _filled_row(row: Any, blocks: frozenset[str], filled: Any) -> Any:
    if not isinstance(row, dict) or not isinstance(row.get("values"), dict):
        return row
    values = {block: filled(raw, block) if block in blocks else raw for block, raw in row["values"].items()}
    return {**row, "values": values}


def _facts(upload: Upload) -> dict[str, Any]:
    return {"id": str(upload.id), "name": upload.name, "size": upload.size, "type": upload.media_type}
