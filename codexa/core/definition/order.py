"""What an order costs beside its lines: discounts, shipping, taxes."""

from typing import Annotated

from annotated_types import Len
from pydantic import Field as Setting
from pydantic import StringConstraints

from codexa.core.definition.parts import FormulaText, Identifier, Label, Number, Part
from codexa.core.formula.functions.function import Role

_MOST = 100  # discounts, and taxes

Price = Annotated[Number, Setting(ge=0)]
Percent = Annotated[Number, Setting(gt=0, le=100)]


class Discount(Part):
    """What is taken off where its condition holds: so many `percent` of the lines, or an `amount` that a formula gives.

    With a `code` only where visitors type it into the order's code field; capitals and spaces around it don't matter.
    """

    id: Identifier
    name: Label = ""
    when: Annotated[str, FormulaText(Role.CONDITION, "discount")] = ""
    code: Annotated[str, StringConstraints(max_length=60)] = ""
    percent: Percent | None = None
    amount: Annotated[str, FormulaText(Role.VALUE, "amount")] = ""


class Tax(Part):
    """So many percent of what is paid: `included` in the prices, or added to them."""

    id: Identifier
    name: Label = "VAT"
    percent: Percent
    included: bool = True


class Order(Part):
    """What a form that sells adds to what was ordered, and takes off.

    `shipping` is a formula; where nothing is ordered there is none. `code_field` is the field, by id, into which codes
    of discounts are typed. With `refuse_empty` nobody hands in an order of nothing.
    """

    discounts: Annotated[tuple[Discount, ...], Len(max_length=_MOST)] = ()
    code_field: Annotated[str, StringConstraints(pattern=r"^[a-z0-9]{0,32}$")] = ""
    shipping: Annotated[str, FormulaText(Role.VALUE, "shipping")] = ""
    taxes: Annotated[tuple[Tax, ...], Len(max_length=_MOST)] = ()
    refuse_empty: bool = False
