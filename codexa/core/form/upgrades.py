"""Documents of earlier formats, brought to the present one step by step.

Whatever is renamed or given another shape in a later version gets a step here, from one format to the next. A step is
pure: it takes a document and returns another. Steps are never changed once a version with them is out; the documents in
tests/cases/documents are read for ever.
"""

from collections.abc import Callable, Mapping
from typing import Any

from babel import UnknownLocaleError
from pydantic import ValidationError

from codexa.core.definition.reading import definition_error, read_part
from codexa.core.errors import DefinitionError, Problem
from codexa.core.fields.field_type import Region
from codexa.core.form.form import FORMAT, MAX_GROUPS_DEEP, Form

Document = dict[str, Any]
Step = Callable[[Document], Document]
_DEEPEST = 3 * MAX_GROUPS_DEEP


def _from_1_to_2(document: Document) -> Document:
    # Progress was told in one way; now in as many as there are. A telephone number without its country's code was of
    # the country of the form's time zone or language; now the field says of which.
    old = document.get("progress", "none")
    progress = old if isinstance(old, list) else [] if old == "none" else [old]
    country = _country(document.get("locale", "en"), document.get("time_zone", "Europe/Berlin"))
    pages = _each_block(document.get("pages"), lambda block: _with_country(block, country))
    return {**document, "progress": progress} | ({} if pages is None else {"pages": pages})


def _each_block(part: Any, change: Callable[[Document], Document], depth: int = 0) -> Any:
    """Return pages, blocks or row kinds with every block in them changed; what stands too deep is refused by others."""
    if isinstance(part, list):
        return [_each_block(each, change, depth) for each in part]
    if not isinstance(part, dict) or depth > _DEEPEST:
        return part
    inner = {name: _each_block(part[name], change, depth + 1) for name in ("blocks", "kinds") if name in part}
    return change({**part, **inner})


def _country(locale: Any, time_zone: Any) -> str:
    try:
        return Region(locale=locale, currency="EUR", time_zone=time_zone).country
    except (UnknownLocaleError, ValueError, TypeError, AttributeError):
        return ""  # what no language is, is refused by itself


def _with_country(block: Document, country: str) -> Document:
    return {"country": country} | block if block.get("type") == "phone" else block


# From a format to the next.
STEPS: Mapping[int, Step] = {1: _from_1_to_2}


def upgraded(document: Any, steps: Mapping[int, Step] = STEPS) -> Any:
    """Return a document in the format after the last step; what is no object, or of no known format, stays as it is."""
    if not isinstance(document, dict):
        return document
    while isinstance(number := document.get("format", 1), int) and number in steps:
        document = {**steps[number](document), "format": number + 1}
    return document


def read_imported(document: Any) -> Form:
    """Return the form of a document from outside, of any format.

    Raises DefinitionError with the path and the remedy of every problem, unknown keys included.
    """
    _refuse_later_format(document)
    return read_part(Form, upgraded(document))


def read_stored(document: Any) -> Form:
    """Return the form of a document that was accepted once: what is unknown in it is passed over.

    Raises DefinitionError where it still can't be read.
    """
    _refuse_later_format(document)
    try:
        return Form.model_validate(upgraded(document), extra="ignore")
    except ValidationError as error:
        raise definition_error(error) from None


def _refuse_later_format(document: Any) -> None:
    number = document.get("format", 1) if isinstance(document, dict) else 1
    if isinstance(number, int) and number > FORMAT:
        message = (
            f"this form was made by a later version of Codexa (format {number}, here {FORMAT}); bring Codexa up to date"
        )
        raise DefinitionError([Problem(path="format", message=message)])
