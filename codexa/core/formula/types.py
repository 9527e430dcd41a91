"""The types of formulas, and what each kind of value is called in messages."""

from dataclasses import dataclass
from decimal import Decimal
from enum import StrEnum


class Kind(StrEnum):
    """What a value is; the text of each member is what JSON and messages say."""

    TEXT = "text"
    NUMBER = "number"
    MONEY = "money"  # a number in the form's currency
    YES_NO = "yes/no"
    DATE = "date"
    TIME = "time"
    DATE_TIME = "date and time"
    CHOICE = "choice"
    CHOICES = "choices"
    RECORD = "record"  # of a table
    RECORDS = "records"
    FILES = "files"
    ROWS = "rows"  # a repeat
    BLANK = "blank"  # only ever blank
    ANY = "any"  # known only when it is computed


NUMBERS = frozenset({Kind.NUMBER, Kind.MONEY})
COUNTED = NUMBERS | {Kind.CHOICE, Kind.CHOICES, Kind.YES_NO}
DATES = frozenset({Kind.DATE, Kind.DATE_TIME})
MOMENTS = DATES | {Kind.TIME}
RECORDS = frozenset({Kind.RECORD, Kind.RECORDS})
WORDS = frozenset({Kind.TEXT, Kind.CHOICE})


@dataclass(frozen=True, kw_only=True, slots=True)
class Digits:
    """How many digits a number can have before and after its point; lets exact comparisons skip a rounding."""

    whole: int
    decimals: int

    @property
    def comparable_as_is(self) -> bool:
        """Whether rounding to 28 digits can't change such a number."""
        return self.whole + self.decimals <= 28

    @classmethod
    def of(cls, value: Decimal) -> "Digits":
        """The digits of a number that is known."""
        _, digits, exponent = value.as_tuple()
        places = exponent if isinstance(exponent, int) else 0
        return cls(whole=max(1, len(digits) + places), decimals=max(0, -places))


@dataclass(frozen=True, kw_only=True, slots=True)
class Type:
    """The type of a value: its kind, whether it is a list (a column), whether it may be blank, and its digits."""

    kind: Kind
    is_list: bool = False
    may_be_blank: bool = False
    digits: Digits | None = None

    @property
    def name(self) -> str:
        """The type in words."""
        return f"list of {self.kind}" if self.is_list else str(self.kind)


NUMBER = Type(kind=Kind.NUMBER)
TEXT = Type(kind=Kind.TEXT)
YES_NO = Type(kind=Kind.YES_NO)
DATE = Type(kind=Kind.DATE)
TIME = Type(kind=Kind.TIME)
DATE_TIME = Type(kind=Kind.DATE_TIME)
BLANK = Type(kind=Kind.BLANK, may_be_blank=True)
ANY = Type(kind=Kind.ANY, may_be_blank=True)


def common(types: list[Type]) -> Type:
    """Return the type that holds a value of any of these (the result of IF, the kind of a list)."""
    known = [each for each in types if each.kind is not Kind.BLANK]
    may_be_blank = any(each.may_be_blank for each in types)
    if not known:
        return BLANK
    first = known[0]
    if any(each.is_list for each in known):
        return ANY
    kinds = {each.kind for each in known}
    if len(kinds) == 1:
        return Type(kind=first.kind, may_be_blank=may_be_blank, digits=_widest(known))
    if kinds <= NUMBERS:
        return Type(kind=Kind.MONEY, may_be_blank=may_be_blank, digits=_widest(known))
    return ANY


def _widest(types: list[Type]) -> Digits | None:
    digits = [each.digits for each in types if each.digits is not None]
    if len(digits) < len(types):
        return None
    return Digits(whole=max(each.whole for each in digits), decimals=max(each.decimals for each in digits))
