"""Conditions on the columns of a table, as SQL over what is kept of its records."""

from collections.abc import Callable, Mapping, Sequence
from dataclasses import dataclass
from typing import Any

from psycopg import sql

from codexa.core.responses.conditions import How
from codexa.core.responses.holds import Holds
from codexa.store.database import like_literal
from codexa.store.look_ups import AS_NUMBER


@dataclass(frozen=True, kw_only=True, slots=True)
class RecordTest:
    """What a column of a record must be: `values` as `read_values` gives them, of days the first and the last.

    `names` where the column names records of another table, which are compared by what is shown of them. `zone` is the
    table's, for moments.
    """

    column: str
    holds: Holds
    how: How
    values: tuple[Any, ...]
    names: bool
    zone: str


_KEPT = "kept -> {column}"
_TEXT = "(kept ->> {column})"
# Of one that it names, or of several.
_SHOWN = """(CASE jsonb_typeof(kept -> {column}) WHEN 'array' THEN
    (SELECT string_agg(named ->> 'shown', ', ') FROM jsonb_array_elements(kept -> {column}) AS named)
    ELSE kept -> {column} ->> 'shown' END)"""
# As core/responses/folding.py does it.
_FOLDED = r"""btrim(regexp_replace(regexp_replace(
    replace(normalize(lower({text}), NFKD), 'ß', 'ss'), '[\u0300-\u036F]', '', 'g'), '\s+', ' ', 'g'))"""
# What is kept may be of another shape than its column holds now: a formula has been changed.
_DAY = "CASE WHEN {kept} ~ '^[0-9]{{4}}-[0-9]{{2}}-[0-9]{{2}}$' THEN {kept}::date END"
_TIME = "CASE WHEN {kept} ~ '^[0-9]{{2}}:[0-9]{{2}}' THEN {kept}::time END"
_DAY_OF_MOMENT = "CASE WHEN {kept} ~ '^[0-9]{{4}}-.*T' THEN ({kept}::timestamptz AT TIME ZONE {zone})::date END"
_COUNT_OF_FILES = "CASE WHEN jsonb_typeof({whole}) = 'array' THEN jsonb_array_length({whole}) END"
_COMPARED: Mapping[Holds, str] = {
    Holds.NUMBER: AS_NUMBER,
    Holds.TIME: _TIME,
    Holds.DATE: _DAY,
    Holds.MOMENT: _DAY_OF_MOMENT,
    Holds.FILES: _COUNT_OF_FILES,
}


def tests_in_sql(tests: Sequence[RecordTest], *, all_of: bool) -> tuple[sql.Composable, list[Any]]:
    """Return the SQL of tests that must all hold, or one of them, and its parameters; without any, TRUE."""
    values: list[Any] = []
    parts = [sql.SQL("coalesce({}, FALSE)").format(_test(each, values)) for each in tests]
    joined = sql.SQL(" AND " if all_of else " OR ").join(parts)
    return (sql.SQL("({})").format(joined) if parts else sql.SQL("TRUE")), values


def _test(test: RecordTest, values: list[Any]) -> sql.Composable:
    column = sql.Literal(test.column)
    if test.how in ("blank", "answered"):
        return sql.SQL("NOT kept ? {}" if test.how == "blank" else "kept ? {}").format(column)
    text = sql.SQL(_SHOWN if test.names else _TEXT).format(column=column)
    if test.holds in _COMPARED:
        compared = sql.SQL(_COMPARED[test.holds]).format(
            kept=text, zone=sql.Literal(test.zone), whole=sql.SQL(_KEPT).format(column=column)
        )
        return _between(compared, test, values)
    return _OF_HOLDS[test.holds](test, column, text, values)


def _between(compared: sql.Composable, test: RecordTest, values: list[Any]) -> sql.Composable:
    least, most = _ends(test)
    parts = []
    for bound, sign in ((least, ">="), (most, "<=")):
        if bound is not None:
            values.append(bound)
            parts.append(sql.SQL(f"({{}}) {sign} %s").format(compared))
    return sql.SQL("({})").format(sql.SQL(" AND ").join(parts))


def _ends(test: RecordTest) -> tuple[Any, Any]:
    if test.holds in (Holds.DATE, Holds.MOMENT):
        return test.values[0], test.values[1]
    first, last = test.values[0], test.values[-1]
    return (None if test.how == "at_most" else first), (None if test.how == "at_least" else last)


def _text(test: RecordTest, _column: sql.Composable, text: sql.Composable, values: list[Any]) -> sql.Composable:
    folded = sql.SQL(_FOLDED).format(text=text)
    [words] = test.values
    if test.how == "is":
        values.append(words)
        return sql.SQL("{} = %s").format(folded)
    pieces = [f"{like_literal(words)}%"] if test.how == "begins" else [f"%{like_literal(e)}%" for e in words.split()]
    values += pieces
    return sql.SQL("({})").format(sql.SQL(" AND ").join([sql.SQL("{} LIKE %s").format(folded)] * len(pieces)))


def _yes_no(test: RecordTest, _column: sql.Composable, text: sql.Composable, values: list[Any]) -> sql.Composable:
    values.append("true" if test.values[0] else "false")
    return sql.SQL("lower({}) = %s").format(text)


def _choice(test: RecordTest, _column: sql.Composable, text: sql.Composable, values: list[Any]) -> sql.Composable:
    values.append(list(test.values))
    return _turned(test, sql.SQL("{} = ANY(%s)").format(text))


def _choices(test: RecordTest, column: sql.Composable, _text: sql.Composable, values: list[Any]) -> sql.Composable:
    values.append(list(test.values))
    kept = sql.SQL(_KEPT).format(column=column)
    return _turned(test, sql.SQL(f"{{}} {'?&' if test.how == 'all_of' else '?|'} %s").format(kept))


def _turned(test: RecordTest, found: sql.Composable) -> sql.Composable:
    return sql.SQL("NOT coalesce({}, FALSE)").format(found) if test.how == "none_of" else found


_OF_HOLDS: Mapping[Holds, Callable[[RecordTest, sql.Composable, sql.Composable, list[Any]], sql.Composable]] = {
    Holds.TEXT: _text,
    Holds.YES_NO: _yes_no,
    Holds.CHOICE: _choice,
    Holds.CHOICES: _choices,
}
