"""Options: what the field types with options share."""

from collections import Counter
from collections.abc import Collection
from decimal import Decimal
from functools import cached_property
from typing import Annotated, Any, Generic, TypeVar

from annotated_types import Len
from pydantic import StringConstraints

from codexa.core.definition.order import Price
from codexa.core.definition.parts import (
    FieldFace,
    FormulaText,
    Identifier,
    LockedWhen,
    Number,
    OptionalIdentifier,
    Part,
    PlainLabel,
    Question,
    ShownWhen,
    VisitorLabel,
)
from codexa.core.errors import AnswerError
from codexa.core.fields.content import PictureSource
from codexa.core.fields.field_type import Facet, FieldType, Medium, Region, Sampling
from codexa.core.fields.text_value import characters
from codexa.core.formula import convert
from codexa.core.formula.functions.function import Role
from codexa.core.formula.types import Kind, Type
from codexa.core.formula.values import Choice
from codexa.core.sentences import Sentence

OTHER = "other"  # the code and id of the option that is a visitor's own words
MAX_OTHER = 500  # characters
MAX_OPTIONS = 5_000  # of one field


OptionCode = Annotated[str, StringConstraints(min_length=1, max_length=100, pattern=r"^\S(.*\S)?$")]


class OptionFace(Part):
    """What the browser may know of an option: the label to show and the id to send."""

    id: Identifier
    label: VisitorLabel


class ChoiceFace(OptionFace):
    """The same of an option that may be shown with a picture; its label says what is to be seen there."""

    picture: PictureSource = ""


class CodedOption(OptionFace):
    """An option with its stable code, which formulas and exports use."""

    code: OptionCode


Coded = TypeVar("Coded", bound=CodedOption)


class Option(ChoiceFace, CodedOption):
    """An option: its code, its picture, the number that it counts as, and its price.

    While `shown` does not hold it is not offered, and a choice of it is dropped; while `locked` holds it is offered but
    can't be chosen.
    """

    counts_as: Number = Decimal(0)
    price: Price | None = None
    belongs_to: Annotated[str, StringConstraints(max_length=100)] = ""
    shown: ShownWhen = ""
    locked: LockedWhen = ""


Options = Annotated[tuple[Option, ...], Len(max_length=MAX_OPTIONS)]


class OptionsFace(FieldFace):
    """What the browser may know of any field with options."""

    options: tuple[ChoiceFace, ...] = ()
    other: bool = False
    other_label: PlainLabel = "Other"
    shuffled: bool = False


class Optioned(OptionsFace, Question):
    """A field with options. With `prices_shown` visitors read the price of each beside it.

    `offered` filters them: it is worked out for each with `option` as its code, `option.label`, `option.counts_as` and
    `option.belongs_to`. `taken_from` is the list or the table, by its id, that the options are from: a copy of what was
    there.
    """

    options: Options = ()
    taken_from: OptionalIdentifier = ""
    prices_shown: bool = True
    offered: Annotated[str, FormulaText(Role.CONDITION, "offered")] = ""

    @cached_property
    def choices(self) -> dict[str, Choice]:
        """The choice that each name stands for: an option's id, as browsers send it, or its code, as people do."""
        by_code = {option.code: choice_of(option) for option in reversed(self.options)}
        return by_code | {option.id: choice_of(option) for option in self.options}


OptionedModel = TypeVar("OptionedModel", bound=Optioned)


def choice_of(option: Option) -> Choice:
    """Return the value that choosing this option gives."""
    return Choice(option.code, counts=option.counts_as, label=option.label)


def find_option(options: tuple[Coded, ...], answer: str) -> Coded | None:
    """Return the option that an answer names: by id, as a browser sends it, or by code, as people write it."""
    return next((option for option in options if option.id == answer), None) or next(
        (option for option in options if option.code == answer), None
    )


def find_labelled(options: tuple[Option, ...], words: str) -> Option | None:
    """Return the first option of that label, in capitals or not."""
    wanted = " ".join(words.split()).casefold()
    return next((option for option in options if " ".join(option.label.split()).casefold() == wanted), None)


def find_spoken(options: tuple[Option, ...], words: str) -> Option | None:
    """Return the option that somebody means: of that label or code, else the only one whose label begins so."""
    wanted = " ".join(words.split()).strip(".!").casefold()
    named = find_labelled(options, wanted) or next((each for each in options if each.code.casefold() == wanted), None)
    if named is not None or not wanted:
        return named
    meant = [each for each in options if " ".join(each.label.split()).casefold().startswith(wanted)]
    return meant[0] if len(meant) == 1 else None


def option_findings(options: tuple[Option, ...]) -> list[tuple[str, str, str]]:
    """Return what is wrong with a list of options."""
    if not options:
        return [("options", "There is no option to choose.", "Add at least one option, or delete the field.")]
    codes = [option.code.casefold() for option in options]
    twice = sorted(code for code, count in Counter(codes).items() if count > 1)
    if twice:
        message = f"Two options have the code {twice[0]}; formulas could not tell them apart."
        return [("options", message, "Give each option a code of its own.")]
    unnamed = [option.code for option in options if not option.label.strip()]
    if unnamed:
        return [("options", f"The option {unnamed[0]} has no label.", "Write what visitors shall read.")]
    return []


