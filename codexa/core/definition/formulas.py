"""Where a definition holds formulas and texts with inserted values, found alike in every part of it."""

import re
from collections.abc import Callable, Iterator
from dataclasses import dataclass
from functools import cache
from typing import Any, TypeVar

from codexa.core.definition.parts import Block, FormulaText, InsertedText, Part

Mark = FormulaText | InsertedText
PartModel = TypeVar("PartModel", bound=Part)

# {name}; a doubled brace stands for itself.
INSERTION = re.compile(r"\{\{|\}\}|\{\s*([^\W\d]\w*(?:\.[^\W\d]\w*)*)\s*\}")


@dataclass(frozen=True, kw_only=True, slots=True)
class Site:
    """A setting that holds a formula or a text: its place below its owner ("checks.0.formula"), and its text."""

    setting: str
    text: str
    mark: Mark


@cache
def _marks(model: type[Part]) -> dict[str, Mark]:
    return {
        name: mark
        for name, setting in model.model_fields.items()
        for mark in setting.metadata
        if isinstance(mark, FormulaText | InsertedText)
    }


def sites(part: Part, below: str = "") -> Iterator[Site]:
    """Yield what is filled in, in the order of the settings; blocks inside the part are owners of their own."""
    marks = _marks(type(part))
    for name in type(part).model_fields:
        value = getattr(part, name)
        if name in marks:
            if value.strip():
                yield Site(setting=below + name, text=value, mark=marks[name])
        elif isinstance(value, Part):
            yield from sites(value, f"{below}{name}.")
        elif isinstance(value, tuple):
            for index, each in enumerate(value):
                if isinstance(each, Part) and not isinstance(each, Block):
                    yield from sites(each, f"{below}{name}.{index}.")


def _nowhere(_part: Part) -> bool:
    return False


def rewritten(
    part: PartModel, change: Callable[[str, Mark], str], spare: Callable[[Part], bool] = _nowhere
) -> PartModel:
    """Return the part with every formula and text changed, those of blocks inside it too, but for parts to spare."""
    if spare(part):
        return part
    marks, changes = _marks(type(part)), {}
    for name in type(part).model_fields:
        old = getattr(part, name)
        new = change(old, marks[name]) if name in marks else _rewritten(old, change, spare)
        if new != old:
            changes[name] = new
    return part.model_copy(update=changes) if changes else part


def _rewritten(value: Any, change: Callable[[str, Mark], str], spare: Callable[[Part], bool]) -> Any:
    if isinstance(value, Part):
        return rewritten(value, change, spare)
    return tuple(_rewritten(each, change, spare) for each in value) if isinstance(value, tuple) else value
