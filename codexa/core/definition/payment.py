"""What a form asks to be paid, when, by whom and through which account."""

from typing import Annotated

from annotated_types import Len
from pydantic import Field as Setting
from pydantic import StringConstraints

from codexa.core.definition.parts import FormulaText, OptionalIdentifier, Part
from codexa.core.formula.functions.function import Role

_MOST_HOURS = 24 * 60


class Payment(Part):
    """A payment that is due once the form was handed in, where it is `on` and `when` holds.

    `amount` is a formula; without one it is the order's total. With `practice` no money moves: what is paid is a try,
    and so is the response. Else `account` is the team's with a provider, by id. `cards` are the kinds that are taken,
    by the provider's names, all where there are none. `payer_name` and `payer_email` are fields, by id. What is not
    paid within so many `hours` expires.
    """

    on: bool = False
    when: Annotated[str, FormulaText(Role.CONDITION, "payment")] = ""
    amount: Annotated[str, FormulaText(Role.VALUE, "payment_amount")] = ""
    practice: bool = True
    account: Annotated[str, StringConstraints(pattern=r"^([0-9a-f-]{36})?$")] = ""
    cards: Annotated[tuple[Annotated[str, StringConstraints(max_length=40)], ...], Len(max_length=50)] = ()
    payer_name: OptionalIdentifier = ""
    payer_email: OptionalIdentifier = ""
    hours: Annotated[int, Setting(ge=1, le=_MOST_HOURS)] = 24
