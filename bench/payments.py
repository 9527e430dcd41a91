"""Orders paid by plans while web, worker, bank, mailbox, calendar and database are killed.

None is lost, none charged twice. Days pass at the bank all the while, so that each order is charged again and again;
and nights are booked and decided about (see `nights`).
"""

import http.client
import json
import random
import tempfile
import threading
import time
import urllib.error
import urllib.parse
import urllib.request
import uuid
from collections import Counter
from collections.abc import Iterator
from contextlib import contextmanager
from dataclasses import dataclass, field, replace
from pathlib import Path
from typing import Any
from uuid import UUID

import psycopg

from bench import nights
from bench.helpers import Helpers, kill_in_turn
from bench.measuring import report
from bench.running import EMAIL, Running, running_with
from codexa.core.form.form import Form
from codexa.practice.bank import store as bank
from codexa.practice.calendar import store as calendar
from codexa.practice.mailbox import store as mailbox
from codexa.services import desk, publishing
from codexa.services.editions import Editions
from codexa.services.encryption import encrypted
from codexa.services.payments.accounts import PRACTICE_BANK
from codexa.services.payments.reconciling import differences, settle_open
from codexa.services.payments.settling import Way
from codexa.settings import read_settings
from codexa.store import claims, payments, people
from codexa.store.database import Database
from codexa.store.sessions import SignedIn
from launch.machine import free_port

_KILLS, _SHORT_KILLS, _VISITORS = 200, 10, 4
_LEAST, _LEAST_SHORT = 100, 3  # orders that come through; fewer would prove nothing
_LONGEST = 300  # seconds that may pass till all is settled
_KEY = "practice-secret-alderlight-4711"
_CARD = urllib.parse.urlencode({"number": "4000000000000002", "expires": "11/39", "code": "123"}).encode()
_PAYER = "ingrid@example.org"
_MAILS = ("paid", "complete", "charge")
_CHARGES = 2  # later ones, a week apart
_A_WEEK_EACH = 5.0  # seconds
_SHOP: dict[str, Any] = {
    "name": "Lamps",
    "title": "Lamps",
    "pages": [
        {
            "id": "p",
            "title": "Lamps",
            "blocks": [
                {"id": "lamp", "type": "product", "key": "lamp", "label": "Lamp", "price": "9.50", "stock": 1_000_000},
                {"id": "mail", "type": "email", "key": "mail", "label": "E-mail"},
                {"id": "sum", "type": "order_summary", "key": "sum", "label": "Your order"},
            ],
        }
    ],
    "follow_ups": [
        {"id": each, "kind": "email", "on": each, "recipients": [{"field": "mail"}], "subject": "{payment.amount}"}
        for each in _MAILS
    ],
}


@dataclass
class _Told:
    """What visitors were told: a response's number by key; which of them were told that it is paid."""

    numbers: dict[str, int] = field(default_factory=dict)
    paid: set[int] = field(default_factory=set)
    over: threading.Event = field(default_factory=threading.Event)


def run() -> bool:
    """Measure and report; returns whether every target is met."""
    return _run(_KILLS, _LEAST)


def short_run() -> bool:
    """Kill a few times only."""
    return _run(_SHORT_KILLS, _LEAST_SHORT)


def _run(kills: int, least: int) -> bool:
    with _everything() as (running, helpers, way, booked):
        told, of_nights = _Told(), nights.Told()
        visitors = [threading.Thread(target=_visit, args=(running, told, at)) for at in range(_VISITORS)]
        visitors.append(threading.Thread(target=_let_weeks_pass, args=(told,)))
        visitors += [threading.Thread(target=nights.book, args=(running, booked, of_nights, at)) for at in range(2)]
        visitors += [threading.Thread(target=nights.decide, args=(running, of_nights, at)) for at in range(2)]
        for visitor in visitors:
            visitor.start()
        try:
            killed = kill_in_turn(running, helpers, ("bank", "worker", "mailbox", "calendar"), kills, seed=17)
        finally:
            told.over.set()
            of_nights.over.set()
            for visitor in visitors:
                visitor.join()
        settled = _settle(running, helpers, way)
        report("payments_killed", sum(killed.values()), f"processes killed: {dict(killed)}", None)
        paid = _compare(running, way, told, settled=settled, least=least)
        return nights.compare(running, booked, of_nights, least) and paid


