"""The form's document: pages of blocks and what stands beside them."""

from collections.abc import Iterator
from typing import TYPE_CHECKING, Annotated, Any, Literal, Union
from zoneinfo import available_timezones

from babel import Locale, UnknownLocaleError
from babel.numbers import is_currency
from pydantic import AfterValidator, Discriminator, StringConstraints, ValidationError, model_validator

from codexa.core.definition.parts import Block, Colour, Field, Identifier, Label, Part, Words
from codexa.core.errors import DefinitionError, Problem
from codexa.core.fields import BLOCK_TYPES
from codexa.core.fields.field_type import Region

MAX_BLOCKS = 2_000

if TYPE_CHECKING:
    AnyBlock = Block
else:
    # The list of block types is the one place that names them; the union follows it.
    AnyBlock = Annotated[Union[tuple(each.block for each in BLOCK_TYPES)], Discriminator("type")]  # noqa: UP007


def _locale(text: str) -> str:
    try:
        return str(Locale.parse(text))
    except (UnknownLocaleError, ValueError):
        raise ValueError(f'"{text}" is no language we know; use a code such as en, de or fr_CH') from None


def _currency(text: str) -> str:
    if not is_currency(text):
        raise ValueError(f'"{text}" is no ISO 4217 currency; use a code such as EUR')
    return text


def _time_zone(text: str) -> str:
    if text not in available_timezones():
        raise ValueError(f'"{text}" is no time zone; use a name such as Europe/Berlin')
    return text


class Page(Part):
    """A page: its title for visitors and its blocks in order."""

    id: Identifier
    title: Label = ""
    blocks: tuple[AnyBlock, ...] = ()


class Brand(Part):
    """How the form looks: the colour of buttons, choices and the banner."""

    accent: Colour = "#2B3A8C"


class Wording(Part):
    """What the form itself says to visitors."""

    submit: Annotated[str, StringConstraints(min_length=1, max_length=60)] = "Send"
    required: Annotated[str, StringConstraints(min_length=1, max_length=200)] = "Please answer this."
    confirmation_title: Label = "Thank you"
    confirmation_text: Words = "Your answers have been received."


class Form(Part):
    """A form. `name` is for the team, `title` for visitors; `format` is the version of this document's shape."""

    format: Literal[1] = 1
    name: Annotated[str, StringConstraints(min_length=1, max_length=200, pattern=r"\S")]
    title: Label = ""
    lead: Words = ""
    locale: Annotated[str, AfterValidator(_locale)] = "en"
    currency: Annotated[str, AfterValidator(_currency)] = "EUR"
    time_zone: Annotated[str, AfterValidator(_time_zone)] = "Europe/Berlin"
    brand: Brand = Brand()
    wording: Wording = Wording()
    pages: tuple[Page, ...] = ()

    @property
    def region(self) -> Region:
        """How the form's people write."""
        return Region(locale=self.locale, currency=self.currency, time_zone=self.time_zone)

    def blocks(self) -> Iterator[Block]:
        """Yield every block in the order of the outline."""
        for page in self.pages:
            yield from page.blocks

    def fields(self) -> Iterator[Field]:
        """Yield every field in the order of the outline."""
        return (block for block in self.blocks() if isinstance(block, Field))

    def numbers(self) -> dict[str, str]:
        """Return the outline number of every page ("2") and block ("2.3") by id."""
        numbers = {}
        for page_number, page in enumerate(self.pages, 1):
            numbers[page.id] = str(page_number)
            for block_number, block in enumerate(page.blocks, 1):
                numbers[block.id] = f"{page_number}.{block_number}"
        return numbers

    @model_validator(mode="after")
    def _ids_are_unique(self) -> "Form":
        ids = [page.id for page in self.pages] + [block.id for block in self.blocks()]
        twice = {each for each in ids if ids.count(each) > 1} if len(set(ids)) < len(ids) else set()
        if twice:
            raise ValueError(f'the id "{min(twice)}" is used twice; every page and block has its own')
        if len(ids) > MAX_BLOCKS:
            raise ValueError(f"a form has at most {MAX_BLOCKS} blocks; split it into several forms")
        return self


def read_form(document: Any) -> Form:
    """Return the form of a JSON document.

    Raises DefinitionError with the path and the remedy of every problem, unknown keys included.
    """
    try:
        return Form.model_validate(document)
    except ValidationError as error:
        raise DefinitionError([_problem(each) for each in error.errors(include_url=False)]) from None


def _problem(error: Any) -> Problem:
    path = ".".join(str(step) for step in error["loc"]) or "the document"
    if error["type"] == "extra_forbidden":
        return Problem(path=path, message="this key is unknown here; remove it or correct its spelling")
    value = repr(error.get("input"))
    shown = f" (here: {value[:60]})" if len(value) < 200 and error["type"] != "missing" else ""
    return Problem(path=path, message=error["msg"].removeprefix("Value error, ") + shown)
