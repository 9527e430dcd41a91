"""Conditions as rows: "name · is more than · 12", joined by all or any, nested; and back to the same formula.

Every condition can be shown so: a part that has no row of its own is one row that holds its formula. What is not
written yet, or can't be read, stands in the formula as MISSING(), so that nothing of a row is ever lost.
"""

from collections.abc import Iterator
from enum import StrEnum
from typing import Literal, Union

from pydantic import BaseModel, ConfigDict

from codexa.core.errors import DefinitionError, FormulaSyntaxError, Problem
from codexa.core.formula import tree
from codexa.core.formula.parse import parse
from codexa.core.formula.unparse import unparse

MISSING = "MISSING"
VISITOR = "visitor"  # what a row names that is about who is signed in


class RowOperator(StrEnum):
    """What a row says of its name."""

    IS = "is"
    IS_NOT = "is_not"
    ONE_OF = "one_of"  # any of the operands
    MORE = "more"
    AT_LEAST = "at_least"
    LESS = "less"
    AT_MOST = "at_most"
    FROM_TO = "from_to"  # two operands, both included
    WHOLE = "whole"
    BLANK = "blank"
    FILLED = "filled"
    HAS = "has"
    HAS_NOT = "has_not"
    MENTIONS = "mentions"  # any of the operands, as whole words
    MENTIONS_NOT = "mentions_not"
    CONTAINS = "contains"  # any of the operands, as a part
    CONTAINS_NOT = "contains_not"
    BEGINS = "begins"
    ENDS = "ends"
    WORDS = "words"  # at least so many
    PAST = "past"
    NEXT_DAYS = "next_days"  # from today
    LAST_DAYS = "last_days"  # to today
    YES = "yes"
    NOT_YES = "not_yes"
    NO = "no"
    SHOWN = "shown"  # the block that is named
    NOT_SHOWN = "not_shown"
    IN_GROUP = "in_group"  # who is signed in
    NOT_IN_GROUP = "not_in_group"
    FORMULA = "formula"  # what has no row of its own: no name, one operand


_COMPARED = {
    "=": RowOperator.IS,
    "<>": RowOperator.IS_NOT,
    ">": RowOperator.MORE,
    ">=": RowOperator.AT_LEAST,
    "<": RowOperator.LESS,
    "<=": RowOperator.AT_MOST,
}
_MIRRORED = {"=": "=", "<>": "<>", ">": "<", ">=": "<=", "<": ">", "<=": ">="}
_CALLS = {"HAS": (RowOperator.HAS, RowOperator.HAS_NOT), "MENTIONS": (RowOperator.MENTIONS, RowOperator.MENTIONS_NOT)}
_SHOWN = "shown"  # what follows the dot after a block's key
_SEVERAL = (RowOperator.HAS, RowOperator.HAS_NOT, RowOperator.MENTIONS, RowOperator.MENTIONS_NOT, RowOperator.ONE_OF)
_IN_GROUP = (RowOperator.IN_GROUP, RowOperator.NOT_IN_GROUP)
_JOINS: dict[str, Literal["all", "any"]] = {"AND": "all", "OR": "any"}
_MOST_DEPTH = 20
# What each says as a formula: n is the name, x and y are the operands. The first that fits is the row.
_SHAPES = {
    RowOperator.FILLED: "NOT(ISBLANK(n))",
    RowOperator.BLANK: "ISBLANK(n)",
    RowOperator.CONTAINS_NOT: "NOT(ISNUMBER(SEARCH(x, n)))",
    RowOperator.CONTAINS: "ISNUMBER(SEARCH(x, n))",
    RowOperator.BEGINS: "LEFT(n, LEN(x)) = x",
    RowOperator.ENDS: "RIGHT(n, LEN(x)) = x",
    RowOperator.WORDS: "WORDS(n) >= x",
    RowOperator.WHOLE: "INT(n) = n",
    RowOperator.NEXT_DAYS: "AND(n >= TODAY(), n <= TODAY() + x)",
    RowOperator.LAST_DAYS: "AND(n >= TODAY() - x, n <= TODAY())",
    RowOperator.FROM_TO: "AND(n >= x, n <= y)",
    RowOperator.PAST: "n < TODAY()",
    RowOperator.NO: "n = FALSE",
    RowOperator.NOT_YES: "NOT(n)",
    RowOperator.YES: "n",
    RowOperator.IS: "n = x",
    RowOperator.IS_NOT: "n <> x",
    RowOperator.MORE: "n > x",
    RowOperator.AT_LEAST: "n >= x",
    RowOperator.LESS: "n < x",
    RowOperator.AT_MOST: "n <= x",
}
_TREES = {operator: parse(text) for operator, text in _SHAPES.items()}


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
    single = row_of(node)
    if single is not None:
        return single
    if isinstance(node, tree.Call) and node.function in _JOINS and len(node.arguments) > 1:
        return ConditionRows(join=_JOINS[node.function], rows=tuple(map(_of, node.arguments)))
    return ConditionRow(operator=RowOperator.FORMULA, operands=(unparse(node),))


