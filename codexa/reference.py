"""The written reference, made from the same lists that the program runs on."""

from decimal import Decimal
from types import NoneType
from typing import Annotated, Any, Literal, get_args, get_origin

from pydantic import BaseModel
from pydantic.fields import FieldInfo
from pydantic_core import PydanticUndefined

from codexa.core.definition.brand import Brand
from codexa.core.definition.figures import (
    Band,
    BandsFigure,
    Counted,
    CounterFigure,
    FormulaFigure,
    ProfiledQuestion,
    ProfileFigure,
    ScoredQuestion,
    ScoreFigure,
)
from codexa.core.definition.parts import Block, Check, FormulaText, InsertedText, RowKind
from codexa.core.definition.trials import Expected, Trial
from codexa.core.definition.wording import Wording
from codexa.core.fields import BLOCK_TYPES
from codexa.core.fields.field_type import BlockType
from codexa.core.fields.options import Option
from codexa.core.form.form import Confirmation, Form, NextRule, Page, Welcome
from codexa.core.form.paragraphs import Paragraph
from codexa.core.formula.differences import DIFFERENCES
from codexa.core.formula.functions import FAMILIES, FUNCTIONS
from codexa.core.formula.functions.function import Function

_FORMULAS = """# Formulas

Generated from the function registry by `python -m codexa.cli write-schemas`; the examples are run as tests.

Conditions, calculated fields and checks are formulas in the notation of OASIS OpenFormula, part 4. A name is a
field's key; text stands in double quotes; arguments are separated by `,` or `;`. Operators, tightest first: unary `-`,
postfix `%`, `^`, `*` `/`, `+` `-`, `&`, and the comparisons `=` `<>` `<` `<=` `>` `>=`.

time ± number is a time, as a clock shows it; time − time is a part of a day; beside a moment a date is its midnight.
MOD is exact for whole numbers of any length. `group.shown` says whether a block is shown, with all that it stands in.
A name and the formula it stands for give the same, errors included: only COUNT, COUNTA, COUNTBLANK, IFERROR, IFNA and
the functions that begin with IS see an error that is handed to them.

## Where we differ from a spreadsheet, on purpose

| in a spreadsheet | here |
|---|---|
"""

_DEFINITION = """# The form's document

Generated from the models by `python -m codexa.cli write-schemas`. The JSON Schema (2020-12) is
[`form.schema.json`](form.schema.json); unknown keys are refused with their path. Real examples are in
[`examples/`](../examples).

A form has pages, a page has blocks; figures and confirmations stand beside the pages. Everything has an `id` that never
changes; what formulas can name has a `key` too, unique in its scope. Conditions are formulas: "" is the default, `TRUE`
is always, `FALSE` never. In every text that visitors read, `{name}` stands for a value and `{{` for a brace.

Names in formulas: `adults` a field or figure; `lines.amount` a column of a repeat, `lines.pair.amount` of one row kind;
`name.first`, `site.label`, `photos.count` a part of a value; `level.label` the name of a band; `quiz.greatest`,
`quiz.share`, `quiz.percent`, `quiz.right`, `quiz.answered`, `quiz.questions` of a score; `watcher.label`,
`watcher.ranking`, `watcher.second`,
`watcher.points.owl`, `watcher.share.owl` of a profile; `link.campaign` what came with the address; `visitor.email`,
`visitor.name`, `visitor.first`, `visitor.last` who is signed in; `response.number`, known once the response is saved.
Of a slot `night.end`, `night.day`, `night.waiting`. In follow-ups: `response.page`, its visitor's own page;
`payment.amount`, `.number`, `.status`, `.refunded`, `.receipt`, `.plan`, `.charge`, `.next`; `decision.state`,
`.remark`, `.by`; `part.name`, `.remark`, `.by` of where it was handed on or back. In a row, its own fields come
first. In a filter of options: `option`, `option.label`, `option.counts_as`, `option.belongs_to`.
"""

