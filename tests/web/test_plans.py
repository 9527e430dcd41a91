"""Plans at the bank: each charge is a payment of its own, once; tried again, given back, stopped."""

import datetime
from decimal import Decimal

import pytest
from conftest import Browser, make_person
from web.bank import world

from codexa.practice.bank import store as bank_store
from codexa.services.errors import NotFoundError, PlanRefusedError, RefundRefusedError
from codexa.services.payments.listing import payment_in_full, payments_of
from codexa.services.payments.plan_commands import charge_again, stop_plan
from codexa.services.payments.practice_bank import PracticeBank
from codexa.services.payments.provider import ProviderAwayError
from codexa.services.payments.reconciling import differences, settle_open
from codexa.services.payments.refunding import refund
from codexa.services.payments.settling import look, settle
from codexa.store import payments

__all__ = ["world"]  # the fixture

MONTHLY = {"times": "4", "fee": "5"}


@pytest.fixture
def patron(world):
    """Return what hands an order in that is paid by a plan, with a card, and gives the number."""

    def begin(outcome="approved", **plan):
        world.form = world.publish(account=str(world.account), plans=[MONTHLY | plan])
        received = world.order(pieces="2").json
        world.pay(received, outcome)
        world.tell()
        return received

    world.begin = begin
    return world


def rows(world):
    with world.database.connection() as connection:
        return payments.payments_of(connection, form=world.form, number=1)


def states(world):
    return [(each.turn, each.amount, each.state, each.refunded) for each in rows(world)]


def plan_of(world):
    with world.database.connection() as connection:
        return payments.find_plan(connection, payment=world.row().id)


class TestAPlan:
    def test_charges_what_was_agreed_on_the_days_that_were_told(self, patron):
        patron.form = patron.publish(account=str(patron.account), plans=[MONTHLY])
        received = patron.order(pieces="2").json
        assert received["payment"]["plan"].startswith("€30.00 now, then €25.00 each month, 3 times, next on ")
        assert "The card is kept, and 25.00 EUR is charged every" in patron.page_of(received)
        patron.pay(received)
        patron.tell()
        assert plan_of(patron).state == "running"
        first_day = plan_of(patron).next_on
        patron.pass_days(31)
        assert states(patron) == [(0, 3000, "paid", 0), (1, 2500, "paid", 0)]
        assert rows(patron)[1].day == first_day
        patron.pass_days(200)
        assert [each[2] for each in states(patron)] == ["paid"] * 4
        assert sum(each.amount for each in rows(patron)) == 10_500
        assert (plan_of(patron).state, plan_of(patron).next_on) == ("ended", None)
        assert sorted(patron.stood()["events"][-4:]) == ["charge", "charge", "charge", "plan ended"]
        assert patron.moments().count("charge 1") == patron.moments().count("charge 3") == 1
        assert [each.receipt for each in rows(patron)] == [1, 2, 3, 4]
        assert differences(patron.way) == []

    def test_is_taken_up_once_however_often_it_is_told(self, patron):
        patron.begin("told twice")
        patron.pass_days(31)
        for _ in range(3):
            look(patron.way, patron.row().id)
        assert len(rows(patron)) == 2
        assert patron.moments().count("charge 1") == 1

    def test_that_nobody_is_told_of_is_found_by_the_comparison(self, patron):
        patron.begin()
        with bank_store.database() as connection:
            connection.execute("UPDATE shop SET hook = ''")
        patron.pass_days(31)
        assert len(rows(patron)) == 1
        assert differences(patron.way) == []
        assert len(rows(patron)) == 2

    def test_whose_day_has_come_is_asked_for_by_the_clock(self, patron):
        patron.begin()
        with bank_store.database() as connection:
            connection.execute("UPDATE shop SET hook = ''")
        patron.pass_days(31)
        patron.connection.execute("UPDATE plan SET next_on = current_date, looked_at = now() - interval '2 minutes'")
        patron.connection.commit()
        assert settle_open(patron.way) == 1
        assert len(rows(patron)) == 2

    def test_of_a_first_day_to_come_keeps_the_card_and_charges_nothing_before(self, patron):
        # The bank's days end with those of UTC, the form's two hours before.
        day = datetime.datetime.now(datetime.UTC).date() + datetime.timedelta(days=10)
        received = patron.begin(first_day=f"DATE({day.year}, {day.month}, {day.day})", fee="", times="2")
        assert received["payment"]["amount"] == ""
        assert received["payment"]["plan"].startswith("nothing now, then €25.00 each month, 2 times")
        assert patron.stood()["stage"] == "complete"
        assert states(patron) == [(0, 0, "paid", 0)]
        assert rows(patron)[0].receipt is None
        patron.pass_days(9)
        assert len(rows(patron)) == 1
        patron.pass_days(1)
        assert states(patron)[1] == (1, 2500, "paid", 0)

    def test_does_not_begin_where_its_first_payment_is_not_made(self, patron):
        patron.begin("declined")
        patron.pass_days(40)
        assert states(patron) == [(0, 3000, "due", 0)]
        assert plan_of(patron).state == "waiting"


