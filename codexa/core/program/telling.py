"""What is true of a part of a form, in words: "is shown", "takes nothing before 26 November", "offers A and B"."""

from collections.abc import Sequence
from typing import Any

from codexa.core.errors import AnswerError
from codexa.core.fields.field_type import Medium
from codexa.core.formula.compile import locate
from codexa.core.formula.values import Choice, Failed, FormulaFailure
from codexa.core.program.evaluate import Row, State
from codexa.core.program.figure_kinds import kind_of
from codexa.core.program.order import lines_in_words, money
from codexa.core.program.order_names import ORDER
from codexa.core.program.places import RepeatPlace
from codexa.core.program.scope import presenter

_MOST_NAMED = 6  # options

_YES_NO = {
    "shown": ("is shown", "is hidden"),
    "is_shown": ("is shown", "is hidden"),
    "required": ("must be answered", "may be left blank"),
    "locked": ("is locked", "is open"),
    "check": ("fits its check", "does not fit its check"),
}
_LIMITS = {"earliest": "before", "latest": "after"}


def told(state: State, row: Row | tuple[()], owner: str, fact: str, value: Any) -> str:
    """Return what a fact's value means, as the rest of a sentence that begins with its owner's name.

    `owner` is the id of a block, page, row kind or figure; `row` the row that it is told of, or ().
    """
    name = fact.split(".", maxsplit=1)[0]
    if name in ("shown", "at") and any(page.page.id == owner for page in state.program.pages):
        return "is on the path" if value is True else "is not on the path"
    if name in _YES_NO:
        return _YES_NO[name][0 if value is True else 1]
    if name in _LIMITS:
        limit = None if isinstance(value, Failed) else _limit(state, owner, value)
        return f"takes nothing {_LIMITS[name]} {limit}" if limit else "is not limited"
    if isinstance(value, Failed):
        return f"can't be worked out ({value.error.code}): {_cause(state, row, owner, value)}"
    if name in ("offered", "barred"):
        return _options(state, owner, name, value or ())
    if owner == ORDER or name == "order":
        return _of_order(state, name, value)
    if value is None:
        return _blank(state, row, owner)
    if name == "next":
        pages = state.program.form.pages
        return "leads to the end" if value >= len(pages) else f"leads to page {value + 1} {pages[value].title}".strip()
    if name == "confirmation":
        confirmations = state.program.form.confirmations
        return f"ends with {confirmations[value].name or value + 1}" if value >= 0 else "ends with the usual words"
    return f"is {_shown(state, row, owner, value)}"


def _of_order(state: State, fact: str, value: Any) -> str:
    """Return what a part of the order comes to."""
    region = state.program.region
    if value is None:
        return "tells of the payment: nothing is ordered here"
    if fact == "lines":
        return f"has {lines_in_words(value) or 'nothing'}: {money(value.subtotal, region)}"
    if fact == "discounts":
        taken = ", ".join(f"{each.name} {money(each.amount, region)}" for each in value.sums)
        return f"has {taken} taken off" if taken else "has nothing taken off"
    if fact == "shipping":
        return f"costs {money(value, region)} to send"
    return f"comes to {money(value.total, region)}"


def _limit(state: State, owner: str, value: Any) -> str | None:
    """Return a limit as the field shows its values; None where the formula gives none, which limits nothing."""
    place, region = state.program.places[owner], state.program.region
    if value is None or place.field_type is None:
        return None
    try:
        limit = place.field_type.adopt(value, place.block, region)
        return place.field_type.present(limit, place.block, region, Medium.PAGE)
    except (FormulaFailure, AnswerError):
        return None


def _options(state: State, owner: str, fact: str, codes: Sequence[str]) -> str:
    options = getattr(state.program.places[owner].block, "options", ())
    labels = [option.label for option in options if option.code in codes]
    more = len(labels) - _MOST_NAMED
    named = ", ".join(labels[:_MOST_NAMED]) + (f" and {more} more" if more > 0 else "")
    if fact == "offered":
        return f"offers {named}" if named else "offers nothing"
    return f"does not let anyone choose {named}" if named else "lets anyone choose every option"


def _blank(state: State, row: Row | tuple[()], owner: str) -> str:
    place = state.program.places.get(owner)
    if place is not None and not state.shown(place, row if place.kind else ()):
        return "is blank while hidden"
    if place is not None and state.is_lost(place, row if place.kind else ()):
        return "is blank, as what was chosen does not fit"
    return "is blank"


def _cause(state: State, row: Row | tuple[()], owner: str, failed: Failed) -> str:
    formula = state.program.formula(owner, "formula")
    if formula is None:
        return failed.error.message
    error = locate(formula.compiled, state.values, state.context, row)
    if error is None or error.span is None:
        return failed.error.message
    where = formula.compiled.text[error.span.start : error.span.end]
    return f"{error.message.rstrip('.')} at {where}"


def _shown(state: State, row: Row | tuple[()], owner: str, value: Any) -> str:
    place = state.program.places.get(owner)
    if isinstance(place, RepeatPlace):
        return f"{len(value)} row{'' if len(value) == 1 else 's'}"
    if place is not None and place.field_type is not None and not isinstance(value, bool | list):
        return state.presented(place, row if place.kind else ()) or "blank"
    figure = state.program.figures.get(owner)
    if figure is not None:
        bare = kind_of(figure.figure).value(figure.figure, value)
        entry = state.program.layout.scope.entry((figure.figure.key,))
        label = getattr(value, "label", "")
        shown = "blank" if bare is None or entry is None else entry.present(bare)
        return f"{shown} ({label})" if label else shown
    return _plain(state, value)


def _plain(state: State, value: Any) -> str:
    if isinstance(value, bool):
        return "yes" if value else "no"
    return presenter(state.program.region)(value) if not isinstance(value, Choice) else value.label
