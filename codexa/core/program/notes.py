"""The margin: what each block does, one sentence per fact, read off the formula's own tree."""

from collections.abc import Iterator
from dataclasses import dataclass, replace
from enum import StrEnum

from codexa.core.definition.parts import Block, Field, Question
from codexa.core.fields import field_type_of
from codexa.core.fields.product import ProductField
from codexa.core.fields.quantity import QuantityField
from codexa.core.fields.record_choice import RecordChoiceField
from codexa.core.form.form import FORM
from codexa.core.formula.convert import text_of_number
from codexa.core.formula.functions.function import Role
from codexa.core.formula.unparse import unparse
from codexa.core.program.facts import Formula
from codexa.core.program.order_names import ORDER, PAYMENT
from codexa.core.program.parts import named_parts, part_named
from codexa.core.program.places import Spot
from codexa.core.program.program import Program
from codexa.core.program.wording import Sentences, Words


class NoteKind(StrEnum):
    """What a note is about; each has a colour, a sign and a word."""

    RULE = "rule"  # what shows, what is locked
    CALCULATION = "calculation"  # what a formula works out
    CHECK = "check"  # what an answer must be
    MONEY = "money"  # what an answer counts as, and what it costs
    DATA = "data"  # where a value comes from or goes


@dataclass(frozen=True, kw_only=True, slots=True)
class Note:
    """A sentence about one fact of a part; `setting` is what an editor opens on.

    For a formula, `fact` is what it works out ("shown", "check", "value" …), `condition` whether it holds or does not,
    `type` the kind of its result ("number", "text" …), and `reads` the ids of what it reads.
    """

    kind: NoteKind
    setting: str
    words: tuple[Words, ...]
    fact: str = ""
    condition: bool = False
    type: str = ""
    reads: tuple[str, ...] = ()


# How the note of a fact begins, when its formula is a condition.
_BEGINNINGS = {
    "shown": (NoteKind.RULE, "shown when "),
    "locked": (NoteKind.RULE, "locked when "),
    "required": (NoteKind.CHECK, "must be answered when "),
    "check": (NoteKind.CHECK, "must fit: "),
    "offered": (NoteKind.RULE, "offers an option when "),
    "fitting": (NoteKind.RULE, "offers records of which "),
    "next": (NoteKind.RULE, "goes on elsewhere when "),
    "confirmation": (NoteKind.RULE, "follows when "),
    "part": (NoteKind.RULE, "goes there when "),
    "follow_up": (NoteKind.RULE, "done when "),
    "recipient": (NoteKind.RULE, "goes there when "),
    "discount": (NoteKind.MONEY, "taken off when "),
    "tax": (NoteKind.MONEY, "due when "),
    "payment": (NoteKind.MONEY, "paid for when "),
    "plan": (NoteKind.MONEY, "paid by this plan when "),
    "counted": (NoteKind.CALCULATION, "counts when "),
}
_FORMULAS = {
    "value": (NoteKind.CALCULATION, "= "),
    "band": (NoteKind.CALCULATION, "= "),
    "amount": (NoteKind.MONEY, "takes off "),
    "shipping": (NoteKind.MONEY, "shipping costs "),
    "payment_amount": (NoteKind.MONEY, "the amount to pay is "),
    "plan_times": (NoteKind.MONEY, "the number of payments is "),
    "plan_fee": (NoteKind.MONEY, "paid once, with the first: "),
    "plan_first_day": (NoteKind.MONEY, "the first is paid on "),
    "priced_by": (NoteKind.MONEY, "each costs "),
    "taking": (NoteKind.DATA, "takes places: "),
    "default": (NoteKind.DATA, "begins as "),
    "earliest": (NoteKind.CHECK, "not before "),
    "latest": (NoteKind.CHECK, "not after "),
    "cell": (NoteKind.DATA, "keeps "),
    "member": (NoteKind.DATA, "the account of "),
    "decider": (NoteKind.DATA, "decided by whoever has the address "),
}
_CONSTANT = {
    ("required", "TRUE"): (NoteKind.CHECK, "must be answered"),
    ("locked", "TRUE"): (NoteKind.RULE, "always locked"),
    ("shown", "FALSE"): (NoteKind.RULE, "never shown"),
}


