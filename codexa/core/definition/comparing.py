"""What changed between two states of a form."""

from codexa.core.definition.form import Form


def count_changes(before: Form, after: Form) -> int:
    """Return how many things differ: blocks added, removed, moved or edited, pages, and settings of the form."""
    old, new = ({block.id: block for block in form.blocks()} for form in (before, after))
    edited: int = sum(old[each] != new[each] for each in old.keys() & new.keys())
    moved = int(_places(before, set(new)) != _places(after, set(old)))
    pages = {(page.id, page.title) for page in before.pages} ^ {(page.id, page.title) for page in after.pages}
    settings: int = sum(
        getattr(before, name) != getattr(after, name) for name in type(before).model_fields if name != "pages"
    )
    added_or_removed: int = len(old.keys() ^ new.keys())
    return added_or_removed + edited + moved + len({page_id for page_id, _ in pages}) + settings


def _places(form: Form, kept: set[str]) -> list[tuple[str, str]]:
    return [(page.id, block.id) for page in form.pages for block in page.blocks if block.id in kept]
