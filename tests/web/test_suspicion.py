"""What looks like a machine's is held, seen, and let through or removed; nothing is lost and nothing follows before."""

import hashlib
import itertools
import time
import uuid

import pytest
from conftest import within
from web.test_follow_ups import MAIL, visit_document

from codexa.services import desk, publishing, suspicion, tidying


@pytest.fixture
def watched(app, as_mira, connection, mira):
    """A published form with a mail that follows, on a server that holds what it suspects."""
    object.__setattr__(app.config["SETTINGS"], "hold_suspected", "yes")
    form = desk.import_form(within(connection), who=mira, document=visit_document() | {"follow_ups": [MAIL]})
    publishing.publish(within(connection), who=mira, form=form, revision=1)
    connection.commit()
    return form


def hand_in(agent, form, answers, **body):
    return agent.client.post(
        f"/api/public/{form}/1/responses",
        json={"answers": answers, **body},
        headers={"Idempotency-Key": uuid.uuid4().hex},
    )


@pytest.fixture
def opened(app, watched, monkeypatch):
    """Gives what a page says that was opened so many seconds ago."""

    def ago(seconds=60):
        now = time.time()
        with monkeypatch.context() as past:
            past.setattr(suspicion.time, "time", lambda: now - seconds)
            return suspicion.opened_now(watched, app.config["SETTINGS"])

    return ago


@pytest.fixture
def send(agent, watched, connection):
    """Hands in what the form takes."""
    answers = answers_of(connection, watched)
    return lambda **body: hand_in(agent, watched, answers, **body)


def answers_of(connection, form):
    """Answers that the form takes."""
    document = connection.execute("SELECT draft FROM form WHERE id = %s", [form]).fetchone()["draft"]
    required = {"short_text": "Ana", "email": "ana@example.org", "number": "3", "name": "Ana Bell"}
    blocks = [block for page in document["pages"] for block in page["blocks"]]
    return {block["id"]: required[block["type"]] for block in blocks if block["type"] in required}


def test_a_person_is_not_suspected(as_mira, watched, send, opened):
    assert send(opened=opened()).status_code == 201
    assert as_mira.get(f"/api/forms/{watched}/responses/held").json["held"] == []
    assert as_mira.get(f"/api/forms/{watched}/responses").json["count"] == 1


@pytest.mark.parametrize(
    ("how", "words"),
    [
        ({"trap": "https://buy.example.org"}, "a box that people don't see"),
        ({"seconds": 0}, "within two seconds"),
        ({"opened": ""}, "without the form's page"),
        ({"opened": "99.forged"}, "without the form's page"),
    ],
)
def test_a_machine_is_held_and_let_through_by_a_person(as_mira, watched, connection, send, opened, how, words):  # noqa: PLR0917
    body = {"opened": opened(how.get("seconds", 60)), **how}
    body.pop("seconds", None)
    # Who sends it reads the same as everybody.
    assert send(**body).status_code == 201
    (held,) = as_mira.get(f"/api/forms/{watched}/responses/held").json["held"]
    assert words in held["reasons"][0]
    assert as_mira.get(f"/api/forms/{watched}/responses").json["count"] == 0
    assert connection.execute("SELECT count(*) FROM run").fetchone()["count"] == 0
    connection.commit()
    through = f"/api/forms/{watched}/responses/{held['number']}/let-through"
    assert [as_mira.post(through).status_code for _ in range(2)] == [204, 404]
    assert as_mira.get(f"/api/forms/{watched}/responses").json["count"] == 1
    assert connection.execute("SELECT count(*) FROM run").fetchone()["count"] > 0
    events = as_mira.get(f"/api/forms/{watched}/responses/{held['number']}").json["events"]
    assert [each["kind"] for each in events] == ["handed in", "held", "let through", "complete"]


def test_what_is_removed_follows_nowhere_and_comes_back_for_thirty_days(as_mira, watched, connection, send, tmp_path):
    send()
    (held,) = as_mira.get(f"/api/forms/{watched}/responses/held").json["held"]
    place = f"/api/forms/{watched}/responses/{held['number']}"
    assert [as_mira.delete(f"{place}/held").status_code for _ in range(2)] == [204, 404]
    assert [each["removed"] for each in as_mira.get(f"/api/forms/{watched}/responses/held").json["held"]] == [True]
    assert as_mira.post(f"{place}/let-through").status_code == 404
    assert connection.execute("SELECT count(*) FROM run").fetchone()["count"] == 0
    connection.commit()
    # Back and forth, as often as somebody thinks better of it.
    for _ in range(2):
        assert [as_mira.post(f"{place}/held").status_code for _ in range(2)] == [204, 404]
        assert as_mira.delete(f"{place}/held").status_code == 204
    connection.execute("UPDATE event SET at = at - interval '29 days'")
    tidying.tidy(connection, tmp_path)
    assert as_mira.get(place).status_code == 200
    connection.execute("UPDATE event SET at = at - interval '2 days'")
    tidying.tidy(connection, tmp_path)
    assert as_mira.get(place).status_code == 404
    # What is gone is counted no more, and its number is given to nothing else.
    assert as_mira.get(f"/api/forms/{watched}").json["responses"] == 0
    assert send().json["number"] == 2


class TestWork:
    """What is asked of a sender's computer where very many responses come from one network."""

    KEY = "the-key-of-this-one"

    @pytest.fixture
    def send(self, app, agent, published):
        """Hands in to a server where two responses a minute are usual; returns the reply."""
        object.__setattr__(app.config["SETTINGS"], "work_rate", "2 per minute")

        def hand_in(key=self.KEY, **body):
            return agent.client.post(
                f"/api/public/{published}/1/responses",
                json={"answers": {"people": "3"}, **body},
                headers={"Idempotency-Key": key},
            )

        for count in range(2):
            assert hand_in(f"before-{count}").status_code == 201
        return hand_in

    def found(self, asked, key=KEY):
        """What a browser finds."""
        _, bits, mark = asked.split(".")

        def fits(number):
            digest = hashlib.sha256(f"{key}.{mark}.{number}".encode()).digest()
            return int.from_bytes(digest) >> (256 - int(bits)) == 0

        return f"{asked}:{next(filter(fits, itertools.count()))}"

    def test_is_done_once_and_lets_the_response_in(self, send):
        refused = send()
        assert (refused.status_code, refused.json["code"]) == (428, "work_first")
        done = self.found(refused.json["work"])
        assert send(work=done).status_code == 201
        # It is of no use for another response.
        assert send("another-key", work=done).status_code == 428

    @pytest.mark.parametrize(
        "change", ["", "0.0.{mark}:1", "{moment}.1.{mark}:0", "{moment}.{bits}.{mark}:", "a.b.c:d"]
    )
    def test_that_was_not_done_lets_nothing_in(self, send, change):
        moment, bits, mark = send().json["work"].split(".")
        assert send(work=change.format(moment=moment, bits=bits, mark=mark)).status_code == 428

    def test_holds_for_minutes_and_grows_with_the_count(self, send, monkeypatch):
        asked = send().json["work"]
        done = self.found(asked)
        later = time.time() + 601
        with monkeypatch.context() as clock:
            clock.setattr("codexa.services.work.time.time", lambda: later)
            assert send(work=done).status_code == 428
        bits = [int(send().json["work"].split(".")[1]) for _ in range(40)]
        assert bits == sorted(bits)
        assert bits[0] < bits[-1] <= 20
