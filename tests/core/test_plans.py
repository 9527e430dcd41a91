"""Plans: what is paid now and later, on which days, in words; and that all of it together is the whole commitment."""

import datetime
from decimal import Decimal

import pytest
from hypothesis import given
from hypothesis import strategies as some

from codexa.core.fields.formatted import minor_digits
from codexa.core.form.comparing import describe_changes
from codexa.core.formula.values import Failed
from codexa.core.program.accept import Refused, accept
from codexa.core.program.commitment import day_of
from codexa.core.program.explain import explain_all
from codexa.core.program.follow_ups import as_if, due
from codexa.core.program.notes import notes
from codexa.core.program.order_names import PAYMENT
from codexa.core.program.payment import payment_due
from codexa.core.program.proof import proof
from codexa.practice.bank.plans import day_of as day_at_the_bank
from core.forms import block, facts_of, options, program_of, state_of
from core.formulas import CONTEXT

GIFT = block("number", "gift", price="18")
HOW = block("single_choice", "how", options=options("once", "monthly", "yearly"))
FIELDS = (GIFT, HOW, block("number", "parts"), block("date", "begin"), block("email", "mail"))
SUMMARY = block("order_summary", "sum")
ON = {"on": True, "payer_email": "mail", "account": "0" * 36, "practice": False}
MONTHLY = {"when": 'how = "monthly"', "times": "12"}
YEARLY = {"when": 'how = "yearly"', "unit": "year", "fee": "10"}


def program(*plans, **settings):
    return program_of(*FIELDS, SUMMARY, payment=ON | {"plans": list(plans)}, **settings)


def words(answers, *plans, **settings):
    found = payment_due(state_of(program(*plans, **settings), {"gift": "1"} | answers))
    return None if found is None else found.words


def test_the_first_plan_that_holds_says_when_it_is_paid_and_else_it_is_once():
    plans = (MONTHLY, YEARLY)
    assert words({"how": "omonthly"}, *plans) == (
        "€18.00 now, then €18.00 each month, 11 times, next on December 23, 2026"
    )
    assert words({"how": "oyearly"}, *plans) == (
        "€28.00 now, then €18.00 each year until it is stopped, next on November 23, 2027"
    )
    assert words({"how": "oonce"}, *plans) == ""
    assert words({"gift": "0"}, {"times": "3"}) is None


@pytest.mark.parametrize(
    ("plan", "answers", "told"),
    [
        ({"times": "parts"}, {"parts": "1"}, ""),
        ({"times": "2", "every": 3}, {}, "€18.00 now, then €18.00 on February 23, 2027"),
        ({"times": "3", "shared": True, "unit": "week", "every": 2}, {"gift": "5"},
         "€30.00 now, then €30.00 every 2 weeks, 2 times, next on December 7, 2026"),
        ({"times": "7", "shared": True}, {}, "€2.58 now, then €2.57 each month, 6 times, next on December 23, 2026"),
        ({"times": "2", "fee": "-18"}, {}, "nothing now, then €18.00 on December 23, 2026"),
        ({"times": "2", "fee": "-50"}, {}, "nothing now, then €18.00 on December 23, 2026"),
        ({"times": "2", "first_day": "begin"}, {"begin": "2027-01-31"},
         "nothing now, then €18.00 each month, 2 times, next on January 31, 2027"),
        ({"times": "2", "first_day": "begin"}, {"begin": "2026-11-01"},
         "€18.00 now, then €18.00 on December 23, 2026"),
        ({"times": "2", "first_day": "begin"}, {}, "€18.00 now, then €18.00 on December 23, 2026"),
    ],
)  # fmt: skip
def test_every_setting_of_a_plan_is_told_as_it_will_be_paid(plan, answers, told):
    assert words(answers, plan) == told


@pytest.mark.parametrize("times", ["0", "-1", "1.5", "1001", "parts", "1 / 0", '"many"'])
def test_a_plan_that_cannot_be_counted_is_refused_and_never_goes_on_for_ever(times):
    made = program({"times": times})
    assert isinstance(state_of(made, {"gift": "1"}).commitment, Failed)
    refused = accept(made, {"gift": "1"}, CONTEXT)
    assert isinstance(refused, Refused)
    assert refused.errors["whole-form"].code == "order_failed"


def test_a_day_after_the_last_year_is_refused_before_anybody_pays():
    made = program({"times": "1000", "unit": "year", "every": 300})
    assert isinstance(accept(made, {"gift": "1"}, CONTEXT), Refused)


@pytest.mark.parametrize("plan", [{}, {"plans": [{}]}, {"plans": [{"fee": "10^9"}], "amount": "1"}])
def test_more_than_any_bank_takes_is_refused_before_it_is_asked_for(plan):
    known = {"amount": "10^12"} | plan
    refused = accept(program_of(*FIELDS, SUMMARY, payment=ON | known), {"gift": "1"}, CONTEXT)
    assert isinstance(refused, Refused)
    assert refused.errors["whole-form"].code == "order_failed"


