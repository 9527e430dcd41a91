"""The steps in which a form is shown: its pages, or one question at a time."""

from collections.abc import Iterator, Sequence
from dataclasses import dataclass
from itertools import count

from codexa.core.definition.parts import Block
from codexa.core.fields import type_of
from codexa.core.fields.all_answers import AllAnswersBlock
from codexa.core.fields.calculated import CalculatedField
from codexa.core.fields.content import DividerBlock, HeadingBlock, PictureBlock, TextBlock
from codexa.core.fields.order_summary import OrderSummaryBlock
from codexa.core.form.form import Form, Page

# What stands before a question belongs to it, and what is worked out belongs to the question before.
_LEADS = (HeadingBlock, TextBlock, PictureBlock, DividerBlock)
_FOLLOWS = (CalculatedField, OrderSummaryBlock)


@dataclass(frozen=True, kw_only=True, slots=True)
class Step:
    """What is shown at once: some blocks of a page; the first and the last of a page have its own words.

    `looks_over` is the step before sending that tells all answers; it belongs to no page of the author's.
    """

    id: str
    page: Page
    blocks: tuple[Block, ...]
    first: bool = True
    last: bool = True
    looks_over: bool = False

    @property
    def asked(self) -> tuple[Block, ...]:
        """Those of its blocks that ask for something."""
        return tuple(each for each in self.blocks if _asks(each))


def steps_of(form: Form) -> tuple[Step, ...]:
    """Return the steps of a form in the author's order, those that don't apply too."""
    if not form.by_question:
        return tuple(Step(id=page.id, page=page, blocks=page.blocks) for page in form.pages)
    return (*(step for page in form.pages for step in _of_page(page)), *_looking_over(form))


def _of_page(page: Page) -> Iterator[Step]:
    pieces = list(_pieces(page.blocks))
    for at, blocks in enumerate(pieces):
        named = next((each for each in blocks if _asks(each)), blocks[0])
        yield Step(id=named.id, page=page, blocks=tuple(blocks), first=at == 0, last=at == len(pieces) - 1)


def _pieces(blocks: Sequence[Block]) -> Iterator[list[Block]]:
    """Yield the blocks of a page as they are shown together."""
    piece: list[Block] = []
    asks = False
    for block in blocks:
        if asks and not isinstance(block, _FOLLOWS) and type_of(block).visible:
            yield piece
            piece, asks = [], False
        piece.append(block)
        asks = asks or _asks(block)
    if piece:
        yield piece


def _asks(block: Block) -> bool:
    return type_of(block).visible and not isinstance(block, (*_LEADS, *_FOLLOWS))


def _looking_over(form: Form) -> Iterator[Step]:
    told = any(isinstance(block, AllAnswersBlock) for block, _ in form.blocks_and_kinds())
    # A conversation stands there as it was.
    if form.presentation != "single" or not form.look_over or told or not form.pages:
        return
    taken = {block.id for block, _ in form.blocks_and_kinds()} | {page.id for page in form.pages}
    name = next(each for at in count() if (each := f"lookover{at}") not in taken)
    block = AllAnswersBlock(id=name, key="all_answers", label=form.say("lookOver"))
    yield Step(id=name, page=Page(id=name), blocks=(block,), looks_over=True)
