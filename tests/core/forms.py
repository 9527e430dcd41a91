"""Small forms for tests, and what the core says of them."""

from codexa.core.form.form import read_form
from codexa.core.program.compiling import compile_form
from codexa.core.program.evaluate import evaluate
from codexa.core.program.faces import FormState
from codexa.core.program.public import form_state
from codexa.core.program.templates import value_of as entry_value
from core.formulas import CONTEXT


def block(kind, key, **settings):
    label = {} if kind in ("heading", "text", "divider", "picture") else {"label": key.replace("_", " ").capitalize()}
    return {"type": kind, "id": key.replace("_", ""), "key": key, **label, **settings}


def options(*codes, **of):
    """Options by code; a pair is a code and what it counts as; `of` sets more, by code."""
    pairs = [code if isinstance(code, tuple) else (code, 0) for code in codes]
    return [
        {"id": f"o{code}", "code": code, "label": code.capitalize(), "counts_as": str(number), **of.get(code, {})}
        for code, number in pairs
    ]


def program_of(*blocks, pages=None, **settings):
    """Return the program of a form with these blocks on one page, or with these pages."""
    pages = pages or [{"id": "p1", "title": "One", "blocks": list(blocks)}]
    return compile_form(read_form({"name": "Test", "title": "Test", "pages": pages, **settings}))


def state_of(program, answers=None, context=CONTEXT):
    return evaluate(program, answers or {}, context)


def facts_of(program, answers=None, only=None):
    """Return the public facts, read as the browser's model."""
    return FormState.model_validate(form_state(state_of(program, answers), only))


def figure(key, kind, **settings):
    return {"id": f"g{key.replace('_', '')}", "key": key, "kind": kind, "name": key.capitalize(), **settings}


def value_of(program, key, answers=None):
    """Return what a name stands for with these answers, as a formula sees it."""
    state = state_of(program, answers)
    entry = program.layout.scope.entry(tuple(key.split(".")))
    return entry_value(entry, state.values, state.context)
