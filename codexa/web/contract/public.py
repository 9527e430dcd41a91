"""The public form."""

import datetime
from typing import Annotated, Any, Literal
from uuid import UUID

from annotated_types import Interval, Len
from pydantic import Field, StringConstraints

from codexa.core.program.faces import (
    ConfirmationFace,
    ErrorFace,
    FormFace,
    FormState,
    OrderFace,
    RecordsState,
    SlotsState,
)
from codexa.web.contract.message import Message

LinkValues = Annotated[
    dict[Annotated[str, StringConstraints(max_length=60)], Annotated[str, StringConstraints(max_length=2_000)]],
    Len(max_length=50),
]
Seal = Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9_-]{0,100}$")]
# What says that a form's password was typed, and who is signed in.
Entry = Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9._-]{0,200}$")]


# Made by the page for one filling-in; the files that were sent on it are known by it.
Visit = Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9]{0,40}$")]


class EvaluateRequest(Message):
    """What the visitor has entered, by block id, and what came with the address.

    `turn` is handed back, so that late replies are known. `changed` are the blocks whose answers are new since the last
    reply: only what hangs on them comes back. Without it all does. `checked` are the questions of a quiz that the
    visitor is done with: what was right of them is told as far as it is due.
    """

    answers: dict[str, Any]
    link: LinkValues = Field({})
    changed: Annotated[list[str], Len(max_length=2_000)] | None = None
    checked: Annotated[list[Annotated[str, StringConstraints(max_length=40)]], Len(max_length=2_000)] = Field([])
    turn: Annotated[int, Interval(ge=0, le=2**53)] = 0
    visit: Visit = ""
    seal: Seal = ""
    entry: Entry = ""


class EvaluateReply(Message):
    """The form's state with these answers."""

    turn: int
    state: FormState


class FindOffersRequest(Message):
    """What a visitor looks for at the question at `address` ("id", or "repeat/row/id"), with what was answered.

    Records by `words`, or slots that begin on the day `since` or after it.
    """

    answers: dict[str, Any]
    address: Annotated[str, StringConstraints(max_length=140)]
    words: Annotated[str, StringConstraints(max_length=200)] = ""
    since: datetime.date | None = None
    link: LinkValues = Field({})
    visit: Visit = ""
    seal: Seal = ""
    entry: Entry = ""


class FoundOffersReply(Message):
    """What is offered there: the records in which all words are shown, or the slots that are free."""

    records: RecordsState | None = None
    slots: SlotsState | None = None


class SpokenRequest(Message):
    """What a visitor says to a question, by the id of its block."""

    block: Annotated[str, StringConstraints(max_length=40)]
    words: Annotated[str, StringConstraints(min_length=1, max_length=10_000, pattern=r"\S")]
    entry: Entry = ""


class SpokenReply(Message):
    """The answer that it gives, as the form would have been given it, or what is wrong with it."""

    answer: Any = None
    error: ErrorFace | None = None


Way = Literal["link", "script", "frame", "pop-up", "tab", "corner"]  # a program comes by none of them


class HowItCame(Message):
    """By which way a response came, from which page of a website ("" where it is none), and in how many seconds."""

    way: Way = "link"
    page: Annotated[str, StringConstraints(max_length=500)] = ""
    seconds: Annotated[int, Interval(ge=0, le=100_000_000)] | None = None


class NewsReply(Message):
    """What is new since an earlier edition, for a visitor who began with that, in words."""

    news: list[str]


ShortStamp = Annotated[str, StringConstraints(max_length=40)]


class SubmitRequest(Message):
    """What the visitor hands in, by block id, what came with the address, and how they came.

    `seen` are the stamps of the records that were chosen, by address, as the visitor saw them last.
    `opened` says when the form's page was given out, `trap` what was entered where people see nothing. `kept` is the
    token of answers that were kept for later, "" where none were; `work` what the sender's computer found where work
    was asked of it (`services/work.py`).
    """

    answers: dict[str, Any]
    link: LinkValues = Field({})
    visit: Visit = ""
    seal: Seal = ""
    entry: Entry = ""
    came: HowItCame = Field(default_factory=HowItCame)
    seen: Annotated[dict[Annotated[str, StringConstraints(max_length=140)], ShortStamp], Len(max_length=2_000)] = Field(
        {}
    )
    opened: Entry = ""
    kept: Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9]{0,80}$")] = ""
    trap: Annotated[str, StringConstraints(max_length=500)] = ""
    work: Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9.:]{0,100}$")] = ""


PartId = Annotated[str, StringConstraints(max_length=40)]
_Seconds = Annotated[int, Interval(ge=0, le=100_000_000)]


class VisitRequest(Message):
    """How far a visit has come, for counting: see `services/visits.py`. Nothing in it says whose it is."""

    visit: UUID
    turn: Annotated[int, Interval(ge=1, le=100_000)]
    width: Literal["narrow", "medium", "wide"]
    started: bool = False
    sent: bool = False
    place: PartId = ""
    field: PartId = ""
    steps: Annotated[dict[PartId, _Seconds], Len(max_length=2_000)] = Field({})
    wrong: Annotated[list[PartId], Len(max_length=2_000)] = Field([])
    seconds: _Seconds = 0
    came: HowItCame = Field(default_factory=HowItCame)
    seal: Seal = ""
    entry: Entry = ""


