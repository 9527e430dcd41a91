"""Payments: asked for once, paid once, given back once, whatever the bank, its cards and the line do meanwhile."""

import csv
import io
import json
import threading
import time
from decimal import Decimal

import pytest
from conftest import Browser, make_person, save_draft, within
from web.bank import shop_document, world

from codexa.practice.bank import store as bank_store
from codexa.practice.bank.telling import signature
from codexa.services import desk, publishing
from codexa.services.encryption import encrypted
from codexa.services.errors import AccountRefusedError, NotAllowedError, NotProvenError, RefundRefusedError
from codexa.services.payments import accounts
from codexa.services.payments.practice_bank import PracticeBank
from codexa.services.payments.provider import ProviderState
from codexa.services.payments.reconciling import differences, settle_open
from codexa.services.payments.refunding import refund
from codexa.services.payments.settling import expire, look, settle
from codexa.services.roles import Right, require
from codexa.settings import Settings
from codexa.store import claims, forms, payments

__all__ = ["world"]  # the fixture


class TestAnOrder:
    def test_waits_for_its_money_and_is_complete_with_it(self, world):
        reply = world.order()
        assert reply.status_code == 201
        due = reply.json["payment"]
        assert (due["state"], due["amount"], due["practice"]) == ("due", "€25.00", False)
        assert world.stood()["stage"] == "waiting"
        assert world.moments() == ["handed in"]
        page, said = world.pay(reply.json)
        assert page.startswith(world.settings.practice_bank)
        assert "Paid: 25.00 EUR" in said
        world.tell()
        row = world.stood()
        assert (row["stage"], row["payment"]) == ("complete", "paid")
        assert row["events"] == ["handed in", "payment asked", "paid", "complete"]
        assert world.moments() == ["handed in", "paid", "complete"]
        seen = world.look(reply.json)
        assert (seen["payment"]["state"], seen["order"]["total"]) == ("paid", "€25.00")
        assert world.order().json["payment"]["state"] == "paid"  # sent again, it is the same order
        assert world.bank_has() == [("paid", 2500, 0)]
        found = world.connection.execute("SELECT content ->> 'subject' AS s FROM run ORDER BY id").fetchall()
        assert [each["s"] for each in found] == ["", "paid", "paid"]

    def test_of_nothing_is_complete_at_once(self, world):
        reply = world.order(pieces="0")
        assert (reply.status_code, reply.json["payment"]) == (201, None)
        assert world.stood()["stage"] == "complete"

    def test_can_be_paid_once_however_many_press_at_once(self, world):
        page, _ = world.pay(world.order().json, "declined")
        threads = [threading.Thread(target=world.type_card, args=(page,)) for _ in range(4)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        world.tell()
        settle_open(world.way)
        assert world.bank_has() == [("paid", 2500, 0)]
        assert world.stood()["events"].count("paid") == 1
        assert world.moments().count("paid") == 1

    @pytest.mark.parametrize(
        ("outcome", "stage", "payment"),
        [
            ("declined", "waiting", "failed"),
            ("not enough", "waiting", "failed"),
            ("asks the holder", "waiting", "due"),
            ("told twice", "complete", "paid"),
            ("told first", "complete", "paid"),
            ("not told", "waiting", "due"),
        ],
    )
    def test_stands_as_the_card_makes_it(self, world, outcome, stage, payment):
        received = world.order().json
        world.pay(received, outcome)
        world.tell()
        row = world.stood()
        assert (row["stage"], row["payment"]) == (stage, payment)
        assert row["events"].count("paid") == (stage == "complete")
        if outcome == "not told":
            world.set_back(changed_at="now() - interval '1 minute'")
            settle_open(world.way)
            assert world.stood()["stage"] == "complete"
        if outcome == "declined":
            assert world.look(received)["payment"]["reason"] == "The card was declined."
            world.pay(received)
            world.tell()
            assert world.moments() == ["handed in", "payment failed", "paid", "complete"]

    @pytest.mark.parametrize(
        ("typed", "words"),
        [
            ({"number": "4000 0000 0000 0003"}, "check digit is wrong"),
            ({"expires": "01/20"}, "has expired"),
            ({"number": "6000000000000007"}, "not accepted here"),
            ({"code": "x"}, "three digits"),
        ],
    )
    def test_takes_no_card_that_is_none(self, world, typed, words, monkeypatch):
        monkeypatch.setattr("web.bank.CARD", {"expires": "11/29", "code": "123", **typed})
        if "number" in typed:
            monkeypatch.setitem(__import__("web.bank", fromlist=["NUMBERS"]).NUMBERS, "approved", typed["number"])
        world.form = world.publish(account=str(world.account), cards=["Aster"])
        received = world.order().json
        assert words in world.pay(received)[1]
        assert world.bank_has() == [("open", 2500, 0)]

    @pytest.mark.parametrize("mode", ["away", "rubbish"])
    def test_is_asked_for_again_while_the_bank_is_away(self, world, mode):
        world.set_mode(mode)
        received = world.order().json
        assert world.look(received)["payment"]["away"] is True
        assert world.stood()["stage"] == "waiting"
        world.set_mode("well")
        world.pay(received)
        world.tell()
        assert world.stood()["stage"] == "complete"
        assert len(world.bank_has()) == 1

    def test_is_asked_for_again_where_the_bank_is_slow(self, world, monkeypatch):
        monkeypatch.setattr("codexa.practice.bank.api._SLOW_SECONDS", 0.6)
        monkeypatch.setattr("codexa.services.payments.practice_bank._SECONDS", 0.2)
        world.set_mode("slow")
        received = world.order().json
        assert world.look(received)["payment"]["away"] is True
        world.set_mode("well")
        monkeypatch.setattr("codexa.services.payments.practice_bank._SECONDS", 6)
        time.sleep(0.6)  # what it was asked it does all the same
        world.pay(received)
        assert world.bank_has() == [("paid", 2500, 0)]

    def test_waits_while_the_key_is_not_the_accounts_any_more(self, world):
        with bank_store.database() as connection:
            connection.execute("UPDATE shop SET secret_key = 'changed' WHERE id = 'alderlight'")
        received = world.order().json
        assert world.look(received)["payment"]["away"] is True
        assert world.stood()["stage"] == "waiting"
        with pytest.raises(AccountRefusedError, match="no shop with this secret key"):
            accounts.test_account(world.database.connection, world.settings, who=world.mira, account=world.account)
        with bank_store.database() as connection:
            connection.execute("UPDATE shop SET secret_key = 'practice-secret-alderlight-4711' WHERE id = 'alderlight'")
        world.pay(received)
        world.tell()
        assert world.stood()["stage"] == "complete"

    def test_costs_what_its_edition_says_however_the_price_changes(self, world):
        received = world.order().json
        with world.database.connection() as connection:
            draft = forms.find_form(connection, team=world.mira.team_id, form=world.form)
            lamp = draft.draft["pages"][0]["blocks"][-2]
            assert lamp["key"] == "lamp"
            lamp["price"] = "99"
            save_draft(connection, who=world.mira, form=world.form, revision=1, document=draft.draft)
        publishing.publish(world.database.connection, who=world.mira, form=world.form, revision=2)
        world.pay(received)
        world.tell()
        assert world.bank_has() == [("paid", 2500, 0)]
        # Who began before is on the first edition still, at its price; the next visitor is on the second.
        assert world.order(key="begun-before").json["payment"]["amount"] == "€25.00"
        answers = {"people": "1", "show": "o1", "mail": "ingrid@example.org", "lamp": "1"}
        address, headers = f"/api/public/{world.form}/2/responses", {"Idempotency-Key": "begun-after"}
        assert (
            world.visitor.post(address, json={"answers": answers}, headers=headers).json["payment"]["amount"]
            == "€99.00"
        )

    @pytest.mark.parametrize("pieces", ["-1", "1.5", "6", "1e9", "many", ["o1"], {"o1": "1"}])
    def test_of_a_quantity_that_cannot_be_is_refused_at_its_field(self, world, pieces):
        reply = world.order(pieces=pieces)
        assert (reply.status_code, list(reply.json["errors"])) == (422, ["lamp"])
        assert world.stood() is None

    def test_says_nothing_of_what_it_costs(self, world):
        """What a browser claims of amounts is no answer of the form's: it is read nowhere, or named."""

        def hand_in(**more):
            answers = {"people": "1", "show": "o1", "mail": "ingrid@example.org", "lamp": "2"}
            headers = {"Idempotency-Key": f"try {more}"}
            return world.visitor.post(
                f"/api/public/{world.form}/1/responses", json={"answers": answers | more}, headers=headers
            )

        assert hand_in(amount="0.01").json["code"] == "unknown_fields"
        assert hand_in(sum="0.01").json["payment"]["amount"] == "€25.00"

    def test_of_ten_thousand_lines_is_refused_before_it_is_worked_out(self, world):
        document = shop_document(account=str(world.account))
        cable = {"id": "cable", "type": "number", "key": "cable", "label": "Metres", "price": "2"}
        kind = {"id": "k1", "key": "cable_row", "label": "Cable", "blocks": [cable]}
        document["pages"][0]["blocks"].append({"id": "more", "type": "repeat", "key": "more", "kinds": [kind]})
        make = within(world.connection)
        form = desk.import_form(make, who=world.mira, document=document)
        publishing.publish(make, who=world.mira, form=form, revision=1)
        world.connection.commit()
        rows = [{"kind": "k1", "id": f"r{at}", "values": {"cable": "1"}} for at in range(10_000)]
        answers = {"people": "1", "show": "o1", "mail": "ingrid@example.org", "more": rows}
        reply = world.visitor.post(
            f"/api/public/{form}/1/responses", json={"answers": answers}, headers={"Idempotency-Key": "many-lines"}
        )
        assert reply.status_code == 422, reply.json
        assert "more" in reply.json["errors"]

    def test_that_was_not_paid_in_time_gives_back_what_it_took(self, world):
        received = world.order(pieces="5").json
        world.look(received)
        assert world.order(pieces="1", key="another-key").status_code == 422
        world.set_back(due_until="now() - interval '1 minute'", changed_at="now() - interval '1 minute'")
        settle_open(world.way)
        row = world.stood()
        assert (row["stage"], row["events"][-1]) == ("expired", "expired")
        assert world.look(received)["payment"]["state"] == "expired"
        assert world.bank_has() == [("cancelled", 6250, 0)]
        assert claims.taken(world.connection, form=world.form) == {}
        assert world.order(pieces="1", key="another-key").status_code == 201

    def test_that_was_paid_at_the_last_moment_is_complete(self, world):
        received = world.order().json
        world.pay(received, "not told")
        assert expire(world.way, world.row().id).state == "paid"
        assert world.stood()["stage"] == "complete"

    def test_that_was_paid_though_it_had_expired_is_sold(self, world):
        """As when the bank takes a payment back too late: the money counts, and so does the stock."""
        received = world.order(pieces="5").json
        world.pay(received, "not told")
        world.set_back(state="'expired'")
        claims.release(world.connection, form=world.form, number=1)
        world.connection.commit()
        look(world.way, world.row().id)
        assert world.stood()["stage"] == "complete"
        assert claims.taken(world.connection, form=world.form) == {"stock:lamp": 5}

    def test_that_expires_while_the_bank_is_asked_is_taken_back_there(self, world, monkeypatch):
        received = world.order().json
        ask = PracticeBank.ask

        def slowly(bank, wanted):
            said = ask(bank, wanted)
            expire(world.way, wanted.id)
            return said

        monkeypatch.setattr(PracticeBank, "ask", slowly)
        assert world.look(received)["payment"]["state"] == "expired"
        assert world.bank_has() == [("cancelled", 2500, 0)]

    def test_of_another_amount_than_was_asked_for_is_no_payment(self, world):
        received = world.order().json
        world.look(received)
        row = world.row()
        said = ProviderState(
            id=row.provider_id, state="paid", amount=1, currency="EUR", refunded=0, reason="", card="Aster 0002"
        )
        assert settle(world.way, row, said).state == "due"
        assert world.stood()["events"][-1] == "payment differs"

    def test_for_practice_is_a_try_that_takes_nothing_from_visitors(self, world):
        form = world.publish(practice=True, account="")
        reply = world.order(form=form)
        assert reply.json["payment"]["practice"] is True
        assert world.stood()["test"] is True
        assert claims.taken(world.connection, form=form) == {}
        world.pay(reply.json)
        world.tell()
        assert world.stood()["stage"] == "complete"
        mira = Browser(world.app)
        mira.sign_in("mira@example.org")
        exported = mira.get(f"/api/forms/{form}/responses.csv").text
        assert len(list(csv.reader(io.StringIO(exported)))) == 1
        asked_for = mira.get(f"/api/forms/{form}/responses.csv?tries=yes").text
        assert [row[3] for row in csv.reader(io.StringIO(asked_for))] == ["Practice", "yes"]


class TestEvents:
    def tell(self, world, body, *, account=None, secret=None, moment=None):
        row = payments.find_account(world.connection, account=world.account)
        world.connection.commit()
        moment = moment or str(int(time.time()))
        secret = secret or accounts.key_of(row.hook_secret, world.settings)
        content = json.dumps(body).encode()
        headers = {"Bank-Time": moment, "Bank-Signature": signature(secret, moment, content)}
        return world.visitor.post(f"/api/told/{account or world.account}", data=content, headers=headers)

    def test_are_heard_from_the_bank_alone_and_only_in_time(self, world):
        assert world.visitor.post(f"/api/told/{world.account}", data=b"{}").status_code == 403  # nothing asked for yet
        received = world.order().json
        page, _ = world.pay(received, "not told")
        body = {"kind": "payment.paid", "payment": {"id": page.rsplit("/", 1)[1]}}
        assert self.tell(world, body, secret="a guess").status_code == 403
        # Of another team's account nothing is known here, whoever signed it.
        zoe = make_person(world.connection, team="tryouts", email="zoe@example.org")
        known = {"provider": "practice bank", "name": "Other", "public_key": "p", "last_four": "0815", "cards": []}
        secret = encrypted("practice-secret-tryouts-0815", world.settings)
        other = payments.insert_account(world.connection, team=zoe.team_id, known=known | {"secret": secret})
        payments.set_hook_secret(world.connection, account=other, hook_secret=encrypted("theirs", world.settings))
        world.connection.commit()
        assert self.tell(world, body, account=other, secret="theirs").status_code == 204
        assert self.tell(world, body, moment=str(int(time.time()) - 3_600)).status_code == 403
        assert self.tell(world, ["no event"]).status_code == 403
        assert self.tell(world, body, account="0" * 8 + "-0000-0000-0000-000000000000").status_code == 404
        assert world.stood()["stage"] == "waiting"
        assert self.tell(world, {"payment": {"id": "somebody else's"}}).status_code == 204
        world.set_mode("away")
        assert self.tell(world, body).status_code == 503  # so that it is told again
        world.set_mode("well")
        for _ in range(2):
            assert self.tell(world, body).status_code == 204
        assert world.stood()["events"].count("paid") == 1

    def test_that_claim_what_the_bank_does_not_say_change_nothing(self, world):
        received = world.order().json
        page = world.look(received)["payment"]["page"]
        body = {"kind": "payment.paid", "payment": {"id": page.rsplit("/", 1)[1], "state": "paid", "amount": 1}}
        assert self.tell(world, body).status_code == 204
        assert world.stood()["stage"] == "waiting"


class TestRefunds:
    @pytest.fixture
    def paid(self, world):
        world.pay(world.order().json)
        world.tell()
        return lambda amount: refund(world.way, who=world.mira, form=world.form, number=1, amount=Decimal(amount))

    def test_give_back_a_part_then_the_rest_and_never_more(self, world, paid):
        assert paid(10) == "Given back."
        assert world.stood()["payment"] == "part refunded"
        with pytest.raises(RefundRefusedError, match=r"At most 15\.00 EUR"):
            paid(16)
        paid(15)
        assert (world.stood()["payment"], world.bank_has()) == ("refunded", [("paid", 2500, 2500)])
        for amount in (1, 0, -1):
            with pytest.raises(RefundRefusedError):
                paid(amount)
        world.tell()
        assert world.stood()["events"].count("refunded") == 2
        assert differences(world.way) == []

    def test_asked_for_by_several_at_once_give_back_what_there_is(self, world, paid):
        refused = []

        def ask():
            try:
                paid(25)
            except RefundRefusedError as error:
                refused.append(error)

        threads = [threading.Thread(target=ask) for _ in range(4)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        assert (len(refused), world.bank_has()) == (3, [("paid", 2500, 2500)])

    def test_are_asked_for_again_till_the_bank_answers_and_given_once(self, world, paid):
        world.set_mode("away")
        assert "asked again" in paid(5)
        with pytest.raises(RefundRefusedError):
            paid(25)  # five of it are on their way
        world.set_mode("well")
        world.connection.execute("UPDATE refund SET created_at = now() - interval '2 minutes'")
        world.connection.commit()
        for _ in range(2):
            settle_open(world.way)
        assert world.bank_has() == [("paid", 2500, 500)]
        assert world.stood()["payment"] == "part refunded"

    def test_are_a_right_of_its_own(self, world, paid):
        for role in ("editor", "reviewer", "viewer"):
            with pytest.raises(NotAllowedError):
                require(make_person(world.connection, role=role), Right.REFUND)


class TestAccounts:
    def test_are_kept_encrypted_shown_by_four_characters_and_tested(self, world):
        mira = Browser(world.app)
        mira.sign_in("mira@example.org")
        assert mira.post("/api/accounts", json={"secret": "practice-secret-nobody"}).status_code == 422
        added = mira.post("/api/accounts", json={"secret": "practice-secret-tryouts-0815"})
        assert (added.json["name"], added.json["last_four"]) == ("Tryouts", "0815")
        listed = mira.get("/api/accounts").text
        rows = world.connection.execute("SELECT secret::text, hook_secret::text FROM account").fetchall()
        world.connection.commit()
        assert "tryouts-0815" not in listed + str(rows)
        assert "key is that of Tryouts" in mira.post(f"/api/accounts/{added.json['id']}/test").json["told"]
        assert mira.delete(f"/api/accounts/{added.json['id']}").status_code == 204
        world.order()
        assert mira.delete(f"/api/accounts/{world.account}").json["code"] == "account_refused"

    def test_can_be_read_with_an_older_key_of_the_settings_and_with_no_other(self, world):
        old, both, other = (Settings(account_keys=keys) for keys in ("one", "two, one", "two"))
        secret = encrypted("a secret", old)
        assert accounts.key_of(secret, both) == "a secret"
        with pytest.raises(AccountRefusedError):
            accounts.key_of(secret, other)

    def test_of_another_team_hold_publishing_back(self, world):
        stranger = make_person(world.connection, team="harbour")
        form = desk.import_form(
            within(world.connection), who=stranger, document=shop_document(account=str(world.account))
        )
        with pytest.raises(NotProvenError, match="not the team's"):
            publishing.publish(within(world.connection), who=stranger, form=form, revision=1)


def test_each_difference_between_the_bank_and_us_is_named(world):
    world.pay(world.order().json)
    world.tell()
    assert differences(world.way) == []
    world.set_back(refunded=100)
    with bank_store.database() as connection:
        wanted = {"amount": 300, "currency": "EUR", "reference": "x", "payer": {}, "cards": []}
        alone = bank_store.insert_payment(connection, "alderlight", wanted)
        bank_store.change_payment(connection, alone["id"], state="paid")
    first, second = sorted(differences(world.way))
    assert "gave 0 back, we know of 100" in first
    assert "has 300 EUR" in second
    world.set_mode("away")
    assert "could not be asked" in differences(world.way)[0]


def test_what_was_paid_is_listed_found_and_exported(world):
    for at, pieces in enumerate(("1", "2")):
        received = world.order(pieces=pieces, key=f"key-number-{at}").json
        world.look(received)
    world.pay(received)
    world.tell()
    mira = Browser(world.app)
    mira.sign_in("mira@example.org")
    address = f"/api/forms/{world.form}/payments"
    listed = mira.get(address).json
    assert [(each["number"], each["state"], each["amount"]) for each in listed["payments"]] == [
        (2, "paid", "€25.00"),
        (1, "due", "€12.50"),
    ]
    assert [(each["paid"], each["due"]) for each in listed["sums"]] == [("€25.00", "€12.50")]
    assert [each["number"] for each in mira.get(f"{address}?state=due").json["payments"]] == [1]
    assert len(mira.get(f"{address}?find=ingrid@").json["payments"]) == 2
    assert mira.get(f"{address}?find=nobody").json["payments"] == []
    assert mira.get(f"{address}?state=odd").status_code == 400
    rows = list(csv.reader(io.StringIO(mira.get(f"{address}.csv").text.removeprefix("\ufeff"))))
    assert rows[1][:9] == ["Visit", "2", "0", "", "paid", "25", "0", "EUR", "1"]
