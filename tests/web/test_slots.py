"""Slots over HTTP: one place, one taker; who waits moves up; a private page changes what is booked."""

import datetime
import re
import threading
import uuid
from zoneinfo import ZoneInfo

import pytest
from conftest import save_draft, within
from core.forms import block
from icalendar import Calendar
from web.mail import work
from web.test_record_choice import hand_in
from web.test_response_set import found as chosen

from codexa.practice.mailbox import store as mailbox
from codexa.services import desk, publishing
from codexa.services.response_set import removing

FIRST = datetime.datetime.now(datetime.UTC).date() + datetime.timedelta(days=10)
DAY = FIRST.isoformat()
SERIES = {
    "id": "s1", "weekdays": [0, 1, 2, 3, 4, 5, 6], "first": DAY, "last": DAY, "begins": "18:00", "ends": "21:00",
    "minutes": 60, "places": 1,
}  # fmt: skip
EARLY, LATE = f"{DAY}T18:00", f"{DAY}T20:00"


def visit(**more):
    return block("slot", "visit", **{"series": [SERIES], **more})


def document(*blocks, **more):
    return {"name": "Dome nights", "title": "Dome nights", "pages": [{"id": "p1", "blocks": list(blocks)}], **more}


@pytest.fixture
def publish(connection, mira):
    """Return what publishes a form with these blocks, or another edition of it."""

    def make(*blocks, form=None, **more):
        if form is None:
            form = desk.import_form(within(connection), who=mira, document=document(*blocks, **more))
            revision = 1
        else:
            save_draft(connection, who=mira, form=form, revision=1, document=document(*blocks, **more))
            revision = 2
        publishing.publish(within(connection), who=mira, form=form, revision=revision)
        connection.commit()
        return form

    return make


def free(agent, form, edition=1):
    reply = agent.client.post(f"/api/public/{form}/{edition}/state", json={"answers": {}})
    found = reply.json["state"]["blocks"]["visit"]["slots"]
    return [each["id"][-5:] for day in found["days"] for each in day["times"]]


def claims(connection, form):
    rows = connection.execute("SELECT name, taken FROM claimable WHERE form_id = %s AND taken > 0", [form]).fetchall()
    return {row["name"].split(":", 2)[2]: row["taken"] for row in rows}


def booking(connection, form, number):
    row = connection.execute("SELECT booking FROM response WHERE (form_id, number) = (%s, %s)", [form, number])
    return row.fetchone()["booking"]


def mails_to(who):
    """The mails that somebody got, oldest first."""
    found = [each for each in mailbox.all_mail() if f"{who}@example.org" in each.recipients]
    return sorted(found, key=lambda each: each.id)


def own_page(who):
    return re.search(r"/r/[0-9a-f-]{36}/\d+/[0-9a-f]{40}", mails_to(who)[0].text)[0]


def test_of_many_takers_one_gets_a_place_and_the_others_keep_what_they_typed(app, publish, connection):
    form, replies = publish(visit()), []

    def take():
        headers = {"Idempotency-Key": uuid.uuid4().hex}
        body = {"answers": {"visit": EARLY}}
        replies.append(app.test_client().post(f"/api/public/{form}/1/responses", json=body, headers=headers))

    threads = [threading.Thread(target=take) for _ in range(8)]
    for each in threads:
        each.start()
    for each in threads:
        each.join(timeout=60)
    assert sorted(each.status_code for each in replies) == [201] + [422] * 7
    refused = {each.json["errors"]["visit"]["code"] for each in replies if each.status_code == 422}
    assert refused == {"slot_gone"}
    assert claims(connection, form) == {f"{EARLY}:": 1}


