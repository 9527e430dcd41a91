"""Editions: a note, two people at once, a way back, replay, and what who comes back is told."""

import uuid

import pytest
from conftest import Browser, make_person, receive, save_draft, visit_document, within

from codexa.services.editions import Editions


def draft_with(connection, who, form, revision, **people):
    document = visit_document()
    document["pages"][0]["blocks"][1] |= people
    save_draft(connection, who=who, form=form, revision=revision, document=document)
    connection.commit()


def publish(browser, form, revision, **more):
    return browser.post(f"/api/forms/{form}/editions", json={"revision": revision, **more})


@pytest.fixture
def ben(app, connection, published):
    person = make_person(connection, role="editor", email="ben@example.org")
    connection.commit()
    browser = Browser(app)
    browser.sign_in(person.email)
    return browser


def test_an_edition_has_its_note_and_who_made_it_live_last(as_mira, ben, published, connection, mira):
    draft_with(connection, mira, published, 1, maximum="40")
    assert publish(as_mira, published, 2, live=1, note="Smaller groups").json["edition"] == 2
    back = ben.post(f"/api/forms/{published}/editions/1/live", json={"live": 2}).json
    assert (back["edition"], back["newest_edition"], back["changes"]) == (1, 2, 1)
    second, first = as_mira.get(f"/api/forms/{published}/editions").json["editions"]
    assert (second["note"], second["last_live_by"], first["last_live_by"]) == ("Smaller groups", "Owner", "Editor")
    assert '"maximum"' not in as_mira.client.get("/f/alderlight/visit").text
    # Published once more, what stands in the draft is the edition that was made of it.
    assert publish(as_mira, published, 2, live=1).json["edition"] == 2


def test_the_second_of_two_who_publish_is_told_and_nothing_is_lost(as_mira, ben, published, connection, mira):
    draft_with(connection, mira, published, 1, maximum="40")
    assert publish(ben, published, 2, live=1).status_code == 200
    draft_with(connection, mira, published, 2, maximum="50")
    told = publish(as_mira, published, 3, live=1)
    assert (told.status_code, told.json["code"]) == (409, "published_meanwhile")
    assert told.json["message"].startswith("Editor made edition 2 live on ")
    assert publish(as_mira, published, 3, live=2).json["edition"] == 3
    # The same press, sent twice, is one edition.
    assert publish(as_mira, published, 3, live=2).json["edition"] == 3


def test_while_one_publishes_another_who_brings_an_old_one_back_is_told(as_mira, ben, published, connection, mira):
    draft_with(connection, mira, published, 1, maximum="40")
    publish(as_mira, published, 2, live=1)
    late = ben.post(f"/api/forms/{published}/editions/1/live", json={"live": 1})
    assert late.json["code"] == "published_meanwhile"
    assert ben.post(f"/api/forms/{published}/editions/9/live", json={"live": 2}).status_code == 404


def test_who_is_filling_in_finishes_on_theirs_and_is_told_what_is_new(as_mira, agent, published, connection, mira):
    document = visit_document()
    document["pages"][0]["blocks"].append({"id": "day", "type": "date", "key": "day", "label": "Day"})
    save_draft(connection, who=mira, form=published, revision=1, document=document)
    connection.commit()
    publish(as_mira, published, 2)
    assert agent.client.get(f"/api/public/{published}/2/news/1").json == {"news": ["New: Day"]}
    assert agent.client.get(f"/api/public/{published}/2/news/9").status_code == 404
    headers = {"Idempotency-Key": uuid.uuid4().hex}
    old = agent.client.post(f"/api/public/{published}/1/responses", json={"answers": {"people": "3"}}, headers=headers)
    assert old.status_code == 201


def test_replay_puts_responses_through_the_draft_some_at_a_time(as_mira, published, connection, mira):
    program = Editions(within(connection)).program(published, 1)
    for at in range(60):
        receive(connection, program, published, f"key-{at:04}", {"people": str(at % 12 + 1), "show": "o1"})
    draft_with(connection, mira, published, 1, maximum="10")
    first = as_mira.get(f"/api/forms/{published}/replay").json
    rest = as_mira.get(f"/api/forms/{published}/replay", query_string={"after": first["next"]}).json
    assert (first["looked_at"], rest["looked_at"], rest["next"]) == (50, 10, None)
    found = [each for page in (first, rest) for each in page["differing"]]
    assert [each["number"] for each in found] == [n for n in range(60, 0, -1) if (n - 1) % 12 + 1 > 10]
    (difference,) = found[0]["differences"]
    assert (difference["kind"], difference["name"], difference["why"]) == (
        "refused",
        "1.2 People",
        "1.2 People was changed",
    )


def test_replay_shows_responses_to_nobody_who_may_not_see_them(app, connection, published):
    viewer = make_person(connection, role="viewer")
    connection.commit()
    browser = Browser(app)
    browser.sign_in(viewer.email)
    assert browser.get(f"/api/forms/{published}/replay").status_code == 403