def row_of(node: tree.Tree) -> ConditionRow | None:
    """Return the single row that says what a part of a formula says; None where there is none."""
    several = _several(node)
    if several is not None:
        return several
    for each in (node, _turned(node)):
        for operator, shape in _TREES.items():
            found: dict[str, tree.Tree] = {}
            if _fits(shape, each, found):
                operands = tuple(_written(found[name]) for name in "xy" if name in found)
                return ConditionRow(name=_written(found["n"]), operator=operator, operands=operands)
    return None


def _turned(node: tree.Tree) -> tree.Tree:
    """Return a comparison with its sides exchanged: 12 < adults is adults > 12."""
    if isinstance(node, tree.Binary) and node.operator in _MIRRORED and _is_name(node.right):
        return tree.Binary(operator=_MIRRORED[node.operator], left=node.right, right=node.left)
    return node


def _fits(shape: tree.Tree, node: tree.Tree, found: dict[str, tree.Tree]) -> bool:
    """Say whether a part has the shape, and note what stands for its names."""
    if isinstance(shape, tree.Name) and shape.text in ("n", "x", "y"):
        if shape.text in found:
            return found[shape.text] == node
        found[shape.text] = node
        return shape.text != "n" or _is_name(node)
    if isinstance(shape, tree.Call) and isinstance(node, tree.Call):
        same = shape.function == node.function and len(shape.arguments) == len(node.arguments)
        return same and all(
            _fits(one, other, found) for one, other in zip(shape.arguments, node.arguments, strict=True)
        )
    if isinstance(shape, tree.Binary) and isinstance(node, tree.Binary):
        same = shape.operator == node.operator
        return same and _fits(shape.left, node.left, found) and _fits(shape.right, node.right, found)
    return shape == node


def _is_name(node: tree.Tree) -> bool:
    return isinstance(node, tree.Name) or _is_missing(node)


def _several(node: tree.Tree) -> ConditionRow | None:
    """Return the row of a name and any number of operands."""
    negated = isinstance(node, tree.Call) and node.function == "NOT" and len(node.arguments) == 1
    inner = node.arguments[0] if negated and isinstance(node, tree.Call) else node
    match inner:
        case tree.Name(parts=(*block, last)) if block and last == _SHOWN:
            operator = RowOperator.NOT_SHOWN if negated else RowOperator.SHOWN
            return ConditionRow(name=inner.text.rpartition(".")[0], operator=operator)
        case tree.Call(function="INGROUP", arguments=(group,)):
            return ConditionRow(name=VISITOR, operator=_IN_GROUP[negated], operands=(_written(group),))
        case tree.Call(function="OR", arguments=(tree.Call(), _, *_)):
            contained = [_contained(each) for each in inner.arguments]
            names = {_written(each[0]) for each in contained if each is not None}
            if len(names) == 1 and None not in contained:
                words = tuple(_written(each[1]) for each in contained if each is not None)
                operator = RowOperator.CONTAINS_NOT if negated else RowOperator.CONTAINS
                return ConditionRow(name=names.pop(), operator=operator, operands=words)
        case tree.Call(function="HAS" | "MENTIONS" as function, arguments=(name, _, *_)) if _is_name(name):
            words = tuple(map(_written, inner.arguments[1:]))
            return ConditionRow(name=_written(name), operator=_CALLS[function][negated], operands=words)
        case tree.Call(function="OR", arguments=(tree.Binary(operator="=", left=name), _, *_)) if not negated:
            values = [each.right for each in inner.arguments if isinstance(each, tree.Binary) and _equals(each, name)]
            if isinstance(name, tree.Name) and len(values) == len(inner.arguments):
                return ConditionRow(name=name.text, operator=RowOperator.ONE_OF, operands=tuple(map(_written, values)))
    return None


