"""The written reference, made from the same lists that the program runs on."""

from typing import Any

from pydantic.fields import FieldInfo

from codexa.core.definition.parts import Block, FormulaText
from codexa.core.fields import BLOCK_TYPES
from codexa.core.formula.functions import FAMILIES
from codexa.core.formula.functions.function import Function

_FORMULAS = """# Formulas

Generated from the function registry by `python -m codexa.cli write-schemas`; the examples are run as tests.

Conditions, calculated fields and checks are formulas in the notation of OASIS OpenFormula, part 4. A name is a
field's key; text stands in double quotes; arguments are separated by `,` or `;`. Operators, tightest first: unary `-`,
postfix `%`, `^`, `*` `/`, `+` `-`, `&`, and the comparisons `=` `<>` `<` `<=` `>` `>=`.

Where we differ from a spreadsheet, on purpose:

- An ordering comparison with a blank is FALSE; `blank = 0` is FALSE; `blank = ""` is TRUE. In sums a blank is 0.
- Text comparison ignores case, and orders by Unicode's case folding.
- Numbers are exact decimals of 34 digits, rounded to 28 before a comparison, INT, MOD and the rounding functions.
- Text is never a number in a comparison; in arithmetic only plain decimal text is.
- Dates are dates: date ± number is a date, date − date a number of days, date & "" is ISO 8601 text.
- AND, OR, IF, IFS, SWITCH and IFERROR compute only what they need.
- A choice in arithmetic is the number that it counts as; in a comparison with text it is its code.
- An error travels up to where it is shown; in a condition it counts as FALSE.
"""

_DEFINITION = """# The form's document

Generated from the models by `python -m codexa.cli write-schemas`. The JSON Schema (2020-12) is
[`form.schema.json`](form.schema.json); unknown keys are refused with their path. Real examples are in
[`examples/`](../examples).

A form has pages, a page has blocks. Every block has an `id` that never changes, a `key` that formulas use, a `width`,
and `shown`, a condition ("" means always). Every field has a `label`, a `help` text and `required`, a condition
("" means never, `TRUE` always). What follows is special to each type.
"""


def formula_reference() -> str:
    """Return the reference of the formula language as Markdown."""
    return _FORMULAS + "".join(_family(title, functions) for title, functions in FAMILIES.items())


def _family(title: str, functions: tuple[Function, ...]) -> str:
    rows = [
        f"| `{each.signature}` | {each.purpose} | {' · '.join(f'`{e.formula}` → {e.result}' for e in each.examples)} |"
        for each in functions
    ]
    return "\n".join([f"\n## {title}\n", "| function | what it gives | examples |", "|---|---|---|", *rows, ""])


def definition_reference() -> str:
    """Return the reference of the form's document as Markdown."""
    return _DEFINITION + "".join(_block_type(each.name, each.title, each.purpose, each.block) for each in BLOCK_TYPES)


def _block_type(name: str, title: str, purpose: str, block: type[Block]) -> str:
    common = {"id", "key", "width", "shown", "label", "help", "required", "type"}
    settings = {each: info for each, info in block.model_fields.items() if each not in common}
    rows = [f"| `{each}` | {_kind(info)} | {_default(info)} |" for each, info in settings.items()]
    table = ["| setting | what it takes | if left out |", "|---|---|---|", *rows, ""] if rows else []
    return "\n".join([f"\n## {title}: `{name}`\n", purpose, "", *table])


def _kind(info: FieldInfo) -> str:
    if any(isinstance(mark, FormulaText) for mark in info.metadata):
        return "formula"
    text = str(info.annotation).replace("typing.", "").replace("<class '", "").replace("'>", "")
    words = {"decimal.Decimal | None": "number", "int": "whole number", "str": "text"}
    if "Literal" in text:
        return "one of " + text[text.index("[") + 1 : -1].replace("'", "`")
    if "Option" in text:
        return "list of options: `id`, `code`, `label`, `counts_as`"
    return words.get(text, "whole number" if "int" in text else text)


def _default(info: FieldInfo) -> str:
    if info.is_required():
        return "must be there"
    default: Any = info.default
    return "nothing" if default in ("", None, ()) else f"`{default}`"
