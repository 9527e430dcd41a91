"""Our own templates: forms to begin from, each a definition in the folder of examples."""

from dataclasses import dataclass
from functools import cache
from pathlib import Path
from typing import Any

import orjson

from codexa.core.form.form import Form, read_form
from codexa.core.program.compiling import compile_form
from codexa.core.program.notes import notes
from codexa.services.errors import NotFoundError

FOLDER = Path(__file__).parent.parent.parent / "examples" / "templates"


@dataclass(frozen=True, kw_only=True, slots=True)
class Template:
    """A form to begin from: what it is for, in a sentence, and what it shows."""

    name: str
    title: str
    purpose: str
    shows: str
    document: dict[str, Any]

    @property
    def form(self) -> Form:
        """The template's form."""
        return read_form(self.document)


@cache
def templates() -> tuple[Template, ...]:
    """Return all templates, in the order of their list."""
    listed = orjson.loads((FOLDER / "list.json").read_bytes())
    return tuple(
        Template(**each, document=orjson.loads((FOLDER / f"{each['name']}.json").read_bytes())) for each in listed
    )


def find_template(name: str) -> Template:
    """Return the template of that name. Raises NotFoundError."""
    found = next((each for each in templates() if each.name == name), None)
    if found is None:
        raise NotFoundError("There is no such template.")
    return found


@dataclass(frozen=True, kw_only=True, slots=True)
class Held:
    """How many pages, fields, rules and figures a template has."""

    pages: int
    fields: int
    rules: int
    figures: int


@cache
def _held(name: str) -> Held:
    form = find_template(name).form
    rules = sum(note.condition and bool(note.reads) for found in notes(compile_form(form)).values() for note in found)
    fields = sum(1 for _ in form.fields())
    return Held(pages=len(form.pages), fields=fields, rules=rules, figures=len(form.figures))


def held_in(template: Template) -> Held:
    """Return what a template has; worked out once in each process."""
    return _held(template.name)
