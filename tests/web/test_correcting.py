"""Correcting an answer: worked out anew by its own edition, compared before it is kept, with a trail and its claims."""

import threading

import pytest
from conftest import publish_visit, receive, visit_document, within

from codexa.services import desk, publishing
from codexa.services.editions import Editions
from codexa.store import claims

ANSWERS = {"show": "o1", "people": "20", "school": "Lyra", "mail": "class@example.org"}


@pytest.fixture
def response(connection, mira):
    """The form of a response that was given to its first edition; the second asks for more."""
    form = publish_visit(connection, mira)
    receive(connection, Editions(within(connection)).program(form, 1), form, "key-of-the-first", ANSWERS)
    connection.commit()
    return form


def place(form, path=""):
    return f"/api/forms/{form}/responses/1/correction{path}"


def opened(agent, form):
    reply = agent.get(place(form))
    assert reply.status_code == 200, reply.json
    return reply.json


def save(agent, form, before, because="", **answers):
    body = {"answers": {**before["answers"], **answers}, "version": before["version"], "because": because}
    return agent.post(place(form), json=body)


def cells(agent, form):
    found = agent.get(f"/api/forms/{form}/responses/1").json
    return found["row"]["cells"], found["events"]


def test_what_changes_is_told_before_it_is_kept_and_the_trail_after(as_mira, response):
    before = opened(as_mira, response)
    assert before["answers"] == ANSWERS
    told = as_mira.post(place(response, "/compare"), json={"answers": {**ANSWERS, "people": "21"}}).json
    assert [(each["label"], each["before"], each["after"], each["calculated"]) for each in told["changes"]] == [
        ("People", "20", "21", False),
        ("Price", "€90.00", "€94.50", True),
    ]
    assert cells(as_mira, response)[0]["people"] == "20"
    assert save(as_mira, response, before, "They called.", people="21").json == told
    kept, events = cells(as_mira, response)
    assert (kept["people"], kept["price"]) == ("21", "€94.50")
    assert (events[-1]["kind"], events[-1]["person"]) == ("corrected", "Owner")
    assert events[-1]["about"] == "They called.\nPeople: 20 → 21\nPrice: €90.00 → €94.50"
    where = f'/api/forms/{response}/responses?where=[["people","is","21"]]'
    assert [row["number"] for row in as_mira.get(where).json["rows"]] == [1]


def test_nothing_wrong_is_kept_and_of_two_the_later_is_told(as_mira, response):
    before = opened(as_mira, response)
    for wrong, label in (({"people": "61"}, "People"), ({"school": ""}, "School"), ({"zq": "1"}, "zq")):
        assert [each["label"] for each in save(as_mira, response, before, **wrong).json["wrong"]] == [label]
    assert save(as_mira, response, before).json == {"changes": [], "wrong": [], "paid": ""}
    assert [each["kind"] for each in cells(as_mira, response)[1]] == ["handed in", "complete"]
    assert save(as_mira, response, before, people="3").status_code == 200
    late = save(as_mira, response, before, people="4")
    assert (late.status_code, late.json["code"]) == (409, "corrected_meanwhile")
    kept = cells(as_mira, response)[0]
    # What is not asked of small groups is gone, as if they had said so at once.
    assert (kept["people"], "school" in kept) == ("3", False)


def test_it_is_worked_out_by_the_edition_it_was_given_to(as_mira, connection, mira, response):
    document = visit_document()
    document["pages"][0]["blocks"][4]["formula"] = "1000"
    draft = as_mira.get(f"/api/forms/{response}").json
    saved = as_mira.put(f"/api/forms/{response}/draft", json={"revision": draft["revision"], "draft": document}).json
    assert as_mira.post(f"/api/forms/{response}/editions", json={"revision": saved["revision"]}).status_code == 200
    save(as_mira, response, opened(as_mira, response), people="2")
    assert cells(as_mira, response)[0]["price"] == "€9.00"


def test_the_form_to_correct_in_asks_at_the_place_of_the_response_and_sends_nothing(as_mira, response):
    page = as_mira.client.get(f"/correct/{response}/1")
    assert page.status_code == 200
    assert 'class="framed own-window unsent"' in page.get_data(as_text=True)
    told = as_mira.post(place(response, "/state"), json={"answers": {**ANSWERS, "people": "30"}, "turn": 3}).json
    assert (told["turn"], told["state"]["blocks"]["price"]["value"]) == (3, "€135.00")
    assert as_mira.post(place(response, "/responses"), json={"answers": ANSWERS}).status_code == 422
    assert as_mira.client.get(f"/correct/{response}/9").status_code == 404


