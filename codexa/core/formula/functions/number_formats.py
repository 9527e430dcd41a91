"""How a format such as `#,##0.00` or `0.0%;(0.0%);"none"` writes a number, in a language's own signs (Unicode CLDR).

`0` is a digit, `#` a digit that may be left out; a `,` between digits groups by thousands, after them it divides by
1000; `%` multiplies by 100; `E+00` writes a power of ten; `;` parts what is for negative numbers and for 0. Words stand
in quotation marks or plain, a sign that means something after a backslash.
"""

import re
from collections.abc import Iterator
from dataclasses import dataclass
from decimal import Decimal
from functools import cached_property, lru_cache

from babel.numbers import get_decimal_symbol, get_group_symbol, get_minus_sign_symbol

from codexa.core.formula.functions.format_pieces import FormatError, quoted
from codexa.core.formula.values import WIDE, ZERO, compared

_DIGITS = ("0", "#")
_UNKNOWN = {
    "?": "Write 0 or # for a digit.",
    "[": "Colours and conditions in brackets are not supported.",
    "@": "Text stays as it is; @ is not supported.",
    "*": "Signs that fill up a width are not supported.",
    "_": "Gaps as wide as a sign are not supported.",
}
_PLAIN = re.compile(r"([x%]*)([0#]+(?:\.0+)?)([x%]*)")
_MOST_SECTIONS = 3
_NO_FORMAT = 'This is no format of a number; write "0.00", "#,##0" or "0%".'


@dataclass(frozen=True, slots=True)
class _Piece:
    """A piece of a format: `sign` is 0, #, ".", "%", "E" with what follows, or blank for `text` written as it is."""

    sign: str
    text: str = ""


@dataclass(frozen=True)
class _Section:
    pieces: tuple[_Piece, ...]
    thousands: int  # divided by 1000 so often
    is_grouped: bool

    @cached_property
    def whole(self) -> tuple[str, ...]:
        """The digits before the point."""
        signs = [piece.sign for piece in self.pieces]
        end = next((at for at, sign in enumerate(signs) if sign == "." or sign.startswith("E")), len(signs))
        return tuple(sign for sign in signs[:end] if sign in _DIGITS)

    @cached_property
    def decimals(self) -> tuple[str, ...]:
        """The digits after the point."""
        signs = [piece.sign for piece in self.pieces]
        return tuple(sign for sign in signs[signs.index(".") :] if sign in _DIGITS) if "." in signs else ()

    @cached_property
    def least(self) -> int:
        """How many digits are written at least before the point: from the first 0 on."""
        return len(self.whole) - self.whole.index("0") if "0" in self.whole else 0

    @cached_property
    def shift(self) -> int:
        """By how many places a number is moved before it is written."""
        return 2 * sum(piece.sign == "%" for piece in self.pieces) - 3 * self.thousands

    @cached_property
    def quantum(self) -> Decimal:
        """1 at the last place that is written."""
        return Decimal((0, (1,), -len(self.decimals)))

    @cached_property
    def exponent(self) -> str:
        return next((piece.sign for piece in self.pieces if piece.sign.startswith("E")), "")

    @cached_property
    def plain(self) -> tuple[str, str] | None:
        """What stands before and after the digits, where each is written: how most amounts are; else None."""
        signs = "".join(piece.sign or "x" for piece in self.pieces)
        match = _PLAIN.fullmatch(signs)
        if match is None or self.least != 1:
            return None
        texts = [piece.text or piece.sign for piece in self.pieces]
        return "".join(texts[: match.end(1)]), "".join(texts[match.start(3) :])

    @property
    def has_digits(self) -> bool:
        return bool(self.whole or self.decimals)


@dataclass(frozen=True)
class _Signs:
    point: str
    group: str
    minus: str

    @cached_property
    def are_usual(self) -> bool:
        """Whether they are those that Python writes."""
        return (self.point, self.group) == (".", ",")

    @cached_property
    def instead(self) -> dict[int, str]:
        """What stands for Python's own signs."""
        return {ord("."): self.point, ord(","): self.group}


@lru_cache(maxsize=128)
def _signs(locale: str) -> _Signs:
    return _Signs(get_decimal_symbol(locale), get_group_symbol(locale), get_minus_sign_symbol(locale))


@lru_cache(maxsize=512)
def read_number_format(code: str) -> tuple[_Section, ...]:
    """Return a format's sections: for all numbers; or for those from 0 on, below 0, and 0. Raises FormatError."""
    if not set(code) & set(_DIGITS):
        raise FormatError(0, _NO_FORMAT)
    sections: list[_Section] = []
    begin = 0
    for end in [*_ends(code), len(code)]:
        if len(sections) == _MOST_SECTIONS:
            raise FormatError(begin - 1, "A format has at most three parts: above 0, below 0, and 0.")
        sections.append(_section(code, begin, end))
        begin = end + 1
    if not any(section.has_digits for section in sections):
        raise FormatError(0, _NO_FORMAT)
    return tuple(sections)


def _ends(code: str) -> Iterator[int]:
    at = 0
    while at < len(code):
        if code[at] == ";":
            yield at
        at = quoted(code, at)[1] if code[at] in '"\\' else at + 1


