"""What changed between two states of a form: how much, and in words."""

from collections.abc import Collection, Iterable, Iterator
from dataclasses import dataclass
from typing import Any

from codexa.core.definition.parts import Part, Repeat
from codexa.core.definition.payment import Plan
from codexa.core.definition.translation import FurtherLanguage
from codexa.core.form.form import Form
from codexa.core.languages import own_name

# The lists of parts that stand beside the pages.
BESIDE = ("confirmations", "figures", "parts", "follow_ups", "trials")
_MOST_SHOWN = 120  # characters of a value that a sentence quotes
_LISTS = frozenset({"pages", *BESIDE})


@dataclass(frozen=True, kw_only=True, slots=True)
class Change:
    """One change in words; `part` is the id of what changed (None for the form itself), `name` what people call it."""

    part: str | None
    name: str
    words: str


@dataclass(frozen=True, kw_only=True, slots=True)
class _Thing:
    """A part by itself, without the parts in it; `holder` is the id of what holds it ("" for the form)."""

    part: Part
    holder: str
    kind: str


_Things = dict[str, _Thing]


def count_changes(before: Form, after: Form) -> int:
    """Return how many things differ for visitors: parts added, removed or edited, a new order, settings of the form.

    What stands inside something else counts once, by itself. Trials are the team's own and don't count.
    """
    old, new = _things(before, without="trials"), _things(after, without="trials")
    kept = old.keys() & new.keys()
    edited = sum(old[each].part != new[each].part for each in kept)
    moved = int(_places(old, kept) != _places(new, kept))
    # A look that was changed, say, is one thing that somebody did, whatever follows from it.
    names = type(after).model_fields.keys() - _LISTS
    settings = sum(1 for name in names if getattr(before, name) != getattr(after, name))
    return len(old.keys() ^ new.keys()) + edited + moved + settings


def describe_changes(before: Form, after: Form) -> list[Change]:
    """Return what changed, in words: the form's own settings first, then parts in the order of the outline."""
    return [change for _, change in _changes(before, after)]


def changes_of(before: Form, after: Form, parts: Collection[str]) -> list[Change]:
    """Return what changed of some parts, by id, and of those settings of the form that such names stand for."""
    return [change for what, change in _changes(before, after) if what in parts]


def _changes(before: Form, after: Form) -> Iterator[tuple[str, Change]]:
    """Yield each change with the id of the part that it is about, or with the name of the form's setting."""
    old, new = _things(before), _things(after)
    old_names, new_names = _names(before, old), _names(after, new)
    for setting, words in _changed_settings(before, after, _LISTS):
        yield setting, Change(part=None, name="the form", words=words)
    inside = frozenset({"blocks", "kinds"})
    for part_id, thing in new.items():
        name = new_names[part_id]
        if part_id not in old:
            yield part_id, Change(part=part_id, name=name, words=f"{thing.kind} added")
            continue
        if old[part_id].holder != thing.holder:
            words = f"moved from {old_names.get(old[part_id].holder, 'the form')}"
            yield part_id, Change(part=part_id, name=name, words=words)
        for _, words in _changed_settings(old[part_id].part, thing.part, inside):
            yield part_id, Change(part=part_id, name=name, words=words)
    for each in old:
        if each not in new:
            yield each, Change(part=None, name=old_names[each], words=f"{old[each].kind} removed")
    kept = old.keys() & new.keys()
    same_holders = {each for each in kept if old[each].holder == new[each].holder}
    if _places(old, same_holders) != _places(new, same_holders):
        yield "", Change(part=None, name="the form", words="a new order")


def _things(form: Form, without: str = "") -> _Things:
    things = _within(form.pages, "", "page")
    for name in BESIDE:
        if name != without:
            things |= _within(getattr(form, name), "", name.removesuffix("s"))
    return things


def _within(parts: Iterable[Part], holder: str, kind: str) -> _Things:
    things: _Things = {}
    for part in parts:
        name = "kinds" if isinstance(part, Repeat) else "blocks"
        inside: tuple[Part, ...] = getattr(part, name, ())
        part_id: str = getattr(part, "id")  # noqa: B009 - everything that stands in a list has one
        alone = part.model_copy(update={name: ()}) if inside else part
        things[part_id] = _Thing(part=alone, holder=holder, kind=kind.replace("_", "-"))
        things |= _within(inside, part_id, "row kind" if name == "kinds" else "block")
    return things


def _places(things: _Things, kept: set[str]) -> list[tuple[str, str]]:
    return [(thing.holder, each) for each, thing in things.items() if each in kept]