def test_what_is_taken_is_not_offered_and_what_is_given_back_is(as_mira, publish, connection, mira):
    form = publish(visit())
    assert free(as_mira, form) == ["18:00", "19:00", "20:00"]
    assert hand_in(as_mira, form, {"visit": EARLY}).status_code == 201
    assert free(as_mira, form) == ["19:00", "20:00"]
    known = {"who": mira, "form": form, "numbers": [1]}
    removing.remove(within(connection), **known)
    removing.bring_back(within(connection), **known)
    assert (booking(connection, form, 1), claims(connection, form)) == ("booked", {f"{EARLY}:": 1})
    removing.remove(within(connection), **known)
    connection.commit()
    assert booking(connection, form, 1) == "cancelled"
    assert hand_in(as_mira, form, {"visit": EARLY}).status_code == 201
    # Its place is somebody else's by now: it comes back, and nobody is booked twice.
    removing.bring_back(within(connection), **known)
    connection.commit()
    assert claims(connection, form) == {f"{EARLY}:": 1}
    assert booking(connection, form, 1) == "cancelled"


def test_an_earlier_edition_gives_no_slot_that_the_live_one_has_not(as_mira, publish):
    form = publish(visit())
    publish(visit(series=[SERIES | {"begins": "19:00"}]), form=form)
    # Who has opened the form before is told; the hour that is left they can have.
    refused = hand_in(as_mira, form, {"visit": EARLY}).json["errors"]["visit"]
    assert refused["code"] == "slot_lost"
    assert hand_in(as_mira, form, {"visit": LATE}).status_code == 201
    assert free(as_mira, form, 2) == ["19:00"]


def test_a_person_has_so_many_and_no_more(as_mira, publish):
    form = publish(visit(each="mail", most_each=1), block("email", "mail"))
    given = {"visit": EARLY, "mail": "io@example.org"}
    assert hand_in(as_mira, form, given).status_code == 201
    again = hand_in(as_mira, form, given | {"visit": LATE, "mail": " IO@example.org "})
    assert again.json["errors"]["visit"]["code"] == "slot_each"
    assert hand_in(as_mira, form, given | {"visit": LATE, "mail": "ana@example.org"}).status_code == 201


def test_a_correction_moves_what_is_taken(as_mira, publish, connection):
    form = publish(visit())
    for each in (EARLY, LATE):
        assert hand_in(as_mira, form, {"visit": each}).status_code == 201
    place = f"/api/forms/{form}/responses/1/correction"

    def correct(to):
        opened = as_mira.get(place).json
        return as_mira.post(place, json={"answers": {"visit": to}, "version": opened["version"]})

    assert as_mira.get(place).json["answers"] == {"visit": EARLY}
    assert correct(LATE).json["wrong"][0]["message"].startswith("This time has just been taken")
    assert correct(f"{DAY}T19:00").status_code == 200
    assert claims(connection, form) == {f"{DAY}T19:00:": 1, f"{LATE}:": 1}


TO_VISITOR = {"kind": "email", "recipients": [{"field": "mail"}]}
BOOKED = {"id": "u1", "subject": "{visit}", "paragraphs": [{"text": "<p>{response.page}</p>"}], **TO_VISITOR}
TOLD = {"id": "u2", "on": "moved up", "subject": "You are in: {visit}", **TO_VISITOR}


@pytest.fixture
def nights(publish):
    blocks = visit(waiting=True, change_until=24), block("email", "mail")
    return publish(*blocks, follow_ups=[BOOKED, TOLD])


def book(agent, form, who, at=EARLY):
    return hand_in(agent, form, {"visit": at, "mail": f"{who}@example.org"})


def test_who_waits_moves_up_in_order_and_is_told_once(as_mira, nights, connection, worker):
    for who in ("io", "ana", "max"):
        assert book(as_mira, nights, who).status_code == 201
    assert [booking(connection, nights, number) for number in (1, 2, 3)] == ["booked", "waiting", "waiting"]
    work(worker)
    page = own_page("io")
    assert "on the waiting list" in mails_to("ana")[0].message["Subject"]
    # Looking changes nothing.
    assert as_mira.get(f"{page}/cancel").status_code == 200
    assert as_mira.post(f"{page}/cancel").status_code == 303
    assert as_mira.post(f"{page}/cancel").status_code in (303, 409)
    # Between giving back and moving up nobody comes before those who wait.
    late = book(as_mira, nights, "eve")
    assert (late.status_code, booking(connection, nights, 4)) == (201, "waiting")
    work(worker)
    work(worker)
    assert [booking(connection, nights, number) for number in (1, 2, 3, 4)] == [
        "cancelled", "booked", "waiting", "waiting"
    ]  # fmt: skip
    told = mails_to("io")[0].message["Subject"]
    assert {each.message["Subject"] for each in mails_to("ana")} == {
        f"{told} (on the waiting list)",
        f"You are in: {told}",
    }
    assert claims(connection, nights) == {f"{EARLY}:": 1}


