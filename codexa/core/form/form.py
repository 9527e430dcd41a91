"""The form's document: pages of blocks and what stands beside them."""

from collections import Counter
from collections.abc import Iterable, Iterator
from functools import cache
from typing import Annotated, Any, Literal
from zoneinfo import available_timezones

from annotated_types import Len
from babel.numbers import is_currency
from pydantic import AfterValidator, StringConstraints, model_validator

from codexa.core.definition.brand import Brand
from codexa.core.definition.figures import AnyFigure, Feedback
from codexa.core.definition.formulas import sites
from codexa.core.definition.order import Order
from codexa.core.definition.parts import (
    Block,
    ButtonLabel,
    Check,
    Field,
    FormulaText,
    Group,
    GroupCode,
    Identifier,
    InsertedText,
    Label,
    LockedWhen,
    OptionalIdentifier,
    Part,
    PlainLabel,
    PlainWords,
    Repeat,
    RequiredWhen,
    RowKind,
    ShownWhen,
    VisitorLabel,
    VisitorText,
    blocks_within,
)
from codexa.core.definition.payment import Payment
from codexa.core.definition.reading import read_part
from codexa.core.definition.rich_text import RichText
from codexa.core.definition.translation import MAX_LANGUAGES, FurtherLanguage, LocaleCode
from codexa.core.definition.trials import MAX_TRIALS, Trial
from codexa.core.definition.wording import Wording
from codexa.core.fields.field_type import Region
from codexa.core.form.any_block import AnyBlock
from codexa.core.form.follow_ups import AnyFollowUp, ApprovalFollowUp, EmailFollowUp, TaskFollowUp
from codexa.core.form.known_tables import MAX_TABLES, KnownTable
from codexa.core.form.paragraphs import Paragraph
from codexa.core.formula.functions.function import Role

FORMAT = 2  # of the documents that are written now; see upgrades.py
MAX_BLOCKS = 2_000
FORM = "whole-form"  # the owner of what belongs to the form itself; no block can have this id
MAX_PARTS = 20
MAX_FOLLOW_UPS = 50
MAX_GROUPS_DEEP = 10
MAX_FORMULAS = 400_000  # characters of all formulas together; each may have 8,000


def _currency(text: str) -> str:
    if not is_currency(text):
        raise ValueError(f'"{text}" is no ISO 4217 currency; use a code such as EUR')
    return text


@cache
def time_zones() -> frozenset[str]:
    """Return the names of all time zones that this machine knows (IANA); looking takes long, and they stay the same."""
    return frozenset(available_timezones())


def _time_zone(text: str) -> str:
    if text not in time_zones():
        raise ValueError(f'"{text}" is no time zone; use a name such as Europe/Berlin')
    return text


Progress = Literal["steps", "bar", "count", "percent", "left"]


def _each_once(ways: tuple[Progress, ...]) -> tuple[Progress, ...]:
    if len(ways) != len(set(ways)):
        raise ValueError("progress names a way of telling it twice; name each once")
    return ways


SEAL = "s"  # what an address calls the seal of a link


def _not_the_seal(name: str) -> str:
    if name == SEAL:
        raise ValueError(f'"{SEAL}" is what links call their seal; take another name')
    return name


class NextRule(Part):
    """Where the form goes on when the condition holds: a later page by id, or "" for the end."""

    when: Annotated[str, FormulaText(Role.CONDITION, "next")]
    to: OptionalIdentifier = ""


# All pages at once, page by page, one question at a time, or as a conversation.
Presentation = Literal["whole", "paged", "single", "chat"]


class PageFace(Part):
    """What the browser may know of a page: its title, its own address, and the words on its buttons."""

    id: Identifier
    title: VisitorLabel = ""
    address: Annotated[str, StringConstraints(pattern=r"^([a-z0-9]+(-[a-z0-9]+)*)?$", max_length=60)] = ""
    next_label: ButtonLabel = ""
    back_label: ButtonLabel = ""


class Page(PageFace):
    """A page. Of its `next` rules the first that holds counts; without one the following page comes next."""

    shown: ShownWhen = ""
    required: RequiredWhen = ""
    locked: LockedWhen = ""
    part: OptionalIdentifier = ""
    next: tuple[NextRule, ...] = ()
    blocks: tuple[AnyBlock, ...] = ()


class Confirmation(Part):
    """What follows when the form was handed in and the condition holds: a message, or a redirect to an address.

    In a frame on a website the whole page goes there, with `redirect_within` only the frame.
    The message stands in the form's place, or with `own_page` on a page that can be opened again. Below it visitors may
    fill in once more (`again`), print it and keep it as PDF (`printing`), or hand the form's address on (`sharing`).
    """

    id: Identifier
    name: Label = ""
    when: Annotated[str, FormulaText(Role.CONDITION, "confirmation")] = ""
    title: VisitorLabel = ""
    paragraphs: tuple[Paragraph, ...] = ()
    redirect_within: bool = False
    redirect: Annotated[
        str, StringConstraints(pattern=r"^(https?://\S{1,2000})?$"), InsertedText("address"), VisitorText()
    ] = ""
    own_page: bool = False
    again: bool = False
    printing: bool = False
    sharing: bool = False


