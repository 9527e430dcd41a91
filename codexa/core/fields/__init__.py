"""The block types, in the order in which they are offered; to add one, see CONTRIBUTING.md."""

from typing import Any

from pydantic import BaseModel

from codexa.core.definition.parts import Block, Field
from codexa.core.fields.address import AddressType
from codexa.core.fields.all_answers import AllAnswersType
from codexa.core.fields.calculated import CalculatedType
from codexa.core.fields.content import DividerType, HeadingType, PictureType, TextType
from codexa.core.fields.date import DateType
from codexa.core.fields.date_time import DateTimeType
from codexa.core.fields.dropdown import DropdownType
from codexa.core.fields.email import EmailType
from codexa.core.fields.field_type import BlockType, FieldType
from codexa.core.fields.file_upload import FileUploadType
from codexa.core.fields.grid import GridType
from codexa.core.fields.group import GroupBlock, GroupFace, GroupType
from codexa.core.fields.hidden import HiddenType
from codexa.core.fields.long_text import LongTextType
from codexa.core.fields.money import MoneyType
from codexa.core.fields.name import NameType
from codexa.core.fields.number import NumberType
from codexa.core.fields.opinions import RatingType, ScaleType, SliderType
from codexa.core.fields.order_summary import OrderSummaryType
from codexa.core.fields.phone import PhoneType
from codexa.core.fields.product import ProductType
from codexa.core.fields.quantity import QuantityType
from codexa.core.fields.record_choice import RecordChoiceType
from codexa.core.fields.repeat import RepeatBlock, RepeatFace, RepeatType, ShapedRowKind, ShapedRowKindFace
from codexa.core.fields.several_choices import SeveralChoicesType
from codexa.core.fields.short_text import ShortTextType
from codexa.core.fields.signature import SignatureType
from codexa.core.fields.single_choice import SingleChoiceType
from codexa.core.fields.slot import SlotType
from codexa.core.fields.time import TimeType
from codexa.core.fields.web_address import WebAddressType
from codexa.core.fields.yes_no import ConsentType, YesNoType

BLOCK_TYPES: tuple[BlockType[Any], ...] = (
    ShortTextType(),
    LongTextType(),
    NumberType(),
    MoneyType(),
    CalculatedType(),
    ProductType(),
    QuantityType(),
    OrderSummaryType(),
    DateType(),
    TimeType(),
    DateTimeType(),
    SlotType(),
    YesNoType(),
    SingleChoiceType(),
    DropdownType(),
    SeveralChoicesType(),
    RecordChoiceType(),
    RatingType(),
    ScaleType(),
    SliderType(),
    GridType(),
    NameType(),
    EmailType(),
    PhoneType(),
    WebAddressType(),
    AddressType(),
    ConsentType(),
    SignatureType(),
    FileUploadType(),
    HeadingType(),
    TextType(),
    PictureType(),
    DividerType(),
    AllAnswersType(),
    GroupType(),
    RepeatType(),
    HiddenType(),
)

# The models that hold blocks of every type in turn; whoever makes the union of all types completes them with it.
HOLDING_BLOCKS: tuple[type[BaseModel], ...] = (GroupBlock, ShapedRowKind, RepeatBlock)
HOLDING_FACES: tuple[type[BaseModel], ...] = (GroupFace, ShapedRowKindFace, RepeatFace)

_BY_NAME = {block_type.name: block_type for block_type in BLOCK_TYPES}


def type_of(block: Block) -> BlockType[Any]:
    """Return the type of a block."""
    return _BY_NAME[block.type]


def field_type_of(block: Field) -> FieldType[Any]:
    """Return the type of a field."""
    field_type = _BY_NAME[block.type]
    assert isinstance(field_type, FieldType)
    return field_type