def notes(program: Program) -> dict[str, tuple[Note, ...]]:
    """Return the notes of every page, block, row kind and figure that has any, by id."""
    written: dict[str, list[Note]] = {}
    for formula in program.formulas:
        note = _of_formula(program, formula)
        is_condition = formula.mark.role is Role.CONDITION
        reads = read_by_formula(program, formula)
        written.setdefault(formula.owner, []).append(
            replace(
                note, fact=formula.mark.fact, condition=is_condition, type=formula.compiled.type.kind.value, reads=reads
            )
        )
    for owner, part in named_parts(program.form):
        if part:
            written.setdefault(owner, []).append(_of_part(program, part))
    for block in program.form.blocks():
        written.setdefault(block.id, []).extend(_of_settings(block))
    return {owner: tuple(found) for owner, found in written.items() if found}


def sentences_for(program: Program, formula: Formula) -> Sentences:
    """Return what writes the conditions of that formula's scope."""
    sentences = _sentences(program, formula.kind)
    block = program.places[formula.owner].block if formula.mark.fact == "fitting" else None
    table = program.form.table(block.table) if isinstance(block, RecordChoiceField) else None
    return sentences if table is None else sentences.of_records(table.by_key)


def _sentences(program: Program, kind_id: str) -> Sentences:
    memory: dict[str, Sentences] = program.__dict__.setdefault("_sentences", {})
    if kind_id not in memory:
        fields: dict[str, Field] = {}
        named: dict[str, str] = {figure.key: figure.id for figure in reversed(program.form.figures)}
        for block, kind in reversed(list(program.form.blocks_and_kinds())):
            if kind is None or kind.id == kind_id:
                _take_up(block, fields, named)
        memory[kind_id] = Sentences(fields, named)
    return memory[kind_id]


def _take_up(block: Block, fields: dict[str, Field], named: dict[str, str]) -> None:
    if isinstance(block, Field):
        fields[block.key] = block
        named[block.key] = block.id


def _of_formula(program: Program, formula: Formula) -> Note:
    typed, text, fact = formula.compiled.typed, formula.compiled.text.strip(), formula.mark.fact
    constant = _CONSTANT.get((fact, text.upper()))
    if constant is not None:
        return Note(kind=constant[0], setting=formula.setting, words=(Words(text=constant[1]),))
    code = Words(text=unparse(typed.node) if typed else text, code=True)
    kind, beginning = _FORMULAS.get(fact) or _BEGINNINGS[fact]
    body = [code] if typed is None or fact in _FORMULAS else list(sentences_for(program, formula).of(typed.node))
    start = _of_next(program, formula) if fact == "next" else (Words(text=_piece(formula.setting) + beginning),)
    return Note(kind=kind, setting=formula.setting, words=(*start, *body))


_PIECES = {"options": "option", "paragraphs": "paragraph", "bands": "band", "discounts": "discount", "taxes": "tax"}


def _piece(setting: str) -> str:
    """Which of several pieces of its owner a setting belongs to, in words: "option 4 " of "options.3.shown"."""
    list_name, _, rest = setting.partition(".")
    word = _PIECES.get(list_name)
    return f"{word} {int(rest.split('.')[0]) + 1} " if word else ""


def _of_next(program: Program, formula: Formula) -> tuple[Words, ...]:
    page = next(page for page in program.form.pages if page.id == formula.owner)
    target = page.next[int(formula.setting.split(".")[1])].to
    if not target:
        return (Words(text="goes to the end when "),)
    return (Words(text="goes on to "), Words(block=target), Words(text=" when "))


def _of_part(program: Program, part: str) -> Note:
    named = part_named(program.form, part)
    text = "filled in by a part that is not there" if named is None else f"filled in by {named.name or 'a part'}"
    return Note(kind=NoteKind.RULE, setting="part", words=(Words(text=text),))


