"""The pieces that every block of a definition is made of.

A block's *face* is what a visitor's browser may know of it; the block itself adds what stays on the server.
"""

import re
from dataclasses import dataclass
from typing import Annotated, ClassVar, Literal

from pydantic import AfterValidator, BaseModel, ConfigDict, StringConstraints

from codexa.core.formula.functions.function import Role

Identifier = Annotated[str, StringConstraints(pattern=r"^[a-z0-9]{1,32}$")]
Label = Annotated[str, StringConstraints(max_length=500)]
Words = Annotated[str, StringConstraints(max_length=5_000)]
Colour = Annotated[str, StringConstraints(pattern=r"^#[0-9A-Fa-f]{6}$")]

_KEY = re.compile(r"[a-z][a-z0-9_]{0,59}")
# What stands before a dot in names of the surroundings (`visitor.email`), and what reads as a value.
RESERVED_KEYS = frozenset({"true", "false", "visitor", "link", "response"})


def _key(text: str) -> str:
    if not _KEY.fullmatch(text):
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


ShownWhen = Annotated[str, FormulaText(Role.CONDITION, "shown")]
RequiredWhen = Annotated[str, FormulaText(Role.CONDITION, "required")]
ComputedBy = Annotated[str, FormulaText(Role.VALUE, "value")]


class Part(BaseModel):
    """A frozen piece of a definition; unknown keys are refused."""

    model_config = ConfigDict(extra="forbid", frozen=True, json_schema_serialization_defaults_required=True)


class BlockFace(Part):
    """What the browser may know of any block."""

    id: Identifier
    type: str
    width: Literal["full", "half", "third"] = "full"


class FieldFace(BlockFace):
    """What the browser may know of any field."""

    label: Label
    help: Words = ""


class Block(BlockFace):
    """Anything on a page. `shown` is a condition; empty text means always."""

    formulas: ClassVar[dict[str, FormulaText]] = {}
    key: Key
    shown: ShownWhen = ""

    @classmethod
    def __pydantic_init_subclass__(cls, **_ignored: object) -> None:
        """Collect the settings that are formulas, so that everything else can treat them alike."""
        cls.formulas = {
            name: mark
            for name, setting in cls.model_fields.items()
            for mark in setting.metadata
            if isinstance(mark, FormulaText)
        }

    def formula_texts(self) -> dict[str, str]:
        """Return the formulas that are there, by the name of their setting."""
        return {name: text for name in self.formulas if (text := getattr(self, name).strip())}


class Field(FieldFace, Block):
    """A block that holds a value. `required` is a condition; empty text means never, TRUE always."""

    required: RequiredWhen = ""
