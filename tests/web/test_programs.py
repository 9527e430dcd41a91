"""Programs by a key: only what the key may, answers that go in as they come out; and feeds of views."""

import csv
import io
import json
import random
import uuid
from urllib.parse import urlencode

import jsonschema
import pytest
from conftest import make_person, publish_visit, receive, within
from core.any_form import provable_forms
from core.formulas import CONTEXT
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as some

from codexa.core.form.form import read_form
from codexa.core.program.accept import Accepted, accept
from codexa.core.program.by_key import entered_by_key, path_of
from codexa.core.program.compiling import compile_form
from codexa.core.program.samples import sample_answers
from codexa.services.editions import Editions
from codexa.services.keys import KeyRight
from codexa.services.response_set import documents

ALL = [str(each) for each in KeyRight]


@pytest.fixture
def form(connection, mira):
    form = publish_visit(connection, mira)
    program = Editions(within(connection)).program(form, 1)
    for at, people in enumerate(("20", "3", "7")):
        receive(connection, program, form, f"key-of-number-{at}", {"people": people, "school": "Lyra", "show": "o1"})
    connection.commit()
    return form


class Program:
    """A program with a key of its own; no session, no cookie."""

    def __init__(self, app, key):
        self.client = app.test_client()
        self.headers = {"Authorization": f"Bearer {key}"} if key else {}

    def get(self, path, **query):
        return self.client.get(f"/api/v1{path}?{urlencode(query)}", headers=self.headers)

    def post(self, path, body, key=None):
        headers = {**self.headers, "Idempotency-Key": key or uuid.uuid4().hex}
        return self.client.post(f"/api/v1{path}", json=body, headers=headers)


@pytest.fixture
def program(app, as_mira):
    def make(rights=ALL, form=None):
        asked = {"name": "Reports", "rights": rights, "form": form and str(form)}
        return Program(app, as_mira.post("/api/keys", json=asked).json["key"])

    return make


def test_a_key_opens_what_it_may_and_is_told_when_it_was_used(app, as_mira, program, form, connection):
    reader = program([KeyRight.READ_RESPONSES])
    assert reader.get(f"/forms/{form}/responses").status_code == 200
    for path in ("/forms", f"/forms/{form}", f"/forms/{form}/schema"):
        refused = reader.get(path)
        assert (refused.status_code, refused.mimetype) == (403, "application/problem+json")
        assert refused.json["detail"].startswith("This key may not read forms.")
    assert reader.post(f"/forms/{form}/responses", {"answers": {}}).status_code == 403
    (listed,) = as_mira.get("/api/keys").json["keys"]
    assert (listed["rights"], listed["form"], listed["last_used_at"] is not None) == (["read responses"], None, True)
    assert "key" not in listed
    assert as_mira.delete(f"/api/keys/{listed['id']}").status_code == 204
    for opened in (reader, Program(app, ""), Program(app, "codexa_guessed")):
        refused = opened.get("/forms")
        assert (refused.status_code, refused.json["code"]) == (401, "key_refused")
        assert refused.headers["WWW-Authenticate"] == "Bearer"
    stored = connection.execute("SELECT count(*) AS n FROM api_key AS each WHERE each::text ILIKE '%codexa_%'")
    assert stored.fetchone()["n"] == 0


def test_a_key_of_one_form_or_team_opens_no_other(as_mira, program, form, connection, mira):
    other = publish_visit(connection, mira)
    one = program(form=form)
    assert [each["id"] for each in one.get("/forms").json["forms"]] == [str(form)]
    assert one.get(f"/forms/{other}/responses").status_code == 404
    stranger = make_person(connection, team="rival")
    foreign = publish_visit(connection, stranger)
    assert program().get(f"/forms/{foreign}").status_code == 404
    assert as_mira.post("/api/keys", json={"name": "x", "rights": ALL, "form": str(foreign)}).status_code == 404
    editor = make_person(connection, role="editor", email="editor@example.org")
    connection.commit()
    as_mira.sign_in(editor.email)
    assert as_mira.get("/api/keys").status_code == 403


