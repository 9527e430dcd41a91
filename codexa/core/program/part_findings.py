"""What is wrong with the parts of a form that only a group changes."""

from collections.abc import Iterator

from codexa.core.program.findings import Finding, doubt, error
from codexa.core.program.parts import named_parts
from codexa.core.program.program import Program


def part_findings(program: Program) -> Iterator[Finding]:
    """Yield what lacks: a group that changes a part, something that belongs to it, a part that something belongs to."""
    known = {"", *(part.id for part in program.form.parts)}
    for owner, named in named_parts(program.form):
        if named not in known:
            message = "It belongs to a part of the form that is not there any more: nobody can fill it in."
            yield error("no_such_part", message, "Choose who fills it in, under Behaviour.", owner, "part")
    for part in program.form.parts:
        if not part.groups:
            message = f"No group changes the part {part.name}: responses would wait there for nobody."
            yield error("no_group", message, "Choose a group, or remove the part.", part.id, "groups")
        if not program.owners_in({part.id}):
            message = f"Nothing belongs to the part {part.name}; no response goes there."
            yield doubt("empty_part", message, "Give it a page, a group or a field, under Behaviour.", part.id)