def _names(form: Form, things: _Things) -> dict[str, str]:
    numbers = form.numbers()
    names = {}
    for part_id, thing in things.items():
        title = next((str(each) for name in ("label", "name", "title", "text", "key", "kind")
                      if (each := getattr(thing.part, name, ""))), "")  # fmt: skip
        names[part_id] = f"{numbers.get(part_id, '')} {title[:60]}".strip()
    return names


def _changed_settings(before: Part, after: Part, without: frozenset[str]) -> Iterator[tuple[str, str]]:
    for name in type(after).model_fields:
        old, new = getattr(before, name, None), getattr(after, name)
        if name not in without and old != new:
            yield from ((name, words) for words in _in_words(name.replace("_", " "), old, new))


def _in_words(name: str, old: Any, new: Any) -> Iterator[str]:
    if isinstance(old, Part) and isinstance(new, Part) and type(old) is type(new):
        for inner in type(new).model_fields:
            if getattr(old, inner) != getattr(new, inner):
                yield from _in_words(f"{name}, {inner.replace('_', ' ')}", getattr(old, inner), getattr(new, inner))
    elif _is_plain(old) and _is_plain(new):
        yield f"{name} was {_shown(old)}, is {_shown(new)}"
    elif isinstance(old, tuple) and isinstance(new, tuple):
        yield from _of_list(name, old, new)
    else:
        yield f"{name} changed"


def _of_list(name: str, old: tuple[Any, ...], new: tuple[Any, ...]) -> Iterator[str]:
    one = name.removesuffix("s")
    if len(old) == len(new) and all(isinstance(each, Plan) for each in (*old, *new)):
        # Plans have no names; each is told by its place.
        for place, (before, after) in enumerate(zip(old, new, strict=True), 1):
            if before != after:
                yield from _in_words(f"{one} {place}", before, after)
        return
    if any(isinstance(each, FurtherLanguage) for each in (*old, *new)):
        yield from _of_languages(old, new)
        return
    labels = [[_label(each) for each in items] for items in (old, new)]
    added = [each for each in labels[1] if each not in labels[0]]
    gone = [each for each in labels[0] if each not in labels[1]]
    if added:
        yield f"{one} added: {', '.join(added)[:_MOST_SHOWN]}"
    if gone:
        yield f"{one} removed: {', '.join(gone)[:_MOST_SHOWN]}"
    if not added and not gone:
        yield from _of_same(name, labels, old, new)


def _of_same(name: str, labels: list[list[str]], old: tuple[Any, ...], new: tuple[Any, ...]) -> Iterator[str]:
    """Tell what changed in a list whose items are called as they were: their order, or what is in them."""
    if labels[0] != labels[1] or len(set(labels[0])) < len(labels[0]):
        yield f"{name} {'in a new order' if sorted(labels[0]) == sorted(labels[1]) else 'changed'}"
        return
    for label, before, after in zip(labels[0], old, new, strict=True):
        if before != after:
            yield from _in_words(f"{name.removesuffix('s')} {label[:_MOST_SHOWN]}", before, after)


def _of_languages(old: tuple[FurtherLanguage, ...], new: tuple[FurtherLanguage, ...]) -> Iterator[str]:
    before, after = ({each.locale: each.texts for each in languages} for languages in (old, new))
    for locale in dict.fromkeys((*before, *after)):
        texts = [each.get(locale) for each in (before, after)]
        if texts[0] is None or texts[1] is None:
            yield f"language {'added' if texts[0] is None else 'removed'}: {own_name(locale)}"
        elif changed := {at for at in texts[0].keys() | texts[1].keys() if texts[0].get(at) != texts[1].get(at)}:
            yield f"{own_name(locale)}: {len(changed)} {'translation' if len(changed) == 1 else 'translations'} changed"


def _label(item: Any) -> str:
    if isinstance(item, Plan):
        return f"every {item.every} {item.unit}" + (f", {item.times} times" if item.times else "")
    return next((str(each) for name in ("label", "name", "message", "text", "when", "formula")
                 if (each := getattr(item, name, ""))), str(item))  # fmt: skip


def _is_plain(value: Any) -> bool:
    return not isinstance(value, Part | tuple | dict | list)


def _shown(value: Any) -> str:
    if value is None or value == "":
        return "blank"
    if isinstance(value, bool):
        return "on" if value else "off"
    text = str(value)
    return text if len(text) <= _MOST_SHOWN else f"{text[:_MOST_SHOWN]}…"
