"""What a visitor's browser may know: the shapes of a form's face and of its state (see public)."""

from typing import TYPE_CHECKING, Annotated, Any, Literal, Union

from pydantic import BaseModel, ConfigDict, Discriminator

from codexa.core.definition.brand import Brand
from codexa.core.definition.parts import BlockFace, Identifier
from codexa.core.definition.wording import Wording
from codexa.core.fields import BLOCK_TYPES, HOLDING_FACES
from codexa.core.form.form import PageFace, Progress, Welcome

if TYPE_CHECKING:
    AnyFace = BlockFace
else:
    AnyFace = Annotated[Union[tuple(each.face for each in BLOCK_TYPES)], Discriminator("type")]  # noqa: UP007
    for holder in HOLDING_FACES:
        holder.model_rebuild(_types_namespace={"AnyFace": AnyFace, **{each.__name__: each for each in HOLDING_FACES}})


class _Face(BaseModel):
    model_config = ConfigDict(
        frozen=True, extra="forbid", from_attributes=True, json_schema_serialization_defaults_required=True
    )


class FilledPageFace(PageFace):
    """A page as visitors see it; one question at a time, each of them."""

    blocks: tuple[AnyFace, ...] = ()


class FormFace(_Face):
    """A form as visitors see it, with its `languages` where there are several.

    `first_weekday` is the day with which weeks begin, 0 for Sunday. `asks` are the blocks after whose change the
    browser asks for the new state.
    """

    title: str
    lead: str
    locale: str
    languages: tuple["LanguageFace", ...] = ()
    first_weekday: Literal[0, 1, 2, 3, 4, 5, 6] = 1
    currency: str
    brand: Brand
    wording: Wording
    presentation: str
    goes_on: bool
    enter: str
    progress: tuple[Progress, ...]
    page_addresses: str
    welcome: Welcome | None
    pages: tuple[FilledPageFace, ...]
    asks: tuple[Identifier, ...]
    quiz: "QuizFace | None" = None


class LanguageFace(_Face):
    """A language in which the form can be filled in: its code, and its own name for itself."""

    locale: str
    name: str


class QuizFace(_Face):
    """Of which questions visitors are told whether they were right, when, and whether they may answer again."""

    when: Literal["page", "at_once"]
    again: bool
    questions: tuple[Identifier, ...]


class _Facts(BaseModel):
    model_config = ConfigDict(frozen=True, extra="forbid")


class ErrorFace(_Face):
    """What is wrong with an answer."""

    code: str
    message: str


class KindState(_Facts):
    """What is true of a row kind: whether such rows can be added and changed; its label, if it has inserted values."""

    shown: bool = True
    locked: bool = False
    label: str | None = None


class FileFace(_Facts):
    """A file that the visitor sent: `size` in bytes, `type` its media type."""

    id: str
    name: str
    size: int
    type: str


class FeedbackFace(_Facts):
    """What is told of an answer: what it was, in words, what is said of its options, and the right answer, or ""."""

    outcome: Literal["right", "partly", "wrong"]
    words: str
    notes: list[str] = []
    right: str = ""


class BlockState(_Facts):
    """What is true of a block now; what is left out is not so.

    `value` only for calculated fields; `texts` are those with inserted values, by setting; `options` the ids of the
    options on offer where not all are, `barred` of those that can't be chosen; `dropped` where a choice was taken back;
    `fill` the answer to put in where none was given yet, which `follows` while the visitor leaves it, or can't change
    what came `from_link`; `files` those of an upload; `feedback` what is told of an answer in a quiz; `prices` those of
    options by id, or of each piece by ""; `left` words for what is left of a product by option id or "", `gone` the
    words for what is sold out of it; `answers` only for a block of all answers; `order` only for an order summary, with
    `to_pay` for what is paid now and later where the total does not say it; `unsettled` where a computed block is made
    of an answer that is refused; `moment` only for dates and times; `records`
    only for a record choice; `rows` and `kinds` only for a repeat.
    """

    shown: bool
    required: bool = False
    locked: bool = False
    value: str | None = None
    error: ErrorFace | None = None
    texts: dict[str, str] | None = None
    options: list[str] | None = None
    barred: list[str] | None = None
    dropped: bool = False
    fill: Any = None
    follows: bool = False
    from_link: bool = False
    files: list[FileFace] | None = None
    feedback: FeedbackFace | None = None
    prices: dict[str, str] | None = None
    left: dict[str, str] | None = None
    gone: dict[str, str] | None = None
    answers: "list[AnsweredPageFace] | None" = None
    order: "OrderFace | None" = None
    to_pay: str | None = None
    unsettled: bool = False
    moment: "MomentState | None" = None
    records: "RecordsState | None" = None
    slots: "SlotsState | None" = None
    rows: "dict[str, RowState] | None" = None
    kinds: dict[str, KindState] | None = None


