"""What is left of a response that nobody can be told by any more: answers that are not personal, and the figures."""

from collections.abc import Collection, Mapping
from dataclasses import dataclass
from typing import Any

from codexa.core.definition.parts import Question
from codexa.core.fields.options import OTHER
from codexa.core.form.form import Form
from codexa.core.formula.types import Kind
from codexa.core.program.places import Place, RepeatPlace
from codexa.core.program.program import Program

OWN_WORDS = "…"  # in the place of what a visitor wrote instead of an option: that there was something stays


@dataclass(frozen=True, kw_only=True, slots=True)
class Anonymised:
    """What is kept, by block id as a response has it, and of what it was told what names nobody."""

    answers: dict[str, Any]
    computed: dict[str, Any]
    told: dict[str, Any]


def personal_in(form: Form, newest: Form) -> frozenset[str]:
    """Return the ids of the questions of an edition that are personal: as the newest says of those it still has."""
    marks = {each.id: each.personal for one in (form, newest) for each in one.blocks() if isinstance(each, Question)}
    own = {each.id for each in form.blocks()}
    return frozenset(each for each, personal in marks.items() if personal and each in own)


def anonymised(
    program: Program,
    personal: Collection[str],
    *,
    answers: Mapping[str, Any],
    computed: Mapping[str, Any],
    told: Mapping[str, Any],
) -> Anonymised:
    """Return a response without the answers to personal questions, and without texts that were made of them.

    Numbers that were worked out of them stay, as figures do. The program is that of the response's own edition.
    """
    made = program.affected(personal)
    repeats = {place.block.id: place for place in program.top_places if isinstance(place, RepeatPlace)}
    kept_answers = {
        block: _rows(value, personal) if block in repeats else _without_words(value)
        for block, value in answers.items()
        if block not in personal
    }
    kept_computed = {
        block: _computed_rows(repeats[block], value) if block in repeats and block in made else value
        for block, value in computed.items()
        if block in repeats or block not in made or not _is_text(program.places.get(block))
    }
    return Anonymised(answers=kept_answers, computed=kept_computed, told=_told(program, personal, told))


def _is_text(place: Place | None) -> bool:
    if place is None or place.field_type is None:
        return False
    return place.field_type.value_type(place.block).kind is Kind.TEXT


def _rows(rows: Any, personal: Collection[str]) -> Any:
    return [
        {**row, "values": {key: _without_words(value) for key, value in row["values"].items() if key not in personal}}
        for row in rows
    ]


def _computed_rows(place: RepeatPlace, rows: Any) -> Any:
    texts = {each.block.id for kind in place.kinds for each in kind.places if _is_text(each)}
    return {row: {key: value for key, value in values.items() if key not in texts} for row, values in rows.items()}


def _without_words(value: Any) -> Any:
    """Return an answer whose own words, instead of an option, nobody can read any more."""
    if isinstance(value, dict):
        return {key: OWN_WORDS if key == OTHER and isinstance(each, str) else each for key, each in value.items()}
    return [_without_words(each) for each in value] if isinstance(value, list) else value


def _told(program: Program, personal: Collection[str], told: Mapping[str, Any]) -> dict[str, Any]:
    harmless = {link.name for block, (link, _) in program.linked.items() if block not in personal}
    link = {name: value for name, value in told.get("link", {}).items() if name in harmless}
    return {**told, "visitor": {}, "groups": [], "link": link}
