# ruff: noqa: F811 - fixtures of other modules
"""A rehearsal goes the whole way and leaves nothing behind: no number, no place, no mail, no task, no record."""

import re

import pytest
from core.forms import block
from web.mail import work
from web.test_decisions import approval, people  # noqa: F401 - a fixture
from web.test_members import add, let_in
from web.test_parts import fill, opened
from web.test_record_choice import hand_in
from web.test_slots import EARLY, claims, free, mails_to, publish, visit  # noqa: F401 - a fixture among them

MAIL = {"kind": "email", "recipients": [{"field": "mail"}]}
FOLLOWS = [
    approval({"deciders": [{"group": "keepers"}], "hours": 48}),
    {"id": "u2", "on": "approved", "subject": "Yes: {decision.remark}", **MAIL},
    {"id": "u3", "on": "day", "day": {"field": "", "days": 3}, "subject": "Three days later", **MAIL},
    {"id": "u4", "kind": "webhook", "address": "https://hooks.example.org/in"},
    {"id": "u5", "kind": "task", "words": "Heat the dome", "who": {"group": "keepers"}},
]
REVIEW = {"id": "review", "name": "Review", "groups": ["keepers"]}


@pytest.fixture
def form(people, publish):
    fields = [visit(), block("email", "mail"), block("short_text", "verdict", part="review", required="TRUE")]
    return publish(*fields, follow_ups=FOLLOWS, parts=[REVIEW])


def rehearsal(agent, form):
    return agent.get(f"/api/forms/{form}/rehearsal").json["rehearsal"]


def begin(agent, form):
    assert agent.post(f"/api/forms/{form}/rehearsal").status_code == 204
    return rehearsal(agent, form)


def send(agent, form):
    return hand_in(agent, form, {"visit": EARLY, "mail": "io@example.org"})


def test_the_whole_way_is_gone_and_nothing_leaves_the_machine(people, form, connection, worker):
    mira, kai = people["mira"], people["kai"]
    assert rehearsal(mira, form) is None
    begun = begin(mira, form)
    assert mira.client.get(begun["address"][begun["address"].index("/f/") :]).status_code == 200
    assert send(mira, begun["form"]).status_code == 201
    work(worker)
    found = rehearsal(mira, form)
    (response,) = found["responses"]
    assert (response["number"], response["decision"], response["booking"]) == (1, "asked", "booked")
    told = {each["told"].split(":")[0]: each["result"] for each in response["runs"] if each["state"] == "done"}
    assert [result for name, result in told.items() if "task" not in name] == ["rehearsed: it stays here"]
    # Whoever is asked hears nothing; who rehearses decides in their place, also by the part's own page.
    assert (kai.get("/api/decisions").json["waiting"], kai.get("/api/decisions/tasks").json["tasks"]) == ([], [])
    (asked,) = found["approvals"]
    place = f"/api/forms/{form}/rehearsal/approvals/{asked['id']}"
    assert mira.post(place, json={"step": 0, "verdict": "approve", "remark": "Come"}).status_code == 204
    assert mira.post(place, json={"step": 0, "verdict": "deny"}).status_code == 409
    assert fill(mira, opened(mira, begun["form"]), verdict="fine").status_code == 200
    work(worker)
    runs = rehearsal(mira, form)["responses"][0]["runs"]
    (mail,) = [each for each in runs if "Yes" in each["told"]]
    shown = mira.get(f"/api/forms/{form}/rehearsal/runs/{mail['id']}").json
    assert (mail["state"], mail["told"]) == ("done", "mail to io@example.org: Yes: Come")
    assert "html" in shown["html"]
    assert [each["state"] for each in runs if "Three days" in each["told"]] == ["waiting"]
    # The clock is moved on by hand.
    assert mira.post(f"/api/forms/{form}/rehearsal/clock", json={"days": 4}).status_code == 204
    work(worker)
    runs = rehearsal(mira, form)["responses"][0]["runs"]
    assert [each["state"] for each in runs if "Three days" in each["told"]] == ["done"]
    assert (mails_to("io"), mails_to("kai"), mails_to("mira")) == ([], [], [])


def test_it_takes_nothing_from_visitors_counts_nowhere_and_goes_in_one_press(people, form, connection):
    mira = people["mira"]
    begun = begin(mira, form)
    assert send(mira, begun["form"]).status_code == 201
    assert send(mira, begun["form"]).status_code == 422
    assert free(mira, form) == ["18:00", "19:00", "20:00"]
    assert send(mira, form).status_code == 201
    assert mira.get(f"/api/forms/{form}/responses/1").status_code == 200
    assert claims(connection, form) == {f"{EARLY}:": 1}
    assert [each["name"] for each in mira.get("/api/forms").json["forms"]] == ["Dome nights"]
    assert len(mira.get("/api/team/mine").json["teams"]) == 1
    # Nobody else has it, though they may have one of their own.
    assert people["kai"].get(f"/api/forms/{form}/rehearsal").status_code == 403
    assert mira.get(f"/api/forms/{begun['form']}").status_code == 404
    again = begin(mira, form)
    assert (again["form"] != begun["form"], again["responses"]) == (True, [])
    assert mira.delete(f"/api/forms/{form}/rehearsal").status_code == 204
    assert rehearsal(mira, form) is None
    left = connection.execute(
        "SELECT count(*) AS count FROM form WHERE id = ANY(%s::uuid[])", [[again["form"], begun["form"]]]
    )
    assert left.fetchone()["count"] == 0
    assert mira.client.get(again["address"][again["address"].index("/f/") :]).status_code == 404
    assert mira.post(f"/api/forms/{form}/rehearsal/clock", json={"days": 4}).status_code == 404


def test_a_draft_with_errors_is_not_rehearsed_and_said_why(people, form, connection):
    broken = "jsonb_set(draft, '{pages,0,blocks,1,shown}', '\"nothing > 3\"')"
    connection.execute(f"UPDATE form SET draft = {broken}, revision = 2 WHERE id = %s", [form])
    connection.commit()
    refused = people["mira"].post(f"/api/forms/{form}/rehearsal")
    assert refused.status_code in (409, 422)
    assert re.search("nothing", refused.json["message"])


def test_it_is_filled_in_as_a_guest_and_as_a_member(people, form):
    mira = people["mira"]
    members = mira.post("/api/team/members").json["table"]
    add(mira, members, {"name": "Ada May Lum", "email": "ada@example.org", "groups": "Keepers"})
    add(mira, members, {"name": "Ben", "email": "ben@example.org"})
    let_in(mira, form, who="groups", groups=["keepers"], once=True)
    begun = begin(mira, form)
    place, page = f"/api/forms/{form}/rehearsal/visitor", begun["address"][begun["address"].index("/f/") :]

    def fill_in_as(known):
        assert mira.put(place, json={"known": known}).status_code == 204
        return mira.client.get(page).get_data(as_text=True)

    assert (begun["filled_in_by"], "for others" in fill_in_as("me")) == ("me", True)
    assert "member_password" in fill_in_as("")
    assert "Ada May Lum" in fill_in_as("member.1")
    assert (rehearsal(mira, form)["filled_in_by"], rehearsal(mira, form)["visitor_name"]) == ("member.1", "Ada May Lum")
    assert "for others" in fill_in_as("member.2")
    assert [mira.put(place, json={"known": each}).status_code for each in ("member.99", "member.x", "kai")] == [404] * 3
    # Nobody else is taken for that member: not by the address, nor where somebody else is signed in.
    assert "Ada May Lum" not in people["kai"].client.get(page).get_data(as_text=True)