@contextmanager
def _everything() -> Iterator[tuple[Running, Helpers, Way, UUID]]:
    smtp, port, calendar_port = str(free_port()), str(free_port()), str(free_port())
    with tempfile.TemporaryDirectory(prefix="codexa-payments-") as folder:
        known = {"CODEXA_SMTP_PORT": smtp, "CODEXA_MAILS_PER_HOUR": "1000000"}
        known["CODEXA_PRACTICE_BANK"] = f"http://127.0.0.1:{port}"
        # The form that it begins with asks for nothing; the shop is published once there is an account.
        with running_with(Form.model_validate(_SHOP | {"follow_ups": []}), workers=2, settings=known) as running:
            bank.FILE, mailbox.FOLDER = Path(folder) / "bank" / "bank.sqlite", Path(folder) / "mail"
            places = {"PRACTICE_SMTP_PORT": smtp, "PRACTICE_MAILBOX": str(mailbox.FOLDER)}
            places["PRACTICE_BANK"] = str(bank.FILE.parent)
            calendar.FOLDER = Path(folder) / "calendar"
            places["PRACTICE_CALENDAR"] = str(calendar.FOLDER)
            serving = ("gunicorn", "codexa.practice.bank.server:application()", "--bind", f"127.0.0.1:{port}")
            dating = ("gunicorn", "codexa.practice.calendar.server:application()")
            quietly = ("--worker-class", "gthread", "--threads", "8", "--no-control-socket", "--log-level", "critical")
            modules = {
                "bank": (*serving, *quietly),
                "calendar": (*dating, "--bind", f"127.0.0.1:{calendar_port}", *quietly),
                "mailbox": ("codexa.practice.mailbox.smtp",),
                "worker": ("codexa.jobs",),
            }
            helpers = Helpers({**running.environment, **places}, modules)
            for name in modules:
                helpers.start(name)
            database = Database(running.database, 4)
            settings = read_settings(running.environment)
            way = Way(connect=database.connection, editions=Editions(database.connection), settings=settings)
            try:
                booked = nights.open_nights(way, _somebody(way), f"http://127.0.0.1:{calendar_port}")
                yield replace(running, form=_open_shop(way)), helpers, way, booked
            finally:
                helpers.kill_all()
                database.close()


def _somebody(way: Way) -> SignedIn:
    with way.connect() as connection:
        person = people.find_person_by_email(connection, email=EMAIL)
        team = people.find_team(connection, slug="bench")
        assert person is not None
        assert team is not None
        return people.as_signed_in(connection, person=person.id, team=team)


def _open_shop(way: Way) -> UUID:
    who = _somebody(way)
    with way.connect() as connection:
        secret = encrypted(_KEY, way.settings)
        known = {"provider": PRACTICE_BANK, "name": "Bench", "public_key": "p", "last_four": _KEY[-4:], "cards": []}
        account = payments.insert_account(connection, team=who.team_id, known=known | {"secret": secret})
    payment = {"on": True, "practice": False, "account": str(account), "payer_email": "mail"}
    payment["plans"] = [{"unit": "week", "times": str(1 + _CHARGES)}]
    form = desk.import_form(way.connect, who=who, document=_SHOP | {"payment": payment})
    publishing.publish(way.connect, who=who, form=form, revision=1)
    return form


def _visit(running: Running, told: _Told, at: int) -> None:
    """Order and pay, one order after the other; some leave before they pay, some once the card was typed."""
    chance = random.Random(at)
    while not told.over.is_set():
        key = uuid.uuid4().hex
        received = _ask(
            f"http://127.0.0.1:{running.port}/api/public/{running.form}/1/responses",
            json.dumps({"answers": {"lamp": "1", "mail": _PAYER}}).encode(),
            {"Content-Type": "application/json", "Idempotency-Key": key},
        )
        told.numbers[key] = received["number"]
        if chance.random() < 0.2:
            continue
        paying = f"http://127.0.0.1:{running.port}/api/public{received['page']}/payment"
        page = _until(lambda paying=paying: _look(paying)["page"])
        _ask(page, _CARD, {"Content-Type": "application/x-www-form-urlencoded"}, is_json=False)
        if chance.random() < 0.5 and _until(lambda paying=paying: _look(paying)["state"] == "paid"):
            told.paid.add(received["number"])


def _let_weeks_pass(told: _Told) -> None:
    while not told.over.wait(_A_WEEK_EACH):
        _pass_days(7)


def _pass_days(days: int) -> None:
    with bank.database() as connection:
        bank.move_on(connection, days)


def _look(paying: str) -> dict[str, Any]:
    found: dict[str, Any] = _ask(paying, b"{}", {"Content-Type": "application/json"})["payment"]
    return found


def _until(ask: Any) -> Any:
    for _ in range(400):
        if found := ask():
            return found
        time.sleep(0.05)
    raise RuntimeError("a visitor has waited in vain")


