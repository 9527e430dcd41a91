"""Renaming a key, and with it every formula that uses it."""

from codexa.core.definition.form import Form
from codexa.core.definition.parts import Block
from codexa.core.errors import DefinitionError, FormulaSyntaxError, Problem
from codexa.core.formula import tree
from codexa.core.formula.parse import parse


def rename_key(form: Form, block_id: str, key: str) -> Form:
    """Return the form with that block's key changed and the formulas that use it rewritten.

    Raises DefinitionError where the key is no key or another block has it. Formulas that can't be read stay
    as they are.
    """
    target = next((block for block in form.blocks() if block.id == block_id), None)
    if target is None:
        raise DefinitionError([Problem(path="block", message=f"there is no block with the id {block_id}")])
    if any(block.key == key for block in form.blocks() if block.id != block_id):
        raise DefinitionError([Problem(path="key", message=f"another block has the key {key}; choose a different one")])
    pages = tuple(
        page.model_copy(update={"blocks": tuple(_renamed(block, target, key) for block in page.blocks)})
        for page in form.pages
    )
    return form.model_copy(update={"pages": pages})


def _renamed(block: Block, target: Block, key: str) -> Block:
    changes = {setting: _rewritten(text, target.key, key) for setting, text in block.formula_texts().items()} | (
        {"key": key} if block.id == target.id else {}
    )
    return block.model_copy(update=changes)


def _rewritten(text: str, old: str, new: str) -> str:
    """Replace the name where it stands, leaving the author's spacing and case as they are."""
    try:
        parsed = parse(text)
    except FormulaSyntaxError:
        return text
    places = [node for node in tree.walk(parsed) if isinstance(node, tree.Name) and node.parts[0] == old]
    for node in sorted(places, key=lambda each: each.span.start, reverse=True):
        text = text[: node.span.start] + new + text[node.span.start + len(old) :]
    return text
