"""Formulas as sentences: what a condition says, in pieces that name blocks."""

from collections.abc import Iterator, Mapping
from dataclasses import dataclass
from types import MappingProxyType

from codexa.core.definition.parts import Field
from codexa.core.fields.options import find_option
from codexa.core.form.known_tables import label_of
from codexa.core.formula import tree
from codexa.core.formula.convert import text_of_number
from codexa.core.formula.rows import MISSING, VISITOR, ConditionRow, RowOperator, part_of, row_of
from codexa.core.formula.unparse import unparse


@dataclass(frozen=True, kw_only=True, slots=True)
class Words:
    """A piece of a sentence. With `block` it names that block, whose number and label the reader sees."""

    text: str = ""
    block: str | None = None
    strong: bool = False
    code: bool = False


_COMPARED = {
    "=": "is",
    "<>": "is not",
    ">": "is more than",
    ">=": "is at least",
    "<": "is less than",
    "<=": "is at most",
}
# How rows with words of their own are said; … is the operands.
_SAID = {
    RowOperator.ONE_OF: "is …",
    RowOperator.CONTAINS: "contains …",
    RowOperator.CONTAINS_NOT: "does not contain …",
    RowOperator.BEGINS: "begins with …",
    RowOperator.ENDS: "ends with …",
    RowOperator.WORDS: "has at least … words",
    RowOperator.WHOLE: "is a whole number",
    RowOperator.PAST: "is in the past",
    RowOperator.NEXT_DAYS: "is in the next … days",
    RowOperator.LAST_DAYS: "is in the last … days",
    RowOperator.NO: "is no",
    RowOperator.IN_GROUP: "is in the group …",
    RowOperator.NOT_IN_GROUP: "is not in the group …",
    RowOperator.SHOWN: "is shown",
    RowOperator.NOT_SHOWN: "is hidden",
}
NO_COLUMNS: Mapping[str, Field] = MappingProxyType({})
RECORD = "record"  # what a filter of records calls each of them
_VISITOR = "who is signed in"
_OF_VISITOR = {"email": "e-mail", "name": "name", "first": "first name", "last": "last name"}
_JOINED = {"AND": " and ", "OR": ", or "}
_MIRRORED = {"=": "=", "<>": "<>", ">": "<", ">=": "<=", "<": ">", "<=": ">="}