def _section(code: str, begin: int, end: int) -> _Section:
    pieces: list[_Piece] = []
    commas: list[int] = []  # how many digits stand before each
    at = begin
    while at < end:
        sign = code[at]
        if sign in '"\\':
            text, at = quoted(code, at)
            pieces.append(_Piece("", text))
            continue
        digits = sum(piece.sign in _DIGITS for piece in pieces)
        has_point = any(piece.sign == "." for piece in pieces)
        if sign == "," and digits and not has_point:
            commas.append(digits)
        elif sign in "Ee" and code[at + 1 : at + 2] in ("+", "-"):
            zeros = len(code[at + 2 : end]) - len(code[at + 2 : end].lstrip("0"))
            if not zeros or not digits:
                raise FormatError(at, "A power of ten is written E+00, after the digits.")
            pieces.append(_Piece("E" + code[at + 1] + "0" * zeros))
            at += 1 + zeros
        else:
            pieces.append(_piece(sign, at, has_point=has_point))
        at += 1
    whole = len(_Section(tuple(pieces), 0, False).whole)
    return _Section(tuple(pieces), commas.count(whole), any(before < whole for before in commas))


def _piece(sign: str, at: int, *, has_point: bool) -> _Piece:
    if sign in _UNKNOWN:
        raise FormatError(at, _UNKNOWN[sign])
    if sign in "123456789":
        raise FormatError(at, "Put digits that are meant as they are in quotation marks.")
    if sign == "." and has_point:
        raise FormatError(at, "There is a second point; put it in quotation marks if it is meant as it is.")
    return _Piece(sign) if sign in "0#.%" else _Piece("", sign)


def number_in_format(value: Decimal, code: str, locale: str) -> str:
    """Return a number written by a format; half goes away from 0. Raises FormatError."""
    sections = read_number_format(code)
    section = sections[1] if value < 0 and len(sections) > 1 else sections[0]
    amount, exponent = _amount(abs(compared(value)), section)
    if not amount:
        # What rounds to 0 is written as 0 is: "-0.00" says nothing.
        section = sections[2] if len(sections) > 2 else sections[0]
        amount, exponent = _amount(ZERO, section)
    signs = _signs(locale)
    plain = section.plain
    if plain is None:
        text = "".join(_written(section, amount, exponent, signs))
    else:
        digits = format(amount, ",f" if section.is_grouped else "f")
        text = plain[0] + (digits if signs.are_usual else digits.translate(signs.instead)) + plain[1]
    return signs.minus + text if value < 0 and amount and section is sections[0] else text


def _amount(value: Decimal, section: _Section) -> tuple[Decimal, int]:
    """Return what is written before E, rounded, and the power of ten after it."""
    if section.shift:
        value = WIDE.scaleb(value, section.shift)
    quantum = section.quantum
    if not section.exponent:
        return WIDE.quantize(value, quantum), 0
    step = max(1, len(section.whole))
    exponent = value.adjusted() // step * step if value else 0
    amount = WIDE.quantize(WIDE.scaleb(value, -exponent), quantum)
    if amount.adjusted() < step:
        return amount, exponent
    return WIDE.quantize(WIDE.scaleb(amount, -step), quantum), exponent + step


def _written(section: _Section, amount: Decimal, exponent: int, signs: _Signs) -> Iterator[str]:
    whole, _, after = format(amount, "f").partition(".")
    before = _placed(whole.lstrip("0").rjust(section.least, "0"), section, signs)
    decimals = _shortened(after, section.decimals)
    has_point = False
    for piece in section.pieces:
        if piece.sign in _DIGITS:
            yield next(decimals if has_point else before, "")
        elif piece.sign == ".":
            # Digits that have no place of their own stand before the point: ".5" of 12.5 is 12.5.
            yield ("" if section.whole else whole.lstrip("0")) + signs.point
            has_point = True
        elif piece.sign == "%":
            yield "%"
        elif piece.sign:
            yield "E" + _power(exponent, piece.sign, signs)
        else:
            yield piece.text


def _power(exponent: int, sign: str, signs: _Signs) -> str:
    shown = signs.minus if exponent < 0 else "+" if sign[1] == "+" else ""
    return shown + str(abs(exponent)).rjust(len(sign) - 2, "0")


def _placed(digits: str, section: _Section, signs: _Signs) -> Iterator[str]:
    """Yield what stands at each place before the point: from the right a digit each, at the first all that are left."""
    count = len(section.whole)
    if section.is_grouped:
        marked = [
            digit + (signs.group if left and left % 3 == 0 else "")
            for digit, left in zip(digits, range(len(digits) - 1, -1, -1), strict=True)
        ]
    else:
        marked = list(digits)
    filled = [""] * (count - len(marked)) + marked
    extra = len(filled) - count
    return iter(["".join(filled[: extra + 1]), *filled[extra + 1 :]] if count else [])


def _shortened(digits: str, places: tuple[str, ...]) -> Iterator[str]:
    """Yield the digits after the point; at the end, zeros whose place may be left out are."""
    kept = len(places)
    while kept and places[kept - 1] == "#" and digits[kept - 1] == "0":
        kept -= 1
    return iter(digits[:kept])
