"""Questions of forms to the team's tables: which records fit, and what is kept of those that were chosen."""

from collections.abc import Collection, Iterator, Mapping, Sequence
from dataclasses import dataclass
from decimal import Decimal
from typing import Any
from uuid import UUID

from psycopg import sql

from codexa.core.look_ups import (
    Condition,
    Every,
    Is,
    IsBetween,
    IsBlank,
    IsNumber,
    KeptRecord,
    LookUp,
    Not,
    Some,
    Tested,
)
from codexa.core.responses.folding import folded
from codexa.store.database import Connection, like_literal

Parameters = list[Any]
_THERE = """table_id = %s AND removed_at IS NULL AND (offered OR %s) AND EXISTS (
    SELECT 1 FROM data_table
    WHERE data_table.id = %s AND data_table.deleted_at IS NULL AND data_table.team_id = home_team(%s))"""
_TABLE_THERE = """table_id = %s AND removed_at IS NULL AND (offered OR %s) AND EXISTS (
    SELECT 1 FROM data_table JOIN data_table AS asks ON asks.team_id = data_table.team_id
    WHERE data_table.id = %s AND data_table.deleted_at IS NULL AND asks.id = %s)"""
_NAMED = """CASE WHEN jsonb_typeof({kept} -> {column}) = 'object' THEN jsonb_build_object({column},
    ({kept} -> {column}) || jsonb_build_object('values', coalesce((
        SELECT {inner} FROM record AS {name} JOIN data_table ON data_table.id = {name}.table_id
        WHERE {name}.table_id = %s AND {name}.number = ({kept} -> {column} ->> 'record')::integer
            AND data_table.team_id = (SELECT team_id FROM data_table WHERE id = record.table_id)), '{{}}')))
    ELSE '{{}}' END"""
_LISTED = """(SELECT FALSE AS chosen, number, name, {kept} AS kept, {left} AS left FROM record WHERE {where}
    ORDER BY {order} LIMIT {most} OFFSET {first})"""
_CHOSEN = """(SELECT TRUE AS chosen, number, name, {kept} AS kept, {left} AS left FROM record
    WHERE {where} AND ({meant}) LIMIT {most})"""
_BYAS_NUMBER, _BY_NAME = "number = ANY(%s)", "lower(btrim(name)) = ANY(%s)"  # each with its index
_SOME_COLUMNS = "(SELECT coalesce(jsonb_object_agg(key, value), '{{}}') FROM jsonb_each(kept) WHERE key = ANY(%s))"
# What is kept of a number is plain decimal text; a form's own idea of a column may be wrong.
AS_NUMBER = "CASE WHEN {kept} ~ '^-?[0-9]+([.][0-9]+)?$' THEN ({kept})::numeric END"
# Of so many as a column says those that nobody has; NULL where nothing stands there.
_LEFT = """({places} - coalesce((SELECT taken FROM record_taken WHERE record_taken.table_id = record.table_id
    AND record_taken.number = record.number AND record_taken.column_id = {column}), 0))"""
_MOST_MEANT = 400
# Who types a whole name means the record of that name, before those that say it somewhere.
_BEGINS = "lower(name) NOT LIKE %s, "


@dataclass(frozen=True, kw_only=True, slots=True)
class Whose:
    """Whose tables are asked: those of the team of a form, or of a table."""

    form: UUID | None = None
    table: UUID | None = None
    offered_only: bool = True


@dataclass(frozen=True, kw_only=True, slots=True)
class Fetched:
    """What was found: those listed, and those that may be meant by what was chosen."""

    listed: list[KeptRecord]
    chosen: list[KeptRecord]


