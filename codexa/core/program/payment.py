"""What is due of a response, and what is wrong or doubtful in how a form asks for it."""

from collections.abc import Iterator
from dataclasses import dataclass
from decimal import Decimal

from codexa.core.fields.email import EmailField
from codexa.core.fields.formatted import minor_digits, to_minor_unit
from codexa.core.program.evaluate import State
from codexa.core.program.findings import Finding, doubt, error
from codexa.core.program.order_names import PAYMENT
from codexa.core.program.program import Program


@dataclass(frozen=True, kw_only=True, slots=True)
class PaymentDue:
    """What is to be paid: in major units of an ISO 4217 currency, exact to its minor unit; and by whom."""

    amount: Decimal
    currency: str
    payer_name: str
    payer_email: str


def payment_due(state: State) -> PaymentDue | None:
    """Return what is due of a response; None where nothing is."""
    amount = state.to_pay()
    if not isinstance(amount, Decimal) or amount <= 0:
        return None
    payment = state.program.form.payment
    return PaymentDue(
        amount=amount,
        currency=state.program.form.currency,
        payer_name=_words(state, payment.payer_name),
        payer_email=_words(state, payment.payer_email),
    )


def _words(state: State, block: str) -> str:
    place = state.program.questions.get(block)
    return "" if place is None else (state.presented(place) or "")


def minor_units(amount: Decimal, currency: str) -> int:
    """Return an amount in whole minor units of its currency, as providers count: 3,600 yen are 3600, 1 euro is 100."""
    return int(to_minor_unit(amount, currency).scaleb(minor_digits(currency)))


def major_units(amount: int, currency: str) -> Decimal:
    """Return what so many minor units are."""
    return Decimal(amount).scaleb(-minor_digits(currency))


def payment_findings(program: Program) -> Iterator[Finding]:
    """Yield what a payment lacks."""
    payment = program.form.payment
    if not payment.on:
        return
    if not payment.amount.strip() and program.order is None:
        message = "A payment is asked for, and nothing in the form has a price."
        yield error("nothing_to_pay", message, "Give something a price, or the payment an amount.", PAYMENT, "amount")
    if not payment.practice and not payment.account:
        message = "A payment is asked for, and there is no account that it goes to."
        yield error("no_account", message, "Pick an account, or practise.", PAYMENT, "account")
    place = program.questions.get(payment.payer_email)
    if place is None or not isinstance(place.block, EmailField):
        message = "No field asks for the payer's e-mail: no receipt can be sent."
        yield error("no_payer", message, "Pick an e-mail field.", PAYMENT, "payer_email")
    if payment.practice:
        message = "Payments are for practice: no money moves, and what is handed in is a try."
        yield doubt("practice", message, "Pick an account before visitors pay.", PAYMENT, "practice")
