"""Renaming what formulas name as text, an option's code, a band, a row kind, a profile, and with it every such text."""

from collections import defaultdict
from typing import Any

from codexa.core.definition.parts import RowKind
from codexa.core.errors import DefinitionError, Problem, Span
from codexa.core.fields.options import Optioned
from codexa.core.fields.slot import SlotField
from codexa.core.form.form import FORM, Form, read_form
from codexa.core.form.renaming import rename_key
from codexa.core.program.compiling import compile_form
from codexa.core.program.named_words import Subject, named_words
from codexa.core.program.program import Program
from codexa.core.program.unfinished import filtered_by


def renamed(form: Form, owner: str, setting: str, word: str) -> Form:
    """Return the form with a name changed ("key", "options.2.code", "bands.0.label") and all that uses it rewritten.

    Raises DefinitionError where there is no such setting, or the name can't be. Formulas that can't be read stay.
    """
    if setting == "key":
        kind = next((kind for repeat in form.repeats() for kind in repeat.kinds if kind.id == owner), None)
        changed = rename_key(form, owner, word)
        return changed if kind is None else read_form(_with_texts(changed, kind, word))
    document = form.model_dump(mode="json")
    *path, last = setting.split(".")
    part = _at(_owned(document, owner), path)
    if not isinstance(part, dict) or not isinstance(part.get(last), str):
        raise DefinitionError([Problem(path=setting, message=f"there is no such name in {owner}")])
    old, words = part[last], "codes" if last == "code" else "labels"
    program = compile_form(form)
    _rewrite_texts(program, document, Subject(owner=owner, words=words), (old, word))
    if words == "codes":
        _rewrite_points(document, owner, path[0], (old, word))
    if words == "codes" and path[0] == "options":
        _rewrite_named_options(program, document, owner, (old, word))
    for trial in document["trials"]:
        # Answers are codes; what is expected of a profile is its name, as people read it.
        tried, name = (trial, "answers") if words == "codes" else (trial["expected"], "figures")
        tried[name] = _with_answer(tried[name], owner, (old, word))
    part[last] = word
    return read_form(document)


def _with_texts(form: Form, kind: RowKind, word: str) -> dict[str, Any]:
    repeat = next(each for each in form.repeats() if any(inner.id == kind.id for inner in each.kinds))
    document: dict[str, Any] = form.model_dump(mode="json")
    # The texts still name the key as it was; the names around them have changed already.
    _rewrite_texts(compile_form(form), document, Subject(owner=repeat.id, words="kinds"), (kind.key, word))
    return document


def _rewrite_texts(program: Program, document: dict[str, Any], subject: Subject, change: tuple[str, str]) -> None:
    """Rewrite in the document every text of its formulas that names the old word of that subject."""
    old, new = change
    spans: dict[tuple[str, str], list[Span]] = defaultdict(list)
    for formula in program.formulas:
        for named in named_words(program, formula):
            if subject in named.subjects and named.node.value.strip().casefold() == old.casefold():
                spans[formula.owner, formula.setting].append(named.node.span)
    for (owner, setting), found in spans.items():
        *path, last = setting.split(".")
        part = _at(document if owner == FORM else _owned(document, owner), path)
        for span in sorted(found, key=lambda each: each.start, reverse=True):
            written = '"' + new.replace('"', '""') + '"'
            part[last] = part[last][: span.start] + written + part[last][span.end :]


def _rewrite_points(document: dict[str, Any], owner: str, table: str, change: tuple[str, str]) -> None:
    """Rewrite the points of scores and profiles, whose tables go by codes."""
    for figure in document["figures"]:
        for question in figure.get("questions", ()):
            if table == "options" and question["field"] == owner:
                question["points"] = _with_name(question["points"], change)
                if "right" in question:
                    question["right"] = [change[1] if each == change[0] else each for each in question["right"]]
                for said in question.get("says", ()):
                    said["code"] = change[1] if said["code"] == change[0] else said["code"]
            elif table == "profiles" and figure["id"] == owner:
                question["points"] = {code: _with_name(each, change) for code, each in question["points"].items()}


def _rewrite_named_options(program: Program, document: dict[str, Any], owner: str, change: tuple[str, str]) -> None:
    """Rewrite where slots are offered at an option, and which options of other fields belong to it."""
    old, new = change
    for place in program.places.values():
        block = place.block
        if isinstance(block, SlotField) and block.by == owner:
            part = _owned(document, block.id)
            for series in part["series"]:
                series["at"] = [new if each == old else each for each in series["at"]]
            for single in part["singles"]:
                single["at"] = new if single["at"] == old else single["at"]
        elif isinstance(block, Optioned):
            filtering = filtered_by(program, block)
            for option in _owned(document, block.id)["options"] if filtering and filtering.id == owner else ():
                # A filter compares without regard to case.
                if option["belongs_to"].casefold() == old.casefold():
                    option["belongs_to"] = new


def _with_answer(answers: Any, owner: str, change: tuple[str, str]) -> Any:
    """Return answers in which that owner's code is the new one, in rows too."""
    if isinstance(answers, list):
        return [_with_answer(each, owner, change) for each in answers]
    if not isinstance(answers, dict):
        return answers
    return {
        name: _with_code(value, change) if name == owner else _with_answer(value, owner, change)
        for name, value in answers.items()
    }


def _with_code(value: Any, change: tuple[str, str]) -> Any:
    if isinstance(value, list):
        return [_with_code(each, change) for each in value]
    return change[1] if value == change[0] else value


def _with_name(table: dict[str, Any], change: tuple[str, str]) -> dict[str, Any]:
    return {change[1] if code == change[0] else code: value for code, value in table.items()}


def _owned(document: Any, owner: str) -> Any:
    """Return the part of a document with that id."""
    if isinstance(document, dict) and document.get("id") == owner:
        return document
    parts = [*document.values()] if isinstance(document, dict) else document if isinstance(document, list) else []
    return next((found for part in parts if (found := _owned(part, owner)) is not None), None)


def _at(part: Any, path: list[str]) -> Any:
    for step in path:
        if isinstance(part, list) and step.isdigit() and int(step) < len(part):
            part = part[int(step)]
        else:
            part = part.get(step) if isinstance(part, dict) else None
    return part
