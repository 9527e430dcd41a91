"""Conditions as rows: "name · is more than · 12", joined by all or any, nested; and back to the same formula.

Every condition can be shown so: a part that has no row of its own is one row that holds its formula.
"""

from collections.abc import Iterator
from enum import StrEnum
from typing import Literal, Union

from pydantic import BaseModel, ConfigDict

from codexa.core.errors import DefinitionError, FormulaSyntaxError, Problem
from codexa.core.formula import tree
from codexa.core.formula.parse import parse
from codexa.core.formula.unparse import unparse


class RowOperator(StrEnum):
    """What a row says of its name."""

    IS = "is"
    IS_NOT = "is_not"
    MORE = "more"
    AT_LEAST = "at_least"
    LESS = "less"
    AT_MOST = "at_most"
    FROM_TO = "from_to"  # two operands, both included
    BLANK = "blank"
    FILLED = "filled"
    HAS = "has"
    HAS_NOT = "has_not"
    MENTIONS = "mentions"  # any of the operands, as whole words
    MENTIONS_NOT = "mentions_not"
    YES = "yes"
    NOT_YES = "not_yes"
    FORMULA = "formula"  # what has no row of its own: no name, one operand


_COMPARED = {
    "=": RowOperator.IS,
    "<>": RowOperator.IS_NOT,
    ">": RowOperator.MORE,
    ">=": RowOperator.AT_LEAST,
    "<": RowOperator.LESS,
    "<=": RowOperator.AT_MOST,
}
_SIGNS = {operator: sign for sign, operator in _COMPARED.items()}
_MIRRORED = {"=": "=", "<>": "<>", ">": "<", ">=": "<=", "<": ">", "<=": ">="}
_CALLS = {"HAS": (RowOperator.HAS, RowOperator.HAS_NOT), "MENTIONS": (RowOperator.MENTIONS, RowOperator.MENTIONS_NOT)}
_JOINS: dict[str, Literal["all", "any"]] = {"AND": "all", "OR": "any"}
_MOST_DEPTH = 20


class _Piece(BaseModel):
    model_config = ConfigDict(frozen=True, extra="forbid", json_schema_serialization_defaults_required=True)


class ConditionRow(_Piece):
    """One row; `operands` are formulas: 12, "school" in its quotation marks, TODAY()."""

    name: str = ""
    operator: RowOperator
    operands: tuple[str, ...] = ()


class ConditionRows(_Piece):
    """Rows of which all or any must hold."""

    join: Literal["all", "any"] = "all"
    rows: tuple[Union[ConditionRow, "ConditionRows"], ...] = ()


def rows_of(text: str) -> ConditionRows | None:
    """Return a condition as rows; None where the text can't be read. Blank text is no rows at all."""
    if not text.strip():
        return ConditionRows()
    try:
        parsed = parse(text)
    except FormulaSyntaxError:
        return None
    found = _of(parsed)
    return found if isinstance(found, ConditionRows) else ConditionRows(rows=(found,))


def _of(node: tree.Tree) -> ConditionRow | ConditionRows:
    between = _from_to(node)
    if between is not None:
        return between
    if isinstance(node, tree.Call) and node.function in _JOINS and len(node.arguments) > 1:
        return ConditionRows(join=_JOINS[node.function], rows=tuple(map(_of, node.arguments)))
    return _single(node) or ConditionRow(operator=RowOperator.FORMULA, operands=(unparse(node),))


def _from_to(node: tree.Tree) -> ConditionRow | None:
    match node:
        case tree.Call(
            function="AND",
            arguments=(
                tree.Binary(operator=">=", left=tree.Name() as name, right=least),
                tree.Binary(operator="<=", left=tree.Name() as again, right=most),
            ),
        ) if name == again:
            operands = (unparse(least), unparse(most))
            return ConditionRow(name=name.text, operator=RowOperator.FROM_TO, operands=operands)
    return None


