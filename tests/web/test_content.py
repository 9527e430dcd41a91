"""Published records: what anybody reads of a table, and nothing else of it."""

import threading
from xml.etree import ElementTree

import pytest
from conftest import Browser
from core.test_tables import COLUMNS
from web.test_tables import put

PUBLISHED = {"address": "telescopes", "title": "What we have", "columns": ["c3", "c2"], "author": "c8"}
WHO = {"id": "c8", "type": "email", "key": "who", "label": "Entered by"}
ATOM = {"a": "http://www.w3.org/2005/Atom"}


@pytest.fixture
def table(as_mira):
    definition = {"name": "Telescopes", "columns": [*COLUMNS, WHO], "published": PUBLISHED}
    return f"/api/tables/{as_mira.post('/api/tables', json={'definition': definition}).json['id']}"


def publish(agent, table, *numbers, published=True):
    return agent.post(f"{table}/records/publish", json={"numbers": numbers, "published": published}).json["numbers"]


def read(agent, ending=".json", **query):
    return agent.get(f"/content/alderlight/telescopes{ending}", query_string=query)


def test_anybody_reads_the_published_records_and_of_these_only_what_was_chosen(as_mira, agent, table):
    put(as_mira, table, {"c1": "Nova", "c2": "1234.5", "c3": "deck", "c7": "97531", "c8": "ana@example.org"})
    put(as_mira, table, {"c1": "<Lyra> & \x0b"}, {"c1": "Vega", "c7": "98"})
    assert read(agent).json["records"] == []
    assert publish(as_mira, table, 1, 2, 2, 9) == [1, 2]
    assert publish(as_mira, table, 1) == []
    found = read(agent).json
    assert (found["title"], found["next"]) == ("What we have", None)
    assert [each["label"] for each in found["columns"]] == ["Site", "Aperture"]
    lyra, nova = found["records"]
    assert (nova["name"], nova["author"], nova["number"]) == ("Nova", "ana@example.org", 1)
    assert (nova["values"], nova["shown"]) == (
        {"site": "deck", "aperture": "1234.5"},
        {"site": "Harbour Deck", "aperture": "1,234.5"},
    )
    assert (lyra["values"], lyra["author"]) == ({}, "")
    feed = ElementTree.fromstring(read(agent, ".atom").data)
    assert [each.text for each in feed.findall("a:entry/a:title", ATOM)] == ["<Lyra> &", "Nova"]
    assert feed.find("a:entry[2]/a:content", ATOM).text == "Site: Harbour Deck\nAperture: 1,234.5"
    page = read(agent, "")
    assert "&lt;Lyra&gt; &amp;" in page.text
    assert page.headers["Content-Security-Policy"].endswith("frame-ancestors 'self' *")
    for reply in (read(agent), read(agent, ".atom"), page):
        assert "Vega" not in reply.text
        assert "97531" not in reply.text.replace(",", "")
        assert reply.headers["Access-Control-Allow-Origin"] == "*"
        again = agent.get(reply.request.path, headers={"If-None-Match": reply.headers["ETag"]})
        assert again.status_code == 304
    before = read(agent).headers["ETag"]
    # What is changed is told, what is removed or taken back is gone, and its history says so.
    put(as_mira, table, {"number": 1, "cells": {"c2": "7"}})
    changed = agent.get("/content/alderlight/telescopes.json", headers={"If-None-Match": before})
    assert changed.status_code == 200
    assert read(agent).json["records"][1]["values"]["aperture"] == "7"
    assert publish(as_mira, table, 2, published=False) == [2]
    as_mira.post(f"{table}/records/remove", json={"numbers": [1]})
    assert read(agent).json["records"] == []
    kinds = [each["kind"] for each in as_mira.get(f"{table}/records/2/history").json["changes"]]
    assert kinds == ["taken back", "published", "made"]


def test_more_than_a_page_is_read_in_pages(as_mira, agent, table, monkeypatch):
    monkeypatch.setattr("codexa.services.tables.content.AT_ONCE", 2)
    monkeypatch.setattr("codexa.web.content.AT_ONCE", 2)
    put(as_mira, table, *({"c1": name} for name in ("Nova", "Lyra", "Vega")))
    publish(as_mira, table, 1, 2, 3)
    first = read(agent).json
    assert [each["name"] for each in first["records"]] == ["Vega", "Lyra"]
    assert first["next"].endswith("/content/alderlight/telescopes.json?first=2")
    assert [each["name"] for each in read(agent, first=2).json["records"]] == ["Nova"]
    assert 'first=0">Back' in read(agent, "", first=2).text
    assert read(agent, first="x").status_code == 400


def test_new_records_wait_or_are_published_at_once_as_the_table_says(as_mira, agent, table):
    known = as_mira.get(table).json
    assert known["read_at"].endswith("/content/alderlight/telescopes")
    at_once = {**known["definition"], "published": {**PUBLISHED, "at_once": True}}
    assert as_mira.put(table, json={"revision": 1, "definition": at_once}).status_code == 200
    [made] = put(as_mira, table, {"c1": "Nova"})["records"]
    assert made["published_at"]
    assert [each["name"] for each in read(agent).json["records"]] == ["Nova"]
    # Without a publication nothing is read, whatever was published before.
    none = {**known["definition"], "published": None}
    assert as_mira.put(table, json={"revision": 2, "definition": none}).json["read_at"] is None
    assert (read(agent).status_code, read(agent, "").status_code) == (404, 404)


@pytest.mark.parametrize(
    ("change", "path"),
    [
        ({"columns": ["c9"]}, "published"),
        ({"author": "c9"}, "published"),
        ({"address": "Two words"}, "published.address"),
        ({"address": "telescopes"}, "published.address"),  # of another table
    ],
)
def test_a_publication_that_cant_be_is_refused(as_mira, table, change, path):
    published = {**PUBLISHED, "address": "others", **change}
    definition = {"name": "Others", "columns": [*COLUMNS, WHO], "published": published}
    refused = as_mira.post("/api/tables", json={"definition": definition})
    assert (refused.status_code, refused.json["problems"][0]["path"]) == (422, path)


def test_of_many_tables_at_once_one_gets_an_address(app, mira, connection):
    connection.commit()
    codes, agents = [], [Browser(app) for _ in range(5)]
    for each in agents:
        each.sign_in(mira.email)

    def make(at):
        definition = {"name": f"Table {at}", "published": {"address": "the-one"}}
        codes.append(agents[at].post("/api/tables", json={"definition": definition}).status_code)

    threads = [threading.Thread(target=make, args=(at,)) for at in range(5)]
    for each in threads:
        each.start()
    for each in threads:
        each.join(timeout=60)
    assert sorted(codes) == [200, 422, 422, 422, 422]