def test_responses_come_in_pages_with_a_filter_and_one_by_its_number(program, form):
    reader, place = program(), f"/forms/{form}/responses"
    first = reader.get(place, limit=2).json
    second = reader.get(place, limit=2, after=first["next"]).json
    assert [each["number"] for each in first["responses"] + second["responses"]] == [3, 2, 1]
    large = reader.get(place, where=json.dumps([["people", "at_least", "7"]]), sort="people").json["responses"]
    assert [each["answers"]["people"] for each in large] == ["7", "20"]
    assert reader.get(f"{place}/2").json == second["responses"][0] | reader.get(f"{place}/2").json
    for wrong, status in (({"where": "["}, 400), ({"where": '[["gone","is","1"]]'}, 422), ({"after": "x"}, 400)):
        refused = reader.get(place, **wrong)
        assert (refused.status_code, refused.mimetype) == (status, "application/problem+json")
    assert reader.get(f"{place}/99").status_code == 404


def test_a_response_is_handed_in_once_with_the_form_s_rules(program, form, as_mira):
    sender, place = program(), f"/forms/{form}/responses"
    answers = {"show": "deep", "people": 14, "school": "Lyra", "mail": None}
    first = sender.post(place, {"answers": answers}, key="the-same-key")
    again = sender.post(place, {"answers": answers}, key="the-same-key")
    assert (first.status_code, again.status_code) == (201, 200)
    assert first.json["number"] == again.json["number"] == 4
    assert sender.post(place, {"answers": {**answers, "people": 15}}, key="the-same-key").status_code == 409
    kept = sender.get(f"{place}/4").json["answers"]
    assert (kept["show"], kept["people"], kept["price"]) == ("deep", "14", "84")
    assert as_mira.get(f"/api/forms/{form}/responses/4").json["way"] == "program"
    for given_answers, path in (
        ({"people": "0"}, "answers.people"),
        ({"people": 14}, "answers.school"),
        ({"people": [1]}, "answers.people"),
        ({"show": "comet", "people": 1}, "answers.show"),
        ({"nothing": "x", "people": 1}, "answers.nothing"),
        ({"price": "1", "people": 1}, "answers.price"),
    ):
        refused = sender.post(place, {"answers": given_answers})
        assert (refused.status_code, [each["path"] for each in refused.json["problems"]]) == (422, [path])
    assert sender.client.post(f"/api/v1{place}", json={"answers": {}}, headers=sender.headers).status_code == 400
    assert as_mira.put(f"/api/forms/{form}/access", json={"access": {"most": 4}}).status_code == 200
    closed = sender.post(place, {"answers": answers})
    assert (closed.status_code, closed.json["code"]) == (410, "closed")


def test_what_is_served_says_what_there_is(program, form, app):
    served = Program(app, "").get("/openapi.json").json
    assert served["openapi"] == "3.1.0"
    schema = program().get(f"/forms/{form}/schema").json
    jsonschema.Draft202012Validator.check_schema(schema)
    for path, methods in served["paths"].items():
        for method, described in methods.items():
            assert described["summary"], (path, method)
            for content in described["responses"].values():
                for one in content["content"].values():
                    name = one["schema"].get("$ref", "").removeprefix("#/components/schemas/")
                    assert not name or name in served["components"]["schemas"]
    assert set(served["paths"]["/api/v1/forms/{form}/responses"]) == {"get", "post"}


@settings(max_examples=40, deadline=None, suppress_health_check=[HealthCheck.too_slow])
@given(document=provable_forms(), seed=some.integers(0, 1000))
def test_what_any_form_has_kept_goes_in_again_as_it_comes_out(document, seed):
    form = read_form(document)
    program = compile_form(form)
    accepted = accept(program, sample_answers(program, random.Random(seed), CONTEXT), CONTEXT)
    if not isinstance(accepted, Accepted) or program.takes_files:
        return
    out = json.loads(json.dumps(documents._answers(form, accepted.answers, None)))
    entered = entered_by_key(program, as_given(program, out))
    assert entered.wrong == {}
    again = accept(program, entered.answers, CONTEXT)
    assert isinstance(again, Accepted), [path_of(program, each) for each in again.errors]
    assert documents._answers(form, again.answers, None) == out


