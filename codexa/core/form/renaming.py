"""Renaming a key, and with it every formula and text that uses it."""

from collections.abc import Callable
from typing import Any, cast

from codexa.core.definition.formulas import INSERTION, Mark, PartModel, rewritten
from codexa.core.definition.parts import FormulaText, Part, RowKind, blocks_within
from codexa.core.errors import DefinitionError, FormulaSyntaxError, Problem
from codexa.core.form.form import Form
from codexa.core.form.translating import follow_renaming
from codexa.core.formula import tree
from codexa.core.formula.parse import parse

_Path = tuple[str, ...]


def rename_key(form: Form, owner: str, key: str) -> Form:
    """Return the form with the key of that block, row kind or figure changed, and all that uses it rewritten.

    Raises DefinitionError where the key is no key or another one in its scope has it. Formulas that can't be read stay
    as they are.
    """
    scopes = _scopes(form)
    found = next((scope for scope in scopes if owner in scope.keys_by_id), None)
    if found is None:
        raise DefinitionError([Problem(path="block", message=f"there is no block or figure with the id {owner}")])
    if any(taken == key for each, taken in found.keys_by_id.items() if each != owner):
        raise DefinitionError([Problem(path="key", message=f"another one has the key {key}; choose a different one")])
    return follow_renaming(form, _renamed(form, owner, found.keys_by_id[owner], key, found))


class _Scope:
    """Keys that must differ from each other: `before` are the names that stand before the dot outside it."""

    def __init__(self, keys_by_id: dict[str, str], kind: RowKind | None = None, before: tuple[_Path, ...] = ()) -> None:
        self.keys_by_id, self.kind, self.before = keys_by_id, kind, before


def _scopes(form: Form) -> list[_Scope]:
    outside = {block.id: block.key for block, kind in form.blocks_and_kinds() if kind is None}
    scopes = [_Scope(outside | {figure.id: figure.key for figure in form.figures})]
    for repeat in form.repeats():
        scopes.append(_Scope({kind.id: kind.key for kind in repeat.kinds}, before=((repeat.key,),)))
        for kind in repeat.kinds:
            keys = {block.id: block.key for block, row_kind in form.blocks_and_kinds() if row_kind is kind}
            scopes.append(_Scope(keys, kind, ((repeat.key,), (repeat.key, kind.key))))
    return scopes


def _renamed(form: Form, owner: str, old: str, new: str, scope: _Scope) -> Form:
    shared = scope.kind is not None and _key_is_shared(form, scope.kind, old)
    # A column of all kinds keeps its name while another kind has such a field too.
    before = scope.before[1:] if shared else scope.before
    paths = [(*each, old) for each in before] or [(old,)]

    def outside(text: str, mark: Mark) -> str:
        for path in paths:
            text = _rewritten(text, mark, path, new)
        return text

    def means_its_own(part: Part) -> bool:
        # In a row whose kind has a field of that name, the name is the row's.
        own = isinstance(part, RowKind) and any(block.key == old for block, _ in blocks_within(part.blocks))
        return own and scope.kind is None and not scope.before

    changed = rewritten(form, outside, means_its_own)
    if scope.kind is not None:
        inside = scope.kind.id
        changed = _in_kind(changed, inside, lambda text, mark: _rewritten(text, mark, (old,), new))
    return _with_key(changed, owner, new)


def _key_is_shared(form: Form, kind: RowKind, key: str) -> bool:
    repeat = next(each for each in form.repeats() if kind in each.kinds)
    holders = {
        row_kind.id
        for block, row_kind in form.blocks_and_kinds()
        if row_kind is not None and row_kind in repeat.kinds and block.key == key
    }
    return len(holders) > 1


def _in_kind(form: Form, kind_id: str, change: Callable[[str, Mark], str]) -> Form:
    def visit(part: Part) -> Part:
        if isinstance(part, RowKind) and part.id == kind_id:
            return rewritten(part, change)
        return part

    return _mapped(form, visit)


def _with_key(form: Form, owner: str, key: str) -> Form:
    def visit(part: Part) -> Part:
        if getattr(part, "id", None) == owner and hasattr(part, "key"):
            return part.model_copy(update={"key": key})
        return part

    return _mapped(form, visit)


def _mapped(part: PartModel, visit: Callable[[Part], Part]) -> PartModel:
    changes = {}
    for name in type(part).model_fields:
        old: Any = getattr(part, name)
        new: Any = None
        if isinstance(old, Part):
            new = _mapped(old, visit)
        elif isinstance(old, tuple):
            new = tuple(_mapped(each, visit) if isinstance(each, Part) else each for each in old)
        else:
            continue
        if new != old:
            changes[name] = new
    return cast(PartModel, visit(part.model_copy(update=changes) if changes else part))


def _rewritten(text: str, mark: Mark, path: _Path, new: str) -> str:
    """Replace the last word of the name where it stands, leaving the author's spacing and case as they are."""
    spans = _spans(text, path) if isinstance(mark, FormulaText) else _inserted_spans(text, path)
    for start, end in sorted(spans, reverse=True):
        text = text[:start] + new + text[end:]
    return text


def _spans(text: str, path: _Path) -> list[tuple[int, int]]:
    if not text.strip():
        return []
    try:
        parsed = parse(text)
    except FormulaSyntaxError:
        return []
    names = [node for node in tree.walk(parsed) if isinstance(node, tree.Name) and node.parts[: len(path)] == path]
    return [_last_word(node.span.start, path) for node in names]


def _inserted_spans(text: str, path: _Path) -> list[tuple[int, int]]:
    found = [match for match in INSERTION.finditer(text) if match[1]]
    return [
        _last_word(match.start(1), path) for match in found if tuple(match[1].lower().split("."))[: len(path)] == path
    ]


def _last_word(start: int, path: _Path) -> tuple[int, int]:
    before = sum(len(word) + 1 for word in path[:-1])
    return start + before, start + before + len(path[-1])
