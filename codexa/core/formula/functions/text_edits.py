"""Text: finding, replacing and turning into other kinds of values."""

import re
import unicodedata
from bisect import bisect_left
from decimal import Decimal
from typing import Any

from codexa.core.formula import convert
from codexa.core.formula.functions.function import Function, Parameter, Role, function
from codexa.core.formula.functions.words import whole_number
from codexa.core.formula.metering import MAX_TEXT, bounded
from codexa.core.formula.types import NUMBER, TEXT, YES_NO
from codexa.core.formula.values import ONE, ZERO, ErrorCode, fail, whole

_TEXT = Parameter("text", Role.TEXT)
_SOUGHT = Parameter("sought", Role.TEXT)
_START = Parameter("start", Role.NUMBER, optional=True)
_WORD = re.compile(r"[^\W\d_]+(?:['\u2019][^\W\d_]+)*")
_ONE_LETTER = re.compile(r"(?<![^\W\d_]['\u2019])\b([^\W\d_]['\u2019])([^\W\d_])(?=[^\W\d_]{2})")
_SURROGATES = range(0xD800, 0xE000)


def _proper(text: str) -> str:
    return _WORD.sub(_with_capital, text)


def _with_capital(word: re.Match[str]) -> str:
    # O'Neill and D'Artagnan, but It's and I'll: after one letter and an apostrophe a name may begin.
    text = word[0][:1].upper() + word[0][1:].lower()
    return text if text.isalpha() else _ONE_LETTER.sub(lambda found: found[1] + found[2].upper(), text)


def _clean(text: str) -> str:
    return "".join(sign for sign in text if unicodedata.category(sign) != "Cc")


def _place(sought: str, text: str, start: Decimal) -> Decimal:
    found = text.find(sought, whole_number(start, 1) - 1)
    return Decimal(found + 1) if found >= 0 else _not_in(sought)


def _not_in(sought: str) -> Decimal:
    return fail(ErrorCode.VALUE, f'"{sought[:40]}" is not in the text.')


def _find(sought: str, text: str, start: Decimal = ONE) -> Decimal:
    return _place(sought, text, start)


def _search(sought: str, text: str, start: Decimal = ONE) -> Decimal:
    lower = text.lower()
    if len(lower) == len(text):
        return _place(sought.lower(), lower, start)
    # A capital may have a small letter of two characters; what is counted are the text's own.
    owners = [at for at, sign in enumerate(text) for _ in sign.lower()]
    first = bisect_left(owners, whole_number(start, 1) - 1)
    found = "".join(sign.lower() for sign in text).find("".join(sign.lower() for sign in sought), first)
    return Decimal(owners[found] + 1) if found >= 0 else _not_in(sought)


def _substitute(text: str, old: str, new: str, which: Decimal | None = None) -> str:
    if not old:
        return text
    pieces = text.split(old)
    if which is not None:
        number = whole_number(which, 1)
        if number >= len(pieces):
            return text
        pieces = [old.join(pieces[:number]), old.join(pieces[number:])]
    return _joined_by(new, pieces)


def _joined_by(new: str, pieces: list[str]) -> str:
    if sum(map(len, pieces)) + len(new) * (len(pieces) - 1) > MAX_TEXT:
        return _too_long()
    return new.join(pieces)


def _too_long() -> str:
    return fail(ErrorCode.VALUE, f"This text would be longer than {MAX_TEXT} characters.")


def _replace(text: str, start: Decimal, length: Decimal, new: str) -> str:
    first = whole_number(start, 1) - 1
    return bounded(text[:first] + new + text[first + whole_number(length, 0) :])


def _repeat(text: str, count: Decimal) -> str:
    if len(text) * count > MAX_TEXT:
        return _too_long()
    return text * whole_number(count, 0)


def _value(value: Any) -> Decimal:
    if isinstance(value, str) and not value.strip():
        fail(ErrorCode.VALUE, "Blank text is no number.")
    return convert.number(value)


def _number_or_zero(value: Any) -> Decimal:
    return convert.number(value) if isinstance(value, bool | Decimal) else ZERO


