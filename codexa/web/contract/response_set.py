"""What is asked of a form's responses as a set, and what comes back: columns to ask for, totals, charts, views."""

from datetime import datetime
from decimal import Decimal
from typing import Annotated, Literal
from uuid import UUID

from pydantic import Field as Setting
from pydantic import StringConstraints

from codexa.core.definition.parts import Colour
from codexa.core.responses.conditions import Filter, How
from codexa.core.responses.holds import Holds
from codexa.services.response_set.asking import STATUS
from codexa.services.response_set.chart import Kind
from codexa.services.response_set.in_bulk import Does
from codexa.web.contract.message import Message
from codexa.web.contract.responses import ColumnReply, RowReply

Name = Annotated[str, StringConstraints(min_length=1, max_length=100, strip_whitespace=True)]
Code = Annotated[str, StringConstraints(min_length=1, max_length=60, pattern=r"^[a-z0-9-]+$")]
MOST_MARKED = 200


class OptionReply(Message):
    """What a choice can be."""

    code: str
    label: str


class AskedColumnReply(Message):
    """A column that can be asked for: what it holds, in which ways, and of a choice its options.

    `facet` where every response has it; `parts` are the questions of a grid and the fields of rows.
    """

    id: str
    label: str
    number: str
    holds: Holds
    numeric: bool
    calculated: bool
    earlier: bool
    facet: bool
    hows: list[How]
    options: list[OptionReply]
    parts: list["AskedColumnReply"]


class StatusReply(Message):
    """A status that the team gives responses, in the team's order."""

    code: Code
    label: Name
    colour: Colour


class AskingReply(Message):
    """What a form's responses can be asked for; `behind` is how many of them are still being read in."""

    columns: list[AskedColumnReply]
    statuses: list[StatusReply]
    behind: int


class TotalReply(Message):
    """What a column of numbers comes to over a set: how many, their sum and average, plain and for people."""

    count: int
    sum: Decimal
    average: Decimal
    sum_shown: str
    average_shown: str


class TotalsReply(Message):
    """What the columns of numbers come to, by column id."""

    totals: dict[str, TotalReply]


class BarReply(Message):
    """A bar of a chart: how many, of how many hundred, and what is measured there, with how people write it."""

    code: str
    label: str
    count: int
    share: Decimal
    value: Decimal | None
    value_shown: str


class CellReply(Message):
    """How often an answer is there in a row."""

    row: str
    code: str
    count: int
    share: Decimal


class ChartReply(Message):
    """A chart of a column (`by` another, "" for none) in words and numbers."""

    column: str
    by: str
    kind: Kind
    headline: str
    aside: str
    all: int
    answered: int
    bars: list[BarReply]
    rows: list[BarReply]
    cells: list[CellReply]
    more: bool
    average: Decimal | None
    sum: Decimal | None
    least: Decimal | None
    greatest: Decimal | None


class VisitSumsReply(Message):
    """Visits that have something in common: how many came, answered something, and sent; `label` for people.

    `choosable` where a filter can leave only these.
    """

    value: str
    label: str
    choosable: bool
    seen: int
    started: int
    sent: int


class StepCountReply(Message):
    """A step of a funnel: how many reached it, how many left there, and the median of its seconds."""

    id: str
    number: str
    label: str
    reached: int
    left: int
    seconds: int | None
    earlier: bool


class FieldCountReply(Message):
    """A field, and for how many visitors something was so."""

    id: str
    number: str
    label: str
    count: int


class FunnelReply(Message):
    """A form's visits: all together, by step, by what they are told apart by, and by day.

    `presentation` is the way of presenting whose steps these are; with `by_month` days long ago are only known by
    their month, which stands at its first day. `unheeded` are the places of the conditions that
    can't be asked of visits; `words_unheeded` says so of what is searched for.
    """

    presentation: str
    presentations: list[VisitSumsReply]
    all: VisitSumsReply
    seconds: int | None
    steps: list[StepCountReply]
    left_at: list[FieldCountReply]
    wrong: list[FieldCountReply]
    groups: list[VisitSumsReply]
    days: list[VisitSumsReply]
    by_month: bool
    unheeded: list[int]
    words_unheeded: bool