class Sentences:
    """Writes the conditions of one scope; `fields` are those that its names stand for, by key.

    `columns` are those of the records that a filter is about, by key.
    """

    def __init__(
        self, fields: Mapping[str, Field], named: Mapping[str, str], columns: Mapping[str, Field] = NO_COLUMNS
    ) -> None:
        self._fields = fields
        self._named = named
        self._columns = columns

    def of_records(self, columns: Mapping[str, Field]) -> "Sentences":
        """Return what writes a filter of records with these columns."""
        return Sentences(self._fields, self._named, columns)

    def of(self, node: tree.Tree) -> Iterator[Words]:
        """Yield the words of a condition; what has no plain words stays a formula."""
        if (name := _said_no(node)) is not None:
            yield from self._name(name)
            yield Words(text=" is no")
        elif isinstance(node, tree.Call) and node.function in _JOINED and all(map(self._is_simple, node.arguments)):
            for index, argument in enumerate(node.arguments):
                if index:
                    yield Words(text=_JOINED[node.function])
                yield from self._single(argument)
        else:
            yield from self._single(node)

    def _single(self, node: tree.Tree) -> Iterator[Words]:
        row = self._said_as_row(node)
        if row is not None:
            yield from self._row(row)
            return
        match node:
            case tree.Call(function="ISBLANK", arguments=(tree.Name() as name,)):
                yield from self._name(name)
                yield Words(text=" is blank")
            case tree.Call(
                function="NOT", arguments=(tree.Call(function="ISBLANK", arguments=(tree.Name() as name,)),)
            ):
                yield from self._name(name)
                yield Words(text=" is filled in")
            case tree.Call(function="HAS", arguments=(tree.Name() as name, tree.Text() as code)):
                yield from self._name(name)
                yield Words(text=" has ")
                yield from self._operand(code, self._field(name))
            case tree.Call(function="MENTIONS", arguments=(tree.Name() as name, *words)) if _are_texts(words):
                yield from self._name(name)
                yield Words(text=" mentions ")
                yield Words(
                    text=" or ".join(f"{each.value}" for each in words if isinstance(each, tree.Text)), strong=True
                )
            case tree.Name():
                yield from self._name(node)
                yield Words(text=" is yes")
            case tree.Call(function="NOT", arguments=(tree.Name() as name,)):
                yield from self._name(name)
                yield Words(text=" is not yes")
            case tree.Binary(operator=operator) if operator in _COMPARED and self._is_simple(node):
                yield from self._comparison(node)
            case _:
                yield Words(text=unparse(node), code=True)

    def _said_as_row(self, node: tree.Tree) -> ConditionRow | None:
        row = row_of(node)
        said = row is not None and row.operator in _SAID and isinstance(part_of(row.name), tree.Name)
        return row if said else None

    def _row(self, row: ConditionRow) -> Iterator[Words]:
        name = part_of(row.name)
        assert isinstance(name, tree.Name)
        yield from self._name(name)
        before, _, after = _SAID[row.operator].partition("…")
        yield Words(text=f" {before}".rstrip() + (" " if row.operands else ""))
        for index, operand in enumerate(row.operands):
            if index:
                yield Words(text=" or ")
            yield from self._operand(part_of(operand), self._field(name))
        if after:
            yield Words(text=after)

    def _is_simple(self, node: tree.Tree) -> bool:
        if self._said_as_row(node) is not None:
            return True
        match node:
            case tree.Binary(left=left, right=right, operator=operator):
                sides = (left, right)
                named = any(tree.names_in(each) for each in sides)
                return named and operator in _COMPARED and all(map(self._is_operand, sides))
            case tree.Call(function="ISBLANK", arguments=(tree.Name(),)):
                return True
            case tree.Call(function="HAS", arguments=(tree.Name(), tree.Text())):
                return True
            case tree.Call(function="MENTIONS", arguments=(tree.Name(), *words)):
                return _are_texts(words)
            case tree.Call(function="NOT", arguments=(inner,)):
                blank = isinstance(inner, tree.Call) and inner.function == "ISBLANK" and self._is_simple(inner)
                return blank or isinstance(inner, tree.Name)
        return isinstance(node, tree.Name)

    def _is_operand(self, node: tree.Tree) -> bool:
        if isinstance(node, tree.Binary) and node.operator in ("+", "-"):
            return self._is_operand(node.left) and self._is_operand(node.right)
        inner = node.operand if isinstance(node, tree.Unary) else node
        is_missing = isinstance(inner, tree.Call) and inner.function == MISSING
        return is_missing or isinstance(inner, tree.Name | tree.Number | tree.Text | tree.Boolean)

    def _comparison(self, node: tree.Binary) -> Iterator[Words]:
        left, operator, right = node.left, node.operator, node.right
        if not tree.names_in(left):
            left, operator, right = right, _MIRRORED[operator], left
        yield from self._operand(left, None)
        yield Words(text=f" {_COMPARED[operator]} ")
        yield from self._operand(right, self._field(left))

    def _column(self, node: tree.Tree) -> Field | None:
        is_column = isinstance(node, tree.Name) and len(node.parts) == 2 and node.parts[0] == RECORD
        return self._columns.get(node.parts[1]) if is_column and isinstance(node, tree.Name) else None

    def _field(self, node: tree.Tree) -> Field | None:
        if (column := self._column(node)) is not None:
            return column
        return self._fields.get(node.parts[0]) if isinstance(node, tree.Name) and len(node.parts) == 1 else None

    def _name(self, node: tree.Name) -> Iterator[Words]:
        owner = self._named.get(node.parts[0])
        if (column := self._column(node)) is not None:
            yield Words(text=label_of(column), strong=True)
            return
        if owner is None and node.parts[0] == VISITOR:
            said = _OF_VISITOR.get(node.parts[-1])
            yield Words(text=f"the {said} of {_VISITOR}" if said else _VISITOR)
            return
        if owner is None:
            yield Words(text=unparse(node), code=True)
            return
        if len(node.parts) > 1:
            yield Words(text=f"the {' '.join(node.parts[1:]).replace('_', ' ')} of ")
        yield Words(block=owner)

    def _operand(self, node: tree.Tree, beside: Field | None) -> Iterator[Words]:
        match node:
            case tree.Name():
                yield from self._name(node)
            case tree.Binary():
                yield from self._operand(node.left, None)
                yield Words(text=f" {node.operator} ")
                yield from self._operand(node.right, None)
            case tree.Number():
                yield Words(text=text_of_number(node.value), strong=True)
            case tree.Text(value=""):
                yield Words(text="blank")
            case tree.Call(function="MISSING"):
                yield Words(text="…", strong=True)
            case tree.Text():
                option = find_option(getattr(beside, "options", ()), node.value)
                yield Words(text=option.label if option else node.value, strong=True)
            case _:
                yield Words(text=unparse(node), strong=True)


def _are_texts(nodes: object) -> bool:
    return isinstance(nodes, list | tuple) and all(isinstance(each, tree.Text) for each in nodes)


def _said_no(node: tree.Tree) -> tree.Name | None:
    """Return the name that a condition says no of: answered, and not with yes."""
    match node:
        case tree.Call(
            function="AND",
            arguments=(
                tree.Call(
                    function="NOT", arguments=(tree.Call(function="ISBLANK", arguments=(tree.Name() as asked,)),)
                ),
                tree.Call(function="NOT", arguments=(tree.Name() as name,)),
            ),
        ) if asked.parts == name.parts:
            return name
    return None