_PARTS: tuple[tuple[str, type[BaseModel]], ...] = (
    ("The form", Form),
    ("Welcome", Welcome),
    ("Brand", Brand),
    ("Wording", Wording),
    ("Page", Page),
    ("Next page", NextRule),
    ("Check", Check),
    ("Option", Option),
    ("Row kind", RowKind),
    ("Confirmation", Confirmation),
    ("Paragraph of a confirmation", Paragraph),
    ("Figure: formula", FormulaFigure),
    ("Figure: bands", BandsFigure),
    ("Band", Band),
    ("Figure: score", ScoreFigure),
    ("Question of a score", ScoredQuestion),
    ("Figure: profile", ProfileFigure),
    ("Question of a profile", ProfiledQuestion),
    ("Figure: counter", CounterFigure),
    ("Counted condition", Counted),
    ("Trial", Trial),
    ("What a trial expects", Expected),
)


def formula_reference() -> str:
    """Return the reference of the formula language as Markdown."""
    general = "".join(f"| {each.spreadsheet} | {each.here} |\n" for each in DIFFERENCES)
    special = "".join(f"| {each.name} | {each.differs} |\n" for each in FUNCTIONS.values() if each.differs)
    return _FORMULAS + general + special + "".join(_family(title, functions) for title, functions in FAMILIES.items())


def _family(title: str, functions: tuple[Function, ...]) -> str:
    rows = [
        f"| `{each.signature}` | {each.purpose} | {' · '.join(f'`{e.formula}` → {e.result}' for e in each.examples)} |"
        for each in functions
    ]
    return "\n".join([f"\n## {title}\n", "| function | what it gives | examples |", "|---|---|---|", *rows, ""])


def definition_reference() -> str:
    """Return the reference of the form's document as Markdown."""
    parts = [_section(title, model, (model.__doc__ or "").strip()) for title, model in _PARTS]
    blocks = [_section(f"{each.title}: `{each.name}`", each.block, _said(each)) for each in BLOCK_TYPES]
    return "".join([_DEFINITION, *parts, "\n# Blocks\n", *blocks])


def _said(block_type: BlockType[Any]) -> str:
    return f"{block_type.purpose} {(block_type.block.__doc__ or '').strip()}"


def _section(title: str, model: type[BaseModel], purpose: str) -> str:
    words = "\n".join(line.strip() for line in purpose.splitlines())
    rows = [f"| `{name}` | {_kind(info)} | {_default(info)} |" for name, info in model.model_fields.items()]
    return "\n".join(
        [f"\n## {title}\n", words, "", "| setting | what it takes | if left out |", "|---|---|---|", *rows, ""]
    )


_WORDS = {
    Decimal: "number",
    int: "whole number",
    str: "text",
    bool: "true or false",
    NoneType: "nothing",
    Block: "blocks",
}


def _kind(info: FieldInfo) -> str:
    for mark in info.metadata:
        if isinstance(mark, FormulaText):
            return "formula"
        if isinstance(mark, InsertedText):
            return "rich text with {name}" if mark.into == "html" else "text with {name}"
    return _in_words(info.annotation)


def _in_words(kind: Any) -> str:
    inner = get_args(kind)
    origin = get_origin(kind)
    if origin is Literal:
        return "one of " + ", ".join(f"`{each}`" for each in inner)
    if origin is tuple:
        return f"list: {_in_words(inner[0])}"
    if origin is dict:
        return f"object: {_in_words(inner[0])} → {_in_words(inner[1])}"
    if origin is Annotated:
        return _in_words(inner[0])
    if inner:
        known = dict.fromkeys(_in_words(each) for each in inner if each is not NoneType)
        return "blocks" if len(known) > 8 else " or ".join(known)
    return str(_WORDS.get(kind) or getattr(kind, "__name__", kind))


def _default(info: FieldInfo) -> str:
    if info.is_required():
        return "must be there"
    default: Any = info.default
    if default is PydanticUndefined or isinstance(default, BaseModel):
        return "its own defaults" if isinstance(default, BaseModel) else "nothing"
    return "nothing" if default in ("", None, ()) else f"`{default}`"
