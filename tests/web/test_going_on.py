"""Going on later: kept as it was entered, found by whoever has the link, handed in once under the number it has."""

import json
import re
import uuid
from datetime import timedelta

import pytest
from web.mail import work
from web.test_follow_ups import MAIL

from codexa.practice.mailbox import store as mailbox
from codexa.services import tidying

TOKEN = uuid.uuid4().hex * 2


@pytest.fixture(autouse=True)
def at_once(monkeypatch):
    """What is set is known at once in every process of a test."""
    monkeypatch.setattr("codexa.services.admission._KNOWN_SECONDS", 0.0)


@pytest.fixture
def keeps(as_mira, published):
    """The published form, where answers can be kept for a week."""
    assert as_mira.put(f"/api/forms/{published}/access", json={"access": {"kept_days": 7}}).status_code == 200
    return published


def test_keeping_for_the_first_time_sets_off_what_waits_for_it(agent, keeps, as_mira, connection):
    draft = as_mira.get(f"/api/forms/{keeps}").json["draft"]
    draft["follow_ups"] = [MAIL | {"id": "u9", "on": "kept"}]
    as_mira.put(f"/api/forms/{keeps}/draft", json={"revision": 1, "draft": draft})
    as_mira.post(f"/api/forms/{keeps}/editions", json={"revision": 2})
    for version in (0, 1):
        asked = {"token": TOKEN, "version": version, "answers": {"mail": "ana@example.org", "people": f"{version}"}}
        assert agent.client.post(f"/api/public/{keeps}/2/kept", json=asked).status_code == 200
    runs = connection.execute("SELECT follow_up, moment FROM run").fetchall()
    assert [tuple(run.values()) for run in runs] == [("u9", "kept")]


def keep(agent, form, answers, *, token=TOKEN, **body):
    return agent.client.post(f"/api/public/{form}/1/kept", json={"token": token, "answers": answers, **body})


def hand_in(agent, form, answers, *, key=None, **body):
    return agent.client.post(
        f"/api/public/{form}/1/responses",
        json={"answers": answers, **body},
        headers={"Idempotency-Key": key or uuid.uuid4().hex},
    )


def kept_on(page):
    data = re.search(r'id="form-data">(.*?)</script>', page.text, re.DOTALL)
    return None if data is None else json.loads(data[1])


def test_what_was_entered_comes_back_to_the_letter_and_is_handed_in_under_its_number(agent, as_mira, keeps, connection):
    entered = {"people": "abc", "school": "not even asked for"}
    standing = {"page": "p1", "seed": 12, "began": 1_700_000_000_000, "visit": "v1", "link": {"code": "a+b%"}}
    assert keep(agent, keeps, entered, **standing).json["version"] == 1
    page = kept_on(agent.client.get(f"/kept/{TOKEN}"))
    assert page["kept"]["answers"] == entered
    assert {name: page["kept"][name] for name in ("page", "seed", "began", "visit")} == {
        name: standing[name] for name in ("page", "seed", "began", "visit")
    }
    assert (page["link"], page["address"], page["later"]) == ({"code": "a+b%"}, f"/kept/{TOKEN}", True)
    # Nothing of it counts or is seen among the responses.
    assert as_mira.get("/api/forms").json["forms"][0]["responses"] == 0
    assert as_mira.get(f"/api/forms/{keeps}/responses").json["count"] == 0
    assert as_mira.get(f"/api/forms/{keeps}/access").json["kept"] == 1
    assert hand_in(agent, keeps, {"people": "3"}).json["number"] == 2
    assert hand_in(agent, keeps, {"people": "abc"}, kept=TOKEN).status_code == 422
    done = [hand_in(agent, keeps, {"people": "4"}, kept=TOKEN, key="the-same-key") for _ in range(2)]
    assert [(each.status_code, each.json["number"]) for each in done] == [(201, 1), (200, 1)]
    events = as_mira.get(f"/api/forms/{keeps}/responses/1").json["events"]
    assert [each["kind"] for each in events] == ["kept", "handed in", "complete"]
    # It can't be handed in twice, nor kept again, and the link says so; what was entered is there no more.
    assert "handed in already" in agent.client.get(f"/kept/{TOKEN}").text
    for reply in (hand_in(agent, keeps, {"people": "5"}, kept=TOKEN), keep(agent, keeps, {}, version=None)):
        assert (reply.status_code, reply.json["code"]) == (409, "keeping_refused")
    assert connection.execute("SELECT entered FROM kept_answers").fetchone()["entered"] == {}
    assert as_mira.get(f"/api/forms/{keeps}/access").json["kept"] == 0


def test_of_two_who_go_on_the_second_is_told_and_may_replace_what_the_first_kept(agent, keeps):
    keep(agent, keeps, {"people": "1"})
    assert keep(agent, keeps, {"people": "2"}, version=1).json["version"] == 2
    # A reply that was lost: the same again does no harm.
    assert keep(agent, keeps, {"people": "2"}, version=1).status_code == 200
    late = keep(agent, keeps, {"people": "3"}, version=1)
    assert (late.status_code, late.json["code"]) == (409, "kept_elsewhere")
    assert kept_on(agent.client.get(f"/kept/{TOKEN}"))["kept"]["answers"] == {"people": "2"}
    assert keep(agent, keeps, {"people": "3"}, version=None).status_code == 200
    assert kept_on(agent.client.get(f"/kept/{TOKEN}"))["kept"]["answers"] == {"people": "3"}


