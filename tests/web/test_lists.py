"""Lists of options: kept once, and followed by the drafts of the forms that have them."""

import pytest
from conftest import make_person, within

from codexa.services import desk, publishing

COUNTRIES = {
    "name": "Countries",
    "options": [
        {"code": "no", "label": "Norway", "counts_as": "1"},
        {"code": "fi", "label": "Finland", "belongs_to": "east"},
    ],
}


@pytest.fixture
def countries(as_mira):
    reply = as_mira.post("/api/lists", json={"document": COUNTRIES})
    return f"/api/lists/{reply.json['id']}"


def _bare(address):
    return address[-36:].replace("-", "")


def form_with(connection, mira, address):
    old = {"id": "o1", "code": "no", "label": "Norge", "price": "4", "shown": "ISBLANK(own)"}
    asked = {
        "id": "b1",
        "type": "dropdown",
        "key": "land",
        "label": "Land",
        "taken_from": address[-36:].replace("-", ""),
    }
    other = {"id": "b2", "type": "dropdown", "key": "own", "label": "Own", "options": [{**old, "shown": ""}]}
    inner = {**asked, "id": "b3", "key": "inner", "options": [{"id": "o1", "code": "no", "label": "Norge"}]}
    rows = {
        "id": "rows", "type": "repeat", "key": "rows", "label": "Rows",
        "kinds": [{"id": "k1", "key": "kind", "label": "Kind", "blocks": [inner]}],
    }  # fmt: skip
    blocks = [{**asked, "options": [old]}, other, rows]
    document = {"name": "Travel", "title": "Travel", "pages": [{"id": "p1", "blocks": blocks}]}
    form = desk.import_form(within(connection), who=mira, document=document)
    connection.commit()
    return form


def options_of(agent, form):
    pages = agent.get(f"/api/forms/{form}").json["draft"]["pages"]
    land, own, rows = pages[0]["blocks"]
    return [
        [(each["code"], each["label"]) for each in block["options"]]
        for block in (land, own, rows["kinds"][0]["blocks"][0])
    ]


def test_a_list_changes_in_one_place_and_the_drafts_that_have_it_follow(as_mira, connection, mira, countries):
    form = form_with(connection, mira, countries)
    publishing.publish(within(connection), who=mira, form=form, revision=1)
    connection.commit()
    known = as_mira.get(countries).json
    assert ([each["name"] for each in known["forms"]], known["revision"]) == (["Travel"], 1)
    more = {**COUNTRIES, "options": [*COUNTRIES["options"], {"code": "se", "label": "Sweden"}]}
    changed = as_mira.put(countries, json={"revision": 1, "document": more}).json
    assert (changed["revision"], changed["behind"]) == (2, [])
    three = [("no", "Norway"), ("fi", "Finland"), ("se", "Sweden")]
    assert options_of(as_mira, form) == [three, [("no", "Norge")], three]
    [norway, finland, _] = as_mira.get(f"/api/forms/{form}").json["draft"]["pages"][0]["blocks"][0]["options"]
    # What the form has set for an option stays; what is live stays as it was published.
    assert (norway["id"], norway["price"], norway["shown"], norway["counts_as"]) == (
        "o1", "4", "ISBLANK(own)", "1",
    )  # fmt: skip
    assert finland["belongs_to"] == "east"
    live = connection.execute("SELECT definition FROM edition WHERE form_id = %s", [form]).fetchone()
    assert "Sweden" not in str(live["definition"])
    late = as_mira.put(countries, json={"revision": 1, "document": more})
    assert (late.status_code, late.json["code"]) == (409, "clash")
    assert [(each["name"], each["options"], each["forms"]) for each in as_mira.get("/api/lists").json["lists"]] == [
        ("Countries", 3, 1)
    ]
    assert as_mira.delete(countries).status_code == 204
    assert options_of(as_mira, form)[0] == three


def test_lists_that_cant_be_are_refused_and_those_of_other_teams_are_not_there(as_mira, connection, countries):
    twice = {"name": "Sizes", "options": [{"code": "s", "label": "Small"}, {"code": "S", "label": "Large"}]}
    refused = as_mira.post("/api/lists", json={"document": twice})
    assert (refused.status_code, refused.json["problems"][0]["path"]) == (422, "options.0.code")
    stranger = make_person(connection, team="harbour", email="stranger@example.org")
    connection.commit()
    as_mira.sign_in(stranger.email)
    assert as_mira.get(countries).status_code == 404
    assert as_mira.delete(countries).status_code == 404
    assert as_mira.get("/api/lists").json["lists"] == []


def test_three_thousand_lines_are_kept_and_followed(as_mira, connection, mira, countries):
    form = form_with(connection, mira, countries)
    many = [{"code": f"c{number}", "label": f"Place {number}"} for number in range(3_000)]
    reply = as_mira.put(countries, json={"revision": 1, "document": {"name": "Places", "options": many}})
    assert (reply.status_code, len(reply.json["options"])) == (200, 3_000)
    assert len(options_of(as_mira, form)[0]) == 3_000


def test_options_come_from_the_records_that_are_offered(as_mira):
    table = as_mira.post("/api/tables", json={"definition": {"name": "Sites"}}).json["id"]
    rows = [{"cells": {"c1": name}} for name in ("Summit Dome", "Harbour Deck", "Old Mill")]
    as_mira.post(f"/api/tables/{table}/records", json={"changes": rows})
    as_mira.post(f"/api/tables/{table}/records/offer", json={"numbers": [3], "offered": False})
    assert as_mira.get(f"/api/tables/{table}/names").json == {"names": ["Summit Dome", "Harbour Deck"], "more": False}