class TestACharge:
    def test_that_was_declined_is_told_and_can_be_tried_again(self, patron):
        patron.begin("later fails")
        patron.pass_days(31)
        assert states(patron)[1] == (1, 2500, "failed", 0)
        assert (patron.stood()["stage"], patron.stood()["payment"]) == ("complete", "failed")
        assert patron.moments()[-1] == "charge failed 1"
        told = charge_again(patron.way, who=patron.mira, form=patron.form, number=1, turn=1)
        assert told == "Charged: it is paid now."
        assert patron.stood()["payment"] == "paid"
        assert patron.moments()[-1] == "charge 1"
        with pytest.raises(PlanRefusedError):
            charge_again(patron.way, who=patron.mira, form=patron.form, number=1, turn=1)
        with pytest.raises(NotFoundError):
            charge_again(patron.way, who=patron.mira, form=patron.form, number=1, turn=7)

    def test_that_is_declined_again_says_so(self, patron):
        patron.begin("later never")
        patron.pass_days(31)
        told = charge_again(patron.way, who=patron.mira, form=patron.form, number=1, turn=1)
        assert told == "It was declined again: The card was declined."
        patron.set_mode("away")
        with pytest.raises(PlanRefusedError, match="503"):
            charge_again(patron.way, who=patron.mira, form=patron.form, number=1, turn=1)

    def test_is_given_back_by_itself_even_after_the_plan_has_ended(self, patron):
        patron.begin(times="2")
        patron.pass_days(31)
        assert plan_of(patron).state == "ended"

        def give(amount, turn):
            refund(patron.way, who=patron.mira, form=patron.form, number=1, amount=Decimal(amount), turn=turn)

        with pytest.raises(RefundRefusedError, match=r"At most 25.00"):
            give("25.01", 1)
        give("10", 1)
        give("15", 1)
        assert states(patron)[1] == (1, 2500, "paid", 2500)
        assert patron.stood()["payment"] == "part refunded"
        assert [each for each in patron.moments() if "refunded" in each] == ["refunded 1.1000", "refunded 1.2500"]
        give("30", 0)
        assert patron.stood()["payment"] == "refunded"
        with pytest.raises(RefundRefusedError):
            give("0.01", 1)


class TestStopping:
    def test_charges_nothing_more_and_is_said_by_whom(self, patron):
        patron.begin()
        patron.pass_days(31)
        assert stop_plan(patron.way, who=patron.mira, form=patron.form, number=1) == "Stopped: nothing more is charged."
        patron.pass_days(400)
        assert len(rows(patron)) == 2
        assert patron.stood()["events"][-1] == "plan stopped"
        with pytest.raises(PlanRefusedError):
            stop_plan(patron.way, who=patron.mira, form=patron.form, number=1)

    def test_is_asked_for_until_the_bank_has_heard(self, patron):
        patron.begin()
        patron.set_mode("away")
        assert "until it does" in stop_plan(patron.way, who=patron.mira, form=patron.form, number=1)
        assert plan_of(patron).state == "stopping"
        patron.set_mode("well")
        look(patron.way, patron.row().id)  # the bank still says that it runs
        assert plan_of(patron).state == "stopping"
        patron.connection.execute("UPDATE plan SET looked_at = now() - interval '2 minutes'")
        patron.connection.commit()
        settle_open(patron.way)
        assert plan_of(patron).state == "stopped"

    def test_comes_before_the_form_is_deleted(self, patron):
        patron.begin()
        mira = Browser(patron.app)
        mira.sign_in("mira@example.org")
        reply = mira.delete(f"/api/forms/{patron.form}")
        assert (reply.status_code, reply.json["code"]) == (409, "plans_run")
        assert "1 plan still charges" in reply.json["message"]
        assert mira.post(f"/api/forms/{patron.form}/payments/1/stop").json["told"].startswith("Stopped")
        assert mira.delete(f"/api/forms/{patron.form}").status_code == 204

    def test_is_for_the_own_team_only(self, patron):
        patron.begin()
        stranger = make_person(patron.connection, email="zoe@example.org", team="tryouts")
        patron.connection.commit()
        with pytest.raises(NotFoundError):
            stop_plan(patron.way, who=stranger, form=patron.form, number=1)


