"""A response goes from part to part: who may change what there, whatever is sent; back, again, and two at once."""

import re
from concurrent.futures import ThreadPoolExecutor

import pytest
from conftest import within
from core.forms import block
from web.mail import work
from web.test_decisions import people  # noqa: F401 - a fixture
from web.test_members import TEAM, add, signed_in
from web.test_record_choice import hand_in
from web.test_slots import document, mails_to, own_page

from codexa.services import desk, groups, publishing
from codexa.services.own_pages import OwnPages
from codexa.store import groups as groups_store

MAIL = {"kind": "email", "recipients": [{"field": "mail"}]}
BACK = {"id": "u1", "on": "handed back", "subject": "Back: {part.remark}", **MAIL,
        "paragraphs": [{"text": "<p>{response.page}</p>"}]}  # fmt: skip
ON = {"id": "u2", "on": "handed on", "subject": "Now: {part.name}", "all_answers": True, **MAIL}
REVIEW = {"id": "review", "name": "Review", "groups": ["keepers"]}
MONEY = {"id": "money", "name": "Treasurer", "groups": ["treasurers"], "seen": False}
ASKED = {"asked": "300", "mail": "io@example.org"}


@pytest.fixture
def form(connection, mira, people):  # noqa: F811
    """A grant that keepers review and treasurers, who are nobody yet, pay."""
    groups.make(within(connection), who=mira, name="Treasurers")
    fields = [
        block("number", "asked", required="TRUE"),
        block("email", "mail"),
        block("short_text", "verdict", part="review", required="TRUE"),
        block("number", "payout", part="money", required="TRUE"),
    ]
    known = document(*fields, parts=[REVIEW, MONEY], follow_ups=[BACK, ON])
    made = desk.import_form(within(connection), who=mira, document=known)
    publishing.publish(within(connection), who=mira, form=made, revision=1)
    connection.commit()
    return made


def send(agent, form, **more):
    assert hand_in(agent, form, ASKED | more).status_code == 201


def parts(agent):
    return [(each["number"], each["name"]) for each in agent.get("/api/decisions").json["parts"]]


def opened(agent, form, number=1):
    """Open a response at its part, and return where its form sends to."""
    page = agent.client.get(f"/part/{form}/{number}")
    assert page.status_code == 200, page.get_data(as_text=True)
    return re.search(r'"base":"([^"]+)"', page.get_data(as_text=True))[1]


def fill(agent, base, **answers):
    return agent.client.post(f"{base}/responses", json={"answers": answers})


def send_back(agent, base, to="", remark="Why so much?"):
    place, ticket = base.removeprefix("/api/public").rsplit("/", 1)
    return agent.client.post(f"{place}/back", data={"ticket": ticket, "to": to, "remark": remark})


def kept(agent, form, number=1):
    row = agent.get(f"/api/forms/{form}/responses/{number}").json["row"]
    return row["cells"], row["at_part"]


def test_it_goes_from_part_to_part_and_each_changes_their_own_alone(people, form, worker):  # noqa: F811
    mira, kai, lea = people["mira"], people["kai"], people["lea"]
    send(mira, form, verdict="yes!", payout="9")
    cells, stands = kept(mira, form)
    assert (cells.get("verdict"), cells.get("payout"), stands) == (None, None, "Review")
    assert (parts(kai), parts(lea), parts(mira)) == ([(1, "Review")], [(1, "Review")], [])
    work(worker)
    assert mails_to("kai")[0].message["Subject"] == "Dome nights, response 1: Review is yours to fill in"
    # Looking changes nothing, and who is not in the group opens nothing.
    base = opened(kai, form)
    assert mira.client.get(f"/part/{form}/1").status_code == 403
    state = kai.client.post(f"{base}/state", json={"turn": 1, "answers": {"asked": "1"}}).json["state"]["blocks"]
    assert (state["asked"]["locked"], state["verdict"].get("locked", False)) == (True, False)
    missing = fill(kai, base, asked="999")
    assert (missing.status_code, list(missing.json["errors"])) == (422, ["verdict"])
    done = fill(kai, base, asked="999", verdict="fine", payout="5")
    assert (done.status_code, done.json["confirmation"]["title"]) == (200, "Thank you. It is with Treasurer now.")
    cells, stands = kept(mira, form)
    assert (cells["asked"], cells["verdict"], cells.get("payout"), stands) == ("300", "fine", None, "Treasurer")
    assert fill(kai, base, verdict="other").status_code == 403
    # Nobody is a treasurer: it is left to the owners.
    assert (parts(kai), parts(mira)) == ([], [(1, "Treasurer")])
    assert fill(mira, opened(mira, form), payout="725025").json["confirmation"]["title"].endswith("filled in.")
    cells, stands = kept(mira, form)
    assert (cells["payout"], stands) == ("725,025", "none")
    events = mira.get(f"/api/forms/{form}/responses/1").json["events"]
    assert [each["about"] for each in events if each["kind"] == "handed on"] == [
        "Review",
        "Treasurer",
        "nobody any more",
    ]
    work(worker)
    assert {each.message["Subject"] for each in mails_to("io")} == {"Now: Treasurer", "Now:"}
    assert [("fine" in each.text, "725,025" in each.text) for each in mails_to("io")] == [(True, False)] * 2
    # Of the part that is not theirs, who filled in sees nothing.
    own = OwnPages(settings=mira.client.application.config["SETTINGS"]).address(form, 1)
    place = own[own.index("/r/") :]
    seen = mira.client.get(place).get_data(as_text=True)
    assert ("fine" in seen, "725,025" in seen) == (True, False)
    assert mira.post(f"/api/forms/{form}/responses/1/standing", json={"to": ""}).status_code == 204
    page = mira.client.get(f"{place}/answers").get_data(as_text=True)
    # Its own passes and numbers are digits too: neither comma nor quotation marks are.
    assert ('"asked":"300"' in page, '"725025"' in page, "payout" in page) == (True, False, False)


