"""The margin: what each block does, one sentence per fact, read off the formula's own tree."""

from collections.abc import Iterator
from dataclasses import dataclass
from enum import StrEnum

from codexa.core.definition.parts import Block, Field
from codexa.core.fields import field_type_of
from codexa.core.fields.options import find_option
from codexa.core.formula import tree
from codexa.core.formula.convert import text_of_number
from codexa.core.formula.unparse import unparse
from codexa.core.program.facts import Formula
from codexa.core.program.program import ALWAYS, Program


class NoteKind(StrEnum):
    """What a note is about; each has a colour, a sign and a word."""

    RULE = "rule"  # what shows, what is locked
    CALCULATION = "calculation"  # what a formula works out
    CHECK = "check"  # what an answer must be
    MONEY = "money"  # what an answer counts as
    DATA = "data"  # where a value comes from or goes


@dataclass(frozen=True, kw_only=True, slots=True)
class Words:
    """A piece of a sentence. With `block` it names that block, whose number and label the reader sees."""

    text: str = ""
    block: str | None = None
    strong: bool = False
    code: bool = False


@dataclass(frozen=True, kw_only=True, slots=True)
class Note:
    """A sentence about one fact of a block; `setting` is what an editor opens on."""

    kind: NoteKind
    setting: str
    words: tuple[Words, ...]


_COMPARED = {
    "=": "is",
    "<>": "is not",
    ">": "is more than",
    ">=": "is at least",
    "<": "is less than",
    "<=": "is at most",
}
_MIRRORED = {"=": "=", "<>": "<>", ">": "<", ">=": "<=", "<": ">", "<=": ">="}


def notes(program: Program) -> dict[str, tuple[Note, ...]]:
    """Return the notes of every block that has any, by block id."""
    by_block: dict[str, list[Formula]] = {}
    for formula in program.formulas:
        by_block.setdefault(formula.block.id, []).append(formula)
    writer = _Writer(program)
    written = {block.id: tuple(writer.of(block, by_block.get(block.id, []))) for block in program.form.blocks()}
    return {block_id: found for block_id, found in written.items() if found}


