"""What a link brings: answers to fields, which visitors may change, only read, or don't see."""

from collections import Counter
from collections.abc import Iterator
from dataclasses import dataclass

from codexa.core.errors import AnswerError
from codexa.core.form.form import Form
from codexa.core.program.evaluate import FieldError, State
from codexa.core.program.findings import Finding, doubt, error
from codexa.core.program.places import Place
from codexa.core.program.program import Program
from codexa.core.sentences import in_language


@dataclass(frozen=True, kw_only=True, slots=True)
class LinkProblem:
    """A value that the form does not take: what the link calls it, the field's label for visitors, and why."""

    name: str
    label: str
    error: FieldError
    held: bool


def linkable_places(program: Program) -> Iterator[Place]:
    """Yield the fields whose answers a link can bring, in the order of the outline."""
    for place in program.questions.values():
        if place.field_type is not None and place.field_type.linkable:
            yield place


def sealed_names(form: Form) -> frozenset[str]:
    """Return the names whose values are taken from a sealed link alone."""
    return frozenset(each.name for each in form.links if each.sealed)


def link_findings(program: Program) -> Iterator[Finding]:
    """Yield what is wrong or doubtful in the values that links bring."""
    links = program.form.links
    names, fields = Counter(each.name for each in links), Counter(each.field for each in links)
    for index, link in enumerate(links):
        setting = f"links.{index}"
        if link.field not in program.linked:
            message = f"The link's {link.name} fills in a field that is gone, or that no link can fill in."
            yield error("no_link_field", message, "Pick another field in Publish, Links with values.", None, setting)
        elif names[link.name] > 1 or fields[link.field] > 1:
            message = f"Two values of a link have the name {link.name}, or fill in the same field."
            yield error("double_link", message, "Give each a name and a field of its own.", link.field, setting)
        elif link.visitor != "open" and not link.sealed:
            message = f"Visitors can't change {link.name} in the form, but anybody can in the link's address."
            yield doubt("bendable_link", message, "Have it sealed.", link.field, setting)
    if program.form.sealed_only and not any(each.sealed for each in links):
        message = "The form opens by sealed links alone, and no value is sealed."
        yield doubt("nothing_sealed", message, "Pick what the links bring.", None, "sealed_only")


def value_problem(program: Program, block: str, text: str) -> str | None:
    """Return what is wrong with a value for a field by itself, in words, whatever the other answers are."""
    place = program.places[block]
    assert place.field_type is not None
    try:
        raw = place.field_type.from_link(text, place.block, program.region)
        value = place.field_type.parse(raw, place.block, program.region)
    except AnswerError as error:
        return str(in_language(program.form.of_error(error.code, error.message), program.region.locale))
    wrong = None if value is None else place.field_type.check(value, place.block, program.region)
    return None if wrong is None else str(in_language(wrong, program.region.locale))


def link_problems(state: State) -> list[LinkProblem]:
    """Return which values of the link the form does not take; `held` are those that visitors can't mend."""
    found = []
    for block_id, link in state.brought.items():
        place = state.program.places[block_id]
        misread = state.misread.get(block_id)
        error = state.error(place) if misread is None else state.worded(misread)
        if error is not None:
            label = state.text(block_id, "label", getattr(place.block, "label", "")) or link.name
            found.append(LinkProblem(name=link.name, label=label, error=error, held=link.visitor != "open"))
    return found
