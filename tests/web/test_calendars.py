# ruff: noqa: F811 - fixtures of other modules
"""Entries in a calendar of another system: put once, changed with the booking, taken out; away, refusing, forged."""

import threading
from dataclasses import replace
from types import SimpleNamespace

import pytest
from core.forms import block, options
from web.mail import work
from web.test_decisions import approval, people, say, waiting  # noqa: F401 - a fixture among them
from web.test_record_choice import hand_in
from web.test_slots import EARLY, FIRST, publish, visit  # noqa: F401 - a fixture among them
from werkzeug.serving import make_server

from codexa.practice.calendar import server as practice
from codexa.practice.calendar import store
from codexa.services.calendars.server import CalDav
from codexa.services.follow_ups.outcomes import NeverError, TryLaterError

LATER = f"{EARLY[:11]}20:00"


@pytest.fixture
def caldav(tmp_path, monkeypatch):
    """The practice calendars on loopback; yields where they answer, and what stands in them."""
    monkeypatch.setattr(store, "FOLDER", tmp_path / "calendar")
    monkeypatch.setattr(practice, "_SLOW_SECONDS", 1)
    server = make_server("127.0.0.1", 0, practice.application(), threaded=True)
    thread = threading.Thread(target=server.serve_forever, daemon=True)
    thread.start()

    def standing():
        return [(each.calendar, each.title, f"{each.starts:%H:%M}", each.sequence) for each in store.entries(FIRST, 1)]

    yield SimpleNamespace(address=f"http://127.0.0.1:{server.server_port}/caldav/alderlight", standing=standing)
    server.shutdown()
    thread.join(10)
    server.server_close()


@pytest.fixture
def calendars(as_mira, caldav):
    """The practice calendars as two of Mira's team: their `ids` by name, and what is `standing` there."""
    for name in ("summit", "harbour"):
        known = {"name": name, "address": f"{caldav.address}/{name}/", "user_name": store.USER}
        reply = as_mira.post("/api/calendars", json=known | {"password": store.PASSWORD})
        assert reply.status_code == 204, reply.json
    caldav.ids = {each["name"]: each["id"] for each in as_mira.get("/api/calendars").json["calendars"]}
    return caldav


def entry(calendars, **more):
    choices = [{"calendar": calendars.ids["summit"], "when": 'site = "hill"'}, {"calendar": calendars.ids["harbour"]}]
    known = {"id": "u1", "kind": "calendar", "calendars": choices, "entry": "visit", "entry_title": "{mail}"}
    return known | {"text": "{response.number}", "guest": "mail", **more}


FIELDS = (visit(), block("email", "mail"), block("single_choice", "site", options=options("hill", "bay")))
ANSWERS = {"visit": EARLY, "mail": "io@example.org", "site": "ohill"}


def send(agent, form, **more):
    assert hand_in(agent, form, ANSWERS | more).status_code == 201


def runs(agent, form):
    found = agent.get(f"/api/forms/{form}/responses/1/runs").json["runs"]
    return [(each["state"], each["result"]) for each in found]


def test_an_entry_follows_its_booking_and_moves_with_it(as_mira, publish, calendars, worker):
    form = publish(*FIELDS, follow_ups=[entry(calendars)])
    send(as_mira, form)
    for _ in range(3):
        work(worker)
    assert calendars.standing() == [("summit", "io@example.org", "18:00", 0)]
    assert store.entries(FIRST, 1)[0].guests == ["io@example.org"]
    place = f"/api/forms/{form}/bookings/1"
    assert as_mira.post(f"{place}/move", json={"address": "visit", "code": LATER}).status_code == 200
    work(worker)
    ((_, _, at, sequence),) = calendars.standing()
    assert (at, sequence > 0) == ("20:00", True)
    # Done once more, what was worked out first does not bring the former hour back.
    first = as_mira.get(f"/api/forms/{form}/responses/1/runs").json["runs"][0]
    assert as_mira.post(f"/api/forms/{form}/runs/{first['id']}/again").status_code in (200, 204)
    work(worker)
    assert calendars.standing()[0][2] == "20:00"
    assert as_mira.post(f"{place}/cancel", json={"because": "Shut"}).status_code == 200
    work(worker)
    work(worker)
    assert calendars.standing() == []
    assert [result for _, result in runs(as_mira, form)][-1] == "taken out"


