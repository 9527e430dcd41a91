"""What is wrong or doubtful in an order: nothing to order, discounts that take nothing off, codes nobody can type."""

from collections import Counter
from collections.abc import Iterator

from codexa.core.fields.product import ProductField
from codexa.core.fields.quantity import QuantityField
from codexa.core.fields.short_text import ShortTextField
from codexa.core.form.pricing import priced_blocks, quantities_of
from codexa.core.formula.types import NUMBERS, Kind
from codexa.core.program.findings import Finding, doubt, error
from codexa.core.program.order_names import ORDER
from codexa.core.program.program import Program

_AMOUNTS = NUMBERS | {Kind.BLANK, Kind.ANY}


def order_findings(program: Program) -> Iterator[Finding]:
    """Yield what an order lacks, and what of it means nothing."""
    form, order = program.form, program.form.order
    summaries = [each.id for each in form.blocks() if each.type == "order_summary"]
    sells = any(priced_blocks(form))
    if not sells:
        # What is to be paid by a formula is told by a summary too.
        says_nothing = not (form.payment.on and form.payment.amount.strip())
        for block in summaries if says_nothing else ():
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
    yield from _of_prices(program)
    yield from _of_discounts(program)
    yield from _of_quantities(program)
    yield from _of_taxes(program)


def _of_prices(program: Program) -> Iterator[Finding]:
    for block in program.form.blocks():
        formula = program.formula(block.id, "priced_by") if isinstance(block, ProductField) else None
        if formula is not None and formula.compiled.typed is not None and formula.compiled.type.kind not in _AMOUNTS:
            message = f"A price is a number, and this gives {formula.compiled.type.name}."
            yield error("wrong_type", message, "Work out an amount.", block.id, "priced_by")


def _of_quantities(program: Program) -> Iterator[Finding]:
    """Yield quantities and products that do not find each other."""
    asked = quantities_of(program.form)
    for block in program.form.blocks():
        if isinstance(block, ProductField) and block.quantity == "apart" and block.id not in asked:
            message = "Its quantity is asked apart, and no quantity beside it names it: it can't be ordered."
            yield error("no_quantity", message, "Add a quantity that names it, or ask how many here.", block.id)
        if not isinstance(block, QuantityField) or asked.get(block.product) is block:
            continue
        place = program.places.get(block.product)
        product = place.block if place is not None else None
        if not isinstance(product, ProductField):
            message, remedy = "This quantity names no product: it orders nothing.", "Pick the product."
        elif product.id in asked:
            message, remedy = f"{product.label} has another quantity already; this one orders nothing.", "Delete one."
        else:
            message = f"{product.label} stands in other rows than its quantity: it can't be ordered."
            remedy = "Move the two together."
        yield error("no_product", message, remedy, block.id, "product")
    for product_id, quantity in asked.items():
        place = program.places.get(product_id)
        if place is not None and isinstance(place.block, ProductField) and place.block.quantity == "here":
            message = f"{place.block.label} asks how many by itself; this quantity orders nothing."
            yield error("two_quantities", message, "Let the product ask apart, or delete this.", quantity.id, "product")


def _of_taxes(program: Program) -> Iterator[Finding]:
    priced = {each.block.id for each in priced_blocks(program.form)}
    for at, tax in enumerate(program.form.order.taxes):
        if set(tax.products) - priced:
            message = f"{tax.name or 'Tax'} is of something that is not sold any more."
            yield error("no_product", message, "Take it out of the tax's products.", ORDER, f"taxes.{at}.products")


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