def _of_settings(block: Block) -> Iterator[Note]:
    if isinstance(block, Field):
        limits = field_type_of(block).limits(block)
        if limits:
            yield Note(kind=NoteKind.CHECK, setting="limits", words=(Words(text=f"must be {limits}"),))
    if isinstance(block, Question) and block.keep_when_hidden:
        yield Note(kind=NoteKind.DATA, setting="keep_when_hidden", words=(Words(text="kept when hidden"),))
    options = getattr(block, "options", ())
    if any(getattr(option, "counts_as", 0) for option in options):
        numbers = " · ".join(text_of_number(option.counts_as) for option in options)
        yield Note(kind=NoteKind.MONEY, setting="options", words=(Words(text=f"counts as {numbers}"),))
    prices = [getattr(option, "price", None) for option in options]
    if any(price is not None for price in prices):
        costs = " · ".join("not sold" if price is None else text_of_number(price) for price in prices)
        yield Note(kind=NoteKind.MONEY, setting="prices", words=(Words(text=f"costs {costs}"),))
    price = None if options or getattr(block, "priced_by", "").strip() else getattr(block, "price", None)
    if price is not None:
        yield Note(kind=NoteKind.MONEY, setting="price", words=(Words(text=f"each costs {text_of_number(price)}"),))
    if isinstance(block, ProductField):
        yield from _of_stock(block)
    if isinstance(block, QuantityField) and block.product:
        words = (Words(text="orders "), Words(block=block.product))
        yield Note(kind=NoteKind.MONEY, setting="product", words=words)


def _of_stock(block: ProductField) -> Iterator[Note]:
    stocks = [each.stock for each in block.options]
    if any(stock is not None for stock in stocks):
        counts = " · ".join("any number" if stock is None else str(stock) for stock in stocks)
        yield Note(kind=NoteKind.MONEY, setting="options", words=(Words(text=f"there are {counts}"),))
    if block.stock is not None:
        yield Note(kind=NoteKind.MONEY, setting="stock", words=(Words(text=f"there are {block.stock} in all"),))


@dataclass(frozen=True, kw_only=True, slots=True)
class Links:
    """What the formulas and texts of a part read, and whose read it; ids in the order of the outline."""

    reads: tuple[str, ...]
    read_by: tuple[str, ...]


def read_by_formula(program: Program, formula: Formula) -> tuple[str, ...]:
    """Return the ids of the blocks, figures and repeats that a formula reads, each once."""
    owner_of = _owners_of_values(program)
    return tuple(dict.fromkeys(owner_of[spot] for spot in formula.reads() if spot in owner_of))


def _owners_of_values(program: Program) -> dict[Spot, str]:
    memory: dict[Spot, str] = program.__dict__.setdefault("_owners_of_values", {})
    if not memory:
        memory |= {spot: owner for owner, spot in program.layout.spots.values.items()}
        memory |= {spot: repeat.id for spot, repeat, _ in program.layout.columns.values()}
    return memory


def links(program: Program) -> dict[str, Links]:
    """Return the links of every page, block, row kind, figure and confirmation, and of the form itself, by id."""
    form = program.form
    reads: dict[str, set[str]] = {each: set() for each in [*form.numbers(), *program.figures]}
    reads |= {each.id: set() for each in (*form.parts, *form.confirmations, *form.follow_ups)}
    reads |= {ORDER: set(), PAYMENT: set(), FORM: set()}
    for formula in program.formulas:
        reads[formula.owner] |= set(read_by_formula(program, formula))
    for owner, templates in program.texts.items():
        entries = [entry for template in templates.values() for entry in template.entries.values()]
        reads[owner] |= {entry.owner for entry in entries if entry is not None and entry.owner}
    for figure in form.figures:
        reads[figure.id] |= {question.field for question in getattr(figure, "questions", ())}
    for part in (*form.confirmations, *form.follow_ups):
        reads[part.id] |= {each.chart for each in getattr(part, "paragraphs", ()) if each.chart in program.figures}
    for follow_up in form.follow_ups:
        fields = [each.field for each in getattr(follow_up, "recipients", ())] + [getattr(follow_up, "reply_to", "")]
        reads[follow_up.id] |= {each for each in fields if each in program.places}
    return {
        owner: Links(
            reads=tuple(each for each in reads if each in read),
            read_by=tuple(each for each, its in reads.items() if owner in its),
        )
        for owner, read in reads.items()
    }