class FormPart(Part):
    """A part of the form that only those in its `groups` change, while a response stands with them.

    Once complete, a response goes to each part in order for which `only_when` holds. Who fills in sees what is entered
    there, or with `seen` off nothing of it. `name` is what the team calls it.
    """

    id: Identifier
    name: Label = ""
    groups: Annotated[tuple[GroupCode, ...], Len(max_length=20)] = ()
    only_when: Annotated[str, FormulaText(Role.CONDITION, "part")] = ""
    seen: bool = True


class LinkValue(Part):
    """A field, by id, whose answer a link may bring, and what the link calls it.

    Visitors may change what came (`open`), only read it (`locked`), or don't see it (`hidden`). One that is `sealed` is
    taken from a sealed link alone.
    """

    field: Identifier
    name: Annotated[str, StringConstraints(pattern=r"^[a-z][a-z0-9_]{0,59}$"), AfterValidator(_not_the_seal)]
    visitor: Literal["open", "locked", "hidden"] = "open"
    sealed: bool = False


class Welcome(Part):
    """A page before the first: what the form is for."""

    title: VisitorLabel = ""
    text: RichText = ""
    button: ButtonLabel = "Start"


class Form(Part):
    """A form. `name` is for the team, `title` for visitors; `format` is the version of this document's shape.

    It is written in the language of `locale` and can be filled in in further `languages`, chosen by the visitor, the
    link, or `language_by_browser`. `links` are the values that links may bring; with `sealed_only` the form opens by a
    sealed link alone. `paper` is what a response is printed on. One question at a time ("single"), a choice that one
    press answers `goes_on` by itself, and all answers can be gone through before sending (`look_over`). In a box of one
    line `enter` goes to the next field, or sends. Of each way of telling the `progress` there may be one; pages have
    their own names in the browser's address, or their numbers. `tables` are those whose records it offers.
    """

    format: Literal[2] = 2
    name: Annotated[str, StringConstraints(min_length=1, max_length=200, pattern=r"\S")]
    title: PlainLabel = ""
    lead: PlainWords = ""
    locale: LocaleCode = "en"
    languages: Annotated[tuple[FurtherLanguage, ...], Len(max_length=MAX_LANGUAGES)] = ()
    language_by_browser: bool = True
    currency: Annotated[str, AfterValidator(_currency)] = "EUR"
    time_zone: Annotated[str, AfterValidator(_time_zone)] = "Europe/Berlin"
    paper: Literal["A4", "Letter"] = "A4"
    brand: Brand = Brand()
    wording: Wording = Wording()
    presentation: Presentation = "whole"
    goes_on: bool = True
    look_over: bool = True
    enter: Literal["next", "send"] = "next"
    progress: Annotated[tuple[Progress, ...], AfterValidator(_each_once)] = ()
    page_addresses: Literal["names", "numbers"] = "names"
    links: Annotated[tuple[LinkValue, ...], Len(max_length=50)] = ()
    sealed_only: bool = False
    welcome: Welcome | None = None
    feedback: Feedback = Feedback()
    tables: Annotated[tuple[KnownTable, ...], Len(max_length=MAX_TABLES)] = ()
    pages: tuple[Page, ...] = ()
    figures: tuple[AnyFigure, ...] = ()
    checks: tuple[Check, ...] = ()
    parts: Annotated[tuple[FormPart, ...], Len(max_length=MAX_PARTS)] = ()
    order: Order = Order()
    payment: Payment = Payment()
    confirmations: tuple[Confirmation, ...] = ()
    follow_ups: Annotated[tuple[AnyFollowUp, ...], Len(max_length=MAX_FOLLOW_UPS)] = ()
    trials: Annotated[tuple[Trial, ...], Len(max_length=MAX_TRIALS)] = ()

    def say(self, name: str) -> str:
        """Return what visitors are told where that message is due: the author's words, else those of its language."""
        return self.wording.say(name, self.locale)

    def of_error(self, code: str, usual: str) -> str:
        """Return what a visitor is told of an error of that code."""
        return self.wording.messages.get(code) or usual

    @property
    def by_question(self) -> bool:
        """Whether its questions are asked one after the other, not by pages."""
        return self.presentation in ("single", "chat")

    @property
    def locales(self) -> tuple[str, ...]:
        """The languages in which it can be filled in, its own first, each once."""
        return tuple(dict.fromkeys((self.locale, *(each.locale for each in self.languages))))

    @property
    def people(self) -> frozenset[str]:
        """The people of the team, by id, whom its mails go to, who decide, or have something to do."""
        mails = (each for each in self.follow_ups if isinstance(each, EmailFollowUp))
        approvals = (each for each in self.follow_ups if isinstance(each, ApprovalFollowUp))
        deciding = (one for each in approvals for step in each.steps for one in (*step.deciders, step.stand_in))
        to = (one.person for mail in mails for one in mail.recipients)
        doing = (each.who.person for each in self.follow_ups if isinstance(each, TaskFollowUp))
        return frozenset(each for each in (*to, *(one.person for one in deciding), *doing) if each)

    def table(self, table_id: str) -> KnownTable | None:
        """Return what the form knows of a table."""
        return next((each for each in self.tables if each.id == table_id), None)

    @property
    def region(self) -> Region:
        """How the form's people write."""
        return Region(locale=self.locale, currency=self.currency, time_zone=self.time_zone)

    def blocks_and_kinds(self) -> Iterator[tuple[Block, RowKind | None]]:
        """Yield every block in the order of the outline, with the row kind that it is part of."""
        return blocks_within(block for page in self.pages for block in page.blocks)

    def blocks(self) -> Iterator[Block]:
        """Yield every block in the order of the outline."""
        return (block for block, _ in self.blocks_and_kinds())

    def fields(self) -> Iterator[Field]:
        """Yield every field in the order of the outline, those of row kinds too."""
        return (block for block in self.blocks() if isinstance(block, Field))

    def repeats(self) -> Iterator[Repeat]:
        """Yield every repeat in the order of the outline."""
        return (block for block in self.blocks() if isinstance(block, Repeat))

    def columns(self) -> Iterator[Field | Repeat]:
        """Yield what a response has one value of: the fields outside rows, and the repeats."""
        for block, kind in self.blocks_and_kinds():
            if kind is None and isinstance(block, Field | Repeat):
                yield block

    def numbers(self) -> dict[str, str]:
        """Return the outline number of every page ("2"), block ("2.3") and row kind ("2.3.1") by id."""
        numbers: dict[str, str] = {}
        for page_number, page in enumerate(self.pages, 1):
            numbers[page.id] = str(page_number)
            _number(page.blocks, f"{page_number}.", numbers)
        return numbers

    @model_validator(mode="after")
    def _ids_are_unique(self) -> "Form":
        named = (*self.pages, *self.figures, *self.parts, *self.confirmations, *self.follow_ups, *self.trials)
        ids = [each.id for each in named]
        ids += [block.id for block in self.blocks()] + [kind.id for repeat in self.repeats() for kind in repeat.kinds]
        if len(ids) > MAX_BLOCKS:
            raise ValueError(f"a form has at most {MAX_BLOCKS} blocks; split it into several forms")
        twice = [each for each, count in Counter(ids).items() if count > 1]
        if twice:
            raise ValueError(f'the id "{min(twice)}" is used twice; every page, block and figure has its own')
        return self

    @model_validator(mode="after")
    def _tables_are_there_once(self) -> "Form":
        twice = [each for each, count in Counter(table.id for table in self.tables).items() if count > 1]
        if twice:
            raise ValueError(f'the table "{min(twice)}" is there twice; remove one of them')
        return self

    @model_validator(mode="after")
    def _languages_are_told_apart(self) -> "Form":
        counts = Counter(each.locale for each in self.languages)
        twice = [locale for locale, count in counts.items() if count > 1]
        if twice:
            raise ValueError(f'the language "{min(twice)}" is there twice; remove one of them')
        return self

    @model_validator(mode="after")
    def _formulas_are_not_too_long(self) -> "Form":
        found = (site for part in (self, *self.blocks()) for site in sites(part))
        total = sum(len(site.text) for site in found if isinstance(site.mark, FormulaText))
        if total > MAX_FORMULAS:
            raise ValueError(f"all formulas of a form have at most {MAX_FORMULAS} characters; here are {total}")
        return self

    @model_validator(mode="after")
    def _groups_are_not_too_deep(self) -> "Form":
        deepest = max((_depth(page.blocks) for page in self.pages), default=0)
        if deepest > MAX_GROUPS_DEEP:
            raise ValueError(f"groups stand in one another at most {MAX_GROUPS_DEEP} deep; here are {deepest}")
        return self

    @model_validator(mode="after")
    def _rows_hold_no_repeats(self) -> "Form":
        inner = next((b for b, kind in self.blocks_and_kinds() if kind is not None and isinstance(b, Repeat)), None)
        if inner is not None:
            raise ValueError(f'the repeat "{inner.key}" stands inside a row; put it beside the other repeat')
        return self


def _depth(blocks: Iterable[Block]) -> int:
    inside = [block.blocks for block in blocks if isinstance(block, Group)]
    inside += [kind.blocks for block in blocks if isinstance(block, Repeat) for kind in block.kinds]
    return max((1 + _depth(each) for each in inside), default=0)


def _number(blocks: Iterable[Block], before: str, numbers: dict[str, str]) -> None:
    for index, block in enumerate(blocks, 1):
        numbers[block.id] = f"{before}{index}"
        if isinstance(block, Group):
            _number(block.blocks, f"{before}{index}.", numbers)
        elif isinstance(block, Repeat):
            for kind_index, kind in enumerate(block.kinds, 1):
                numbers[kind.id] = f"{before}{index}.{kind_index}"
                _number(kind.blocks, f"{before}{index}.{kind_index}.", numbers)


def read_form(document: Any) -> Form:
    """Return the form of a JSON document.

    Raises DefinitionError with the path and the remedy of every problem, unknown keys included.
    """
    return read_part(Form, document)
