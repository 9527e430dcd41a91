"""What is wrong or doubtful in an order: nothing to order, discounts that take nothing off, codes nobody can type."""

from collections import Counter
from collections.abc import Iterator

from codexa.core.fields.short_text import ShortTextField
from codexa.core.form.pricing import priced_blocks
from codexa.core.program.findings import Finding, doubt, error
from codexa.core.program.order_names import ORDER
from codexa.core.program.program import Program


def order_findings(program: Program) -> Iterator[Finding]:
    """Yield what an order lacks, and what of it means nothing."""
    form, order = program.form, program.form.order
    summaries = [each.id for each in form.blocks() if each.type == "order_summary"]
    sells = any(priced_blocks(form))
    if not sells:
        for block in summaries:
            message = "Nothing in the form has a price: this summary stays empty."
            yield error("nothing_priced", message, "Give an option or a number a price.", block)
        if order.shipping.strip() or order.discounts or order.taxes or order.refuse_empty:
            message = "The order has settings, and nothing in the form has a price."
            yield error("nothing_priced", message, "Give an option or a number a price.", ORDER)
    elif not summaries:
        message = "Visitors do not see what their order comes to."
        yield doubt("no_summary", message, "Add an order summary.", ORDER)
    if sells and any(block.key == "order" for block in form.blocks()):
        message = "A block has the key order, by which formulas know the whole order too."
        yield doubt("key_is_order", message, "Give the block another key.", ORDER)
    yield from _of_discounts(program)


def _of_discounts(program: Program) -> Iterator[Finding]:
    order = program.form.order
    codes = Counter(each.code.strip().casefold() for each in order.discounts if each.code.strip())
    for at, each in enumerate(order.discounts):
        setting = f"discounts.{at}"
        if not each.name.strip():
            message = f"Discount {at + 1} has no name: visitors read an amount and nothing else."
            yield doubt("no_name", message, "Name it.", ORDER, f"{setting}.name")
        if each.percent is None and not each.amount.strip():
            message = f"Discount {at + 1} takes nothing off."
            yield error("no_discount", message, "Give it a percentage or an amount.", ORDER, setting)
        if each.percent is not None and each.amount.strip():
            message = f"Discount {at + 1} has a percentage and an amount; the percentage counts."
            yield doubt("two_discounts", message, "Take one of them out.", ORDER, f"{setting}.amount")
        if codes[each.code.strip().casefold()] > 1:
            message = f"Two discounts have the code {each.code.strip()}: both are taken off."
            yield doubt("double_code", message, "Give each a code of its own.", ORDER, f"{setting}.code")
    if codes:
        place = program.questions.get(order.code_field)
        if place is None or not isinstance(place.block, ShortTextField):
            message = "Discounts have codes, and no field takes them."
            yield error(
                "no_code_field", message, "Pick the short text into which a code is typed.", ORDER, "code_field"
            )