def test_a_booking_is_moved_by_its_private_page(as_mira, nights, connection, worker):
    assert book(as_mira, nights, "io").status_code == 201
    assert book(as_mira, nights, "ana", LATE).status_code == 201
    work(worker)
    page = own_page("io")
    shown = as_mira.get(f"{page}/other-times?at=visit").get_data(as_text=True)
    assert [each[-5:] for each in re.findall(r'value="(\d{4}[^"]+)"', shown)] == ["19:00"]
    taken = as_mira.post(f"{page}/other-times", data={"at": "visit", "time": LATE})
    assert (taken.status_code, "just been taken" in taken.get_data(as_text=True)) == (409, True)
    assert as_mira.post(f"{page}/other-times", data={"at": "visit", "time": f"{DAY}T19:00"}).status_code == 303
    assert claims(connection, nights) == {f"{DAY}T19:00:": 1, f"{LATE}:": 1}
    kinds = [each["kind"] for each in as_mira.get(f"/api/forms/{nights}/responses/1").json["events"]]
    assert kinds[-1] == "rebooked"


@pytest.mark.parametrize("wrong", ["mark", "number", "form"])
def test_a_forged_address_opens_nothing(as_mira, nights, worker, wrong):
    assert book(as_mira, nights, "io").status_code == 201
    work(worker)
    _, _, form, number, mark = own_page("io").split("/")
    known = {"form": form, "number": number, "mark": mark}
    known[wrong] = {"mark": "0" * 40, "number": "2", "form": str(uuid.uuid4())}[wrong]
    place = "/r/{form}/{number}/{mark}".format(**known)
    assert as_mira.get(place).status_code == 404
    assert as_mira.post(f"{place}/cancel").status_code == 404


def test_it_is_too_late_within_the_time_that_the_author_sets(as_mira, publish, worker):
    form = publish(visit(change_until=24 * 30), block("email", "mail"), follow_ups=[BOOKED])
    assert book(as_mira, form, "io").status_code == 201
    work(worker)
    page = own_page("io")
    assert as_mira.post(f"{page}/cancel").status_code == 409
    assert as_mira.post(f"{page}/other-times", data={"at": "visit", "time": LATE}).status_code == 409
    shown = as_mira.get(page).get_data(as_text=True)
    assert "any more" in shown
    assert "/cancel" not in shown


def sheet(agent, form):
    return agent.get(f"/api/forms/{form}/bookings?day={DAY}").json