def _ask(address: str, body: bytes, headers: dict[str, str], *, is_json: bool = True) -> dict[str, Any]:
    """Post until there is an answer, as a browser does that tries again."""
    for _ in range(600):
        try:
            with urllib.request.urlopen(urllib.request.Request(address, body, headers), timeout=10) as reply:  # noqa: S310
                said = reply.read()
                return dict(json.loads(said)) if is_json else {}
        except urllib.error.HTTPError as error:
            if error.code < 500:
                raise
            time.sleep(0.05)
        except (OSError, ValueError, http.client.HTTPException):
            time.sleep(0.05)  # what was to answer was killed, or another is not there yet
    raise RuntimeError(f"{address} does not answer")


def _settle(running: Running, helpers: Helpers, way: Way) -> bool:
    """Wait until nothing is due and nothing waits; without the pauses before further looks and tries."""
    ends = time.monotonic() + _LONGEST
    helpers.revive()
    _pass_days(7 * _CHARGES)
    while time.monotonic() < ends:
        helpers.revive()
        with psycopg.connect(running.database) as connection:
            connection.execute(
                "UPDATE payment SET due_until = now() - interval '1 second',"
                " changed_at = now() - interval '1 minute' WHERE state = 'due'"
            )
            connection.execute("UPDATE plan SET looked_at = now() - interval '2 days'")
            connection.execute(
                "UPDATE procrastinate_jobs SET scheduled_at = NULL WHERE status = 'todo' AND scheduled_at > now()"
                " AND task_name IN ('carry_out', 'run_errand')"
            )
        settle_open(way)
        with psycopg.connect(running.database) as connection:
            row = connection.execute(
                "SELECT (SELECT count(*) FROM payment WHERE state = 'due'), count(*),"
                " (SELECT count(*) FROM plan WHERE state = 'running') FROM run WHERE state <> 'done'"
            ).fetchone()
        if row == (0, 0, 0):
            return True
        time.sleep(1)
    return False


def _compare(running: Running, way: Way, told: _Told, *, settled: bool, least: int) -> bool:
    with psycopg.connect(running.database) as connection:
        known = (running.form,)
        rows = connection.execute("SELECT idempotency_key, number, stage FROM response WHERE form_id = %s", known)
        stored = {key: (number, stage) for key, number, stage in rows.fetchall()}
        own = connection.execute("SELECT number, state, receipt FROM payment WHERE form_id = %s", known).fetchall()
    with bank.database() as connection_to_bank:
        charged = Counter(
            int(each["reference"].rsplit(".", 1)[1])
            for each in bank.payments(connection_to_bank, most=1_000_000)
            if each["state"] == "paid"
        )
    stages = dict(stored.values())
    complete = {number for number, stage in stages.items() if stage == "complete"}
    with way.connect() as database:
        taken = claims.taken(database, form=running.form).get("stock:lamp", 0)
    receipts = [each for each in mailbox.all_mail() if each.recipients == [_PAYER]]
    report("payments_orders", len(stored), "orders", None)
    report("payments_paid", len(complete), "paid and complete", None)
    numbered = sorted(receipt for _, _, receipt in own if receipt is not None)
    mails = len(complete) * (len(_MAILS) - 1 + _CHARGES)
    checks = {
        "payments_unsettled": (0 if settled else 1, "not settled in time"),
        "payments_lost": (sum(stored.get(key, (0,))[0] != number for key, number in told.numbers.items()), "lost"),
        "payments_twice": (sum(count > 1 + _CHARGES for count in charged.values()), "charged too often"),
        "payments_seldom": (sum(count < 1 + _CHARGES for count in charged.values()), "charged too seldom"),
        "payments_unfinished": (len(charged.keys() - complete), "charged and not complete"),
        "payments_unpaid": (len(complete - charged.keys()), "complete and not charged"),
        "payments_untrue": (len(told.paid - complete), "told as paid and not complete"),
        "payments_odd": (
            sum((state == "paid") != (number in complete) for number, state, _ in own),
            "not as their order",
        ),
        "payments_receipts": (
            int(numbered != list(range(1, len(complete) * (1 + _CHARGES) + 1))),
            "rows of receipts with a gap or a number twice",
        ),
        "payments_stock": (abs(taken - len(complete)), "pieces of stock that do not add up"),
        "payments_mails": (abs(len(receipts) - mails), "mails missing or extra"),
        "payments_differences": (len(differences(way)), "differences with the bank"),
    }
    met = [report(name, value, unit, 0, at_least=False) for name, (value, unit) in checks.items()]
    return all(met) and report("payments_any", len(complete), "orders that came through", least)