def _character(number: Decimal) -> str:
    code = whole(number)
    if not 1 <= code <= 0x10FFFF or code in _SURROGATES:
        fail(ErrorCode.VALUE, "Unicode has no character of this number.")
    return chr(code)


def _code(text: str) -> Decimal:
    return Decimal(ord(text[0])) if text else fail(ErrorCode.VALUE, "Blank text has no first character.")


FUNCTIONS: tuple[Function, ...] = (
    function(
        "PROPER",
        (_TEXT,),
        TEXT,
        "Each word with a capital first.",
        _proper,
        ('PROPER("summit DOME")', "Summit Dome"),
        ("PROPER(\"o'neill's\")", "O'Neill's"),
        characters=3,
        differs="An apostrophe begins a name only after one letter: O'Neill's, not O'Neill'S.",
    ),
    function(
        "CLEAN",
        (_TEXT,),
        TEXT,
        "Without control characters.",
        _clean,
        ('CLEAN("a" & CHAR(7) & "b")', "ab"),
        characters=8,
    ),
    function(
        "FIND",
        (_SOUGHT, _TEXT, _START),
        NUMBER,
        "Where a text stands in another, counted from 1; case matters.",
        _find,
        ('FIND("l", "Alderlight")', "2"),
        ('FIND("L", "Alderlight")', "#VALUE!"),
        characters=512,
    ),
    function(
        "SEARCH",
        (_SOUGHT, _TEXT, _START),
        NUMBER,
        "Where a text stands in another; case does not matter.",
        _search,
        ('SEARCH("L", "Alderlight", 3)', "6"),
        characters=512,
        differs='It knows no wildcards: `SEARCH("?", t)` looks for the question mark.',
    ),
    function(
        "SUBSTITUTE",
        (
            _TEXT,
            Parameter("old", Role.TEXT),
            Parameter("new", Role.TEXT),
            Parameter("which", Role.NUMBER, optional=True),
        ),
        TEXT,
        "With a piece replaced wherever it stands, or only the first, second … time.",
        _substitute,
        ('SUBSTITUTE("a-b-c", "-", "+")', "a+b+c"),
        ('SUBSTITUTE("a-b-c", "-", "+", 2)', "a-b+c"),
        characters=64,
    ),
    function(
        "REPLACE",
        (_TEXT, Parameter("start", Role.NUMBER), Parameter("length", Role.NUMBER), Parameter("new", Role.TEXT)),
        TEXT,
        "With so many characters from a place on replaced.",
        _replace,
        ('REPLACE("Harbour Deck", 9, 4, "Dome")', "Harbour Dome"),
    ),
    function(
        "REPT",
        (_TEXT, Parameter("times", Role.NUMBER)),
        TEXT,
        "Repeated.",
        _repeat,
        ('REPT("*", 3)', "***"),
        ('REPT("*", 1000000)', "#VALUE!"),
    ),
    function(
        "EXACT",
        (_TEXT, Parameter("other", Role.TEXT)),
        YES_NO,
        "Whether two texts are the same, case included.",
        lambda text, other: text == other,
        ('EXACT("Dome", "dome")', "FALSE"),
    ),
    function(
        "VALUE",
        (Parameter("text", Role.VALUE),),
        NUMBER,
        "The number of plain decimal text.",
        _value,
        ('VALUE("12.50")', "12.5"),
        ('VALUE("12,50")', "#VALUE!"),
    ),
    function(
        "T",
        (Parameter("value", Role.VALUE),),
        TEXT,
        "The value where it is text, else nothing.",
        lambda value: str(value) if isinstance(value, str) else "",
        ('T("a")', "a"),
        ("T(1)", ""),
    ),
    function(
        "N",
        (Parameter("value", Role.VALUE),),
        NUMBER,
        "The value where it is a number, TRUE as 1, else 0.",
        _number_or_zero,
        ("N(TRUE)", "1"),
        ('N("7")', "0"),
    ),
    function(
        "CHAR",
        (Parameter("number", Role.NUMBER),),
        TEXT,
        "The character of a Unicode number.",
        _character,
        ("CHAR(65)", "A"),
    ),
    function("CODE", (_TEXT,), NUMBER, "The Unicode number of the first character.", _code, ('CODE("A")', "65")),
)