def same_words(options: tuple[Option, ...]) -> list[str]:
    """Return the labels that two options share: visitors can't tell them apart."""
    counts = Counter(" ".join(option.label.split()).casefold() for option in options)
    return [option.label for option in options if counts.pop(" ".join(option.label.split()).casefold(), 0) > 1]


class OptionsType(FieldType[OptionedModel], Generic[OptionedModel]):
    """A kind of field whose answer names options."""

    can_be_wrong = False

    def blank(self) -> OptionedModel:
        """Two options to write over."""
        options = (
            Option(id="first", code="first", label="First option"),
            Option(id="second", code="second", label="Second option"),
        )
        return super().blank().model_copy(update={"options": options})

    def findings(self, block: OptionedModel) -> list[tuple[str, str, str]]:
        """Missing, unnamed and doubled options."""
        return option_findings(block.options)

    def choose(self, raw: Any, block: OptionedModel) -> Choice:
        """Return the choice that an option's id, its code, or {"other": text} names. Raises AnswerError."""
        if isinstance(raw, str) and (choice := block.choices.get(raw)) is not None:
            return choice
        if block.other and isinstance(raw, dict) and isinstance(raw.get(OTHER), str) and raw[OTHER].strip():
            words = raw[OTHER].replace("\x00", "").strip()
            if (length := characters(words)) > MAX_OTHER:
                raise AnswerError(
                    "too_long",
                    Sentence("Enter at most {most} characters; these are {count}.", most=MAX_OTHER, count=length),
                )
            return Choice(OTHER, label=words)
        raise AnswerError("not_an_option", "Choose one of the options.")

    def from_link(self, text: str, block: OptionedModel, region: Region) -> Any:
        """The option of that code, or of that label."""
        named = find_option(block.options, text) or find_labelled(block.options, text)
        return named.id if named else text

    def spoken(self, words: str, block: OptionedModel, region: Region) -> Any:
        """The option that is meant; where visitors may have words of their own, those."""
        meant = find_spoken(block.options, words)
        if meant is None and not (block.other and words.strip()):
            raise AnswerError("not_an_option", "Choose one of the options.")
        return {OTHER: words} if meant is None else meant.id

    def drop(self, value: Any, offered: Collection[str]) -> Any:
        """Return what is left of a value when only these codes are offered: itself, a part of it, or None."""
        return value if value == OTHER or value in offered else None

    def store(self, choice: Choice) -> Any:
        """Return one choice as JSON."""
        return {OTHER: choice.label} if choice == OTHER and choice.label != OTHER else str(choice)

    def restore(self, stored: Any, block: OptionedModel) -> Choice:
        """Return the choice that `store` gave; one that the edition does not have keeps its code as label."""
        if isinstance(stored, dict):
            return Choice(OTHER, label=stored[OTHER])
        option = find_option(block.options, stored)
        return choice_of(option) if option else Choice(stored)

    def entered(self, choice: Choice, block: OptionedModel) -> Any:
        """Return one choice as a browser sends it: the option's id."""
        stored = self.store(choice)
        option = find_option(block.options, stored) if isinstance(stored, str) else None
        return option.id if option else stored

    def answer_codes(self, block: OptionedModel) -> dict[str, Any]:
        """Return the JSON Schema of one stored choice."""
        codes: dict[str, Any] = {"enum": [option.code for option in block.options]}
        if not block.other:
            return codes
        return {"anyOf": [codes, {"type": "object", "required": [OTHER], "properties": {OTHER: {"type": "string"}}}]}


class SingleOptionType(OptionsType[OptionedModel], Generic[OptionedModel]):
    """A kind of field whose answer is one option."""

    def value_type(self, block: OptionedModel) -> Type:
        """A choice, or blank."""
        return Type(kind=Kind.CHOICE, may_be_blank=True)

    def facets(self, block: OptionedModel) -> dict[str, Facet]:
        """The words of the chosen option."""
        return {"label": Facet(Type(kind=Kind.TEXT, may_be_blank=True), lambda value: value.label)}

    def parse(self, raw: Any, block: OptionedModel, region: Region) -> Choice | None:
        """Return the choice of an option's id or code, or of the visitor's own words."""
        return None if raw in ("", {OTHER: ""}) else self.choose(raw, block)

    def adopt(self, value: Any, block: OptionedModel, region: Region) -> Choice | None:
        """Return the choice of that code."""
        return self.choose(convert.text(value), block)

    def present(self, value: Choice, block: OptionedModel, region: Region, medium: Medium) -> str:
        """The label for people, the code for programs."""
        return str(value) if medium is Medium.CSV and value != OTHER else value.label

    def dump(self, value: Choice) -> Any:
        """The code, or {"other": text}."""
        return self.store(value)

    def load(self, stored: Any, block: OptionedModel) -> Choice:
        """The choice of that code."""
        return self.restore(stored, block)

    def enter(self, value: Choice, block: OptionedModel, region: Region) -> Any:
        """The option's id."""
        return self.entered(value, block)

    def answer_schema(self, block: OptionedModel) -> dict[str, Any]:
        """One of the codes."""
        return self.answer_codes(block)

    def sample(self, block: OptionedModel, how: Sampling) -> str | None:
        """Any option."""
        return how.random.choice(block.options).id if block.options else None