# What a private link to answers that are kept has in it; made by the page, of 256 random bits.
Token = Annotated[str, StringConstraints(pattern=r"^[A-Za-z0-9]{40,80}$")]


class KeepRequest(Message):
    """What a visitor has entered so far, to go on with later, and how far they are.

    `version` is the one that was seen last, 0 before the first; with null these answers replace whatever is kept.
    `began` is when the visitor began, in milliseconds since 1970.
    """

    token: Token
    version: Annotated[int, Interval(ge=0, le=2**31 - 1)] | None = 0
    answers: dict[str, Any]
    link: LinkValues = Field({})
    visit: Visit = ""
    seal: Seal = ""
    entry: Entry = ""
    came: HowItCame = Field(default_factory=HowItCame)
    page: Annotated[str, StringConstraints(max_length=40)] | None = None
    seed: Annotated[int, Interval(ge=0, le=2**31)] = 0
    checked: Annotated[list[Annotated[str, StringConstraints(max_length=40)]], Len(max_length=2_000)] = Field([])
    began: Annotated[int, Interval(ge=0, le=2**53)] = 0


class KeepReply(Message):
    """It is kept: under which number, at which address, under which version, and until when in words."""

    number: int
    address: str
    version: int
    until: str


class KeptMailRequest(Message):
    """Where the private link is to be sent."""

    token: Token
    email: Annotated[str, StringConstraints(max_length=254)]


class KeptAnswers(Message):
    """Answers that a visitor goes on with: kept `when`, in words, with which edition and on which visit."""

    token: str
    version: int
    edition: int
    visit: str
    answers: dict[str, Any]
    when: str
    page: str | None
    seed: int
    checked: list[str]
    began: int


class ToPayReply(Message):
    """How a response's payment stands: due, paid or expired. `amount` as people write it, `page` the bank's own page.

    `amount` is "" where nothing is paid at once, `plan` what is paid now and later in words, "" without a plan.
    `reason` is why a card was refused; `away` says that the bank can't be asked just now. With `in_frame` the bank's
    page stands in ours.
    """

    state: Literal["due", "paid", "expired"]
    amount: str
    plan: str
    page: str
    reason: str
    practice: bool
    in_frame: bool
    away: bool


class ReceivedReply(Message):
    """The response was kept under this number; what the visitor reads then, and at which address again.

    In a preview, which keeps nothing, there is no such address. Where `payment` is due, the confirmation follows it,
    and `order` is what it is for.
    """

    number: int
    confirmation: ConfirmationFace
    page: str = ""
    payment: ToPayReply | None = None
    order: OrderFace | None = None


class UploadReply(Message):
    """A file was taken: `size` in bytes; `thumbnail` is the address of a small picture of it, where there is one."""

    id: str
    name: str
    size: int
    thumbnail: str | None


class RefusedReply(Message):
    """The response was not kept: what is wrong, by block id; `work` is what is asked of the sender's computer first."""

    code: str
    message: str
    errors: dict[str, ErrorFace]
    work: str = ""


class MemberSignInRequest(Message):
    """Somebody signs in while they fill in: by a password, or the code of a mail; or wants the mail ("mail")."""

    way: Literal["password", "code", "mail"]
    email: Annotated[str, StringConstraints(max_length=300)] = ""
    password: Annotated[str, StringConstraints(max_length=300)] = ""
    asked: Annotated[str, StringConstraints(max_length=100)] = ""
    code: Annotated[str, StringConstraints(max_length=20)] = ""
    entry: Entry = ""


class MemberSignInReply(Message):
    """Who is signed in now, with what their page carries from now on; or, with `asked`, which code is waited for."""

    words: str
    entry: str = ""
    visitor: str = ""
    asked: str = ""


class TypedRequest(Message):
    """Answers as they were typed in a `language`, by its code."""

    answers: dict[str, Any]
    language: Annotated[str, StringConstraints(max_length=40)]
    entry: Entry = ""


class TypedReply(Message):
    """The same as they are typed in another."""

    answers: dict[str, Any]


class PublicPage(Message):
    """What the page of a public form carries: where to ask, what to show, and the first state.

    `base` is what the addresses begin with that the form asks. `address` is the form's own, without a page; `page` the
    address of the page that was asked for, or "". `token` is there in the workbench alone: the session's, for asking
    about a draft, or a response that is corrected, which `takes_files`. `shown` is another way of presenting the form.
    `received` is what was received and is seen again at an address of its own. `seal` is the link's, `entry` says that
    the password was typed; `came` is how the visitor came, and `host` the origin of the website around, "" where it is
    not known. `visitor` is who is signed in, by name, and `members` the page of the team's members.
    With `later` answers can be kept to go on with later; `kept` are those that the visitor goes on with.
    """

    base: str
    form: UUID
    edition: int
    framed: bool
    link: LinkValues
    seal: str = ""
    entry: str = ""
    came: HowItCame = Field(default_factory=HowItCame)
    opened: str = ""
    host: str = ""
    address: str
    page: str
    token: str | None = None
    takes_files: bool = False
    shown: str = ""
    face: FormFace
    state: FormState
    received: ReceivedReply | None = None
    later: bool = False
    visitor: str = ""
    members: str = ""
    kept: KeptAnswers | None = None
