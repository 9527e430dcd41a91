"""A whole form as words, to be read, printed and compared: its outline, what its settings say, and its rules."""

from collections.abc import Iterator, Mapping, Sequence
from difflib import SequenceMatcher
from typing import Any, NamedTuple

from pydantic.fields import FieldInfo

from codexa.core.definition.parts import FormulaText, Part
from codexa.core.definition.rich_text import plain
from codexa.core.fields import BLOCK_TYPES
from codexa.core.form.comparing import BESIDE
from codexa.core.form.form import FORM
from codexa.core.program.names import name_of
from codexa.core.program.notes import Note, notes
from codexa.core.program.order_names import ORDER, PAYMENT
from codexa.core.program.program import Program

_INDENT = "  "
# What stands in the line of a part itself, or says nothing to people.
_TOLD = frozenset({"id", "type", "kind", "format"})
_NAMES = ("label", "title", "name", "text", "code")
# Lists whose members are parts of the outline.
_LISTS = frozenset({"pages", "blocks", "kinds", *BESIDE})


class TextLine(NamedTuple):
    """A line of a form's text; `mark` is "+" for what a comparison found new, "-" for what is gone, else " "."""

    mark: str
    text: str


def form_text(program: Program) -> list[str]:
    """Return a form as lines of words."""
    return list(_Writer(program).lines())


def compared_texts(before: Sequence[str], after: Sequence[str]) -> list[TextLine]:
    """Return the lines of both, marked."""
    found: list[TextLine] = []
    for what, start, end, now_start, now_end in SequenceMatcher(None, before, after, autojunk=False).get_opcodes():
        if what == "equal":
            found += (TextLine(" ", line) for line in before[start:end])
            continue
        found += (TextLine("-", line) for line in before[start:end])
        found += (TextLine("+", line) for line in after[now_start:now_end])
    return found


class _Writer:
    def __init__(self, program: Program) -> None:
        self.program, self.form = program, program.form
        self.notes = notes(program)
        self.numbers = self.form.numbers()

    def lines(self) -> Iterator[str]:
        yield self.form.name
        yield from self._settings(self.form.model_copy(update={"languages": ()}), 1, told=self.form.name)
        for owner in (FORM, ORDER, PAYMENT):
            yield from self._notes(owner, 1)
        for page in self.form.pages:
            yield ""
            yield from self._part(page, 0)
        for name in BESIDE:
            parts = getattr(self.form, name)
            if parts:
                yield ""
                yield name.replace("_", "-").capitalize()
                for part in parts:
                    yield from self._part(part, 1)
        for language in self.form.languages:
            yield ""
            yield f"In {language.locale}"
            yield from (f"{_INDENT}{self._text_of(name)}: {_shown(each.text)}" for name, each in language.texts.items())

    def _text_of(self, text: str) -> str:
        """Return what a text of visitors is called: whose it is, and which setting."""
        owner, _, setting = text.partition(".")
        return f"{name_of(self.program, owner)}, {setting.replace('_', ' ')}"

    def _part(self, part: Any, depth: int) -> Iterator[str]:
        yield f"{_INDENT * depth}{self._heading(part)}"
        yield from self._settings(part, depth + 1, told=_name(part))
        yield from self._notes(part.id, depth + 1)
        for name in ("blocks", "kinds"):
            inside = getattr(part, name, ())
            for each in inside if all(isinstance(each, Part) for each in inside) else ():
                yield from self._part(each, depth + 1)

    def _heading(self, part: Any) -> str:
        number, name = self.numbers.get(part.id, ""), _name(part)
        kind = getattr(part, "type", None) or getattr(part, "kind", "")
        title = BLOCK_TYPES[kind].title if kind in BLOCK_TYPES else str(kind).replace("_", " ")
        return " ".join(each for each in (number, name, f"({title})" if title else "") if each)

    def _notes(self, owner: str, depth: int) -> Iterator[str]:
        for note in self.notes.get(owner, ()):
            yield f"{_INDENT * depth}· {self._said(note)}"

    def _said(self, note: Note) -> str:
        return "".join(name_of(self.program, each.block) if each.block else each.text for each in note.words)

    def _settings(self, part: Part, depth: int, before: str = "", *, told: str = "") -> Iterator[str]:
        for name, setting in type(part).model_fields.items():
            value = getattr(part, name)
            # A formula is told by its sentence.
            is_told = name in _TOLD or name in _LISTS or any(isinstance(each, FormulaText) for each in setting.metadata)
            if is_told or value == _usual(setting) or (told and _shown(value) == told):
                continue
            said = f"{before}{name.replace('_', ' ')}"
            if isinstance(value, Part):
                yield from self._settings(value, depth, f"{said}, ")
            elif isinstance(value, tuple) and value and isinstance(value[0], Part):
                yield f"{_INDENT * depth}{said}:"
                for each in value:
                    yield f"{_INDENT * (depth + 1)}– {_in_line(each)}"
                    yield from (f"{_INDENT * (depth + 2)}{line}" for line in _tables_in(each))
            else:
                yield f"{_INDENT * depth}{said}: {_shown(value)}"


def _usual(setting: FieldInfo) -> Any:
    return setting.get_default(call_default_factory=True)


def _name(part: Any) -> str:
    return next((_shown(text) for name in _NAMES if (text := getattr(part, name, ""))), "") or getattr(part, "key", "")


def _in_line(part: Part) -> str:
    """Return what a part says in one line: its name, and what is not as usual."""
    name = _name(part)
    said = [
        f"{setting.replace('_', ' ')} {_shown(value)}"
        for setting, field in type(part).model_fields.items()
        if setting not in _TOLD
        and (value := getattr(part, setting)) != _usual(field)
        and not isinstance(value, Mapping)
        and _shown(value) != name
    ]
    return ", ".join([name, *said] if name else said)


def _tables_in(part: Part) -> Iterator[str]:
    for setting in type(part).model_fields:
        value = getattr(part, setting)
        if isinstance(value, Mapping):
            yield from (
                f"{name}: {_in_line(each) if isinstance(each, Part) else _shown(each)}" for name, each in value.items()
            )


def _shown(value: Any) -> str:
    match value:
        case bool():
            return "yes" if value else "no"
        case Part():
            return f"({', '.join((_in_line(value), *_tables_in(value)))})"
        case tuple():
            return ", ".join(_shown(each) for each in value)
        case Mapping():
            return "; ".join(f"{name}: {_shown(each)}" for name, each in value.items())
        case str() if value.startswith("data:"):
            return "(a picture)"
        case str() if value.startswith("<p"):
            return plain(value)
        case str():
            return " ".join(value.split())
    return str(value)