def _contained(node: tree.Tree) -> tuple[tree.Tree, tree.Tree] | None:
    """Return the name and the part that is looked for in it, where that is what a formula says."""
    found: dict[str, tree.Tree] = {}
    return (found["n"], found["x"]) if _fits(_TREES[RowOperator.CONTAINS], node, found) else None


def _equals(node: tree.Binary, name: tree.Tree) -> bool:
    is_value = isinstance(node.right, tree.Text | tree.Number) or _is_missing(node.right)
    return node.operator == "=" and node.left == name and is_value


def _is_missing(node: tree.Tree) -> bool:
    return isinstance(node, tree.Call) and node.function == MISSING


def _written(node: tree.Tree) -> str:
    if isinstance(node, tree.Call) and node.function == MISSING:
        given = node.arguments[0] if node.arguments else None
        return given.value if isinstance(given, tree.Text) else ""
    return unparse(node)


def text_of(rows: ConditionRows) -> str:
    """Return the formula of rows; a row that says nothing at all is left out, what lacks something has MISSING().

    Raises DefinitionError where rows are nested too deep, with their place ("rows.1").
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
    if not row.name.strip() and not any(each.strip() for each in row.operands):
        return ""
    if row.operator is RowOperator.FORMULA:
        return unparse(part_of("".join(row.operands)))
    operands = list(map(part_of, row.operands)) or [part_of("")]
    name = part_of(row.name)
    if row.operator is RowOperator.ONE_OF:
        equal = [tree.Binary(operator="=", left=name, right=each) for each in operands]
        return unparse(equal[0] if len(equal) == 1 else tree.Call(function="OR", arguments=tuple(equal)))
    if row.operator in (RowOperator.SHOWN, RowOperator.NOT_SHOWN):
        # Without a name it can say nothing yet; what it says of it is kept all the same.
        shown = part_of(f"{row.name}.{_SHOWN}" if row.name.strip() else "")
        negated = row.operator is RowOperator.NOT_SHOWN
        return unparse(tree.Call(function="NOT", arguments=(shown,)) if negated else shown)
    if row.operator in _IN_GROUP:
        asked = tree.Call(function="INGROUP", arguments=(operands[0],))
        return unparse(asked if row.operator is RowOperator.IN_GROUP else tree.Call(function="NOT", arguments=(asked,)))
    if row.operator in (RowOperator.CONTAINS, RowOperator.CONTAINS_NOT) and len(operands) > 1:
        looked = [_filled(_TREES[RowOperator.CONTAINS], {"n": name, "x": each}) for each in operands]
        either = tree.Call(function="OR", arguments=tuple(looked))
        negated = row.operator is RowOperator.CONTAINS_NOT
        return unparse(tree.Call(function="NOT", arguments=(either,)) if negated else either)
    if row.operator in _SEVERAL:
        negated = row.operator.value.endswith("_not")
        function = row.operator.value.removesuffix("_not").upper()
        call = tree.Call(function=function, arguments=(name, *operands))
        return unparse(tree.Call(function="NOT", arguments=(call,)) if negated else call)
    given = {"n": name, "x": operands[0], "y": operands[1] if len(operands) > 1 else part_of("")}
    return unparse(_filled(_TREES[row.operator], given))


def _filled(shape: tree.Tree, given: dict[str, tree.Tree]) -> tree.Tree:
    match shape:
        case tree.Name(text=name) if name in given:
            return given[name]
        case tree.Call(function=function, arguments=arguments):
            return tree.Call(function=function, arguments=tuple(_filled(each, given) for each in arguments))
        case tree.Binary(operator=operator, left=left, right=right):
            return tree.Binary(operator=operator, left=_filled(left, given), right=_filled(right, given))
    return shape


def part_of(text: str) -> tree.Tree:
    """Return the tree of a row's name or operand; what is blank or can't be read is MISSING() with what was written."""
    if not text.strip():
        return tree.Call(function=MISSING, arguments=())
    try:
        return parse(text)
    except FormulaSyntaxError:
        return tree.Call(function=MISSING, arguments=(tree.Text(value=text.strip()),))


def _problems(rows: ConditionRows, before: str = "") -> Iterator[tuple[str, str]]:
    for index, each in enumerate(rows.rows):
        if isinstance(each, ConditionRows):
            place = f"{before}rows.{index}"
            if before.count("rows.") >= _MOST_DEPTH:
                yield place, "These rows are nested too deep; write a formula instead."
            else:
                yield from _problems(each, f"{place}.")
