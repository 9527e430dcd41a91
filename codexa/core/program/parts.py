"""Parts of a form that only a group changes: what is open to whom, what is taken from whom, where a response goes next.

Whatever a browser sends for what is closed to somebody, the answer is the one that others gave.
"""

from collections.abc import Iterable, Iterator, Mapping
from typing import Any

from codexa.core.context import EVERYBODY, FILLING_IN, Context
from codexa.core.definition.parts import Block, Group, Repeat
from codexa.core.form.form import Form, FormPart


def parts_by_owner(form: Form) -> dict[str, str]:
    """Return the part that each page, block and row kind belongs to, by id; FILLING_IN that of who fills in."""
    found: dict[str, str] = {}
    for page in form.pages:
        found[page.id] = page.part
        _of_blocks(page.blocks, page.part, found)
    return found


def named_parts(form: Form) -> Iterator[tuple[str, str]]:
    """Yield the id of each page and block with the part that it names itself."""
    yield from ((page.id, page.part) for page in form.pages)
    yield from ((block.id, block.part) for block in form.blocks())


def _of_blocks(blocks: Iterable[Block], around: str, found: dict[str, str]) -> None:
    for block in blocks:
        found[block.id] = block.part or around
        if isinstance(block, Group):
            _of_blocks(block.blocks, found[block.id], found)
        elif isinstance(block, Repeat):
            for kind in block.kinds:
                found[kind.id] = found[block.id]
                _of_blocks(kind.blocks, found[block.id], found)


def open_parts(form: Form, context: Context) -> frozenset[str]:
    """Return the ids of the parts that may be changed now.

    While a response stands with a part, that one; else that of who fills in, and those of the groups they are in.
    """
    if context.at_part == EVERYBODY:
        return frozenset({FILLING_IN, *(part.id for part in form.parts)})
    if context.at_part is not None:
        return frozenset({context.at_part})
    mine = {code.casefold() for code in context.groups}
    own = (part.id for part in form.parts if not mine.isdisjoint(code.casefold() for code in part.groups))
    return frozenset({FILLING_IN, *own})


def unseen_parts(form: Form, context: Context) -> frozenset[str]:
    """Return the ids of the parts of which who fills in sees nothing; for anybody else there are none."""
    if context.at_part not in (None, FILLING_IN):
        return frozenset()
    return frozenset(part.id for part in form.parts if not part.seen) - open_parts(form, context)


def part_named(form: Form, part: str) -> FormPart | None:
    """Return the part of that id."""
    return next((each for each in form.parts if each.id == part), None)


def answers_in_turn(
    answers: Mapping[str, Any], others: Mapping[str, Any], closed: frozenset[str], repeats: Iterable[str]
) -> dict[str, Any]:
    """Return what counts of the answers that were sent: what is `closed` comes from those of `others`.

    Both are as entered, by block id; in the rows of `repeats` each block counts by itself, row by row.
    """
    counted = {block: raw for block, raw in answers.items() if block not in closed}
    counted |= {block: raw for block, raw in others.items() if block in closed}
    for repeat in repeats:
        own, other = _rows_by_id(answers.get(repeat)), _rows_by_id(others.get(repeat))
        if isinstance(rows := counted.get(repeat), list):
            counted[repeat] = [_row_in_turn(row, own, other, closed) for row in rows]
    return counted


def seen_answers(answers: Mapping[str, Any], unseen: frozenset[str]) -> dict[str, Any]:
    """Return answers without those of what is `unseen`, in rows too."""
    return {block: _seen(raw, unseen) for block, raw in answers.items() if block not in unseen}


def _seen(raw: Any, unseen: frozenset[str]) -> Any:
    if not isinstance(raw, list):
        return raw
    return [
        {**row, "values": seen_answers(row["values"], unseen)} if isinstance(row, dict) and "values" in row else row
        for row in raw
    ]


def _rows_by_id(rows: Any) -> dict[str, Mapping[str, Any]]:
    """Return the values of each row that can be read as one, by its id."""
    known = (row for row in rows if isinstance(row, dict)) if isinstance(rows, list) else ()
    return {str(row.get("id")): row["values"] for row in known if isinstance(row.get("values"), dict)}


def _row_in_turn(
    row: Any, own: Mapping[str, Mapping[str, Any]], other: Mapping[str, Mapping[str, Any]], closed: frozenset[str]
) -> Any:
    if not isinstance(row, dict) or not isinstance(row.get("values"), dict):
        return row  # told where rows are read
    row_id = str(row.get("id"))
    values = {block: raw for block, raw in own.get(row_id, {}).items() if block not in closed}
    values |= {block: raw for block, raw in other.get(row_id, {}).items() if block in closed}
    return {**row, "values": values}
