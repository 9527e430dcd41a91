"""Text: counted from 1, case ignored in searches."""

import re
from decimal import Decimal
from typing import Any

from codexa.core.formula import convert
from codexa.core.formula.functions.function import Argument, CodeWriter, Example, Function, Parameter, Role
from codexa.core.formula.metering import MAX_TEXT, spend
from codexa.core.formula.types import NUMBER, TEXT, YES_NO
from codexa.core.formula.values import ONE, Choices, ChosenRecord, ChosenRecords, ErrorCode, fail, whole

_TEXT = Parameter("text", Role.TEXT)
_LENGTH = Parameter("length", Role.NUMBER, optional=True)
_SPACES = re.compile(r" {2,}")


def _emit_length(emitter: CodeWriter, call: Argument, role: Role) -> str:
    length = f"len({emitter.emit(call.parts[0], Role.TEXT)})"
    return (
        f"str({length})" if role is Role.TEXT else emitter.convert(f"{emitter.helper(Decimal)}({length})", NUMBER, role)
    )


def whole_number(number: Decimal, least: int) -> int:
    """Return a length or place as a whole number, an error where it is below `least`."""
    count = whole(min(max(number, Decimal(-1)), Decimal(MAX_TEXT)))
    return count if count >= least else fail(ErrorCode.VALUE, f"A length or place from {least} on is wanted here.")


def _left(text: str, length: Decimal = ONE) -> str:
    return text[: whole_number(length, 0)]


def _right(text: str, length: Decimal = ONE) -> str:
    count = whole_number(length, 0)
    return text[-count:] if count else ""


def _middle(text: str, start: Decimal, length: Decimal) -> str:
    first = whole_number(start, 1) - 1
    return text[first : first + whole_number(length, 0)]


def _trim(text: str) -> str:
    return _SPACES.sub(" ", text.strip(" "))


def _joined(values: list[Any]) -> str:
    result = ""
    for value in values:
        result = convert.join(result, convert.text(value))
    return result


def _joined_with(separator: str, skip_blank: bool, values: list[Any]) -> str:
    parts = [text for value in values if (text := convert.text(value)) or not skip_blank]
    pieces = [piece for part in parts for piece in (separator, part)][1:]
    return convert.joined(tuple(pieces))


def _mentions(text: str, words: list[Any]) -> bool:
    spend(len(text) * len(words) >> 4)
    folded = text.casefold()
    wanted = [convert.text(word).strip().casefold() for word in words]
    return any(word and re.search(rf"(?<!\w){re.escape(word)}(?!\w)", folded) for word in wanted)


def _has(chosen: Any, code: Any) -> bool:
    if chosen is None:
        return False
    if isinstance(code, ChosenRecord):
        records = chosen if isinstance(chosen, ChosenRecords) else [chosen]
        return any(convert.equal(each, code) for each in records)
    codes = chosen if isinstance(chosen, Choices | ChosenRecords) else [convert.text(chosen)]
    return convert.text(code).casefold() in {each.casefold() for each in codes}


FUNCTIONS = (
    Function(
        name="LEN",
        parameters=(_TEXT,),
        result=NUMBER,
        purpose="How many characters the text has.",
        examples=(Example('LEN("dome")', "4"),),
        emit=_emit_length,
    ),
    Function(
        name="LEFT",
        parameters=(_TEXT, _LENGTH),
        result=TEXT,
        purpose="The first characters.",
        examples=(Example('LEFT("Alderlight", 5)', "Alder"),),
        call=_left,
    ),
    Function(
        name="RIGHT",
        parameters=(_TEXT, _LENGTH),
        result=TEXT,
        purpose="The last characters.",
        examples=(Example('RIGHT("Alderlight", 5)', "light"),),
        call=_right,
    ),
    Function(
        name="MID",
        parameters=(_TEXT, Parameter("start", Role.NUMBER), Parameter("length", Role.NUMBER)),
        result=TEXT,
        purpose="So many characters from a place on, counted from 1.",
        examples=(Example('MID("Alderlight", 2, 3)', "lde"),),
        call=_middle,
    ),
    Function(
        name="UPPER",
        parameters=(_TEXT,),
        result=TEXT,
        purpose="In capitals.",
        examples=(Example('UPPER("dome")', "DOME"),),
        call=str.upper,
        characters=64,
    ),
    Function(
        name="LOWER",
        parameters=(_TEXT,),
        result=TEXT,
        purpose="In small letters.",
        examples=(Example('LOWER("DOME")', "dome"),),
        call=str.lower,
        characters=64,
    ),
    Function(
        name="TRIM",
        parameters=(_TEXT,),
        result=TEXT,
        purpose="Without spaces at the ends and with single ones between words.",
        examples=(Example('TRIM("  two   words ")', "two words"),),
        call=_trim,
        characters=64,
    ),
    Function(
        name="CONCATENATE",
        parameters=(Parameter("texts", Role.VALUES), Parameter("further", Role.VALUES, optional=True, repeated=True)),
        result=TEXT,
        purpose="The texts one after another, as & does.",
        examples=(Example('CONCATENATE("a", 1, TRUE)', "a1TRUE"),),
        call=_joined,
    ),
    Function(
        name="TEXTJOIN",
        parameters=(
            Parameter("separator", Role.TEXT),
            Parameter("skip_blank", Role.CONDITION),
            Parameter("texts", Role.VALUES),
            Parameter("further", Role.VALUES, optional=True, repeated=True),
        ),
        result=TEXT,
        purpose="The texts with a separator between them.",
        examples=(Example('TEXTJOIN(", ", TRUE, "a", "", "b")', "a, b"),),
        call=_joined_with,
    ),
    Function(
        name="MENTIONS",
        parameters=(
            _TEXT,
            Parameter("words", Role.VALUES),
            Parameter("further", Role.VALUES, optional=True, repeated=True),
        ),
        result=YES_NO,
        purpose="Whether the text has any of these words, whole and in any case.",
        examples=(
            Example('MENTIONS("A Great night", "superb", "great")', "TRUE"),
            Example('MENTIONS("greatest", "great")', "FALSE"),
        ),
        call=_mentions,
    ),
    Function(
        name="WORDS",
        parameters=(_TEXT,),
        result=NUMBER,
        purpose="How many words the text has.",
        examples=(Example('WORDS("two  words ")', "2"), Example('WORDS("")', "0")),
        call=lambda text: Decimal(len(text.split())),
        characters=64,
    ),
    Function(
        name="HAS",
        parameters=(Parameter("choices", Role.VALUE), Parameter("code", Role.VALUE)),
        result=YES_NO,
        purpose="Whether the option with this code, or this record, is among the chosen ones.",
        examples=(Example('HAS("towel", "towel")', "TRUE"),),
        call=_has,
    ),
)
