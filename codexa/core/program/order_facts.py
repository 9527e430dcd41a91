"""The facts of an order: lines of what is shown and answered, discounts that hold, shipping, the total."""

from collections.abc import Mapping, Sequence
from dataclasses import replace
from typing import Any

from codexa.core.fields.order_summary import OrderSummaryBlock
from codexa.core.fields.product import ProductField
from codexa.core.form.pricing import priced_blocks
from codexa.core.program.facts import Fact
from codexa.core.program.order import AtPrice, collector, discounter, shipper, totaller
from codexa.core.program.order_names import ORDER, PAYMENT
from codexa.core.program.places import ALWAYS, Place, Spot
from codexa.core.program.spots import OrderSpots
from codexa.core.program.writer import Writer, indented


def write_order(writer: Writer, spots: OrderSpots, places: Mapping[str, Place]) -> None:
    """Add the facts of the order; `places` are those of the form's blocks by id."""
    _lines(writer, spots, places)
    _discounts(writer, spots, places)
    _shipping(writer, spots)
    _total(writer, spots)


def write_summaries(writer: Writer, spots: OrderSpots | None, places: Mapping[str, Place]) -> None:
    """Add what order summaries hang on: the total, where anything is sold, and what is told of the payment."""
    total = [spots.total] if spots else []
    expression = spots.total.code if spots else "None"
    of_payment = [read for (owner, _), each in writer.formulas.items() if owner == PAYMENT for read in each.reads()]
    for block_id, place in places.items():
        if isinstance(place.block, OrderSummaryBlock):
            writer.derived(block_id, "order", writer.spots.new(), expression, [*total, *of_payment])


def _lines(writer: Writer, spots: OrderSpots, places: Mapping[str, Place]) -> None:
    priced = [each for each in priced_blocks(writer.form) if each.block.id in places]
    found = [[places[part.id] for part in (each.block, each.quantity) if part is not None] for each in priced]
    given = ", ".join(_values(writer, parts) for parts in found)
    collect = writer.helper(collector(priced, writer.region))
    asked = [place for parts in found for place in parts]
    spots_of = ((place.value, place.conditions.shown, _rows(writer, place), _price(place)) for place in asked)
    reads = [spot for each in spots_of for spot in each if spot]
    code = (f"{spots.lines.code} = {collect}(({given},))",)
    _fallible(writer, Fact(owner=ORDER, name="lines", spot=spots.lines, reads=tuple(reads), code=code))


def _price(place: Place) -> Spot | None:
    """Return where the price of a product stands that a formula gives."""
    return place.settings.get("priced_by") if isinstance(place.block, ProductField) else None


def _rows(writer: Writer, place: Place) -> Spot | None:
    return None if place.kind is None else writer.spots.rows[place.kind.id]


def _values(writer: Writer, parts: Sequence[Place]) -> str:
    """Return the code of a block's values: its own while it is shown, or those of all rows in which it is.

    A product and its quantity give their values together, while both are shown; so do a product and its price, where a
    formula gives that.
    """
    codes = [place.value.code for place in parts if place.value is not None]
    value = codes[0] if len(codes) == 1 else f"({', '.join(codes)})"
    if (price := _price(parts[0])) is not None:
        value = f"{writer.helper(AtPrice)}({value}, {price.code})"
    conditions = [place.conditions.shown for place in parts if place.conditions.shown is not ALWAYS]
    test = f" if {' and '.join(f'{shown.code} is True' for shown in conditions)}" if conditions else ""
    rows = _rows(writer, parts[0])
    if rows is not None:
        return f"[{value} for r in {rows.code}{test}]"
    return f"(({value},){test} else ())" if test else f"({value},)"


def _discounts(writer: Writer, spots: OrderSpots, places: Mapping[str, Place]) -> None:
    order = writer.form.order
    code_place = places.get(order.code_field)
    typed = code_place.value if code_place is not None and code_place.kind is None else None
    code, formulas = ["t = []"], []
    for at, discount in enumerate(order.discounts):
        amount = writer.formula(ORDER, f"discounts.{at}.amount") if discount.percent is None else None
        when = writer.formula(ORDER, f"discounts.{at}.when")
        formulas += [each for each in (amount, when) if each is not None]
        fetches, expression = ([], "None") if amount is None else writer.code_of(amount)
        code += _or_failure(writer, "u", [*fetches, f"u = {expression}"])
        code += writer.collected(when, f"t.append(({at}, u))")
    work_out = writer.helper(discounter(order.discounts, writer.region))
    code.append(
        f"{spots.discounts.code} = {work_out}({spots.lines.code}, {typed.code if typed else 'None'}, c.today, t)"
    )
    reads = [spots.lines, *([typed] if typed else []), *(spot for each in formulas for spot in each.reads())]
    steps = sum(each.steps for each in formulas)
    known: dict[str, Any] = {"spot": spots.discounts, "reads": tuple(reads), "code": tuple(code), "steps": steps}
    _fallible(writer, Fact(owner=ORDER, name="discounts", **known))


def _shipping(writer: Writer, spots: OrderSpots) -> None:
    formula = writer.formula(ORDER, "shipping")
    fetches, expression = ([], "None") if formula is None else writer.code_of(formula)
    settle = writer.helper(shipper(writer.region))
    code = [*fetches, f"{spots.shipping.code} = {settle}({spots.lines.code}, {expression})"]
    reads = [spots.lines, *(formula.reads() if formula else ())]
    known: dict[str, Any] = {"spot": spots.shipping, "reads": tuple(reads), "code": tuple(code), "formula": formula}
    _fallible(writer, Fact(owner=ORDER, name="shipping", steps=formula.steps if formula else 0, **known))


def _total(writer: Writer, spots: OrderSpots) -> None:
    taxes, code = writer.form.order.taxes, ["t = []"]
    rules = [writer.formula(ORDER, f"taxes.{at}.when") for at in range(len(taxes))]
    for at, rule in enumerate(rules):
        code += writer.collected(rule, f"t.append({at})")
    add_up = writer.helper(totaller(taxes, writer.region))
    parts = (spots.lines, spots.discounts, spots.shipping)
    code.append(f"{spots.total.code} = {add_up}({', '.join(part.code for part in parts)}, t)")
    known = [rule for rule in rules if rule is not None]
    reads = (*parts, *(spot for rule in known for spot in rule.reads()))
    steps = sum(rule.steps for rule in known)
    writer.add(Fact(owner=ORDER, name="total", spot=spots.total, reads=reads, code=tuple(code), steps=steps))


def _fallible(writer: Writer, fact: Fact) -> None:
    """Add a fact of the order; where it fails, that is its value, and the total's."""
    writer.add(replace(fact, code=tuple(_or_failure(writer, fact.spot.code, fact.code))))


def _or_failure(writer: Writer, target: str, code: Sequence[str]) -> list[str]:
    """Return code that sets `target`, with the failure as its value where one happens."""
    return ["try:", *indented(code), "except Exception as e:", f"    {target} = {writer.failure()}(e)"]
