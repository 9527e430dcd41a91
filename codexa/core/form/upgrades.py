"""Documents of earlier formats, brought to the present one step by step.

Whatever is renamed or given another shape in a later version gets a step here, from one format to the next. A step is
pure: it takes a document and returns another. Steps are never changed once a version with them is out; the documents in
tests/cases/documents are read for ever.
"""

from collections.abc import Callable, Mapping
from typing import Any

from pydantic import ValidationError

from codexa.core.definition.reading import definition_error, read_part
from codexa.core.errors import DefinitionError, Problem
from codexa.core.form.form import FORMAT, Form

Document = dict[str, Any]
Step = Callable[[Document], Document]

# From a format to the next: {1: from_1_to_2, …}.
STEPS: Mapping[int, Step] = {}


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
