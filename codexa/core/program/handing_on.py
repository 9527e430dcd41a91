"""Where a response goes next, from part to part of its form."""

from codexa.core.context import FILLING_IN
from codexa.core.form.form import FormPart
from codexa.core.program.evaluate import State
from codexa.core.program.follow_ups.kind import holds


def part_after(state: State, part: str) -> FormPart | None:
    """Return the part that a response goes to from a part, or from FILLING_IN; None after the last.

    Parts that nothing belongs to, or whose condition does not hold, are passed over.
    """
    parts = state.program.form.parts
    ids = [FILLING_IN, *(each.id for each in parts)]
    later = parts[ids.index(part) :] if part in ids else ()
    return next((each for each in later if _applies(state, each)), None)


def parts_before(state: State, part: str) -> list[FormPart]:
    """Return the parts that a response may be sent back to from a part, beside who filled it in."""
    ids = [each.id for each in state.program.form.parts]
    earlier = state.program.form.parts[: ids.index(part)] if part in ids else ()
    return [each for each in earlier if _applies(state, each)]


def _applies(state: State, part: FormPart) -> bool:
    return bool(state.program.owners_in({part.id})) and holds(state, part.id, "only_when")