def _single(node: tree.Tree) -> ConditionRow | None:
    negated = isinstance(node, tree.Call) and node.function == "NOT" and len(node.arguments) == 1
    inner = node.arguments[0] if negated and isinstance(node, tree.Call) else node
    match inner:
        case tree.Name():
            return ConditionRow(name=inner.text, operator=RowOperator.NOT_YES if negated else RowOperator.YES)
        case tree.Call(function="ISBLANK", arguments=(tree.Name() as name,)):
            return ConditionRow(name=name.text, operator=RowOperator.FILLED if negated else RowOperator.BLANK)
        case tree.Call(function="HAS" | "MENTIONS" as function, arguments=(tree.Name() as name, _, *_)):
            words = tuple(map(unparse, inner.arguments[1:]))
            return ConditionRow(name=name.text, operator=_CALLS[function][negated], operands=words)
        case tree.Binary(operator=sign, left=left, right=right) if sign in _COMPARED and not negated:
            if isinstance(left, tree.Name):
                return ConditionRow(name=left.text, operator=_COMPARED[sign], operands=(unparse(right),))
            if isinstance(right, tree.Name):
                return ConditionRow(name=right.text, operator=_COMPARED[_MIRRORED[sign]], operands=(unparse(left),))
    return None


def text_of(rows: ConditionRows) -> str:
    """Return the formula of rows; rows with something left out are left out of it.

    Raises DefinitionError where an operand is no formula, with its place ("rows.1.operands.0").
    """
    problems = [Problem(path=path, message=message) for path, message in _problems(rows)]
    if problems:
        raise DefinitionError(problems)
    return _text(rows)


def _text(rows: ConditionRows) -> str:
    texts = [
        text for each in rows.rows if (text := _text(each) if isinstance(each, ConditionRows) else _row_text(each))
    ]
    if len(texts) < 2:
        return texts[0] if texts else ""
    return f"{'AND' if rows.join == 'all' else 'OR'}({', '.join(texts)})"


def _row_text(row: ConditionRow) -> str:
    operands = [each.strip() for each in row.operands]
    if row.operator is RowOperator.FORMULA:
        return "".join(operands)
    if not row.name.strip() or not all(operands) or len(operands) < _least_operands(row.operator):
        return ""
    match row.operator:
        case RowOperator.YES:
            return row.name
        case RowOperator.NOT_YES:
            return f"NOT({row.name})"
        case RowOperator.BLANK:
            return f"ISBLANK({row.name})"
        case RowOperator.FILLED:
            return f"NOT(ISBLANK({row.name}))"
        case RowOperator.FROM_TO:
            least, most = map(_bracketed, operands)
            return f"AND({row.name} >= {least}, {row.name} <= {most})"
        case RowOperator.HAS | RowOperator.MENTIONS:
            return f"{row.operator.value.upper()}({', '.join([row.name, *operands])})"
        case RowOperator.HAS_NOT | RowOperator.MENTIONS_NOT:
            function = row.operator.value.removesuffix("_not").upper()
            return f"NOT({function}({', '.join([row.name, *operands])}))"
    return f"{row.name} {_SIGNS[row.operator]} {_bracketed(operands[0])}"


def _least_operands(operator: RowOperator) -> int:
    if operator in (RowOperator.BLANK, RowOperator.FILLED, RowOperator.YES, RowOperator.NOT_YES):
        return 0
    return 2 if operator is RowOperator.FROM_TO else 1


def _bracketed(operand: str) -> str:
    # A comparison on the right of a comparison needs its own brackets to stay there.
    node = parse(operand)
    return f"({operand})" if isinstance(node, tree.Binary) and node.operator in _COMPARED else operand


def _problems(rows: ConditionRows, before: str = "") -> Iterator[tuple[str, str]]:
    for index, each in enumerate(rows.rows):
        place = f"{before}rows.{index}"
        if isinstance(each, ConditionRows):
            if before.count("rows.") >= _MOST_DEPTH:
                yield place, "These rows are nested too deep; write a formula instead."
            else:
                yield from _problems(each, f"{place}.")
            continue
        named = [("name", each.name), *((f"operands.{at}", text) for at, text in enumerate(each.operands))]
        for setting, text in named:
            if text.strip() and (message := _syntax_problem(text)):
                yield f"{place}.{setting}", message


def _syntax_problem(text: str) -> str | None:
    try:
        parse(text)
    except FormulaSyntaxError as error:
        return error.message
    return None
