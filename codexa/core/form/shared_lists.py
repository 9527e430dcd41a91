"""Lists of options that many forms share, and how a choice follows the one that it has its options from."""

from collections import Counter
from collections.abc import Mapping, Sequence
from decimal import Decimal
from typing import Annotated, Any
from uuid import uuid4

from annotated_types import Len
from pydantic import StringConstraints

from codexa.core.definition.parts import Number, Part, VisitorLabel
from codexa.core.definition.reading import read_part
from codexa.core.errors import DefinitionError, Problem
from codexa.core.fields.options import MAX_OPTIONS, Option, OptionCode


class SharedOption(Part):
    """An option of a list: what visitors read, its code, the number that it counts as, and what it belongs to."""

    code: OptionCode
    label: VisitorLabel
    counts_as: Number = Decimal(0)
    belongs_to: Annotated[str, StringConstraints(max_length=100)] = ""


class SharedList(Part):
    """A list: its name for the team, and its options in order, no two with the same code."""

    name: Annotated[str, StringConstraints(min_length=1, max_length=200, pattern=r"\S")]
    options: Annotated[tuple[SharedOption, ...], Len(max_length=MAX_OPTIONS)] = ()


def read_list(document: Any) -> SharedList:
    """Return the list of a JSON document. Raises DefinitionError with the place of every problem."""
    found = read_part(SharedList, document)
    counts = Counter(each.code.casefold() for each in found.options)
    problems = [
        Problem(path=f"options.{at}.code", message=f"two options have the code {each.code}; give each its own")
        for at, each in enumerate(found.options)
        if counts[each.code.casefold()] > 1
    ]
    if problems:
        raise DefinitionError(problems[:50])
    return found


def following(before: Sequence[Mapping[str, Any]], shared: SharedList) -> list[dict[str, Any]]:
    """Return a choice's options as its list has them; what a form has set for one stays: its price, rules, picture."""
    known = {each["code"]: each for each in before}
    return [{**known.get(each.code, _made()), **each.model_dump(mode="json")} for each in shared.options]


def _made() -> dict[str, Any]:
    return {"id": uuid4().hex[:12], **Option(id="o", code="o", label="").model_dump(mode="json", exclude={"id"})}


def with_list(document: Any, list_id: str, shared: SharedList) -> Any:
    """Return a form's document in which all choices that have their options from a list have them as they are now."""
    if isinstance(document, list):
        return [with_list(each, list_id, shared) for each in document]
    if not isinstance(document, dict):
        return document
    found = {name: with_list(each, list_id, shared) for name, each in document.items()}
    if found.get("taken_from") == list_id and isinstance(found.get("options"), list):
        found["options"] = following(found["options"], shared)
    return found
