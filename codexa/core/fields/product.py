"""Product: something to order, at one price or with options of their own prices; how many is asked here or apart."""

from collections import Counter
from collections.abc import Callable, Mapping
from decimal import Decimal
from typing import Annotated, Any, Literal

from annotated_types import Len
from pydantic import Field as Setting

from codexa.core.definition.order import Price
from codexa.core.definition.parts import FieldFace, FormulaText, Number, PlainLabel, Question
from codexa.core.errors import AnswerError
from codexa.core.fields.content import PictureSource
from codexa.core.fields.decimals import limits_in_words, number_of, shown
from codexa.core.fields.field_type import NO_SETTINGS, Facet, Family, FieldType, Medium, Region, Sampling
from codexa.core.fields.options import CodedOption, OptionFace, find_option
from codexa.core.formula import convert
from codexa.core.formula.convert import text_of_number
from codexa.core.formula.functions.function import Role
from codexa.core.formula.types import Digits, Kind, Type
from codexa.core.formula.values import Choice, Choices
from codexa.core.sentences import Sentence

MAX_PIECES = 1_000_000  # of one product
_MOST_OPTIONS = 100

Pieces = Annotated[int, Setting(ge=0, le=MAX_PIECES)]
Stock = Annotated[int, Setting(ge=0, le=1_000_000_000)]


class ProductOption(CodedOption):
    """A way in which a product comes: its price, and how many there are of it."""

    price: Price = Decimal(0)
    stock: Stock | None = None


class ProductFace(FieldFace):
    """What the browser may know of a product; prices and what is left come with the state."""

    type: Literal["product"] = "product"
    picture: PictureSource = ""
    alternative: PlainLabel = ""
    quantity: Literal["here", "apart"] = "here"
    options: tuple[OptionFace, ...] = ()


class ProductField(ProductFace, Question):
    """Something to order at its `price`, at what `priced_by` gives, a formula, or at the prices of its options.

    Its quantity is asked `here` (of each option), from `least` to `most` in all, or `apart`, by a quantity that names
    it. `stock` is how many there are to sell in all, of an option where it has one; what is left is shown by
    `left_shown`. `sold_out` is what visitors read when nothing is left. `weight` is that of one piece, for shipping.
    """

    options: Annotated[tuple[ProductOption, ...], Len(max_length=_MOST_OPTIONS)] = ()
    price: Price | None = None
    priced_by: Annotated[str, FormulaText(Role.VALUE, "priced_by")] = ""
    least: Pieces | None = None
    most: Pieces | None = None
    stock: Stock | None = None
    left_shown: bool = True
    sold_out: PlainLabel = ""
    weight: Annotated[Number, Setting(ge=0)] | None = None

    @property
    def is_counted(self) -> bool:
        """Whether it, or an option of it, has a stock."""
        return self.stock is not None or any(each.stock is not None for each in self.options)

    def price_of(self, option: str) -> Decimal | None:
        """Return the price of the option of that code, or of the product where it has none."""
        if not self.options:
            return self.price
        return next((each.price for each in self.options if each.code == option), None)

    def stock_of(self, option: str) -> tuple[str, int] | None:
        """Return what an option is counted down from: the option that has a stock, "" for the product's; or None."""
        own = next((each.stock for each in self.options if each.code == option), None)
        if own is not None:
            return option, own
        return None if self.stock is None else ("", self.stock)


