"""Texts in formulas that name something of the form: an option's code, a band's name, a row kind's key, a profile.

They can be known for wrong before anything is answered, and follow what they name when that is called otherwise.
"""

import difflib
from collections.abc import Iterable, Iterator
from dataclasses import dataclass

from codexa.core.definition.figures import BandsFigure, ProfileFigure
from codexa.core.definition.parts import Block, Repeat, blocks_within
from codexa.core.fields.options import OTHER, Optioned
from codexa.core.formula import tree
from codexa.core.formula.check import Typed
from codexa.core.formula.types import Kind
from codexa.core.program.facts import Formula
from codexa.core.program.program import Program

_PLACES = ("first", "second", "third")
_CHOSEN = (Kind.CHOICE, Kind.CHOICES)
# Functions of which one argument is compared with others: its place, and that of the first text compared.
_COMPARING = {"HAS": (0, 1), "ROWCOUNT": (0, 1), "COUNTIF": (0, 1), "SUMIF": (0, 1), "AVERAGEIF": (0, 1)}
_CRITERION_SIGNS = "<>=*?~"


@dataclass(frozen=True, kw_only=True, slots=True)
class Subject:
    """What a text names a part of: the block or figure that owns the words, and which of its words.

    `words` is "codes", "labels" or "kinds".
    """

    owner: str
    words: str


@dataclass(frozen=True, kw_only=True, slots=True)
class NamedWord:
    """A text in a formula, and whose word it must be: of one of the subjects, where a column has several."""

    node: tree.Text
    subjects: tuple[Subject, ...]


def named_words(program: Program, formula: Formula) -> Iterator[NamedWord]:
    """Yield the texts in a formula that name something."""
    if formula.compiled.typed is not None:
        for part in formula.compiled.typed.walk():
            for subject, text in _pairs(part):
                if isinstance(text.node, tree.Text) and _is_word(text.node.value, subject):
                    subjects = tuple(_subjects(program, formula, subject))
                    if subjects:
                        yield NamedWord(node=text.node, subjects=subjects)


def _is_word(text: str, subject: Typed) -> bool:
    # Several choices compared as a whole are their codes with commas between.
    return bool(text.strip()) and not ("," in text and subject.type.kind is Kind.CHOICES)


def _pairs(part: Typed) -> Iterator[tuple[Typed, Typed]]:
    """Yield a name and what it is compared with."""
    match part.node:
        case tree.Binary(operator="=" | "<>"):
            left, right = part.parts
            yield from ((left, right), (right, left))
        case tree.Call(function="SWITCH") if part.parts:
            cases = part.parts[1:] if len(part.parts) % 2 else part.parts[1:-1]
            yield from ((part.parts[0], case) for case in cases[::2])
        case tree.Call(function="MATCH") if len(part.parts) == 3:
            yield part.parts[1], part.parts[0]
        case tree.Call(function=name) if name in _COMPARING and len(part.parts) > 1:
            subject, text = (part.parts[place] for place in _COMPARING[name])
            if not (isinstance(text.node, tree.Text) and set(text.node.value) & set(_CRITERION_SIGNS)):
                yield subject, text


def _subjects(program: Program, formula: Formula, part: Typed) -> Iterator[Subject]:
    if not isinstance(part.node, tree.Name) or part.reference is None:
        return
    path = part.node.parts
    if part.type.is_list:
        for field in _column_fields(program, path):
            yield from _of_block(field, path[-1] == "label", part.type.kind)
        return
    entry = formula.scope.entry(path)
    if entry is None:
        return
    figure = program.figures.get(entry.owner)
    if figure is not None:
        if isinstance(figure.figure, BandsFigure) and path[1:] == ("label",):
            yield Subject(owner=entry.owner, words="labels")
        elif isinstance(figure.figure, ProfileFigure):
            words = "codes" if len(path) == 1 else "labels" if path[1] in ("label", *_PLACES) else ""
            yield from [Subject(owner=entry.owner, words=words)] if words else []
    elif entry.owner in program.places:
        yield from _of_block(program.places[entry.owner].block, path[-1] == "label", part.type.kind)
    elif entry.owner in program.repeats and len(path) == 1:
        yield Subject(owner=entry.owner, words="kinds")


def _of_block(block: Block, is_label: bool, kind: Kind) -> Iterator[Subject]:
    if isinstance(block, Repeat):
        yield Subject(owner=block.id, words="kinds")
    elif isinstance(block, Optioned) and (kind in _CHOSEN or is_label):
        yield Subject(owner=block.id, words="labels" if is_label and kind not in _CHOSEN else "codes")


def _column_fields(program: Program, path: tuple[str, ...]) -> Iterator[Block]:
    repeat = next((each for each in program.form.repeats() if each.key == path[0]), None)
    keys = {word for word in path[1:] if word != "label"}
    for kind in repeat.kinds if repeat else ():
        for block, _ in blocks_within(kind.blocks):
            if block.key in keys and keys <= {kind.key, block.key}:
                yield block


def words_of(program: Program, subject: Subject) -> tuple[str, ...]:
    """Return the words that can be meant; none where any text can be."""
    figure = program.figures.get(subject.owner)
    if figure is not None:
        figure_model = figure.figure
        if isinstance(figure_model, BandsFigure):
            return tuple(band.label for band in figure_model.bands)
        assert isinstance(figure_model, ProfileFigure)
        return tuple(each.code if subject.words == "codes" else each.label for each in figure_model.profiles)
    block = next(each for each in program.form.blocks() if each.id == subject.owner)
    if isinstance(block, Repeat):
        return tuple(kind.key for kind in block.kinds)
    assert isinstance(block, Optioned)
    if subject.words == "labels":
        return () if block.other else tuple(option.label for option in block.options)
    return (*(option.code for option in block.options), *([OTHER] if block.other else []))


_NOUNS = {"codes": "option with the code", "labels": "option that reads", "kinds": "row kind with the key"}


def wrong_word(program: Program, named: NamedWord) -> str | None:
    """Return what is wrong with a text that names nothing, with the nearest that it could; None where it is right."""
    known = [words_of(program, subject) for subject in named.subjects]
    if not all(known):
        return None
    by_fold = {word.casefold(): word for words in known for word in words}
    given = named.node.value.strip()
    if given.casefold() in by_fold:
        return None
    near = difflib.get_close_matches(given.casefold(), by_fold, 1)
    hint = f' Did you mean "{by_fold[near[0]]}"?' if near else f" There is {_listed(by_fold.values())}."
    return f'{_noun(program, named.subjects[0])} "{given}".{hint}'


def _noun(program: Program, subject: Subject) -> str:
    figure = program.figures.get(subject.owner)
    if figure is None:
        return f"There is no {_NOUNS[subject.words]}"
    if isinstance(figure.figure, BandsFigure):
        return "There is no band of the name"
    return "There is no profile with the code" if subject.words == "codes" else "There is no profile of the name"


def _listed(words: Iterable[str]) -> str:
    return ", ".join(f'"{word}"' for word in list(dict.fromkeys(words))[:6]) or "none"