@given(
    some.sampled_from(("EUR", "JPY", "KWD")),
    some.integers(1, 10**7),
    some.integers(1, 60),
    some.tuples(some.booleans(), some.integers(-50, 50), some.sampled_from((None, "2026-10-31", "2027-01-31"))),
)
def test_what_is_paid_now_and_later_is_the_whole_commitment(currency, units, times, how):
    shared, fee, begin = how
    price = Decimal(units).scaleb(-minor_digits(currency))
    plan = {"times": str(times), "shared": shared, "fee": f"order.total * 0 + {fee}", "first_day": "begin"}
    made = program_of(
        block("number", "gift", price=str(price)), *FIELDS[2:], payment=ON | {"plans": [plan]}, currency=currency
    )
    asked = state_of(made, {"gift": "1", "begin": begin}).commitment
    amounts = [asked.now] + ([] if asked.later is None else [asked.later.amount] * asked.later.times)
    assert all(amount == amount.quantize(Decimal(1).scaleb(-minor_digits(currency))) for amount in amounts)
    assert sum(amounts) == asked.whole
    first_now = begin is None or begin < "2026-11-23"
    assert len(amounts) == times + (not first_now) or amounts[1:] == []
    whole = price if shared else price * times
    paid_at_once = asked.whole - (asked.later.amount * asked.later.times if asked.later else 0)
    # A fee below 0 takes off at most what is paid at once.
    assert asked.whole == whole + fee or (fee < 0 and paid_at_once == 0)


@given(
    some.dates(datetime.date(2000, 1, 1), datetime.date(2100, 12, 31)),
    some.integers(1, 40),
    some.sampled_from(("day", "week", "month", "year")),
    some.integers(0, 120),
)
def test_days_are_reckoned_from_the_first_and_the_bank_reckons_the_same(start, every, unit, steps):
    day = day_of(start, every, unit, steps)
    assert day == day_at_the_bank(start, every, unit, steps)
    assert day_of(start, every, unit, steps + 1) > day
    if unit in ("month", "year"):
        assert day.day == start.day or (day.day < start.day and (day + datetime.timedelta(days=1)).day == 1)


def test_the_summary_the_notes_and_why_know_the_plan():
    made = program(MONTHLY, YEARLY)
    state = facts_of(made, {"gift": "1", "how": "omonthly"})
    assert state.blocks["sum"].to_pay.startswith("€18.00 now, then €18.00 each month")
    assert "sum" in made.affected(["how"])
    assert {note.fact for note in notes(made)[PAYMENT]} >= {"plan", "plan_times", "plan_fee"}
    (why,) = explain_all(state_of(made, {"gift": "1", "how": "oyearly"}), "payment")
    assert why.value.startswith("asks for €28.00 now, then")
    assert "How" in str(why.because)


def test_follow_ups_of_later_charges_know_the_charge_and_are_done_each_time():
    told = {"id": "u1", "kind": "email", "on": "charge", "recipients": [{"address": "shop@example.org"}]}
    told["all_answers"] = True
    told["subject"] = "{payment.charge} of: {payment.plan}, next {payment.next}"
    made = program(MONTHLY, follow_ups=[told])
    then = as_if(state_of(made, {"gift": "1", "how": "omonthly"}), "charge")
    (run,) = due(then, "charge", "3")
    assert run.moment == "charge 3"
    assert run.content["subject"].startswith("€18.00 of: €18.00 now, then")
    assert run.content["subject"].endswith("next January 23, 2027")
    assert as_if(state_of(made, {"gift": "1", "how": "oonce"}), "charge") is None
    assert [each.code for each in proof(made)] == []
    assert [each.code for each in proof(program(follow_ups=[told]))] == ["no_plan"]


def test_history_tells_what_changed_of_a_plan_by_its_place():
    def told(before, after):
        return [each.words for each in describe_changes(*(program(*plans).form for plans in (before, after)))]

    assert told([MONTHLY], [MONTHLY | {"times": "6"}]) == ["payment, plan 1, times was 12, is 6"]
    assert told([], [MONTHLY, {"every": 2, "unit": "week"}]) == [
        "payment, plan added: every 1 month, 12 times, every 2 week"
    ]


def test_what_a_plan_lacks_is_found():
    def codes(*plans):
        return [finding.code for finding in proof(program(*plans))]

    assert codes({"times": "0"}) == ["plan_times"]
    assert codes({"times": "2.5"}) == ["plan_times"]
    assert codes({"shared": True}) == ["plan_shares"]
    assert codes({"shared": True, "times": "3", "first_day": "begin"}) == ["plan_rest"]
    assert codes({}, MONTHLY) == ["plan_never"]
    assert codes(MONTHLY, {"times": "parts"}) == []
    assert codes({"times": "nobody"}) == ["unknown_name"]