@pytest.mark.parametrize(
    "rubbish",
    [
        {"plan": {"state": "odd", "next_on": None, "charges": []}},
        {"plan": {"state": "running", "next_on": "soon", "charges": []}},
        {"plan": {"state": "running", "next_on": None, "charges": [{"turn": 1}]}},
        {"plan": []},
    ],
)
def test_what_cannot_be_read_of_a_plan_is_no_news(patron, rubbish, monkeypatch):
    patron.begin()
    known = {"id": "x", "state": "paid", "amount": 3000, "refunded": 0, "currency": "EUR"}
    monkeypatch.setattr("codexa.services.payments.practice_bank.PracticeBank._call", lambda *_a, **_k: known | rubbish)
    with pytest.raises(ProviderAwayError):
        look(patron.way, patron.row().id)
    assert len(rows(patron)) == 1


def test_the_list_tells_each_charge_and_the_plan(patron):
    patron.begin("later fails")
    patron.pass_days(31)
    listed = payments_of(patron.database.connection, who=patron.mira, form=patron.form)
    assert [(each.turn, each.state, each.amount) for each in listed.payments] == [
        (1, "failed", "€25.00"),
        (0, "paid", "€30.00"),
    ]
    assert listed.payments[1].plan.startswith("€30.00 now, then €25.00 each month")
    mira = Browser(patron.app)
    mira.sign_in("mira@example.org")
    whole = mira.get(f"/api/forms/{patron.form}/payments/1").json
    assert [each["turn"] for each in whole["payments"]] == [0, 1]
    assert ([each["amount"] for each in whole["to_come"]], whole["more"]) == (["€25.00", "€25.00"], 0)
    assert [each["kind"] for each in whole["events"]] == ["payment asked", "paid", "charge failed"]
    told = mira.post(f"/api/forms/{patron.form}/payments/1/charges/1/again").json["told"]
    assert told == "Charged: it is paid now."
    assert mira.get("/api/payments?state=running").json["payments"][0]["plan_state"] == "running"
    assert "Visit,1,1," in mira.get("/api/payments.csv").text
    assert mira.get(f"/api/forms/{patron.form}/payments/2").status_code == 404


def test_an_answer_of_before_sets_no_plan_going_again(patron):
    patron.begin()
    bank = PracticeBank(patron.settings.practice_bank, "practice-secret-alderlight-4711")
    before = bank.find(patron.row().provider_id)
    stop_plan(patron.way, who=patron.mira, form=patron.form, number=1)
    settle(patron.way, patron.row(), before)
    assert (plan_of(patron).state, plan_of(patron).next_on) == ("stopped", None)


def test_nothing_follows_a_payment_that_expired(patron):
    patron.begin("declined")
    patron.set_back(due_until="now() - interval '1 minute'", changed_at="now() - interval '1 minute'")
    settle_open(patron.way)
    (listed,) = payments_of(patron.database.connection, who=patron.mira, form=patron.form).payments
    assert (listed.state, listed.plan_state) == ("expired", "stopped")
    whole = payment_in_full(patron.database.connection, who=patron.mira, form=patron.form, number=1)
    assert (whole.to_come, whole.more) == ([], 0)