def test_a_file_is_added_to_a_response_and_another_taken_away(as_mira, connection, mira):
    document = visit_document()
    document["pages"][0]["blocks"].append({"id": "plan", "type": "file_upload", "key": "plan", "label": "Plan"})
    form = desk.import_form(within(connection), who=mira, document=document)
    publishing.publish(within(connection), who=mira, form=form, revision=1)
    receive(connection, Editions(within(connection)).program(form, 1), form, "key-of-the-first", ANSWERS)
    connection.commit()
    names = []
    for name in ("first.txt", "second.txt"):
        sent = as_mira.post(f"{place(form, '/files/plan')}?name={name}", data=name, content_type="text/plain")
        assert sent.status_code == 200, sent.json
        kept = save(as_mira, form, opened(as_mira, form), plan=[sent.json["id"]])
        names.append([(each["label"], each["before"], each["after"]) for each in kept.json["changes"]])
    assert names == [[("Plan", "", "first.txt")], [("Plan", "first.txt", "second.txt")]]
    file = as_mira.get(f"/api/forms/{form}/responses/1").json["files"]["plan"][0]
    with as_mira.get(f"/api/forms/{form}/files/{file['id']}") as reply:
        assert reply.data == b"second.txt"
    strange = save(as_mira, form, opened(as_mira, form), plan=["9d2f0000-0000-4000-8000-000000000000"])
    assert [each["label"] for each in strange.json["wrong"]] == ["Plan"]
    assert as_mira.post(f"{place(form, '/files/people')}?name=a.txt", data="a").status_code == 404


def test_a_response_that_waits_or_was_removed_is_not_corrected(as_mira, connection, response):
    before = opened(as_mira, response)
    for stage in ("kept", "waiting", "removed"):
        connection.execute("UPDATE response SET stage = %s WHERE form_id = %s", (stage, response))
        connection.commit()
        refused = save(as_mira, response, before, people="2")
        assert (refused.status_code, refused.json["code"]) == (409, "correction_refused")


def test_a_card_moved_on_a_board_by_a_choice_is_a_correction(as_mira, response):
    move = f"/api/forms/{response}/responses/1/move"
    assert as_mira.post(move, json={"by": "show", "was": "stars", "to": "deep"}).status_code == 204
    assert cells(as_mira, response)[0]["price"] == "€120.00"
    assert as_mira.post(move, json={"by": "show", "was": "stars", "to": "deep"}).status_code == 204
    assert as_mira.post(move, json={"by": "show", "was": "stars", "to": ""}).status_code == 409
    assert as_mira.post(move, json={"by": "show", "was": "deep", "to": ""}).status_code == 204
    assert "show" not in cells(as_mira, response)[0]
    for by, to in (("show", "nothing"), ("price", "1"), ("gone", "1")):
        refused = as_mira.post(move, json={"by": by, "was": "", "to": to})
        assert (refused.status_code, refused.json["code"]) == (409, "correction_refused")


@pytest.fixture
def lamps(connection, mira):
    """A form that sells five lamps, of which two responses have two each."""
    document = visit_document()
    lamp = {"id": "lamp", "type": "product", "key": "lamp", "label": "Lamp", "price": "9", "stock": 5}
    document["pages"][0]["blocks"].append(lamp)
    form = desk.import_form(within(connection), who=mira, document=document)
    publishing.publish(within(connection), who=mira, form=form, revision=1)
    program = Editions(within(connection)).program(form, 1)
    for at in range(2):
        receive(connection, program, form, f"key-of-number-{at}", {**ANSWERS, "lamp": "2"})
    connection.commit()
    return form


def taken(connection, form):
    connection.rollback()
    return claims.taken(connection, form=form).get("stock:lamp", 0)


def test_what_is_ordered_moves_with_its_claims(as_mira, connection, lamps):
    refused = save(as_mira, lamps, opened(as_mira, lamps), lamp="4").json
    assert [each["message"] for each in refused["wrong"]] == ["There are only 3 left."]
    for count, left in (("3", 5), ("1", 3), ("", 2), ("2", 4)):
        reply = save(as_mira, lamps, opened(as_mira, lamps), lamp=count)
        assert reply.status_code == 200, (count, reply.json)
        assert taken(connection, lamps) == left
    as_mira.post(f"/api/forms/{lamps}/responses/remove", json={"numbers": [1]})
    assert taken(connection, lamps) == 2


def test_of_many_who_correct_at_once_one_does(app, as_mira, connection, lamps):
    before, replies = opened(as_mira, lamps), []
    agents = [app.test_client() for _ in range(4)]
    for each in agents:
        each._cookies = as_mira.client._cookies.copy()
    headers = {"X-CSRF-Token": as_mira.get("/api/session").json["csrf_token"]}

    def correct(at):
        answers = {**before["answers"], "lamp": str(1 + 2 * (at % 2))}
        body = {"answers": answers, "version": before["version"]}
        replies.append(agents[at].post(place(lamps), json=body, headers=headers).status_code)

    threads = [threading.Thread(target=correct, args=(at,)) for at in range(4)]
    for each in threads:
        each.start()
    for each in threads:
        each.join()
    assert sorted(replies) == [200, 409, 409, 409]
    assert taken(connection, lamps) in (3, 5)
