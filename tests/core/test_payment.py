"""What is due of a response, in which units, and what a payment lacks."""

from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as some

from codexa.core.context import PaymentFacts
from codexa.core.fields.formatted import minor_digits
from codexa.core.program.accept import Refused, accept
from codexa.core.program.explain import explain_all
from codexa.core.program.payment import major_units, minor_units, payment_due
from codexa.core.program.proof import proof
from core.forms import block, program_of, state_of
from core.formulas import CONTEXT

LAMP = block("product", "lamp", price="12.50")
FIELDS = (LAMP, block("email", "mail"), block("name", "who"), block("yes_no", "member"), block("order_summary", "sum"))
PAYMENT = {"on": True, "payer_email": "mail", "payer_name": "who", "account": "0" * 36, "practice": False}


def due(answers, **payment):
    return payment_due(state_of(program_of(*FIELDS, payment=PAYMENT | payment), answers))


def codes(*blocks, **settings):
    return [finding.code for finding in proof(program_of(*blocks, **settings))]


def test_the_order_or_a_formula_says_what_is_due_and_fields_say_by_whom():
    found = due({"lamp": "2", "mail": "ingrid@example.org", "who": "Ingrid Haugen"})
    assert (found.amount, found.currency) == (Decimal("25.00"), "EUR")
    assert (found.payer_name, found.payer_email) == ("Ingrid Haugen", "ingrid@example.org")
    assert due({"lamp": "2"}, amount="order.total / 3").amount == Decimal("8.33")
    assert due({"lamp": "2"}, on=False) is None


@pytest.mark.parametrize(
    "payment", [{"when": "NOT(member)"}, {"amount": "0"}, {"amount": "-5"}, {"amount": "member / 2 - 1"}]
)
def test_nothing_is_due_where_the_rule_or_the_amount_says_so(payment):
    assert due({"lamp": "2", "member": True}, **payment) is None


# The largest would have more digits than are computed with.
@pytest.mark.parametrize("amount", ["1 / (lamp - lamp)", "lamp * 10 ^ 16", "lamp * 10 ^ 60", "-lamp * 10 ^ 40"])
def test_nobody_pays_what_is_not_known_or_beyond_reach(amount):
    program = program_of(*FIELDS, payment=PAYMENT | {"amount": amount})
    refused = accept(program, {"lamp": "1"}, CONTEXT)
    assert isinstance(refused, Refused)
    assert refused.errors["whole-form"].code == "order_failed"


@given(some.sampled_from(("EUR", "JPY", "KWD", "CHF")), some.decimals(0, 10**9, places=5))
def test_minor_units_are_whole_and_lose_nothing_that_a_currency_has(currency, amount):
    units = minor_units(amount, currency)
    assert major_units(units, currency) == amount.quantize(Decimal(1).scaleb(-minor_digits(currency)), "ROUND_HALF_UP")
    assert minor_units(major_units(units, currency), currency) == units


def test_texts_and_rules_know_how_a_payment_stands():
    text = block("text", "told", text="<p>{payment.status}: {payment.amount} ({payment.number})</p>")
    program = program_of(*FIELDS, text, payment=PAYMENT)
    facts = PaymentFacts(amount=Decimal("1234.5"), number="ab12", status="paid", refunded=Decimal(0))
    state = state_of(program, {}, CONTEXT.with_payment(facts))
    assert state.text("told", "text", "") == "<p>paid: €1,234.50 (ab12)</p>"
    assert state_of(program).text("told", "text", "") == "<p>:  ()</p>"


def test_what_a_payment_lacks_is_found():
    assert codes(*FIELDS, payment=PAYMENT) == []
    assert codes(*FIELDS, payment=PAYMENT | {"account": ""}) == ["no_account"]
    assert codes(*FIELDS, payment=PAYMENT | {"payer_email": "who"}) == ["no_payer"]
    assert codes(*FIELDS, payment=PAYMENT | {"practice": True}) == ["practice"]
    assert codes(block("email", "mail"), payment=PAYMENT) == ["nothing_to_pay"]
    paid = {"id": "u1", "kind": "webhook", "on": "paid", "address": "https://www.example.org/in"}
    assert codes(*FIELDS, follow_ups=[paid]) == ["no_payment"]
    assert codes(*FIELDS, follow_ups=[paid], payment=PAYMENT) == []


@pytest.mark.parametrize("label", ["Credit card number", "CVC", "Your card number", "Card security code"])
def test_no_form_asks_for_a_card(label):
    assert codes(block("short_text", "asked", label=label)) == ["asks_card"]
    assert codes(block("short_text", "asked", label="Number of your patron's card")) == []
    assert codes(block("heading", "told", text=label), block("yes_no", "card")) == []


def test_why_so_much_is_to_be_paid_has_an_answer():
    def why(answers, **payment):
        (found,) = explain_all(state_of(program_of(*FIELDS, payment=PAYMENT | payment), answers), "payment")
        return found

    total = why({"lamp": "2"})
    assert (total.value, total.because[0].value) == ("asks for €25.00", "comes to €25.00")
    half = why({"lamp": "2"}, amount="order.total / 2")
    assert half.sentence.startswith("the payment asks for €12.50: = order.total / 2")
    free = why({"lamp": "2", "member": True}, when="NOT(member)")
    assert free.value == "asks for nothing"
    assert "the rule wants" in free.sentence
    assert why({"lamp": "2"}, amount="1 / 0").value == "can't be worked out"
