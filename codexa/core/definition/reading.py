"""From a JSON document to the part of a definition that it says, or to everything that is wrong with it."""

from typing import Any, TypeVar

from pydantic import ValidationError

from codexa.core.definition.parts import Part
from codexa.core.errors import DefinitionError, Problem

PartModel = TypeVar("PartModel", bound=Part)


def read_part(model: type[PartModel], document: Any) -> PartModel:
    """Return the part of a JSON document.

    Raises DefinitionError with the path and the remedy of every problem, unknown keys included.
    """
    try:
        return model.model_validate(document)
    except ValidationError as error:
        raise definition_error(error) from None


def definition_error(error: ValidationError) -> DefinitionError:
    """Return everything that is wrong with a document, in words."""
    return DefinitionError([_problem(each) for each in error.errors(include_url=False)])


def _problem(error: Any) -> Problem:
    path = ".".join(str(step) for step in error["loc"]) or "the document"
    if error["type"] == "extra_forbidden":
        return Problem(path=path, message="this key is unknown here; remove it or correct its spelling")
    message = error["msg"].removeprefix("Value error, ")
    given = error.get("input")
    value = repr(given)
    is_told = error["type"] == "missing" or (isinstance(given, str) and given != "" and given in message)
    shown = "" if is_told or len(value) >= 200 else f" (here: {value[:60]})"
    return Problem(path=path, message=message + shown)