def fetch(connection: Connection, asked: LookUp, whose: Whose, *, first: int, most: int) -> Fetched:
    """Return the records from a place on that fit, and those fitting that were chosen, in one query.

    What only a formula can say (`Tested`) is left out: those are to be tried. All words are found in what is kept of a
    record. Raises ValueError where the table is named by no id.
    """
    numbers = [each for each in asked.chosen if isinstance(each, int)]
    names = [each.strip().lower() for each in asked.chosen if isinstance(each, str)]
    parts: list[sql.Composable] = []
    bound: Parameters = []
    kept, columns = _kept(asked)
    left = _left(asked.places)
    if most:
        where, values = _where(asked, whose, asked.words)
        parts.append(
            sql.SQL(_LISTED).format(
                kept=kept,
                left=left,
                where=where,
                order=sql.SQL("{}{}").format(sql.SQL(_BEGINS if asked.words else ""), _order(asked.order)),
                most=sql.Literal(most),
                first=sql.Literal(first),
            )
        )
        begins = [f"{like_literal(asked.words.strip().lower())}%"] if asked.words else []
        bound += [*columns, *values, *begins]
    if numbers or names:
        where, values = _where(asked, whose, "")
        further: Parameters = []
        whole = _with_named(kept, sql.SQL("record.kept"), "record", asked.paths, further)
        ways = [(how, given) for how, given in ((_BYAS_NUMBER, numbers), (_BY_NAME, names)) if given]
        meant = sql.SQL(" OR ").join([sql.SQL(how) for how, _ in ways])
        parts.append(
            sql.SQL(_CHOSEN).format(kept=whole, left=left, where=where, meant=meant, most=sql.Literal(_MOST_MEANT))
        )
        bound += [*columns, *further, *values, *[given for _, given in ways]]
    if not parts:
        return Fetched(listed=[], chosen=[])
    rows = connection.execute(sql.SQL(" UNION ALL ").join(parts), bound, prepare=False).fetchall()
    records = [(row["chosen"], _record(row)) for row in rows]
    return Fetched(
        listed=[record for is_chosen, record in records if not is_chosen],
        chosen=[record for is_chosen, record in records if is_chosen],
    )


def _record(row: Mapping[str, Any]) -> KeptRecord:
    left = None if row["left"] is None else max(0, int(row["left"]))
    return KeptRecord(number=row["number"], name=row["name"], values=row["kept"], left=left)


def _left(column: str) -> sql.Composable:
    if not column:
        return sql.SQL("NULL::numeric")
    places = sql.SQL(AS_NUMBER).format(kept=_text(column))
    return sql.SQL(_LEFT).format(places=places, column=sql.Literal(column))


def _kept(asked: LookUp) -> tuple[sql.Composable, Parameters]:
    if not asked.columns:
        return sql.SQL("'{}'::jsonb"), []
    return sql.SQL(_SOME_COLUMNS.replace("{{}}", "{}")), [sorted(asked.columns)]


def _with_named(
    known: sql.Composable,
    kept: sql.Composable,
    name: str,
    paths: Collection[tuple[tuple[str, str], ...]],
    values: Parameters,
) -> sql.Composable:
    """Write what is known of a record, with what is kept of those that it names, along paths."""
    parts = [known]
    for column, table in sorted({path[0] for path in paths if is_id(path[0][1])}):
        further = {path[1:] for path in paths if path[0] == (column, table) and len(path) > 1}
        inner = sql.Identifier(f"{name}_{column}")
        values.append(UUID(table))
        nested: Parameters = []
        own = sql.SQL("{}.kept").format(inner)
        text = _with_named(own, own, f"{name}_{column}", further, nested)
        # What is written inside stands before: its tables are bound first.
        values[-1:] = [*nested, values[-1]]
        parts.append(sql.SQL(_NAMED).format(kept=kept, column=sql.Literal(column), inner=text, name=inner))
    return sql.SQL(" || ").join(parts)


def is_id(table: str) -> bool:
    """Whether a text can be the id of a table; a document may say anything."""
    try:
        return bool(UUID(table))
    except ValueError:
        return False