class _Writer:
    def __init__(self, program: Program) -> None:
        self._by_key = {block.key: block for block in reversed(list(program.form.fields()))}

    def of(self, block: Block, formulas: list[Formula]) -> Iterator[Note]:
        for formula in formulas:
            yield self._of_formula(formula)
        if isinstance(block, Field):
            limits = field_type_of(block).limits(block)
            if limits:
                yield Note(kind=NoteKind.CHECK, setting="limits", words=(Words(text=f"must be {limits}"),))
        yield from _counts(block)

    def _of_formula(self, formula: Formula) -> Note:
        typed = formula.compiled.typed
        text = formula.compiled.text.strip()
        body = [Words(text=text, code=True)] if typed is None else list(self._sentence(typed.node))
        match formula.mark.fact:
            case "value":
                code = Words(text=unparse(typed.node) if typed else text, code=True)
                return Note(kind=NoteKind.CALCULATION, setting=formula.setting, words=(Words(text="= "), code))
            case "required":
                if text.upper() == ALWAYS:
                    return Note(kind=NoteKind.CHECK, setting="required", words=(Words(text="must be answered"),))
                return Note(
                    kind=NoteKind.CHECK, setting="required", words=(Words(text="must be answered when "), *body)
                )
        return Note(kind=NoteKind.RULE, setting=formula.setting, words=(Words(text="shown when "), *body))

    def _sentence(self, node: tree.Tree) -> Iterator[Words]:
        match node:
            case tree.Call(function="AND" | "OR") if all(map(self._is_simple, node.arguments)):
                for index, argument in enumerate(node.arguments):
                    if index:
                        yield Words(text=" and " if node.function == "AND" else ", or ")
                    yield from self._sentence(argument)
            case tree.Call(function="ISBLANK", arguments=(tree.Name() as name,)):
                yield from self._named(name)
                yield Words(text=" is blank")
            case tree.Call(
                function="NOT", arguments=(tree.Call(function="ISBLANK", arguments=(tree.Name() as name,)),)
            ):
                yield from self._named(name)
                yield Words(text=" is filled in")
            case tree.Binary(operator=operator) if operator in _COMPARED and self._is_simple(node):
                yield from self._comparison(node)
            case _:
                yield Words(text=unparse(node), code=True)

    def _is_simple(self, node: tree.Tree) -> bool:
        match node:
            case tree.Binary(left=left, right=right, operator=operator):
                sides = (left, right)
                named = any(tree.names_in(each) for each in sides)
                return named and operator in _COMPARED and all(map(self._is_operand, sides))
            case tree.Call(function="ISBLANK", arguments=(tree.Name(),)):
                return True
            case tree.Call(function="NOT", arguments=(inner,)):
                return isinstance(inner, tree.Call) and inner.function == "ISBLANK" and self._is_simple(inner)
        return False

    def _is_operand(self, node: tree.Tree) -> bool:
        if isinstance(node, tree.Binary) and node.operator in ("+", "-"):
            return self._is_operand(node.left) and self._is_operand(node.right)
        inner = node.operand if isinstance(node, tree.Unary) else node
        return isinstance(inner, tree.Name | tree.Number | tree.Text | tree.Boolean)

    def _comparison(self, node: tree.Binary) -> Iterator[Words]:
        left, operator, right = node.left, node.operator, node.right
        if not tree.names_in(left):
            left, operator, right = right, _MIRRORED[operator], left
        yield from self._operand(left, None)
        yield Words(text=f" {_COMPARED[operator]} ")
        yield from self._operand(right, self._field(left))

    def _field(self, node: tree.Tree) -> Field | None:
        return self._by_key.get(node.parts[0]) if isinstance(node, tree.Name) and len(node.parts) == 1 else None

    def _named(self, node: tree.Tree) -> Iterator[Words]:
        field = self._field(node)
        yield Words(block=field.id) if field else Words(text=unparse(node), code=True)

    def _operand(self, node: tree.Tree, beside: Field | None) -> Iterator[Words]:
        match node:
            case tree.Name():
                yield from self._named(node)
            case tree.Binary():
                yield from self._operand(node.left, None)
                yield Words(text=f" {node.operator} ")
                yield from self._operand(node.right, None)
            case tree.Number():
                yield Words(text=text_of_number(node.value), strong=True)
            case tree.Text(value=""):
                yield Words(text="blank")
            case tree.Text():
                option = find_option(getattr(beside, "options", ()), node.value)
                yield Words(text=option.label if option else node.value, strong=True)
            case _:
                yield Words(text=unparse(node), strong=True)


def _counts(block: Block) -> Iterator[Note]:
    options = getattr(block, "options", ())
    if any(option.counts_as for option in options):
        numbers = " · ".join(text_of_number(option.counts_as) for option in options)
        yield Note(kind=NoteKind.MONEY, setting="options", words=(Words(text=f"counts as {numbers}"),))


@dataclass(frozen=True, kw_only=True, slots=True)
class Links:
    """What a block's formulas read and whose formulas read it; block ids in the order of the outline."""

    reads: tuple[str, ...]
    read_by: tuple[str, ...]


def links(program: Program) -> dict[str, Links]:
    """Return the links of every block, by id."""
    by_slot = {place.value: place.block.id for place in program.field_places}
    reads: dict[str, set[str]] = {block.id: set() for block in program.form.blocks()}
    for formula in program.formulas:
        reads[formula.block.id] |= {by_slot[slot] for slot in formula.compiled.reads}
    return {
        block_id: Links(
            reads=tuple(each for each in reads if each in read),
            read_by=tuple(each for each, its in reads.items() if block_id in its),
        )
        for block_id, read in reads.items()
    }