def as_given(program, out):
    """What comes out, without blanks and what is worked out: nobody gives that."""
    inner = [each for place in program.top_places for kind in getattr(place, "kinds", ()) for each in kind.places]
    computed = {getattr(each.block, "key", "") for each in (*program.top_places, *inner) if not each.answered}
    repeats = {place.block.key for place in program.top_places if hasattr(place, "kinds")}

    def given_only(values):
        return {key: value for key, value in values.items() if value is not None and key not in computed - repeats}

    return {
        key: [given_only(row) for row in value] if key in repeats else value for key, value in given_only(out).items()
    }


@pytest.fixture
def feed(as_mira, form):
    content = {
        "filter": {"conditions": [{"column": "people", "how": "at_least", "values": ["7"]}]},
        "columns": ["response.number", "people", "response.tags", "school", "gone"],
        "sorts": ["people"],
    }
    view = as_mira.post(f"/api/forms/{form}/responses/views", json={"name": "Large", "content": content}).json["id"]
    assert as_mira.post(f"/api/forms/{form}/feeds", json={"view": view}).status_code == 200
    (made,) = as_mira.get(f"/api/forms/{form}/feeds").json["feeds"]
    return view, made


def path_in(made):
    return made["address"].split("://")[1].partition("/")[2]


def test_a_feed_gives_what_its_view_shows_until_it_is_ended(app, as_mira, form, feed, connection):
    _, made = feed
    connection.execute("UPDATE response SET tags = '{Press,VIP}' WHERE number = 1")
    connection.commit()
    anybody, place = app.test_client(), "/" + path_in(made)
    reply = anybody.get(f"{place}.csv")
    rows = list(csv.reader(io.StringIO(reply.get_data(as_text=True))))
    assert [row[0:1] + row[3:] for row in rows] == [
        ["Number", "People", "Tags", "School"],
        ["3", "7", "", ""],
        ["1", "20", "Press, VIP", "Lyra"],
    ]
    same = anybody.get(f"{place}.csv", headers={"If-None-Match": reply.headers["ETag"]})
    assert (same.status_code, same.data) == (304, b"")
    receive(connection, Editions(within(connection)).program(form, 1), form, "one-more-came", {"people": "9"})
    connection.commit()
    later = anybody.get(f"{place}.json", headers={"If-None-Match": reply.headers["ETag"]})
    assert [each["answers"] for each in later.json] == [
        {"people": "7", "school": None},
        {"people": "9", "school": None},
        {"people": "20", "school": "Lyra"},
    ]
    connection.execute("UPDATE response SET received_at = '2020-01-01Z' WHERE number = 1")
    connection.commit()
    assert [each["number"] for each in anybody.get(f"{place}.json?since=2020-01-02").json] == [3, 4]
    assert anybody.get(f"{place}.json?since=yesterday").status_code == 400
    (listed,) = as_mira.get(f"/api/forms/{form}/feeds").json["feeds"]
    assert (listed["view"], listed["fetches"]) == ("Large", 4)
    assert as_mira.delete(f"/api/forms/{form}/feeds/{listed['id']}").status_code == 204
    assert anybody.get(f"{place}.csv").status_code == 404


def test_a_feed_s_address_can_not_be_guessed_and_ends_with_its_view(app, as_mira, form, feed, connection):
    view, made = feed
    anybody, place = app.test_client(), "/" + path_in(made)
    for guess in ("x" * 43, place[-10:], "%00", ".."):
        assert anybody.get(f"/feed/{guess}.csv").status_code == 404
    secret = place.rsplit("/", 1)[1]
    held = connection.execute("SELECT count(*) AS n FROM feed AS each WHERE each::text LIKE %s", (f"%{secret}%",))
    assert held.fetchone()["n"] == 0
    as_mira.delete(f"/api/forms/{form}/responses/views/{view}")
    assert anybody.get(f"{place}.csv").status_code == 404
    assert as_mira.post(f"/api/forms/{form}/feeds", json={"view": view}).status_code == 404