def _where(asked: LookUp, whose: Whose, words: str) -> tuple[sql.Composable, Parameters]:
    who = whose.table if whose.form is None else whose.form
    # Said twice, not joined: whether the table may be asked is found once, and the records come in their order.
    values: Parameters = [UUID(asked.table), not whose.offered_only, UUID(asked.table), who]
    parts: list[sql.Composable] = [sql.SQL(_TABLE_THERE if whose.form is None else _THERE)]
    parts.append(_condition(asked.condition, values))
    if asked.places:
        # A part of one is none.
        parts.append(sql.SQL("coalesce({} >= 1, TRUE)").format(_left(asked.places)))
    for word in folded(words).split():
        parts.append(sql.SQL("words LIKE %s"))
        values.append(f"%{like_literal(word)}%")
    return sql.SQL(" AND ").join(parts), values


def _order(order: str) -> sql.Composable:
    by_name = sql.SQL('name COLLATE "und-x-icu"')
    way = sql.SQL(" DESC NULLS LAST" if order.startswith("-") else " ASC")
    column = order.removeprefix("-")
    if not column:
        return sql.SQL("{}{}, number").format(by_name, way)
    kept = _text(column)
    number = sql.SQL(AS_NUMBER).format(kept=kept)
    # A record that it names goes by what is shown of it.
    shown = sql.SQL("kept -> {} ->> 'shown'").format(sql.Literal(column))
    as_text = sql.SQL('lower(coalesce({}, {})) COLLATE "und-x-icu"').format(shown, kept)
    blank = sql.SQL(" NULLS LAST" if not order.startswith("-") else "")
    return sql.SQL("{number}{way}{blank}, {text}{way}{blank}, number").format(
        number=number, text=as_text, way=way, blank=blank
    )


def _text(column: str) -> sql.Composable:
    return sql.SQL("kept ->> {}").format(sql.Literal(column))


def _condition(condition: Condition, values: Parameters) -> sql.Composable:
    match condition:
        case Every(conditions):
            return _joined([each for each in conditions if not isinstance(each, Tested)], "AND", "TRUE", values)
        case Some(conditions):
            return _joined(conditions, "OR", "FALSE", values)
        case Not(inner):
            return sql.SQL("NOT {}").format(_condition(inner, values))
        case Is(column, keys):
            values.append([f"{column}={key}" for key in keys])
            return sql.SQL("keys && %s")
        case IsBlank(column):
            return sql.SQL("NOT kept ? {}").format(sql.Literal(column))
        case IsNumber(numbers):
            values.append(list(numbers))
            return sql.SQL("number = ANY(%s)")
        case Tested():
            return sql.SQL("TRUE")
    return _between(condition, values)


def _joined(conditions: Sequence[Condition], word: str, none: str, values: Parameters) -> sql.Composable:
    if not conditions:
        return sql.SQL(none)
    return sql.SQL("({})").format(sql.SQL(f" {word} ").join([_condition(each, values) for each in conditions]))


def _between(condition: IsBetween, values: Parameters) -> sql.Composable:
    kept = _text(condition.column)
    is_number = isinstance(condition.least if condition.most is None else condition.most, Decimal)
    compared = sql.SQL(AS_NUMBER).format(kept=kept) if is_number else sql.SQL('({}) COLLATE "C"').format(kept)
    parts = list(_bounds(condition, compared, values))
    # What has nothing there is neither inside nor, turned round, unknown.
    return sql.SQL("coalesce({}, FALSE)").format(sql.SQL(" AND ").join(parts))


def _bounds(condition: IsBetween, compared: sql.Composable, values: Parameters) -> Iterator[sql.Composable]:
    for bound, sign in ((condition.least, ">"), (condition.most, "<")):
        if bound is not None:
            values.append(bound)
            yield sql.SQL("{} {} %s").format(compared, sql.SQL(sign if condition.open_ else f"{sign}="))


def tests_of(condition: Condition) -> list[Tested]:
    """Return what has to be tried of each record: `fetch` has left it out."""
    if isinstance(condition, Tested):
        return [condition]
    return [each for each in condition.conditions if isinstance(each, Tested)] if isinstance(condition, Every) else []
