"""Reads what a request brings: bounded before anything looks at it, and nothing in it that could not be kept."""

import base64
import json
import re
from collections.abc import Mapping
from decimal import Decimal
from typing import Any, NoReturn, TypeVar

from flask import request
from pydantic import BaseModel, ValidationError
from werkzeug.routing import IntegerConverter, Map

from codexa.core.errors import Problem

Model = TypeVar("Model", bound=BaseModel)
MAX_DEPTH = 64  # lists and objects in one another
_MOST_DIGITS = 50  # of a number; far more than any field or limit takes
_MOST_EXPONENT = 100
_GREATEST = 2**63  # what a database column can hold
# What PostgreSQL can't keep in text: NUL, and halves of pairs (RFC 8259, 8.2). JSON can only write them so; most
# requests have neither, and need no look at each of their texts.
_MAYBE_UNKEEPABLE = re.compile(rb"\\u(?:0000|[dD][89a-fA-F])")
_EXPONENT = re.compile(r"[eE]([+-]?\d+)$")


class NumberConverter(IntegerConverter):
    """A whole number in an address that a database column can hold; others lead nowhere."""

    def __init__(self, url_map: Map) -> None:
        super().__init__(url_map, max=2**31 - 1)


class BadRequestError(Exception):
    """The request can't be read; `problems` tell where."""

    def __init__(self, message: str, problems: list[Problem] | None = None) -> None:
        super().__init__(message)
        self.message = message
        self.problems = problems or []


def read_json(model: type[Model], most: int) -> Model:
    """Return the request's body, of at most so many bytes, as a model.

    Raises BadRequestError, or werkzeug's RequestEntityTooLarge before more is read.
    """
    request.max_content_length = most
    if not request.is_json:
        raise BadRequestError("Send JSON, with the header Content-Type: application/json.")
    try:
        return model.model_validate(_parsed(request.get_data()))
    except ValidationError as error:
        problems = [
            Problem(path=".".join(map(str, each["loc"]))[:200], message=each["msg"])
            for each in error.errors(include_url=False, include_input=False)[:50]
        ]
        raise BadRequestError("The request has another shape than this address takes.", problems) from None


def _parsed(body: bytes) -> Any:
    try:
        text = body.decode()
        document = _JSON.decode(text)
    except (ValueError, RecursionError):
        raise BadRequestError("The request is no JSON that can be read.") from None
    # Few brackets can't nest deep; counting them is quicker than looking.
    if body.count(b"[") + body.count(b"{") > MAX_DEPTH and is_deeper(document, MAX_DEPTH):
        raise BadRequestError(f"The request is nested more than {MAX_DEPTH} levels deep.")
    if _MAYBE_UNKEEPABLE.search(body) and not _is_keepable(document):
        raise BadRequestError("The request has a sign that is no text (NUL, or half of a pair). Remove it.")
    return document


def _is_keepable(document: Any) -> bool:
    if isinstance(document, str):
        return "\x00" not in document and not any("\ud800" <= sign <= "\udfff" for sign in document)
    if isinstance(document, dict):
        return all(_is_keepable(key) and _is_keepable(value) for key, value in document.items())
    return not isinstance(document, list) or all(map(_is_keepable, document))


def is_deeper(document: Any, most: int) -> bool:
    """Say whether lists and objects stand in one another more than so many levels deep."""
    level = [document]
    for _ in range(most):
        inner: list[Any] = []
        for each in level:
            if isinstance(each, Mapping):
                inner += (value for value in each.values() if isinstance(value, dict | list))
            elif isinstance(each, list):
                inner += (value for value in each if isinstance(value, dict | list))
        if not inner:
            return False
        level = inner
    return True


def _decimal(text: str) -> Decimal:
    exponent = _EXPONENT.search(text)
    if len(text) > _MOST_DIGITS or (exponent and abs(int(exponent[1])) > _MOST_EXPONENT):
        raise BadRequestError(f"The number {text[:20]}… has too many digits. Write a shorter one.")
    return Decimal(text)


def _whole(text: str) -> int:
    value = int(text) if len(text) <= _MOST_DIGITS else _GREATEST
    if abs(value) >= _GREATEST:
        raise BadRequestError(f"The number {text[:20]}… is too large. Write a smaller one.")
    return value


def _no_constant(name: str) -> NoReturn:
    raise ValueError(f"{name} is no JSON number")


# No binary floats: a number with a point is a decimal from here on.
_JSON = json.JSONDecoder(parse_float=_decimal, parse_int=_whole, parse_constant=_no_constant)


def bytes_of(text: str, name: str) -> bytes:
    """Return the bytes of a file that a request has in base64 (RFC 4648). Raises BadRequestError."""
    try:
        return base64.b64decode(text, validate=True)
    except ValueError:
        raise BadRequestError(f"{name} is no base64 (RFC 4648).") from None


def query_number(name: str, default: int, most: int) -> int:
    """Return a whole number of the query; a larger one is the most. Raises BadRequestError where it is none."""
    text = request.args.get(name, str(default))
    if not (text.isascii() and text.isdigit() and len(text) < 12):
        raise BadRequestError(f'{name} is "{text[:40]}"; it must be a whole number from 0 to {most}.')
    return min(int(text), most)
