"""What names mean in a form: the keys of its fields."""

import difflib

from codexa.core.definition.form import Form
from codexa.core.fields import field_type_of
from codexa.core.formula.scope import Reference


class FormScope:
    """Finds fields by key; a field's value stands in the slot of its place among the form's fields."""

    def __init__(self, form: Form) -> None:
        self._references: dict[tuple[str, ...], Reference] = {}
        for slot, field in enumerate(form.fields()):
            field_type = field_type_of(field)
            reference = Reference(slot=slot, type=field_type.value_type(field), can_fail=not field_type.answered)
            # Of two fields with one key the first counts; the proof names them both.
            self._references.setdefault((field.key,), reference)

    def find(self, parts: tuple[str, ...]) -> Reference | None:
        """Return the field with that key."""
        return self._references.get(parts)

    def nearest(self, parts: tuple[str, ...]) -> str | None:
        """Return a key that is written nearly so."""
        near = difflib.get_close_matches(".".join(parts), [".".join(known) for known in self._references], 1)
        return near[0] if near else None
