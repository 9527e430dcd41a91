"""The block types, in the order in which they are offered; to add one, see CONTRIBUTING.md."""

from typing import Any

from codexa.core.definition.parts import Block, Field
from codexa.core.fields.calculated import CalculatedType
from codexa.core.fields.email import EmailType
from codexa.core.fields.field_type import BlockType, FieldType
from codexa.core.fields.heading import HeadingType
from codexa.core.fields.number import NumberType
from codexa.core.fields.short_text import ShortTextType
from codexa.core.fields.single_choice import SingleChoiceType

BLOCK_TYPES: tuple[BlockType[Any], ...] = (
    ShortTextType(),
    EmailType(),
    NumberType(),
    CalculatedType(),
    SingleChoiceType(),
    HeadingType(),
)

_BY_NAME = {block_type.name: block_type for block_type in BLOCK_TYPES}


def type_of(block: Block) -> BlockType[Any]:
    """Return the type of a block."""
    return _BY_NAME[block.type]


def field_type_of(block: Field) -> FieldType[Any]:
    """Return the type of a field."""
    field_type = _BY_NAME[block.type]
    assert isinstance(field_type, FieldType)
    return field_type
