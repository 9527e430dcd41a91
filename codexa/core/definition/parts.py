"""The pieces that every block of a definition is made of.

A block's *face* is what a visitor's browser may know of it; the block itself adds what stays on the server.
"""

from collections.abc import Iterable, Iterator
from dataclasses import dataclass
from decimal import Decimal
from typing import Annotated, Literal

from pydantic import AfterValidator, BaseModel, ConfigDict, StringConstraints
from pydantic import Field as Setting

from codexa.core.definition.keys import KEY, RESERVED_KEYS
from codexa.core.formula.functions.function import Role

Identifier = Annotated[str, StringConstraints(pattern=r"^[a-z0-9]{1,32}$")]
# What names something by its id, or nothing.
OptionalIdentifier = Annotated[str, StringConstraints(pattern=r"^[a-z0-9]{0,32}$")]
Label = Annotated[str, StringConstraints(max_length=500)]
Words = Annotated[str, StringConstraints(max_length=5_000)]
Colour = Annotated[str, StringConstraints(pattern=r"^#[0-9A-Fa-f]{6}$")]

MAX_ROWS = 500
_MOST_PLACES = 20  # before and after the point of a number in a document


def _bounded(number: Decimal) -> Decimal:
    if not number.is_finite():
        raise ValueError("a number is wanted here")
    exponent = number.as_tuple().exponent
    if (number and number.adjusted() >= _MOST_PLACES) or not isinstance(exponent, int) or exponent < -_MOST_PLACES:
        raise ValueError(f"a number here has at most {_MOST_PLACES} digits before its point, and as many after it")
    return number


# The one kind of number in a document: with it nothing that is worked out or shown can grow beyond bounds.
Number = Annotated[Decimal, AfterValidator(_bounded)]


def _key(text: str) -> str:
    if not KEY.fullmatch(text):
        raise ValueError(f'"{text}" can\'t be a key: use small letters, digits and _, starting with a letter')
    if text in RESERVED_KEYS:
        raise ValueError(f'"{text}" can\'t be a key: it has a meaning of its own in formulas')
    return text


Key = Annotated[str, AfterValidator(_key)]


@dataclass(frozen=True, slots=True)
class FormulaText:
    """Marks a text setting as a formula; `role` is how its result is seen, `fact` the fact that it works out."""

    role: Role
    fact: str


@dataclass(frozen=True, slots=True)
class InsertedText:
    """Marks a text setting in which `{name}` stands for a value; `into` says what the value must be written for."""

    into: Literal["text", "html", "address"] = "text"


@dataclass(frozen=True, slots=True)
class VisitorText:
    """Marks a text setting as read by visitors: in another language it is another text."""


ShownWhen = Annotated[str, FormulaText(Role.CONDITION, "shown")]
RequiredWhen = Annotated[str, FormulaText(Role.CONDITION, "required")]
LockedWhen = Annotated[str, FormulaText(Role.CONDITION, "locked")]
ComputedBy = Annotated[str, FormulaText(Role.VALUE, "value")]
DefaultBy = Annotated[str, FormulaText(Role.VALUE, "default")]
VisitorLabel = Annotated[Label, InsertedText(), VisitorText()]
VisitorWords = Annotated[Words, InsertedText(), VisitorText()]
# What visitors read as it stands, without inserted values.
PlainLabel = Annotated[Label, VisitorText()]
PlainWords = Annotated[Words, VisitorText()]
ButtonLabel = Annotated[str, StringConstraints(max_length=60), VisitorText()]
GroupCode = Annotated[str, StringConstraints(min_length=1, max_length=60)]
Unit = Annotated[str, StringConstraints(max_length=30), VisitorText()]


class Part(BaseModel):
    """A frozen piece of a definition; unknown keys are refused."""

    model_config = ConfigDict(extra="forbid", frozen=True, json_schema_serialization_defaults_required=True)


class Check(Part):
    """Something that must hold, and what visitors are told where it does not."""

    formula: Annotated[str, FormulaText(Role.CONDITION, "check")]
    message: VisitorLabel


class BlockFace(Part):
    """What the browser may know of any block."""

    id: Identifier
    type: str
    width: Literal["full", "half", "third", "quarter"] = "full"


class FieldFace(BlockFace):
    """What the browser may know of any field."""

    label: VisitorLabel
    help: VisitorWords = ""


class Block(BlockFace):
    """Anything on a page. `shown` is a condition; empty text means always.

    `part` is the part of the form that it belongs to, by id; "" for that of what it stands in, at last who fills in.
    """

    key: Key
    shown: ShownWhen = ""
    part: OptionalIdentifier = ""


class Field(FieldFace, Block):
    """A block that holds a value."""


class Question(Field):
    """A field that visitors answer.

    `required` and `locked` are conditions; empty text means never, TRUE always. `default` is worked out once, when the
    field is first shown, or with `default_follows` again whenever what it reads changes, until the visitor changes the
    answer and always while the field is locked; while a field is locked by TRUE, its value is its default. `checks` are
    looked at once there is an answer. A hidden answer is kept only where `keep_when_hidden` says so. What is `personal`
    is emptied where a response is anonymised.
    """

    required: RequiredWhen = ""
    locked: LockedWhen = ""
    default: DefaultBy = ""
    default_follows: bool = False
    checks: tuple[Check, ...] = ()
    keep_when_hidden: bool = False
    personal: bool = False


class Group(Block):
    """Blocks that belong together; its conditions hold for all of them, its checks are looked at when it is shown."""

    blocks: tuple[Block, ...] = ()
    required: RequiredWhen = ""
    locked: LockedWhen = ""
    checks: tuple[Check, ...] = ()


class RowKindFace(Part):
    """What the browser may know of a row kind.

    The button that adds such a row says `add_label`, or "Add" and the label. With `one_line` its blocks stand beside
    one another wherever they fit, as in a table.
    """

    id: Identifier
    label: VisitorLabel
    add_label: ButtonLabel = ""
    one_line: bool = False
    max_rows: Annotated[int, Setting(ge=1, le=MAX_ROWS)] | None = None


class RowKind(RowKindFace):
    """One of the shapes that a row may take; `required` wants at least one such row."""

    key: Key
    shown: ShownWhen = ""
    required: RequiredWhen = ""
    locked: LockedWhen = ""
    min_rows: Annotated[int, Setting(ge=0, le=MAX_ROWS)] = 0
    blocks: tuple[Block, ...] = ()
    checks: tuple[Check, ...] = ()


class Repeat(Block):
    """Rows of one or several kinds, as many as the visitor adds."""

    label: VisitorLabel = ""
    kinds: tuple[RowKind, ...] = ()
    required: RequiredWhen = ""
    locked: LockedWhen = ""
    min_rows: Annotated[int, Setting(ge=0, le=MAX_ROWS)] = 0
    max_rows: Annotated[int, Setting(ge=1, le=MAX_ROWS)] = 50
    checks: tuple[Check, ...] = ()


def blocks_within(blocks: Iterable[Block]) -> Iterator[tuple[Block, RowKind | None]]:
    """Yield every block and all inside it in the order of the outline, with the row kind that it is part of."""
    for block in blocks:
        yield block, None
        if isinstance(block, Group):
            yield from blocks_within(block.blocks)
        elif isinstance(block, Repeat):
            for kind in block.kinds:
                yield from ((inner, kind) for inner, _ in blocks_within(kind.blocks))
