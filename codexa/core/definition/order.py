"""What an order costs beside its lines: discounts, shipping, taxes."""

import datetime
from typing import Annotated

from annotated_types import Len
from pydantic import Field as Setting
from pydantic import StringConstraints

from codexa.core.definition.parts import FormulaText, Identifier, Number, OptionalIdentifier, Part, PlainLabel
from codexa.core.formula.functions.function import Role

_MOST = 100  # discounts, and taxes

Price = Annotated[Number, Setting(ge=0)]
Percent = Annotated[Number, Setting(gt=0, le=100)]


class Discount(Part):
    """What is taken off where its condition holds: so many `percent` of the lines, or an `amount` that a formula gives.

    With a `code` only where visitors type it into the order's code field; capitals and spaces around it don't matter.
    A code counts from `first_day` to `last_day`, both included, and so many times (`uses`) in all.
    """

    id: Identifier
    name: PlainLabel = ""
    when: Annotated[str, FormulaText(Role.CONDITION, "discount")] = ""
    code: Annotated[str, StringConstraints(max_length=60)] = ""
    first_day: datetime.date | None = None
    last_day: datetime.date | None = None
    uses: Annotated[int, Setting(ge=0, le=1_000_000_000)] | None = None
    percent: Percent | None = None
    amount: Annotated[str, FormulaText(Role.VALUE, "amount")] = ""


class Tax(Part):
    """So many percent of what is paid: `included` in the prices, or added to them.

    Of `products` (blocks, by id) less their share of what is taken off; with none, of all that no other tax names, and
    of shipping. Only where `when` holds.
    """

    id: Identifier
    name: PlainLabel = "VAT"
    percent: Percent
    included: bool = True
    products: Annotated[tuple[Identifier, ...], Len(max_length=500)] = ()
    when: Annotated[str, FormulaText(Role.CONDITION, "tax")] = ""


class Order(Part):
    """What a form that sells adds to what was ordered, and takes off.

    `shipping` is a formula; where nothing is ordered there is none. `code_field` is the field, by id, into which codes
    of discounts are typed. With `refuse_empty` nobody hands in an order of nothing.
    """

    discounts: Annotated[tuple[Discount, ...], Len(max_length=_MOST)] = ()
    code_field: OptionalIdentifier = ""
    shipping: Annotated[str, FormulaText(Role.VALUE, "shipping")] = ""
    taxes: Annotated[tuple[Tax, ...], Len(max_length=_MOST)] = ()
    refuse_empty: bool = False
