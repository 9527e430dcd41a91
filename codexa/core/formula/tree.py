"""What a formula says, as a tree of frozen dataclasses that anyone can walk."""

from collections.abc import Iterator
from dataclasses import dataclass, field
from decimal import Decimal

from codexa.core.errors import Span

NOWHERE = Span(start=0, end=0)


@dataclass(frozen=True, kw_only=True, slots=True)
class _Node:
    # Two trees are equal when they say the same, wherever they were written.
    span: Span = field(default=NOWHERE, compare=False)


@dataclass(frozen=True, kw_only=True, slots=True)
class Number(_Node):
    """A number, never negative: the sign is an operator of its own."""

    value: Decimal


@dataclass(frozen=True, kw_only=True, slots=True)
class Text(_Node):
    """Text in double quotes."""

    value: str


@dataclass(frozen=True, kw_only=True, slots=True)
class Boolean(_Node):
    """TRUE or FALSE."""

    value: bool


@dataclass(frozen=True, kw_only=True, slots=True)
class Missing(_Node):
    """An argument left out, as in IF(a,,b): a blank."""


@dataclass(frozen=True, kw_only=True, slots=True)
class Name(_Node):
    """A reference: `adults`, `lines.amount`. Case does not matter."""

    text: str

    @property
    def parts(self) -> tuple[str, ...]:
        """The words of the name, in lower case."""
        return tuple(self.text.lower().split("."))


@dataclass(frozen=True, kw_only=True, slots=True)
class Unary(_Node):
    """A sign before an operand; `operator` is "-" or "+"."""

    operator: str
    operand: "Tree"


@dataclass(frozen=True, kw_only=True, slots=True)
class Percent(_Node):
    """The postfix %: a hundredth of its operand."""

    operand: "Tree"


@dataclass(frozen=True, kw_only=True, slots=True)
class Binary(_Node):
    """An operator between two operands."""

    operator: str
    left: "Tree"
    right: "Tree"


@dataclass(frozen=True, kw_only=True, slots=True)
class Call(_Node):
    """A function call; `function` is in upper case."""

    function: str
    arguments: tuple["Tree", ...]


Tree = Number | Text | Boolean | Missing | Name | Unary | Percent | Binary | Call


def children(tree: Tree) -> tuple[Tree, ...]:
    """Return the operands or arguments of a node, in the order in which they are written."""
    match tree:
        case Unary() | Percent():
            return (tree.operand,)
        case Binary():
            return (tree.left, tree.right)
        case Call():
            return tree.arguments
    return ()


def walk(tree: Tree) -> Iterator[Tree]:
    """Yield the tree and all below it, outermost first."""
    yield tree
    for child in children(tree):
        yield from walk(child)


def names_in(tree: Tree) -> set[tuple[str, ...]]:
    """Return the parts of every name that the formula reads."""
    return {node.parts for node in walk(tree) if isinstance(node, Name)}


def depth(tree: Tree) -> int:
    """Return how many levels the tree has; does not recurse, so that it can judge any tree."""
    deepest, waiting = 0, [(tree, 1)]
    while waiting:
        node, level = waiting.pop()
        deepest = max(deepest, level)
        waiting.extend((child, level + 1) for child in children(node))
    return deepest