class ProductType(FieldType[ProductField]):
    """Product."""

    name = "product"
    title = "Product"
    family = Family.MONEY
    purpose = "Something to order: picture, price or options with prices, quantity and stock."
    face = ProductFace
    block = ProductField
    can_be_wrong = True

    def blank(self) -> ProductField:
        """A product without a price yet."""
        return super().blank().model_copy(update={"price": Decimal(0)})

    def findings(self, block: ProductField) -> list[tuple[str, str, str]]:
        """No price or two, options that can't be told apart, limits that nothing meets."""
        if not block.options and block.price is None and not block.priced_by.strip():
            return [("price", "The product has no price.", "Give it one; 0 is one too.")]
        if block.options and block.priced_by.strip():
            return [("priced_by", "The options have prices of their own.", "Take out the formula, or the options.")]
        codes = Counter(option.code.casefold() for option in block.options)
        twice = sorted(code for code, count in codes.items() if count > 1)
        if twice:
            message = f"Two options have the code {twice[0]}; formulas could not tell them apart."
            return [("options", message, "Give each option a code of its own.")]
        unnamed = [option.code for option in block.options if not option.label.strip()]
        if unnamed:
            return [("options", f"The option {unnamed[0]} has no label.", "Write what visitors shall read.")]
        if wrong := count_findings(block.least, block.most):
            return wrong
        if block.stock is not None and block.least is not None and block.stock < block.least:
            return [("stock", "There are fewer than must be ordered.", "Raise the stock, or lower the least.")]
        return []

    def value_type(self, block: ProductField) -> Type:
        """How many; with options how many of each; where that is asked apart, the option that is chosen."""
        if block.quantity == "apart":
            return Type(kind=Kind.CHOICE if block.options else Kind.TEXT, may_be_blank=True)
        if block.options:
            return Type(kind=Kind.CHOICES, may_be_blank=True)
        digits = Digits(whole=Digits.of(Decimal(block.most or MAX_PIECES)).whole, decimals=0)
        return Type(kind=Kind.NUMBER, may_be_blank=True, digits=digits)

    def facets(self, block: ProductField) -> dict[str, Facet]:
        """How many of each option, or the words of the chosen one."""
        if not block.options:
            return {}
        if block.quantity == "apart":
            return {"label": Facet(Type(kind=Kind.TEXT, may_be_blank=True), lambda value: value.label)}
        number = Type(kind=Kind.NUMBER, may_be_blank=True)
        return {option.code.lower(): Facet(number, _taking(option.code)) for option in block.options}

    def parse(self, raw: Any, block: ProductField, region: Region) -> Any:
        """Return how many of a number, or of an object of them by option; or the option that a text names."""
        if block.quantity == "apart":
            return _chosen(raw, block)
        if not block.options:
            return _pieces(raw, region)
        if not isinstance(raw, dict):
            raise AnswerError("not_a_number", "Enter how many of each.")
        given = {str(name): answer for name, answer in raw.items()}
        found = []
        for option in block.options:
            answer = given.pop(option.id, None) or given.pop(option.code, None)
            pieces = None if answer is None else _pieces(answer, region)
            if pieces is not None:
                found.append(Choice(option.code, counts=pieces, label=option.label))
        if any(given.values()):
            raise AnswerError("not_an_option", "Choose one of the options.")
        return Choices(found) if found else None

    def adopt(self, value: Any, block: ProductField, region: Region) -> Any:
        """Return how many a formula gives, or the option that it names; of several options it gives none."""
        if block.quantity == "apart":
            return _chosen(convert.text(value), block)
        return None if block.options else _pieces(convert.number(value), region)

    def check(
        self, value: Any, block: ProductField, region: Region, settings: Mapping[str, Any] = NO_SETTINGS
    ) -> str | None:
        """The least and the most, of all options together."""
        if block.quantity == "apart":
            return None
        return count_message(convert.number(value), block.least, block.most, region)

    def limits(self, block: ProductField) -> str:
        """The limits in words."""
        return limits_in_words(block.least, block.most)

    def present(self, value: Any, block: ProductField, region: Region, medium: Medium) -> str:
        """How many of what for people; plain numbers and codes for programs."""
        if isinstance(value, Choices):
            if medium is Medium.CSV:
                return "; ".join(f"{each}={text_of_number(each.counts)}" for each in value)
            return ", ".join(f"{shown(each.counts, region)} × {each.label}" for each in value)
        if isinstance(value, Choice):
            return str(value) if medium is Medium.CSV else value.label
        return text_of_number(value) if medium is Medium.CSV else shown(value, region)

    def dump(self, value: Any) -> Any:
        """The number as text, an object of them by code, or the chosen code."""
        if isinstance(value, Choices):
            return {str(each): text_of_number(each.counts) for each in value}
        return str(value) if isinstance(value, Choice) else text_of_number(value)

    def load(self, stored: Any, block: ProductField) -> Any:
        """The value that `dump` gave; an option that the edition does not have keeps its code as label."""
        labels = {option.code: option.label for option in block.options}
        if isinstance(stored, dict):
            return Choices(Choice(code, counts=Decimal(n), label=labels.get(code, "")) for code, n in stored.items())
        if block.quantity == "apart":
            return Choice(stored, counts=Decimal(1), label=labels.get(stored, ""))
        return Decimal(stored)

    def enter(self, value: Any, block: ProductField, region: Region) -> Any:
        """As a browser sends it: options by their id."""
        ids = {option.code: option.id for option in block.options}
        if isinstance(value, Choices):
            return {ids[each]: text_of_number(each.counts) for each in value if each in ids}
        return ids.get(value, str(value)) if isinstance(value, Choice) else shown(value, region)

    def answer_schema(self, block: ProductField) -> dict[str, Any]:
        """A whole number as text, an object of them by code, or a code."""
        number = {"type": "string", "pattern": r"^\d+$"}
        codes = [option.code for option in block.options]
        if block.quantity == "apart":
            return {"enum": codes}
        if not codes:
            return number
        return {"type": "object", "properties": dict.fromkeys(codes, number), "additionalProperties": False}

    def sample(self, block: ProductField, how: Sampling) -> Any:
        """A few, of one option where there are any."""
        if block.quantity == "apart":
            return how.random.choice(block.options).id if block.options else None
        pieces = max(block.least or 1, min(block.most or 3, how.random.randint(1, 3)))
        return {how.random.choice(block.options).id: str(pieces)} if block.options else str(pieces)


def count_findings(least: int | None, most: int | None) -> list[tuple[str, str, str]]:
    """Return what is wrong with limits of how many are ordered: (setting, message, remedy)."""
    if least is not None and most is not None and least > most:
        return [("least", "The least is more than the most.", "Swap the two or empty one of them.")]
    return []


def count_message(count: Decimal, least: int | None, most: int | None, region: Region) -> str | None:
    """Return what is wrong with how many pieces are ordered, as a sentence for the visitor, or None."""
    if least is not None and count < least:
        return Sentence("Order {limit} or more.", limit=shown(Decimal(least), region))
    if most is not None and count > most:
        return Sentence("Order {limit} or less.", limit=shown(Decimal(most), region))
    return None


def _chosen(raw: Any, block: ProductField) -> Choice | None:
    if raw == "":
        return None
    option = find_option(block.options, raw) if isinstance(raw, str) else None
    if option is None:
        raise AnswerError("not_an_option", "Choose one of the options.")
    return Choice(option.code, counts=Decimal(1), label=option.label)


def _pieces(raw: Any, region: Region) -> Decimal | None:
    """Return how many pieces; None for nothing. Raises AnswerError for parts of a piece, less than none, too many."""
    number = number_of(raw, region.locale, 0)
    if number is not None and number < 0:
        raise AnswerError("not_a_number", "Order 0 or more.")
    if number is not None and number > MAX_PIECES:
        raise AnswerError("too_large", Sentence("Order {limit} or less.", limit=shown(Decimal(MAX_PIECES), region)))
    return number or None


def _taking(code: str) -> Callable[[Any], Any]:
    return lambda value: next((each.counts for each in value if each == code), None)
