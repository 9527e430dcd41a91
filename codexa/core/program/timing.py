"""What comes too late: rules and texts that read what is asked only after them, or what is never there."""

from collections.abc import Iterator

from codexa.core.definition.figures import BandsFigure
from codexa.core.definition.parts import blocks_within
from codexa.core.form.form import FORM
from codexa.core.formula import tree
from codexa.core.program.facts import Formula
from codexa.core.program.findings import Finding, doubt
from codexa.core.program.names import name_of
from codexa.core.program.places import NEVER
from codexa.core.program.program import Program
from codexa.core.program.scope import Entry, response_number

_ASKED = ("shown", "required", "locked")


class _Pages:
    """On which page (or step of one, where questions come one at a time), by its place, each block stands."""

    def __init__(self, program: Program) -> None:
        self.of: dict[str, int] = {}
        for index, step in enumerate(program.steps):
            self.of.setdefault(step.page.id, index)
            self.of |= {block.id: index for block, _ in blocks_within(step.blocks)}


def too_late(program: Program) -> Iterator[Finding]:
    """Yield rules that ask what comes after them, and texts that insert what is blank whenever they are read."""
    pages = _Pages(program)
    if program.form.presentation != "whole":
        for formula in program.formulas:
            yield from _asks_later(program, pages, formula)
    for owner, templates in program.texts.items():
        for setting, template in templates.items():
            for name, entry in template.entries.items():
                why = None if entry is None else _blank_because(program, pages, owner, name, entry)
                if why is not None:
                    message = f"The text inserts {{{name}}}, which is blank there: {why}."
                    place = None if owner == FORM else owner
                    yield doubt("always_blank", message, "Insert something else, or take it out.", place, setting)


def _asks_later(program: Program, pages: _Pages, formula: Formula) -> Iterator[Finding]:
    here = pages.of.get(formula.owner)
    if here is None or formula.mark.fact not in (*_ASKED, "next") or formula.compiled.typed is None:
        return
    is_page = formula.owner in {page.id for page in program.form.pages}
    read = {
        entry.owner
        for node in tree.walk(formula.compiled.typed.node)
        if isinstance(node, tree.Name) and (entry := formula.scope.entry(node.parts)) is not None
    }
    # A page that is not shown asks nothing either; what leads on from it has been asked.
    first = here if is_page and formula.mark.fact == "shown" else here + 1
    later = [owner for owner in read if pages.of.get(owner, -1) >= first]
    if read and len(later) == len(read):
        asked = name_of(program, min(later, key=lambda owner: pages.of[owner]))
        message = f"This asks {asked}, which comes later: until then it is blank."
        yield doubt("asks_later", message, "Ask it on an earlier page, or move this.", formula.owner, formula.setting)


def _blank_because(program: Program, pages: _Pages, owner: str, name: str, entry: Entry) -> str | None:
    """Return why a value is blank wherever that text is read; None where it need not be."""
    figure = program.figures.get(entry.owner)
    place = program.places.get(entry.owner)
    before_handing_in = owner == FORM or owner in pages.of
    if before_handing_in and entry.reference.facet is response_number:
        return "a response has its number only once it is handed in"
    if figure is not None and isinstance(figure.figure, BandsFigure) and name.lower().endswith(".label"):
        return None if any(band.label.strip() for band in figure.figure.bands) else "no band has a name"
    if place is None:
        return None
    if place.conditions.shown is NEVER:
        return f"{name_of(program, entry.owner)} is never shown"
    here = -1 if owner == FORM else pages.of.get(owner)
    later = here is not None and place.answered and pages.of[entry.owner] > here
    paged = program.form.presentation != "whole" or owner == FORM
    return f"{name_of(program, entry.owner)} is asked later" if later and paged else None
