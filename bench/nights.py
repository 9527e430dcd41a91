"""Nights that are booked and decided about while the kills of `payments` go on.

None is taken twice, nothing is lost, and each mail, calendar entry and task comes once.
"""

import http.client
import json
import random
import threading
import time
import urllib.error
import urllib.request
import uuid
from dataclasses import dataclass, field
from datetime import UTC, datetime, timedelta
from typing import Any
from uuid import UUID

import psycopg
from icalendar import Calendar

from bench.client import Client
from bench.measuring import report
from bench.running import Running
from codexa.practice.calendar import store as calendar
from codexa.practice.mailbox import store as mailbox
from codexa.services import desk, publishing
from codexa.services.encryption import encrypted
from codexa.services.follow_ups.mailing import message_id
from codexa.services.payments.settling import Way
from codexa.settings import Settings
from codexa.store import calendars
from codexa.store.sessions import SignedIn

_PLACES, _SLOTS = 2, 144
_DAY = (datetime.now(UTC).date() + timedelta(days=20)).isoformat()
_PAUSE = 0.1  # seconds between two bookings of one visitor
_DENIED = 0.3  # of the decisions
_GUEST = "io@example.org"
_SERIES = {
    "id": "s1",
    "weekdays": [0, 1, 2, 3, 4, 5, 6],
    "first": _DAY,
    "last": _DAY,
    "begins": "00:00",
    "ends": "00:00",
    "minutes": 10,
    "places": _PLACES,
}


@dataclass
class Told:
    """What visitors and who decides were told: a response's number by key, and a verdict by number."""

    numbers: dict[str, int] = field(default_factory=dict)
    verdicts: dict[int, str] = field(default_factory=dict)
    over: threading.Event = field(default_factory=threading.Event)


def open_nights(way: Way, who: SignedIn, calendar_address: str) -> UUID:
    """Publish a form of nights that somebody decides about, with what follows from that; return its id."""
    with way.connect() as connection:
        there = calendars.insert_calendar(
            connection,
            team=who.team_id,
            name="Dome",
            address=f"{calendar_address}/caldav/{calendar.USER}/summit/",
            user_name=calendar.USER,
            password=encrypted(calendar.PASSWORD, way.settings),
        )
    keeper = {"person": str(who.person_id)}
    to_guest = {"kind": "email", "recipients": [{"address": _GUEST}], "subject": "Your night"}
    block = {"id": "visit", "type": "slot", "key": "visit", "label": "When", "series": [_SERIES]}
    document: dict[str, Any] = {
        "name": "Nights",
        "title": "Nights",
        "time_zone": "UTC",
        "pages": [{"id": "p", "title": "Nights", "blocks": [block]}],
        "follow_ups": [
            {"id": "asks", "kind": "approval", "steps": [{"id": "s", "deciders": [keeper]}]},
            {"id": "yes", "on": "approved", **to_guest},
            {"id": "no", "on": "denied", **to_guest},
            {"id": "heat", "on": "approved", "kind": "task", "words": "Heat the dome", "who": keeper},
            {
                "id": "entry",
                "on": "approved",
                "kind": "calendar",
                "calendars": [{"calendar": str(there)}],
                "entry": "visit",
                "entry_title": "A night",
            },
        ],
    }
    form = desk.import_form(way.connect, who=who, document=document)
    publishing.publish(way.connect, who=who, form=form, revision=1)
    return form


def book(running: Running, form: UUID, told: Told, seed: int) -> None:
    """Book one night after the other; where one is gone, another."""
    chance, begin = random.Random(seed), datetime.fromisoformat(f"{_DAY}T00:00")
    while not told.over.wait(_PAUSE):
        code = (begin + timedelta(minutes=10 * chance.randrange(_SLOTS))).isoformat(timespec="minutes")
        key = uuid.uuid4().hex
        number = _until_told(running, form, key, code)
        if number is not None:
            told.numbers[key] = number


def _until_told(running: Running, form: UUID, key: str, code: str) -> int | None:
    """Send until there is an answer; None where the night is gone."""
    body = json.dumps({"answers": {"visit": code}}).encode()
    headers = {"Content-Type": "application/json", "Idempotency-Key": key}
    address = f"http://127.0.0.1:{running.port}/api/public/{form}/1/responses"
    for _ in range(600):
        try:
            with urllib.request.urlopen(urllib.request.Request(address, body, headers), timeout=10) as reply:
                return int(json.load(reply)["number"])
        except urllib.error.HTTPError as error:
            if error.code == 422:
                return None
            if error.code < 500:
                raise
            time.sleep(0.05)
        except (OSError, ValueError, http.client.HTTPException):
            time.sleep(0.05)  # what was to answer was killed, or another is not there yet
    raise RuntimeError("a visitor has waited in vain")