def test_the_log_names_no_link(agent, keeps, capsys):
    keep(agent, keeps, {"people": "1"})
    agent.client.get(f"/kept/{TOKEN}/2")
    said = capsys.readouterr().out
    assert "/kept/…/2" in json.loads(said.splitlines()[-1])["path"]
    assert TOKEN not in said


def test_where_nothing_may_be_kept_nothing_is(agent, as_mira, published, keeps):
    for token in ("short", "'; DROP TABLE response; --" + "a" * 40):
        assert keep(agent, keeps, {}, token=token).status_code == 400
    assert keep(agent, keeps, {"nobody": "1"}).json["code"] == "unknown_fields"
    assert agent.client.get(f"/kept/{TOKEN}").status_code == 404
    as_mira.put(f"/api/forms/{keeps}/access", json={"access": {"kept_days": 7, "online": False}})
    assert keep(agent, keeps, {"people": "1"}).status_code == 410
    as_mira.put(f"/api/forms/{keeps}/access", json={"access": {}})
    assert keep(agent, keeps, {"people": "1"}).json["code"] == "keeping_refused"
    assert '"later":false' in agent.client.get("/f/alderlight/visit").text
    for days in (0, 366):
        assert as_mira.put(f"/api/forms/{keeps}/access", json={"access": {"kept_days": days}}).status_code == 400


def test_a_private_link_asks_for_the_password_and_leads_to_a_new_edition(agent, as_mira, keeps):
    keep(agent, keeps, {"people": "4"})
    as_mira.put(f"/api/forms/{keeps}/password", json={"password": "clear skies"})
    assert "form-data" not in agent.client.get(f"/kept/{TOKEN}").text
    assert kept_on(agent.client.post(f"/kept/{TOKEN}", data={"password": "clear skies"}))["entry"]
    as_mira.put(f"/api/forms/{keeps}/password", json={"password": ""})
    draft = as_mira.get(f"/api/forms/{keeps}").json["draft"]
    draft["pages"][0]["blocks"][1]["label"] = "Guests"
    as_mira.put(f"/api/forms/{keeps}/draft", json={"revision": 1, "draft": draft})
    as_mira.post(f"/api/forms/{keeps}/editions", json={"revision": 2})
    page = kept_on(agent.client.get(f"/kept/{TOKEN}"))
    assert (page["edition"], page["kept"]["edition"]) == (2, 1)


def test_files_stay_as_long_as_what_names_them_and_all_goes_when_its_time_is_over(agent, keeps, connection, tmp_path):
    connection.execute(
        """INSERT INTO upload (id, form_id, block_id, name, media_type, size, has_thumbnail, visit, network, stored_at)
        SELECT gen_random_uuid(), %s, 'b', 'a', 'text/plain', 9, false, visit, 'here', now() - interval '3 days'
        FROM unnest(ARRAY['v1', 'v2']) AS visit""",
        [keeps],
    )
    connection.commit()
    keep(agent, keeps, {"people": "4"}, visit="v1")
    assert tidying.tidy(connection, tmp_path).uploads == 1
    assert agent.client.get(f"/kept/{TOKEN}").status_code == 200
    connection.execute("UPDATE kept_answers SET until = now() - %s", [timedelta(seconds=1)])
    connection.commit()
    assert agent.client.get(f"/kept/{TOKEN}").status_code == 404
    assert tidying.tidy(connection, tmp_path).uploads == 1
    left = "SELECT (SELECT count(*) FROM kept_answers) + (SELECT count(*) FROM response) AS count"
    assert connection.execute(left).fetchone()["count"] == 0
    # Who had it open yet loses nothing: it is a response of its own.
    assert hand_in(agent, keeps, {"people": "4"}, kept=TOKEN).json["number"] == 2


def test_the_link_comes_by_mail_and_stands_in_no_table(agent, keeps, connection, worker):
    keep(agent, keeps, {"people": "4"})
    place = f"/api/public/{keeps}/1/kept/mail"
    assert agent.client.post(place, json={"token": TOKEN, "email": "not an address"}).status_code == 422
    assert agent.client.post(place, json={"token": TOKEN, "email": "ana@example.org"}).status_code == 204
    abouts = connection.execute("SELECT about::text FROM errand").fetchall()
    assert TOKEN not in str(abouts)
    connection.commit()
    work(worker)
    (mail,) = mailbox.all_mail()
    assert mail.recipients == ["ana@example.org"]
    assert f"/kept/{TOKEN}" in mail.message.get_body(("plain",)).get_content()
    codes = [agent.client.post(place, json={"token": TOKEN, "email": "ana@example.org"}).status_code for _ in range(5)]
    assert codes == [204, 204, 204, 204, 409]
    assert agent.client.post(place, json={"token": "a" * 64, "email": "ana@example.org"}).status_code == 404