def test_it_is_sent_back_changed_and_comes_again_to_who_asked(people, form, worker):  # noqa: F811
    mira, kai = people["mira"], people["kai"]
    send(mira, form)
    base = opened(kai, form)
    assert send_back(kai, base, to="gone").status_code == 404
    refused = send_back(kai, base, remark="x" * 2001)
    assert refused.status_code == 400
    assert "2001 characters" in refused.get_data(as_text=True)
    assert send_back(kai, base).status_code == 303
    assert (kept(mira, form)[1], parts(kai)) == ("who filled it in", [])
    assert send_back(kai, base).status_code == 404
    work(worker)
    assert [each.message["Subject"] for each in mails_to("io")] == ["Back: Why so much?"]
    place = own_page("io")
    assert "Why so much?" in mira.client.get(place).get_data(as_text=True)
    own = f"/api/public/own{place[2:]}/responses"
    assert mira.client.post(own, json={"answers": {"asked": "200", "verdict": "mine"}}).status_code == 200
    cells, stands = kept(mira, form)
    assert (cells["asked"], cells.get("verdict"), stands) == ("200", None, "Review")
    assert mira.client.post(own, json={"answers": {"asked": "1"}}).status_code == 404
    # The team may give it to anybody at any time; a viewer may not.
    assert mira.post(f"/api/forms/{form}/responses/1/standing", json={"to": "money"}).status_code == 204
    assert kept(mira, form)[1] == "Treasurer"
    assert mira.post(f"/api/forms/{form}/responses/1/standing", json={"to": "gone"}).status_code == 404
    assert kai.post(f"/api/forms/{form}/responses/1/standing", json={"to": ""}).status_code == 403
    assert mira.post(f"/api/forms/{form}/responses/1/standing", json={"to": "", "remark": "Again"}).status_code == 204
    assert mira.client.post(own, json={"answers": {"asked": "150"}}).status_code == 200
    assert kept(mira, form)[1] == "none"


def test_of_two_at_once_one_hands_it_on(people, form):  # noqa: F811
    kai, lea = people["kai"], people["lea"]
    for number in (1, 2, 3):
        send(people["mira"], form)
        bases = [opened(agent, form, number) for agent in (kai, lea)]
        with ThreadPoolExecutor(max_workers=2) as both:
            said = list(both.map(lambda agent, base: fill(agent, base, verdict=base[-3:]), (kai, lea), bases))
        assert min(each.status_code for each in said) == 200
        assert all(each.status_code in (200, 403, 409) for each in said)
        assert kept(people["mira"], form, number)[1] == "Treasurer"
        events = people["mira"].get(f"/api/forms/{form}/responses/{number}").json["events"]
        assert sum(each["kind"] == "handed on" for each in events) == 2


@pytest.mark.parametrize("ticket", ["m.00000000000000000000000000000000.0", "p.x.y", "_"])
def test_an_address_alone_or_a_forged_pass_opens_nothing(app, people, form, ticket):  # noqa: F811
    send(people["mira"], form)
    stranger = app.test_client()
    page = stranger.get(f"/part/{form}/1")
    assert (page.status_code, '"asked"' in page.get_data(as_text=True)) == (403, False)
    base = f"/api/public/part/{form}/1/{ticket}"
    assert stranger.post(f"{base}/responses", json={"answers": {"verdict": "x"}}).status_code == 409
    # A pass is for one form and one session: another's is none here.
    other = opened(people["kai"], form).rsplit("/", 1)[1]
    people["kai"].client.delete("/api/session", headers=people["kai"].headers)
    assert stranger.post(f"/api/public/part/{form}/1/{other}/state", json={"turn": 1, "answers": {}}).status_code == 409


def test_members_of_a_group_find_what_waits_and_fill_it_in(app, people, form, worker):  # noqa: F811
    mira = people["mira"]
    table = mira.post("/api/team/members").json["table"]
    add(mira, table, {"name": "Ada Lum", "email": "ada@example.org", "groups": "Treasurers"})
    send(mira, form)
    fill(people["kai"], opened(people["kai"], form), verdict="fine")
    assert parts(mira) == []
    ada = signed_in(app, worker, "ada@example.org")
    assert f"/part/{form}/1" in ada.page(f"/m/{TEAM}")
    assert fill(ada, opened(ada, form), payout="120").status_code == 200
    assert kept(mira, form)[0]["payout"] == "120"
    assert f"/part/{form}/1" not in ada.page(f"/m/{TEAM}")


def test_who_leaves_the_group_meanwhile_changes_nothing(people, form, connection, mira):  # noqa: F811
    kai = people["kai"]
    send(people["mira"], form)
    base = opened(kai, form)
    groups_store.set_in(connection, team=mira.team_id, code="keepers", person=people["ids"]["kai"], inside=False)
    connection.commit()
    assert fill(kai, base, verdict="fine").status_code == 403
    assert kept(people["mira"], form)[0].get("verdict") is None