def decide(running: Running, told: Told, seed: int) -> None:
    """Approve or deny whatever waits, as two people at once do who look at the same list."""
    chance = random.Random(seed)
    keeper: Client | None = None
    while not told.over.wait(_PAUSE):
        try:
            keeper = keeper or Client(running.port)
            for each in keeper.ask("GET", "/api/decisions")["waiting"]:
                verdict = "deny" if chance.random() < _DENIED else "approve"
                keeper.ask("POST", f"/api/decisions/{each['id']}", {"step": 0, "verdict": verdict})
                told.verdicts[each["number"]] = verdict
        except (RuntimeError, OSError, ValueError, http.client.HTTPException):
            time.sleep(0.05)  # somebody else has decided it, or what was to answer was killed


def compare(running: Running, form: UUID, told: Told, least: int) -> bool:
    """Compare what stands in our database, the mailbox and the calendar; report, and say whether all is as told."""
    known = {"form": form}
    with psycopg.connect(running.database) as connection:
        stored: dict[str, int] = dict(
            connection.execute(
                "SELECT idempotency_key, number FROM response WHERE form_id = %(form)s", known
            ).fetchall()
        )
        ended = connection.execute(
            "SELECT number, kind, key FROM event WHERE form_id = %(form)s AND kind IN ('approved', 'denied')", known
        ).fetchall()
        held = connection.execute(
            "SELECT claimable.taken, count(claim.number) FROM claimable LEFT JOIN claim ON"
            " claim.form_id = claimable.form_id AND claim.name = claimable.name AND claim.released_at IS NULL"
            " WHERE claimable.form_id = %(form)s GROUP BY claimable.name, claimable.taken",
            known,
        ).fetchall()
        holders = [
            row[0]
            for row in connection.execute(
                "SELECT number FROM claim WHERE form_id = %(form)s AND released_at IS NULL", known
            ).fetchall()
        ]
        tasks = [row[0] for row in connection.execute("SELECT number FROM task WHERE form_id = %(form)s", known)]
    approved = {number for number, kind, _ in ended if kind == "approved"}
    denied = {number for number, kind, _ in ended if kind == "denied"}
    kinds = {"approved": "yes", "denied": "no"}
    mails = {message_id(f"{form}.{number}.{kinds[kind]}.{kind}-{key}.0", Settings()) for number, kind, key in ended}
    came = [str(each.message["Message-ID"]) for each in mailbox.all_mail() if each.recipients == [_GUEST]]
    domain = Settings().mail_from.rpartition("@")[2]
    entries = {f"{form}.{number}.visit@{domain}" for number in approved}
    untrue = [
        number for number, said in told.verdicts.items() if number not in (denied if said == "deny" else approved)
    ]
    checks = {
        "nights_lost": (sum(stored.get(key) != number for key, number in told.numbers.items()), "lost"),
        "nights_twice": (sum(taken > _PLACES or taken != count for taken, count in held), "slots that do not add up"),
        "nights_held": (len(set(stored.values()) - denied ^ set(holders)), "with no place, or one after a denial"),
        "nights_both": (len(ended) - len(approved | denied), "decided twice"),
        "nights_untrue": (len(untrue), "told as decided, and not so"),
        "nights_mails": (len(mails ^ set(came)) + len(came) - len(set(came)), "mails missing or extra"),
        "nights_tasks": (abs(len(tasks) - len(approved)) + len(approved ^ set(tasks)), "tasks missing or extra"),
        "nights_entries": (len(entries ^ _uids()), "calendar entries missing or extra"),
    }
    report("nights_booked", len(stored), "nights booked", None)
    met = [report(name, value, unit, 0, at_least=False) for name, (value, unit) in checks.items()]
    return all(met) and report("nights_decided", len(ended), "nights decided about", least)


def _uids() -> set[str]:
    """Return the UIDs that stand in the calendar."""
    place = calendar.FOLDER / "collection-root" / calendar.USER / "summit"
    found = (Calendar.from_ical(path.read_bytes()) for path in place.glob("*.ics"))
    return {str(event["UID"]) for each in found for event in each.events}