class ViewContent(Message):
    """What a view is: which of the four, its filter, the table's columns and order, the board, its charts.

    `charts` are pairs of a column and what it is compared by; `widths` are those of columns in pixels, `fixed` how
    many of the first stay in sight. The funnel tells visits `apart` by something, of windows of a width, in a way of
    presenting.
    """

    shown: Literal["table", "charts", "board", "funnel"] = "table"
    filter: Filter = Filter()
    columns: Annotated[tuple[str, ...], Setting(max_length=400)] = ()
    fixed: Annotated[int, Setting(ge=0, le=10)] = 0
    widths: Annotated[dict[str, Annotated[int, Setting(ge=40, le=1000)]], Setting(max_length=400, default_factory=dict)]
    sorts: Annotated[tuple[str, ...], Setting(max_length=4)] = ()
    board_by: str = ""
    cards: Annotated[tuple[str, ...], Setting(max_length=6)] = ()
    charts: Annotated[tuple[tuple[str, str], ...], Setting(max_length=40)] = ()
    apart: Literal["width", "edition", "way", "page", "link"] = "width"
    window: Literal["", "narrow", "medium", "wide"] = ""
    presentation: Literal["", "whole", "paged", "single", "chat"] = ""


class ViewRequest(Message):
    """A view to keep, under a name that no other of the form has."""

    name: Name
    content: ViewContent
    opens_first: bool = False


class ViewReply(Message):
    """A view that is kept."""

    id: UUID
    name: str
    content: ViewContent
    opens_first: bool
    made_by: str | None


class ViewsReply(Message):
    """The views of a form, by name."""

    views: list[ViewReply]


class StatusesRequest(Message):
    """The statuses that a form's responses can have, in order."""

    statuses: Annotated[list[StatusReply], Setting(max_length=20)]


class MoveRequest(Message):
    """A response moved on a board by a column: from the status or option that was seen to another; "" is none."""

    by: str = STATUS
    was: str = ""
    to: str = ""


class NoteRequest(Message):
    """A note to keep with a response."""

    note: Annotated[str, StringConstraints(min_length=1, max_length=5_000, strip_whitespace=True)]


class MarkRequest(Message):
    """Responses, by number, that get something: a status, a tag, or no longer a tag, or a person ("" for nobody)."""

    numbers: Annotated[list[int], Setting(min_length=1, max_length=MOST_MARKED)]
    kind: Literal["status", "tag", "untag", "person"]
    value: Annotated[str, StringConstraints(max_length=60, strip_whitespace=True)] = ""


class NumbersRequest(Message):
    """Responses, by number."""

    numbers: Annotated[list[int], Setting(min_length=1, max_length=MOST_MARKED)]


class BulkRequest(Message):
    """What is done to responses: those of these numbers, or without them what the query looks at.

    `value` is a status, a tag, a person, or the id of the follow-up whose mail is sent again.
    """

    does: Does
    value: Annotated[str, StringConstraints(max_length=60, strip_whitespace=True)] = ""
    numbers: Annotated[list[int], Setting(min_length=1, max_length=MOST_MARKED)] | None = None


class BulkReply(Message):
    """How far something has come that is done to `count` responses: `place` were gone through, `changed` changed."""

    id: UUID
    does: Does
    value: str
    count: int
    place: int
    changed: int
    state: Literal["waiting", "done", "stopped"]
    person: str | None
    created_at: datetime
    ended_at: datetime | None


class BulksReply(Message):
    """What is done, and was done within a day, newest first."""

    bulks: list[BulkReply]


class Retention(Message):
    """How long a form's responses are kept: after so many days they are anonymised or removed; None for ever."""

    days: Annotated[int, Setting(ge=1, le=36_500)] | None = None
    does: Literal["anonymise", "remove"] = "anonymise"


class BegunReply(Message):
    """What was begun, by its id."""

    id: UUID


class NumbersReply(Message):
    """The responses to which it happened, by number."""

    numbers: list[int]


class MarkedReply(Message):
    """How many were changed by it: others had it already, or are gone."""

    changed: int


class LaneReply(Message):
    """A column of a board: how many are in it, what its numbers come to as people write it, and its first cards."""

    code: str
    label: str
    count: int
    exact: bool
    sums: dict[str, str]
    rows: list[RowReply]


class BoardReply(Message):
    """A board; `turn` is what `/turn` said when it was made."""

    columns: list[ColumnReply]
    lanes: list[LaneReply]
    turn: int


class TurnReply(Message):
    """Grows with each change."""

    turn: int


class SavedViewReply(Message):
    """The id of a view that was saved."""

    id: UUID


class NeighboursReply(Message):
    """The responses before and after one in a set, by number."""

    before: int | None
    after: int | None
