"""What is due of a response, and what is wrong or doubtful in how a form asks for it."""

import re
from collections.abc import Iterator
from dataclasses import dataclass
from decimal import Decimal

from codexa.core.definition.parts import Question
from codexa.core.definition.payment import Plan
from codexa.core.definition.rich_text import plain
from codexa.core.fields.email import EmailField
from codexa.core.fields.formatted import minor_digits, to_minor_unit
from codexa.core.fields.moments import shown_date
from codexa.core.formula.convert import plain_number
from codexa.core.program.commitment import MOST_TIMES, Commitment, Later
from codexa.core.program.evaluate import State
from codexa.core.program.findings import Finding, doubt, error
from codexa.core.program.order import money
from codexa.core.program.order_names import PAYMENT
from codexa.core.program.program import Program


@dataclass(frozen=True, kw_only=True, slots=True)
class PaymentDue:
    """What is to be paid now and later: in major units of an ISO 4217 currency, exact to its minor unit; and by whom.

    `words` tell what a plan comes to, in the form's language; "" where there is none.
    """

    amount: Decimal
    later: Later | None
    words: str
    currency: str
    payer_name: str
    payer_email: str
    delivery: str


def payment_due(state: State) -> PaymentDue | None:
    """Return what is due of a response; None where nothing is."""
    asked = state.commitment
    if not isinstance(asked, Commitment) or (asked.now <= 0 and asked.later is None):
        return None
    payment = state.program.form.payment
    return PaymentDue(
        amount=asked.now,
        later=asked.later,
        words=plan_in_words(state.program, asked),
        currency=state.program.form.currency,
        payer_name=_words(state, payment.payer_name),
        payer_email=_words(state, payment.payer_email),
        delivery=_words(state, payment.delivery),
    )


def to_pay_in_words(state: State) -> str:
    """Return what is to be paid, now and later; "" where nothing is, or the order's total says it."""
    due = payment_due(state)
    if due is None:
        return ""
    if due.words or not state.program.form.payment.amount.strip():
        return due.words
    return state.program.form.say("payTitle").replace("{amount}", money(due.amount, state.program.region))


def plan_in_words(program: Program, asked: Commitment) -> str:
    """Return what a plan comes to: "18.00 now, then 18.00 each month, 11 times, next on 31 January"; "" without one."""
    if (later := asked.later) is None:
        return ""
    form, region = program.form, program.region

    def say(message: str, **values: str) -> str:
        words = form.say(message)
        for name, value in values.items():
            words = words.replace(f"{{{name}}}", value)
        return words

    unit = f"plan{later.unit.capitalize()}"
    each = say(f"{unit}s", every=str(later.every)) if later.every > 1 else say(unit)
    known = {"amount": money(later.amount, region), "each": each, "date": shown_date(later.day(1), form.locale)}
    now = say("planNow", amount=money(asked.now, region)) if asked.now else say("planLater")
    if later.times is None:
        return f"{now}, {say('planOpen', **known)}"
    return f"{now}, {say('planOnce' if later.times == 1 else 'planTimes', times=str(later.times), **known)}"


def _words(state: State, block: str) -> str:
    place = state.program.questions.get(block)
    return "" if place is None else (state.presented(place) or "")


def minor_units(amount: Decimal, currency: str) -> int:
    """Return an amount in whole minor units of its currency, as providers count: 3,600 yen are 3600, 1 euro is 100."""
    return int(to_minor_unit(amount, currency).scaleb(minor_digits(currency)))


def major_units(amount: int, currency: str) -> Decimal:
    """Return what so many minor units are."""
    return Decimal(amount).scaleb(-minor_digits(currency))


# Card data belong to the bank alone (PCI DSS 3.3): a form that asks for them is not published.
_ASKS_A_CARD = re.compile(
    r"\b(credit|debit|bank|payment) ?card.{0,12}(number|no\b|digits)|\bcard (number|security code)\b|\bcvc\b|\bcvv\b",
    re.IGNORECASE,
)


def card_findings(program: Program) -> Iterator[Finding]:
    """Yield questions that ask for the data of a card."""
    for block in program.form.blocks():
        if isinstance(block, Question) and _ASKS_A_CARD.search(f"{plain(block.label)} {block.key.replace('_', ' ')}"):
            message = "This asks for a card's data, which only the bank may know."
            yield error("asks_card", message, "Remove it and ask for the payment in Payment.", block.id, "label")


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
    for at, plan in enumerate(payment.plans):
        yield from _plan_findings(plan, at, is_last=at == len(payment.plans) - 1)
    if payment.practice:
        message = "Payments are for practice: no money moves, and what is handed in is a try."
        yield doubt("practice", message, "Pick an account before visitors pay.", PAYMENT, "practice")


def _plan_findings(plan: Plan, at: int, *, is_last: bool) -> Iterator[Finding]:
    name, setting = f"Plan {at + 1}", f"plans.{at}"
    written = plain_number(plan.times.strip())
    if written is not None and not (1 <= written <= MOST_TIMES and written == int(written)):
        message = f"{name} has {plan.times.strip()} payments."
        yield error("plan_times", message, f"Say 1 to {MOST_TIMES:,}, or none for no end.", PAYMENT, f"{setting}.times")
    if plan.shared and not plan.times.strip():
        message = f"{name} shares the amount out, and does not say among how many payments."
        yield error("plan_shares", message, "Say how many there are.", PAYMENT, f"{setting}.times")
    if plan.shared and plan.first_day.strip():
        message = f"{name} shares the amount out later: what can't be shared out evenly is paid at once, by itself."
        yield doubt("plan_rest", message, "Let the first be paid at once.", PAYMENT, f"{setting}.first_day")
    if not plan.when.strip() and not is_last:
        message = f"{name} always holds: the plans after it are never used."
        yield doubt("plan_never", message, "Give it a rule, or put it last.", PAYMENT, f"{setting}.when")