def test_an_entry_and_a_reminder_follow_an_answer_that_the_team_corrects(as_mira, publish, calendars, worker):
    reminder = {"id": "u2", "on": "day", "day": {"field": "visit", "days": -1}, "subject": "Tomorrow"}
    mail = {"kind": "email", "recipients": [{"field": "mail"}]}
    form = publish(*FIELDS, follow_ups=[entry(calendars), reminder | mail])
    send(as_mira, form)
    work(worker)
    place = f"/api/forms/{form}/responses/1/correction"
    changes = [{"mail": "jo@example.org"}, {"visit": LATER}, {"visit": LATER, "site": "obay"}, {}]
    expected = [("summit", "18:00", 1), ("summit", "20:00", 2), ("harbour", "20:00", 3), ("harbour", "20:00", 3)]
    for changed, (calendar, begins, sequence) in zip(changes, expected, strict=True):
        opened = as_mira.get(place).json
        body = {"answers": opened["answers"] | changed, "version": opened["version"], "because": "By phone"}
        assert as_mira.post(place, json=body).status_code == 200
        work(worker)
        assert calendars.standing() == [(calendar, "jo@example.org", begins, sequence)]
    told = runs(as_mira, form)
    assert ([state for state, _ in told].count("waiting"), "another one now" in str(told)) == (1, True)


def test_a_rule_says_whose_calendar_and_a_denial_takes_it_out(
    people,
    publish,
    calendars,
    worker,
):
    asked = approval({"deciders": [{"group": "keepers"}]}) | {"id": "u9"}
    form = publish(*FIELDS, follow_ups=[asked, entry(calendars), entry(calendars, id="u2", on="approved")])
    send(people["mira"], form, site="obay")
    work(worker)
    assert [each[0] for each in calendars.standing()] == ["harbour"]
    assert say(people["kai"], waiting(people["kai"])[0], "deny", "Cloudy").status_code == 200
    work(worker)
    assert calendars.standing() == []
    # What was never made is not taken out either.
    assert ("done", "there was no entry to change") in runs(people["mira"], form)


@pytest.mark.parametrize("mode", ["refuse", "away", "take"])
def test_a_calendar_that_refuses_or_is_away_is_told(
    as_mira,
    publish,
    calendars,
    worker,
    mode,
):
    form = publish(*FIELDS, follow_ups=[entry(calendars)])
    store.set_mode(mode)
    send(as_mira, form)
    work(worker)
    ((now, result),) = runs(as_mira, form)
    said = {
        "refuse": ("failed", "refuses us (403)"),
        "away": ("waiting", "answered 503"),
        "take": ("done", "put into summit"),
    }[mode]
    assert (now, said[1] in result) == (said[0], True)
    assert len(calendars.standing()) == (mode == "take")


def test_calendars_are_taken_up_once_they_answer_and_stay_while_forms_need_them(
    as_mira,
    publish,
    calendars,
):
    known = {"name": "new", "address": f"{calendars.address}/summit/", "user_name": store.USER}
    for wrong in (
        {"password": "guessed"},
        {"address": f"{calendars.address}/none/"},
        {"address": "http://127.0.0.1:9/x"},
    ):
        refused = as_mira.post("/api/calendars", json=known | {"password": store.PASSWORD} | wrong)
        assert (refused.status_code, "Nothing was kept" in refused.json["message"]) == (422, True), wrong
    twice = as_mira.post("/api/calendars", json=known | {"name": "summit", "password": store.PASSWORD})
    assert "another name" in twice.json["message"]
    publish(*FIELDS, follow_ups=[entry(calendars)])
    place = f"/api/calendars/{calendars.ids['summit']}"
    assert as_mira.post(f"{place}/try").status_code == 204
    assert "Dome nights" in as_mira.delete(place).json["message"]
    assert len(as_mira.get("/api/calendars").json["calendars"]) == 2


def test_a_calendar_that_the_team_does_not_have_is_told_before_it_is_published(as_mira, publish, calendars):
    gone = "00000000-0000-4000-8000-000000000001"
    form = publish(*FIELDS, follow_ups=[entry(calendars)])
    found = as_mira.get(f"/api/forms/{form}").json
    (rule,) = found["draft"]["follow_ups"]
    rule["calendars"][1]["calendar"] = gone
    saved = as_mira.put(f"/api/forms/{form}/draft", json={"revision": found["revision"], "draft": found["draft"]}).json
    (told,) = [each for each in saved["analysis"]["findings"] if each["code"] == "no_such_calendar"]
    assert (told["block"], told["setting"]) == ("u1", "calendars")
    refused = as_mira.post(f"/api/forms/{form}/editions", json={"revision": saved["revision"]})
    assert (refused.status_code, "calendar" in refused.json["message"]) == (422, True)


def test_a_password_goes_over_an_open_line_or_into_the_closed_network_nowhere_but_in_the_demo(worker, caldav):
    elsewhere = replace(worker, mode="live")
    for address in (f"{caldav.address}/summit/", "http://calendar.example.org/x/"):
        with pytest.raises((NeverError, TryLaterError)):
            CalDav(address=address, user_name="a", password="b", settings=elsewhere).look()
    assert store.mode() == "take"
