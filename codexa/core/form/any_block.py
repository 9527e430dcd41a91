"""A block of any type, as documents have it."""

from typing import TYPE_CHECKING, Annotated, Union

from pydantic import Discriminator

from codexa.core.definition.parts import Block
from codexa.core.fields import BLOCK_TYPES, HOLDING_BLOCKS

if TYPE_CHECKING:
    AnyBlock = Block
else:
    # The list of block types is the one place that names them; the union follows it.
    AnyBlock = Annotated[Union[tuple(each.block for each in BLOCK_TYPES)], Discriminator("type")]  # noqa: UP007
    for holder in HOLDING_BLOCKS:
        holder.model_rebuild(
            _types_namespace={"AnyBlock": AnyBlock, **{each.__name__: each for each in HOLDING_BLOCKS}}
        )
