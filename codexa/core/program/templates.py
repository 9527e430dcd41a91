"""Texts with inserted values."""

from collections.abc import Callable, Sequence
from dataclasses import dataclass
from typing import Any

from codexa.core.definition.formulas import INSERTION, Site
from codexa.core.definition.parts import InsertedText
from codexa.core.definition.rich_text import filled_in, sanitised
from codexa.core.formula.emit import taken
from codexa.core.formula.scope import Home
from codexa.core.formula.values import Failed, FormulaFailure
from codexa.core.program.places import Spot
from codexa.core.program.scope import AnyScope, Entry

DASH = "–"  # what visitors see of a value that could not be worked out


@dataclass(frozen=True, kw_only=True)
class Template:
    """A text and what is inserted into it: `entries` by the name as written (None where there is no such value)."""

    text: str
    into: str
    entries: dict[str, Entry | None]
    reads: tuple[Spot, ...]

    def render(self, values: Sequence[Any], context: Any, row: Sequence[Any] = ()) -> str:
        """Return the text with the values of this state, written as its place wants them."""
        return filled_in(self.text, lambda name: _shown(self.entries.get(name), values, context, row), self.into)


def template_of(site: Site, scope: AnyScope, kind: str) -> Template | None:
    """Return the template of a text, or None where nothing is inserted into it."""
    assert isinstance(site.mark, InsertedText)
    names = [match[1] for match in INSERTION.finditer(site.text) if match[1]]
    if not names and not INSERTION.search(site.text):
        return None
    entries = {name: scope.entry(tuple(name.lower().split("."))) for name in names}
    homes = {Home.FORM: "", Home.ROW: kind}
    reads = tuple(
        Spot(homes[entry.reference.home], entry.reference.slot)
        for entry in entries.values()
        if entry is not None and entry.reference.home in homes
    )
    text = sanitised(site.text) if site.mark.into == "html" else site.text
    return Template(text=text, into=site.mark.into, entries=entries, reads=reads)


def value_of(entry: Entry, values: Sequence[Any], context: Any, row: Sequence[Any] = ()) -> Any:
    """Return what a name stands for in a state: a value, None for blank, or a Failed."""
    reference = entry.reference
    if reference.home is Home.CONTEXT:
        assert reference.facet is not None
        return reference.facet(context)
    value = (row if reference.home is Home.ROW else values)[reference.slot]
    if value is None or value.__class__ is Failed or reference.facet is None:
        return value
    try:
        return taken(reference.facet, value)
    except FormulaFailure as failure:
        return Failed(failure.error)
    except ArithmeticError:
        return None


def _shown(entry: Entry | None, values: Sequence[Any], context: Any, row: Sequence[Any]) -> str:
    # What visitors may not know is never inserted, whatever a text says; the proof tells the author.
    if entry is None or not entry.public:
        return ""
    value = value_of(entry, values, context, row)
    if value is None:
        return ""
    if value.__class__ is Failed:
        return DASH
    present: Callable[[Any], str] = entry.present
    return present(value)
