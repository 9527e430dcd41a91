"""The practice bank and Codexa, each at an address of its own in this process, and a form that asks for money."""

import threading
import urllib.parse
import urllib.request
from contextlib import contextmanager
from types import SimpleNamespace

import psycopg
import pytest
from conftest import Browser, make_person, visit_document, within
from psycopg.rows import dict_row
from werkzeug.serving import make_server

from codexa.practice.bank import cards, telling
from codexa.practice.bank import plans as bank_plans
from codexa.practice.bank import server as bank_server
from codexa.practice.bank import store as bank_store
from codexa.services import desk, publishing
from codexa.services.editions import Editions
from codexa.services.encryption import encrypted
from codexa.services.payments.settling import Way
from codexa.settings import Settings
from codexa.store import payments
from codexa.store.database import Database
from codexa.web.app import create_app

CARD = {"number": "4000 0000 0000 0002", "expires": "11/29", "code": "123"}
NUMBERS = {outcome: number for number, outcome in reversed(cards.NUMBERS.items())}


@contextmanager
def served(make):
    """Serve an application at a free address, which `make` is given."""
    box = []
    server = make_server("127.0.0.1", 0, lambda *call: box[0](*call), threaded=True)  # noqa: PLW0108 - what answers is made once the address is known
    address = f"http://127.0.0.1:{server.server_port}"
    box.append(make(address))
    thread = threading.Thread(target=server.serve_forever, daemon=True)
    thread.start()
    yield SimpleNamespace(address=address, app=box[0])
    server.shutdown()
    thread.join(10)
    server.server_close()


def shop_document(**payment):
    document = visit_document()
    lamp = {"id": "lamp", "type": "product", "key": "lamp", "label": "Lamp", "price": "12.50", "stock": 5}
    document["pages"][0]["blocks"] += [
        lamp,
        {"id": "sum", "type": "order_summary", "key": "sum", "label": "Your order"},
    ]
    document["payment"] = {"on": True, "practice": False, "payer_email": "mail", **payment}
    mail = {"kind": "email", "recipients": [{"address": "shop@example.org"}], "subject": "{payment.status}"}
    moments = ("handed in", "paid", "complete", "payment failed", "refunded")
    if document["payment"].get("plans"):
        moments += ("charge", "charge failed")
    document["follow_ups"] = [mail | {"id": f"u{at}", "name": each, "on": each} for at, each in enumerate(moments)]
    return document


class World:
    """A shop that asks for money, its visitors, and the bank."""

    def __init__(self, connection, settings, app):
        self.connection, self.settings, self.app = connection, settings, app
        self.database = Database(settings.database, 6)
        self.way = Way(connect=self.database.connection, editions=Editions(self.database.connection), settings=settings)
        self.mira = make_person(connection, email="mira@example.org")
        known = {
            "provider": "practice bank",
            "name": "Shop",
            "public_key": "p",
            "last_four": "4711",
            "cards": ["Aster"],
        }
        secret = encrypted("practice-secret-alderlight-4711", settings)
        self.account = payments.insert_account(connection, team=self.mira.team_id, known=known | {"secret": secret})
        self.visitor = Browser(app)
        self.form = self.publish(account=str(self.account))

    def publish(self, **payment):
        make = within(self.connection)
        form = desk.import_form(make, who=self.mira, document=shop_document(**payment))
        publishing.publish(make, who=self.mira, form=form, revision=1)
        self.connection.commit()
        return form

    def order(self, pieces="2", key="a-key-of-its-own", form=None):
        """Hand an order in, and return the reply."""
        answers = {"people": "1", "show": "o1", "mail": "ingrid@example.org", "lamp": pieces}
        address = f"/api/public/{form or self.form}/1/responses"
        return self.visitor.post(address, json={"answers": answers}, headers={"Idempotency-Key": key})

    def look(self, received):
        """Look how the payment of an order stands, as its page does."""
        reply = self.visitor.post(f"/api/public{received['page']}/payment", json={})
        assert reply.status_code == 200, reply.json
        return reply.json

    def pay(self, received, outcome="approved"):
        """Have the bank asked, and type a card there."""
        page = self.look(received)["payment"]["page"]
        return page, self.type_card(page, outcome)

    def page_of(self, received):
        """Read the bank's page for a payment."""
        with urllib.request.urlopen(self.look(received)["payment"]["page"]) as reply:  # our own loopback address
            return reply.read().decode()

    def type_card(self, page, outcome="approved"):
        """Type a card on the bank's page, and return what is said then."""
        typed = urllib.parse.urlencode(CARD | {"number": NUMBERS[outcome]}).encode()
        with urllib.request.urlopen(page, typed) as reply:  # our own loopback address
            return reply.read().decode()

    def stood(self, number=1):
        """The stage of a response, its payment, and what happened to it."""
        row = self.connection.execute(
            "SELECT stage, payment, test, (SELECT array_agg(kind || '' ORDER BY id) FROM event"
            " WHERE event.number = response.number AND event.form_id = response.form_id) AS events"
            " FROM response WHERE number = %s ORDER BY received_at DESC LIMIT 1",
            (number,),
        ).fetchone()
        self.connection.commit()
        return row

    def moments(self):
        """The moments whose follow-ups were set off, in order."""
        rows = self.connection.execute("SELECT moment FROM run ORDER BY id").fetchall()
        self.connection.commit()
        return [row["moment"] for row in rows]

    def row(self, number=1):
        with self.database.connection() as connection:
            return payments.find_payment(connection, form=self.form, number=number)

    def set_back(self, **changes):
        """Change a payment as time would."""
        for name, value in changes.items():
            self.connection.execute(f"UPDATE payment SET {name} = {value}")  # the test's own words
        self.connection.commit()

    def bank_has(self):
        """What the bank knows of payments: state, amount and what was given back."""
        with bank_store.database() as connection:
            return [(each["state"], each["amount"], each["refunded"]) for each in bank_store.payments(connection)]

    def set_mode(self, mode):
        with bank_store.database() as connection:
            bank_store.set_mode(connection, mode)

    def pass_days(self, days):
        """Have days pass at the bank, which charges what falls due and tells the shop."""
        with bank_store.database() as connection:
            bank_store.move_on(connection, days)
            bank_plans.charge_due(connection)
        self.tell()

    def tell(self):
        """Have the bank tell the shop what it knows."""
        telling.tell_due()


@pytest.fixture
def world(database, tmp_path, monkeypatch):
    monkeypatch.setattr(bank_store, "FILE", tmp_path / "bank" / "bank.sqlite")
    rates = {"public_rate": "100000 per minute", "team_rate": "100000 per minute"}
    with served(lambda _address: bank_server.build()) as bank:
        known = {"database": database, "pool_size": "6", "files": str(tmp_path), **rates}
        made = []

        def make(address):
            made.append(Settings(public_address=address, practice_bank=bank.address, hold_suspected="no", **known))
            return create_app(made[0])

        with served(make) as codexa, psycopg.connect(database, row_factory=dict_row) as connection:
            world = World(connection, made[0], codexa.app)
            yield world
            world.database.close()
            codexa.app.extensions["codexa"].close()
