"""What a form asks to be paid, when, by whom and through which account."""

from typing import Annotated, Literal

from annotated_types import Len
from pydantic import Field as Setting
from pydantic import StringConstraints

from codexa.core.definition.parts import FormulaText, OptionalIdentifier, Part
from codexa.core.formula.functions.function import Role

_MOST_HOURS = 24 * 60


Unit = Literal["day", "week", "month", "year"]


class Plan(Part):
    """Payments that come back, each `every` so many days, weeks, months or years, where `when` holds.

    `times` is a formula for how many there are in all; without one they go on until they are stopped. Each is of the
    payment's amount; with `shared` that amount is shared out among them, and the first has what is left over.
    `fee` is a formula for what is added to what is paid at once (a joining fee; below 0 the first costs less).
    `first_day` is a formula for the day of the first; without one, or where that day is over, it is paid at once.
    """

    every: Annotated[int, Setting(ge=1, le=365)] = 1
    unit: Unit = "month"
    times: Annotated[str, FormulaText(Role.VALUE, "plan_times")] = ""
    shared: bool = False
    fee: Annotated[str, FormulaText(Role.VALUE, "plan_fee")] = ""
    first_day: Annotated[str, FormulaText(Role.VALUE, "plan_first_day")] = ""
    when: Annotated[str, FormulaText(Role.CONDITION, "plan")] = ""


class Payment(Part):
    """A payment that is due once the form was handed in, where it is `on` and `when` holds.

    `amount` is a formula; without one it is the order's total. With `practice` no money moves: what is paid is a try,
    and so is the response. Else `account` is the team's with a provider, by id. `cards` are the kinds that are taken,
    by the provider's names, all where there are none. `payer_name`, `payer_email` and `delivery` (where to) are fields,
    by id. The card is typed in a frame of the provider's in our page, or, without `in_frame`, on its own page. What is
    not paid within so many `hours` expires. It is paid by the first of the `plans` that holds, and once where none
    does.
    """

    on: bool = False
    when: Annotated[str, FormulaText(Role.CONDITION, "payment")] = ""
    amount: Annotated[str, FormulaText(Role.VALUE, "payment_amount")] = ""
    practice: bool = True
    account: Annotated[str, StringConstraints(pattern=r"^([0-9a-f-]{36})?$")] = ""
    cards: Annotated[tuple[Annotated[str, StringConstraints(max_length=40)], ...], Len(max_length=50)] = ()
    payer_name: OptionalIdentifier = ""
    payer_email: OptionalIdentifier = ""
    delivery: OptionalIdentifier = ""
    in_frame: bool = True
    hours: Annotated[int, Setting(ge=1, le=_MOST_HOURS)] = 24
    plans: Annotated[tuple[Plan, ...], Len(max_length=30)] = ()