def test_the_team_sees_who_has_which_slot_and_moves_closes_and_cancels(as_mira, nights, connection, worker):
    for who in ("io", "ana"):
        assert book(as_mira, nights, who).status_code == 201
    first = sheet(as_mira, nights)["slots"][0]
    assert (first["starts"], first["taken"], first["places"]) == (EARLY, 1, 1)
    assert [(each["number"], each["waiting"], list(each["cells"].values())) for each in first["takers"]] == [
        (1, False, ["io@example.org"]), (2, True, ["ana@example.org"])
    ]  # fmt: skip
    assert chosen(as_mira, nights, ["response.booking", "any_of", "waiting"]) == [2]
    place = f"/api/forms/{nights}/bookings"
    assert f"{DAY},18:00,19:00,,2,1,yes,ana@example.org" in as_mira.get(f"{place}/sheet.csv?day={DAY}").text
    # A closed slot is given to nobody: not to who waits, nor to who comes.
    late = sheet(as_mira, nights)["slots"][2]
    assert as_mira.post(f"{place}/closed", json={"name": late["name"], "closed": True}).status_code == 204
    assert book(as_mira, nights, "max", LATE).json["errors"]["visit"]["code"] == "slot_lost"
    refused = as_mira.post(f"{place}/1/move", json={"address": "visit", "code": LATE})
    assert (refused.status_code, refused.json["code"]) == (409, "booking_refused")
    assert [each["code"][-5:] for each in as_mira.get(f"{place}/1?address=visit").json["free"]] == ["19:00"]
    moved = as_mira.post(f"{place}/1/move", json={"address": "visit", "code": f"{DAY}T19:00"})
    assert moved.json["booking"] == "booked"
    work(worker)
    work(worker)
    assert booking(connection, nights, 2) == "booked"
    assert as_mira.post(f"{place}/2/cancel", json={"because": "The dome is shut."}).json["booking"] == "cancelled"
    events = as_mira.get(f"/api/forms/{nights}/responses/2").json["events"]
    assert [each["person"] for each in events if each["kind"] == "cancelled"] == ["Owner"]
    assert claims(connection, nights) == {f"{DAY}T19:00:": 1}
    assert chosen(as_mira, nights, ["response.booking", "any_of", "waiting"]) == []
    assert chosen(as_mira, nights, ["response.booking", "any_of", "cancelled"]) == [2]


def test_a_reminder_goes_with_its_slot(as_mira, publish, connection):
    remind = {"id": "u3", "on": "day", "day": {"field": "visit", "hours": -24}, "subject": "Tomorrow", **TO_VISITOR}
    form = publish(visit(change_until=1), block("email", "mail"), follow_ups=[remind])
    assert book(as_mira, form, "io").status_code == 201

    def due():
        found = connection.execute("SELECT due_at FROM run WHERE state = 'waiting' ORDER BY id").fetchall()
        return [each["due_at"].astimezone(ZoneInfo("Europe/Berlin")).strftime("%H:%M") for each in found]

    assert due() == ["18:00"]
    place = f"/api/forms/{form}/bookings/1"
    assert as_mira.post(f"{place}/move", json={"address": "visit", "code": LATE}).status_code == 200
    assert due() == ["20:00"]
    assert as_mira.post(f"{place}/cancel", json={}).status_code == 200
    assert due() == []


def test_slots_of_a_draft_are_shown_as_they_are_made(as_mira, nights):
    asked = {"series": [SERIES], "singles": [], "left_out": [], "time_zone": "Europe/Berlin", "first": DAY, "last": DAY}
    found = as_mira.post(f"/api/forms/{nights}/slots/shown", json=asked).json
    assert [each["starts"] for each in found["slots"]] == [EARLY, f"{DAY}T19:00", LATE]
    assert found["told"]["s1"].startswith("every day, 18:00 to 21:00, every hour, 1 place, ")
    wrong = as_mira.post(f"/api/forms/{nights}/slots/shown", json=asked | {"time_zone": "Moon/Tycho"})
    assert (wrong.status_code, "Moon/Tycho" in wrong.json["message"]) == (400, True)


