"""Whatever is sent to whichever address: a sentence, never a 500, and bounded work."""

import json
import re

import pytest
from conftest import Browser as Agent
from conftest import app_on, copied_database, make_person, publish_visit
from hypothesis import given, settings
from hypothesis import strategies as some
from psycopg import connect
from psycopg.rows import dict_row
from web.examples import example_of

from codexa.web.endpoint import ENDPOINTS
from codexa.web.reading import is_deeper

NASTY = some.sampled_from(
    ["\x00", "a\x00b", "\ud800", "\udfff\ud800", 2**31, 2**63, 10**40, -(2**70), "İ" * 400, "a" + "\u0315" * 40]
)
VALUES = some.recursive(
    some.none() | some.booleans() | some.integers() | some.text(max_size=20) | NASTY,
    lambda inner: some.lists(inner, max_size=3) | some.dictionaries(some.text(max_size=8), inner, max_size=3),
    max_leaves=6,
)


@pytest.fixture(scope="module")
def place(cluster, tmp_path_factory):
    """An application with a published form, and its owner signed in."""
    with (
        copied_database(cluster) as database,
        app_on(database, tmp_path_factory.mktemp("files")) as app,
        connect(database, row_factory=dict_row) as connection,
    ):
        owner = make_person(connection, email="owner@example.org")
        form = publish_visit(connection, owner)
        agent = Agent(app)
        agent.sign_in("owner@example.org")
        yield agent, form


def changed(draw, document):
    """A document with one of its values, at any depth, replaced by something else."""
    if isinstance(document, dict) and document and draw(some.booleans()):
        key = draw(some.sampled_from(sorted(document)))
        return document | {key: changed(draw, document[key])}
    if isinstance(document, list) and document and draw(some.booleans()):
        return [changed(draw, document[0]), *document[1:]]
    return draw(VALUES)


def address_of(endpoint, form):
    return re.sub(r"<\w+:?(\w*)>", lambda found: str(form) if "uuid" in found[0] else "1", endpoint.rule)


# First of all: what is sent at random below may well close the form.
def test_a_pair_of_halves_is_a_sign_and_taken(place):
    agent, form = place
    body = b'{"answers": {"school": "\\ud83d\\udd2d \\\\u0000"}}'
    headers = {"Content-Type": "application/json"}
    assert agent.client.post(f"/api/public/{form}/1/state", data=body, headers=headers).status_code == 200


@pytest.mark.parametrize("endpoint", ENDPOINTS, ids=lambda each: f"{each.method} {each.rule}")
@given(data=some.data())
@settings(max_examples=12)
def test_every_endpoint_answers_anything_with_a_sentence(place, endpoint, data):
    agent, form = place
    if endpoint.rule == "/api/session" and endpoint.method == "DELETE":
        return
    body = json.dumps(changed(data.draw, example_of(endpoint) or {}), ensure_ascii=data.draw(some.booleans()))
    headers = {"Content-Type": "application/json", "Idempotency-Key": "any-key-here"}
    query = {"limit": data.draw(some.sampled_from(["", "\x00", "9" * 30])), "name": "a\x00b", "visit": "\x00"}
    reply = agent.client.open(
        address_of(endpoint, form),
        method=endpoint.method,
        data=body.encode("utf-8", "surrogatepass"),
        headers={**agent.headers, **headers},
        query_string=query if endpoint.method == "GET" or "files" in endpoint.rule else None,
    )
    assert reply.status_code < 500
    if reply.status_code >= 400:
        assert reply.json["message"][-1] in ".?"
    if (endpoint.method, endpoint.rule) == ("DELETE", "/api/forms/<uuid:form>"):
        # The others go on asking it, in whatever order they run.
        agent.post(f"/api/forms/{form}/restore")


@pytest.mark.parametrize(
    "body",
    [
        b'{"answers": {"people": 1E+3000000}}',
        b'{"answers": {"people": ' + b"9" * 5_000 + b"}}",
        b'{"answers": ' + b'{"a":' * 300 + b"1" + b"}" * 300 + b"}",
        b'{"answers": ' + b"[" * 100_000 + b"]" * 100_000 + b"}",
        b'{"answers": {"school": "\\u0000"}}',
        b'{"answers": {"school": "\\ud83d"}}',
        b'{"answers": {}, "turn": 1e30}',
        '{"answers": {"school": "\\ud800"}}'.encode("utf-16"),
        b"\xff\xfe",
        b"NaN",
    ],
)
def test_what_no_database_could_keep_is_refused_before_anything_looks_at_it(place, body):
    agent, form = place
    for path in ("state", "responses"):
        reply = agent.client.post(
            f"/api/public/{form}/1/{path}",
            data=body,
            headers={"Content-Type": "application/json", "Idempotency-Key": "any-key-here"},
        )
        assert reply.status_code == 400


def test_what_is_no_address_where_one_is_sent_breaks_nothing(place):
    agent, form = place
    for path, sent, header, status in (
        ("/api/session", {"email": "owner@example.org", "password": "x"}, "Origin", 403),
        (f"/api/public/{form}/1/sign-in", {"way": "mail", "email": "ana@example.org"}, "Referer", 200),
    ):
        assert agent.client.post(path, json=sent, headers={header: "https://["}).status_code == status
    reply = agent.put(f"/api/forms/{form}/sites", json={"sites": ["["]})
    assert reply.json["problems"][0]["message"].startswith('"[" is no website address')


@pytest.mark.parametrize(
    ("address", "size"),
    [("/api/public/{form}/1/state", 1_100_000), ("/api/session", 70_000), ("/api/forms/{form}/draft", 2_200_000)],
)
def test_more_than_a_route_takes_is_refused_by_its_length(place, address, size):
    agent, form = place
    body = b'{"answers": "' + b"x" * size + b'"}'
    method = "PUT" if "draft" in address else "POST"
    headers = {**agent.headers, "Content-Type": "application/json"}
    assert agent.client.open(address.format(form=form), method=method, data=body, headers=headers).status_code == 413


@given(some.integers(1, 90), some.integers(-2, 2))
def test_depth_is_that_of_lists_and_objects_in_one_another(most, beyond):
    document, depth = 1, most + beyond
    for level in range(depth):
        document = [document, 0] if level % 2 else {"a": document}
    assert is_deeper(document, most) is (depth > most)


@pytest.mark.parametrize("path", ["/f/alderlight/\x00", "/static/built/.vite/manifest.json", "/preview/%00"])
def test_addresses_that_can_lead_nowhere_do(place, path):
    assert place[0].client.get(path).status_code == 404