class RecordFace(_Facts):
    """A record that can be chosen: the id to send, and what is shown of it; `picture` is a file of it, by its id."""

    id: str
    label: str
    picture: str = ""


class RecordsState(_Facts):
    """The records that a question offers: those `listed`, whether there are `more` to be searched, and the `chosen`.

    `none` says why nothing is listed; `stamp` is a mark of what is known of the chosen, to be handed in with them.
    """

    listed: list[RecordFace]
    more: bool = False
    chosen: list[RecordFace] = []
    none: str = ""
    stamp: str = ""


class FreeTimeFace(_Facts):
    """A time that is free: its id, from when to when, when that is in UTC (ISO 8601), and how much is `left`."""

    id: str
    label: str
    start: str
    left: str = ""


class FreeDayFace(_Facts):
    """A day (ISO 8601) with its free times."""

    day: str
    label: str
    times: list[FreeTimeFace]


class ChosenSlotFace(_Facts):
    """The slot that was chosen: its id, and day and time in words."""

    id: str
    label: str


class SlotsState(_Facts):
    """The slots that are free: by day, of which the next one to look at is `later`; which was `chosen`.

    Times are those of the time `zone` (IANA). `none` says why there are none.
    """

    days: list[FreeDayFace]
    zone: str
    later: str = ""
    chosen: ChosenSlotFace | None = None
    none: str = ""


class MomentState(_Facts):
    """How a date or time is understood (`told`); the `first` that it may be, and the `last`, in ISO 8601."""

    told: str | None = None
    first: str | None = None
    last: str | None = None


class AnsweredFace(_Facts):
    """An answer in words, with the label of its field as visitors read it."""

    label: str
    text: str


class AnsweredPageFace(_Facts):
    """What was answered on a page, by its id."""

    page: str
    title: str
    answers: list[AnsweredFace]


class OrderLineFace(_Facts):
    """A line of an order: what, how many, at what price each, and what that comes to, as visitors read it."""

    label: str
    quantity: str
    price: str
    amount: str


class SumFace(_Facts):
    """A named amount of an order; of a tax, whether it is in the prices."""

    label: str
    amount: str
    included: bool = False


class OrderFace(_Facts):
    """An order as visitors read it; "" for what it has not: no subtotal where nothing is added to the lines."""

    lines: list[OrderLineFace]
    subtotal: str
    discounts: list[SumFace]
    shipping: str
    taxes: list[SumFace]
    total: str


class RowState(_Facts):
    """What is true of the blocks of a row, by id, and what is wrong with the row as a whole."""

    blocks: dict[str, BlockState]
    error: ErrorFace | None = None


class FormState(_Facts):
    """What is true of the form now: of its blocks by id, and of the form as a whole.

    `path` are the ids of the pages that apply, in order; `left` counts the questions that are still blank; `texts` are
    those of pages and of the welcome with inserted values, by owner and setting; `said` is what was answered so far, by
    steps, where questions are asked one after the other. `fresh` comes with the first state
    alone: what is true of the blocks of a new row, by row kind and block, until the core has seen it.
    """

    blocks: dict[str, BlockState]
    path: list[str]
    left: int = 0
    error: ErrorFace | None = None
    texts: dict[str, dict[str, str]] = {}
    said: list[AnsweredPageFace] = []
    fresh: dict[str, dict[str, BlockState]] = {}


BlockState.model_rebuild()
FormFace.model_rebuild()


class BarFace(_Face):
    """A bar of a chart: `text` is its value as people read it, `share` its length from 0 to 1."""

    label: str
    text: str
    share: float


class ParagraphFace(_Face):
    """A piece of a confirmation: sanitised HTML, the bars of a chart, or a picture with words for who can't see it."""

    html: str = ""
    bars: list[BarFace] = []
    picture: str = ""
    alternative: str = ""


class ConfirmationFace(_Face):
    """What a visitor reads after handing in, or the address to go on to; and what they can do there (Confirmation)."""

    title: str
    paragraphs: list[ParagraphFace] = []
    redirect: str = ""
    redirect_within: bool = False
    own_page: bool = False
    again: bool = False
    printing: bool = False
    sharing: bool = False