def test_slots_come_from_the_records_of_a_table(as_mira, nights):
    columns = [
        block("date_time", "begins"), block("date", "day"), block("time", "attime"), block("number", "long"),
        block("short_text", "where"),
    ]  # fmt: skip
    made = as_mira.post("/api/tables", json={"definition": {"name": "Nights", "columns": columns}})
    table = made.json["id"]
    cells = [
        {"begins": "2026-12-03T18:30", "long": "45", "where": "Summit"},
        {"day": "2026-12-04", "attime": "19:15"},
        {"begins": "2026-12-03T18:30", "where": "Moon"},
        {"begins": "2026-12-05T18:30", "long": "0"},
        {"day": "2027-03-28", "attime": "02:30"},
    ]
    kept = as_mira.post(f"/api/tables/{table}/records", json={"changes": [{"cells": each} for each in cells]})
    assert kept.json["wrong"] == []
    asked = {
        "table": table, "columns": {"day": "begins", "minutes": "long", "at": "where"}, "time_zone": "Europe/Berlin",
        "usual": {"minutes": 60, "places": 2, "at": "bay"}, "labels": {"hill": "Summit", "bay": "Harbour"},
    }  # fmt: skip
    place = f"/api/forms/{nights}/slots/of-table"
    found = as_mira.post(place, json=asked).json
    assert found["slots"] == [{"starts": "2026-12-03T18:30", "minutes": 45, "places": 2, "at": "hill"}]
    why = {each["number"]: each["message"] for each in found["wrong"]}
    assert (found["wrong_count"], why[2]) == (4, "has no day and time.")
    assert (why[3], "“0” for minutes" in why[4]) == ("is at “Moon”, and there is no such place.", True)
    by_day = as_mira.post(place, json=asked | {"columns": {"day": "day", "time": "attime"}}).json
    assert by_day["slots"] == [{"starts": "2026-12-04T19:15", "minutes": 60, "places": 2, "at": "bay"}]
    assert by_day["wrong"][-1]["message"] == "is at 02:30 on 28 March 2027, which no clock shows."
    assert as_mira.post(place, json=asked | {"table": str(uuid.uuid4())}).status_code == 404


def entries_to(who):
    """The calendar entries that somebody got, by what happened: method, UID, sequence, and when it begins in UTC."""
    found = {}
    for each in mails_to(who):
        for part in each.message.walk():
            if part.get_content_type() == "text/calendar":
                calendar = Calendar.from_ical(part.get_payload(decode=True))
                [event] = calendar.walk("VEVENT")
                assert part.get_param("method") == calendar["METHOD"]
                known = str(calendar["METHOD"]), str(event["UID"]), int(event["SEQUENCE"]), event["DTSTART"].dt
                found[each.message["Subject"]] = known
    return found


def test_an_entry_for_the_calendar_is_kept_up_to_date_and_taken_out(as_mira, publish, worker):
    mails = [
        {"id": f"m{at}", "on": on, "subject": on, "entry": "visit", "entry_title": "Night", **TO_VISITOR}
        for at, on in enumerate(("complete", "rebooked", "cancelled"))
    ]
    form = publish(visit(change_until=1), block("email", "mail"), follow_ups=mails)
    assert book(as_mira, form, "io").status_code == 201
    place = f"/api/forms/{form}/bookings/1"
    assert as_mira.post(f"{place}/move", json={"address": "visit", "code": LATE}).status_code == 200
    assert as_mira.post(f"{place}/cancel", json={}).status_code == 200
    work(worker)
    found = entries_to("io")
    assert [found[each][0] for each in ("complete", "rebooked", "cancelled")] == ["REQUEST", "REQUEST", "CANCEL"]
    assert len({uid for _, uid, _, _ in found.values()}) == 1
    sequences = [found[each][2] for each in ("complete", "rebooked", "cancelled")]
    assert sequences == sorted(set(sequences))
    berlin = ZoneInfo("Europe/Berlin")
    begins = [found[each][3].astimezone(berlin).strftime("%H:%M") for each in ("complete", "rebooked")]
    assert begins == ["18:00", "20:00"]


def test_the_bookings_are_a_calendar_at_a_secret_address(as_mira, nights):
    for who in ("io", "ana"):
        assert book(as_mira, nights, who).status_code == 201
    place = f"/api/forms/{nights}/bookings/calendar"
    assert as_mira.get(place).json["address"] == ""
    first, second = (as_mira.post(place, json={"open": True}).json["address"] for _ in range(2))
    assert as_mira.client.get(f"/{first.split('/', 3)[3]}").status_code == 404
    read = as_mira.client.get(f"/{second.split('/', 3)[3]}")
    [event] = Calendar.from_ical(read.data).walk("VEVENT")
    assert (str(event["SUMMARY"]), str(event["DESCRIPTION"])) == ("Dome nights: 1 of 1", "1: 1\n2: 1")
    assert b"io@" not in read.data
    assert as_mira.post(place, json={"open": False}).json["address"] == ""
    assert as_mira.client.get(f"/{second.split('/', 3)[3]}").status_code == 404
