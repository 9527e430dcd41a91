"""Records in forms: what the database finds, what is taken, and what stays as it was when tables change."""

import json
import uuid
from dataclasses import replace

import pytest
from conftest import make_person, within
from core.forms import block
from core.formulas import CONTEXT
from core.records import INSTRUMENTS, SITES, MemoryTable, MemoryTables
from core.test_record_choice import choice, filter_answers, filter_form, filters
from hypothesis import HealthCheck, given, settings
from web.mail import work
from web.test_tables import put

from codexa.core.form.form import read_form
from codexa.core.program.compiling import compile_form
from codexa.core.program.evaluate import evaluate
from codexa.core.program.public import form_state
from codexa.services import desk, publishing
from codexa.services.errors import NotProvenError
from codexa.services.tables.looking_up import KeptTables, tables_for
from codexa.services.tables.working_out import fill_keys
from codexa.store.look_ups import Whose


def made(agent, table):
    """Keep a table of memory in the database, and return its address and what forms know of it."""
    reply = agent.post("/api/tables", json={"definition": table.definition})
    address = f"/api/tables/{reply.json['id']}"
    cells = [{column: _typed(value) for column, value in row.items()} for row in table.rows]
    outcome = put(agent, address, *cells)
    assert not outcome["wrong"], outcome
    return address, {**table.known, "id": uuid.UUID(reply.json["id"]).hex}


def _typed(value):
    return {True: "yes", False: "no"}.get(value, value) if isinstance(value, bool) else value


def loan(sites, instruments):
    """A form that lends instruments of a site."""
    blocks = [
        choice("site", sites["id"]),
        choice("instrument", instruments["id"], fitting="record.site = site.name", required="TRUE"),
        choice("sought", instruments["id"], look="search", fitting="record.site = site.name"),
        block("calculated", "fee", formula="instrument.charge * 2", format="money"),
    ]
    return {"name": "Loan", "title": "Loan", "tables": [sites, instruments], "pages": [{"id": "p1", "blocks": blocks}]}


@pytest.fixture
def there(as_mira, connection, mira):
    """A published form over two tables: its id, and the tables' addresses."""
    sites, known_sites = made(as_mira, SITES)
    instruments, known_instruments = made(as_mira, INSTRUMENTS)
    form = desk.import_form(within(connection), who=mira, document=loan(known_sites, known_instruments))
    publishing.publish(within(connection), who=mira, form=form, revision=1)
    connection.commit()
    return form, sites, instruments


def state(agent, form, answers, **more):
    reply = agent.client.post(f"/api/public/{form}/1/state", json={"answers": answers, **more})
    assert reply.status_code == 200, reply.json
    return reply.json["state"]["blocks"]


def hand_in(agent, form, answers, **more):
    body = {"answers": answers, **more}
    headers = {"Idempotency-Key": uuid.uuid4().hex}
    return agent.client.post(f"/api/public/{form}/1/responses", json=body, headers=headers)


def labels(facts):
    return [each["label"] for each in facts["records"]["listed"]]


def test_visitors_choose_among_what_fits(as_mira, there):
    form, _, instruments = there
    blocks = state(as_mira, form, {"site": "1", "instrument": "1"})
    assert labels(blocks["instrument"]) == ["Juniper", "Moss", "Plover"]
    assert blocks["fee"]["value"] == "€24.00"
    put(as_mira, instruments, {"name": "Árnika", "site": "hill dome", "charge": "3"})
    asked = as_mira.post(f"{instruments}/records/remove", json={"numbers": [1]})
    assert (asked.status_code, "Visitors can choose it in Loan." in asked.json["message"]) == (409, True)
    assert [each["name"] for each in as_mira.get(f"{instruments}/records/1/named").json["forms"]] == ["Loan"]
    as_mira.post(f"{instruments}/records/remove", json={"numbers": [1], "way": "empty"})
    blocks = state(as_mira, form, {"site": "1", "instrument": "1"})
    assert labels(blocks["instrument"]) == ["Árnika", "Moss", "Plover"]
    assert blocks["instrument"]["error"]["code"] == "dropped"
    assert hand_in(as_mira, form, {"site": "1", "instrument": "1"}).json["errors"].keys() == {"instrument"}


def test_a_search_finds_what_is_shown_and_fits(as_mira, there):
    form, _, _ = there

    def search(words, answers=None, address="sought"):
        body = {"answers": answers or {"site": "1"}, "address": address, "words": words}
        reply = as_mira.client.post(f"/api/public/{form}/1/offers", json=body)
        assert reply.status_code == 200
        return reply.json["records"]

    assert [each["label"] for each in search("ov")["listed"]] == ["Plover"]
    assert search("linnet")["none"] == "Nothing fits."
    assert search("reflector")["none"] == "Nothing fits."
    assert search("", address="nowhere")["listed"] == []
    preview = as_mira.post(
        f"/api/forms/{form}/preview/offers", json={"answers": {"site": "2"}, "address": "sought", "words": "lin"}
    )
    assert [each["label"] for each in preview.json["records"]["listed"]] == ["Linnet"]


def test_what_was_taken_stays_as_it_was_and_what_has_changed_is_told_before_it_counts(as_mira, there):
    form, _, instruments = there
    answers = {"site": "1", "instrument": "1"}
    seen = {"instrument": state(as_mira, form, answers)["instrument"]["records"]["stamp"]}
    assert hand_in(as_mira, form, answers, seen=seen).status_code == 201
    put(as_mira, instruments, {"number": 1, "cells": {"charge": "99", "name": "Juniper II"}})
    refused = hand_in(as_mira, form, answers, seen=seen)
    assert refused.json["errors"]["instrument"]["code"] == "record_changed"
    seen = {"instrument": state(as_mira, form, answers)["instrument"]["records"]["stamp"]}
    assert hand_in(as_mira, form, answers, seen=seen).status_code == 201
    first, second = (as_mira.get(f"/api/forms/{form}/responses/{number}").json["row"]["cells"] for number in (1, 2))
    assert [each["fee"] for each in (first, second)] == ["€24.00", "€198.00"]
    assert [each["instrument"] for each in (first, second)] == ["Juniper", "Juniper II"]
    # A correction of something else leaves what was known of it.
    place = f"/api/forms/{form}/responses/1/correction"
    opened = as_mira.get(place).json
    changed = as_mira.post(f"{place}/compare", json={"answers": {**opened["answers"], "sought": "4"}}).json
    assert [(each["label"], each["after"]) for each in changed["changes"]] == [("Sought", "Plover")]


def tried(connection, form, document, answers):
    """What a draft of a form offers with these answers, by what is in the database."""
    program = compile_form(read_form(document))
    with tables_for(within(connection), form) as tables:
        return form_state(evaluate(program, answers, replace(CONTEXT, tables=tables)))["blocks"]


def test_records_of_other_teams_are_none(as_mira, connection, mira, there):
    form, sites, instruments = there
    stranger = make_person(connection, team="elsewhere", email="wren@example.org")
    document = loan(*(as_mira.get(each).json["known"] for each in (sites, instruments)))
    theirs = desk.import_form(within(connection), who=stranger, document=document)
    connection.commit()
    for block_id in ("site", "instrument"):
        found = tried(connection, theirs, document, {"site": "1", "instrument": "1"})[block_id]
        assert (labels(found), found["error"]["code"]) == ([], "dropped")
    with pytest.raises(NotProvenError, match="Sites is not there any more, or is not this team's"):
        publishing.publish(within(connection), who=stranger, form=theirs, revision=1)
    assert as_mira.delete(instruments).status_code == 204
    assert labels(state(as_mira, form, {"site": "1"})["instrument"]) == []


def test_a_column_that_a_form_takes_for_another_harms_nobody(as_mira, connection, mira):
    _, known = made(as_mira, INSTRUMENTS)
    wrong = [{**each, "type": "number"} if each["key"] == "name" else each for each in known["columns"]]
    document = loan(known, {**known, "columns": wrong}) | {"tables": [{**known, "columns": wrong}]}
    document["pages"][0]["blocks"] = [
        choice("instrument", known["id"], fitting="record.name > 3", ordered_by="name", required="TRUE")
    ]
    form = desk.import_form(within(connection), who=mira, document=document)
    assert labels(tried(connection, form, document, {})["instrument"]) == []
    with pytest.raises(NotProvenError, match="The column Name of Instruments is another one now"):
        publishing.publish(within(connection), who=mira, form=form, revision=1)


def test_what_a_version_before_kept_is_found_too(as_mira, connection, there):
    form, _, _ = there
    connection.execute("UPDATE record SET keys = NULL")
    connection.commit()
    assert labels(state(as_mira, form, {"site": "1"})["instrument"]) == []
    fill_keys(within(connection))
    connection.commit()
    assert labels(state(as_mira, form, {"site": "1"})["instrument"]) == ["Juniper", "Moss", "Plover"]


def test_a_database_finds_what_is_meant_and_is_asked_once_for_each_choice(as_mira, connection, mira):
    many = MemoryTable("many", INSTRUMENTS.definition, INSTRUMENTS.rows * 3)
    _, known = made(as_mira, many)
    connection.commit()

    @settings(deadline=None, suppress_health_check=list(HealthCheck))
    @given(text=filters(), answers=filter_answers())
    def compare(text, answers):
        program = compile_form(read_form(filter_form(text, known)))
        asked = KeptTables(lambda: connection, Whose(table=uuid.UUID(known["id"])))
        meant = MemoryTables({known["id"]: many})
        found = [
            [each.number for each in evaluate(program, answers, replace(CONTEXT, tables=tables)).at(place).records]
            for tables in (asked, meant)
            for place in [program.places["thing"].found]
        ]
        assert found[0] == found[1]
        assert asked.queries <= 2

    compare()


INSTRUMENTS_OF_SITES = {
    "name": "Instruments",
    "columns": [
        {"type": "short_text", "id": "name", "key": "name", "label": "Name"},
        {"type": "record_choice", "id": "site", "key": "site", "label": "Site"},
        {"type": "record_choice", "id": "also", "key": "also", "label": "Also at", "several": True},
    ],
}


@pytest.fixture
def naming(as_mira):
    """Two tables, of which one names records of the other: their addresses, and what forms know of them."""
    sites, known_sites = made(as_mira, SITES)
    columns = [{**each, "table": known_sites["id"]} if "record" in each["type"] else each for each in _columns()]
    definition = {**INSTRUMENTS_OF_SITES, "columns": columns}
    reply = as_mira.post("/api/tables", json={"definition": definition})
    instruments = f"/api/tables/{reply.json['id']}"
    wrong = put(
        as_mira, instruments, {"name": "Juniper", "site": "hill dome", "also": "2, Marsh Hut"}, {"name": "Moss"}
    )
    assert not wrong["wrong"], wrong
    return sites, instruments, known_sites, as_mira.get(instruments).json["known"]


def _columns():
    return INSTRUMENTS_OF_SITES["columns"]


def shown(agent, table):
    return [each["cells"] for each in agent.get(f"{table}/records").json["records"]]


def test_a_column_names_records_of_another_table(as_mira, worker, naming):
    sites, instruments, _, _ = naming
    juniper = {"name": "Juniper", "site": "Hill Dome", "also": "Harbour Deck, Marsh Hut"}
    assert shown(as_mira, instruments) == [juniper, {"name": "Moss"}]
    wrong = put(as_mira, instruments, {"name": "Linnet", "site": "Nowhere"})["wrong"]
    assert "no such record" in wrong[0]["message"]
    put(as_mira, sites, {"name": "Hill Dome"})
    wrong = put(as_mira, instruments, {"name": "Linnet", "site": "Hill Dome"})["wrong"]
    assert "several of that name" in wrong[0]["message"]
    # What is named is called anew where it is named, and is found by that.
    put(as_mira, sites, {"number": 1, "cells": {"name": "Summit Dome"}})
    work(worker)
    assert shown(as_mira, instruments)[0]["site"] == "Summit Dome"
    assert as_mira.get(f"{instruments}/records?words=summit").json["count"] == 1


def test_what_others_name_is_not_removed_unasked(as_mira, naming):
    sites, instruments, _, _ = naming
    remove = f"{sites}/records/remove"
    refused = as_mira.post(remove, json={"numbers": [1, 2]})
    assert refused.status_code == 409
    told = "2 records are named by 1 record of Instruments (Site), 1 record of Instruments (Also at)"
    assert told in refused.json["message"]
    assert as_mira.post(remove, json={"numbers": [2], "way": "keep"}).json == {"removed": [], "kept": [2]}
    assert shown(as_mira, instruments)[0]["also"] == "Harbour Deck, Marsh Hut"
    # It stays where it is named, and can't be chosen any more, until it is offered again.
    put(as_mira, instruments, {"number": 1, "cells": {"name": "Juniper II"}})
    assert put(as_mira, instruments, {"number": 2, "cells": {"site": "2"}})["wrong"]
    assert as_mira.post(f"{sites}/records/offer", json={"numbers": [2], "offered": True}).json == {"numbers": [2]}
    assert not put(as_mira, instruments, {"number": 2, "cells": {"site": "2"}})["wrong"]
    assert as_mira.post(remove, json={"numbers": [2, 3], "way": "empty"}).json == {"removed": [2, 3], "kept": []}
    assert shown(as_mira, instruments) == [{"name": "Juniper II", "site": "Hill Dome"}, {"name": "Moss"}]


def test_forms_follow_what_a_record_names(as_mira, connection, mira, naming):
    _, _, sites, instruments = naming
    blocks = [
        choice("site", sites["id"]),
        choice("instrument", instruments["id"], fitting="OR(record.site = site, HAS(record.also, site))"),
        block("calculated", "where", formula='instrument.site.name & "!"', format="text"),
    ]
    document = {
        "name": "Loan",
        "title": "Loan",
        "tables": [sites, instruments],
        "pages": [{"id": "p1", "blocks": blocks}],
    }
    form = desk.import_form(within(connection), who=mira, document=document)
    publishing.publish(within(connection), who=mira, form=form, revision=1)
    connection.commit()
    for site in ("1", "2", "3"):
        blocks = state(as_mira, form, {"site": site, "instrument": "1"})
        assert labels(blocks["instrument"]) == ["Juniper"]
        assert blocks["where"]["value"] == "Hill Dome!"
    assert hand_in(as_mira, form, {"site": "1", "instrument": "1"}).status_code == 201
    kept = connection.execute("SELECT answers -> 'instrument' AS kept FROM response").fetchone()["kept"]
    assert kept["values"]["site"] == {"record": 1, "shown": "Hill Dome", "values": {"name": "Hill Dome"}}


def _as_text(column):
    return {"id": column["id"], "type": "short_text", "key": column["key"], "label": column["label"]}


def test_a_column_that_goes_is_told_where_it_is_named_and_harms_no_visitor(as_mira, connection, worker, there):
    form, _, instruments = there
    table = as_mira.get(instruments).json
    # Of another type, too: what was money is text now, and the form reads it no more.
    retyped = [_as_text(each) if each["key"] == "charge" else each for each in table["definition"]["columns"]]
    body = {"revision": table["revision"], "definition": {**table["definition"], "columns": retyped}}
    assert as_mira.put(instruments, json=body).status_code == 200
    work(worker)
    row = next(each for each in as_mira.get("/api/forms").json["forms"] if each["id"] == str(form))
    assert row["tables_changed"] == "The column Charge of Instruments is another one now."
    assert hand_in(as_mira, form, {"site": "1", "instrument": "1"}).status_code == 201
    table = as_mira.get(instruments).json
    columns = [each for each in table["definition"]["columns"] if each["key"] != "charge"]
    body = {"revision": table["revision"], "definition": {**table["definition"], "columns": columns}}
    assert as_mira.put(instruments, json=body).status_code == 200
    work(worker)
    row = next(each for each in as_mira.get("/api/forms").json["forms"] if each["id"] == str(form))
    assert row["tables_changed"] == "Instruments has no column Charge any more, which is named here."
    findings = as_mira.get(f"/api/forms/{form}").json["analysis"]["findings"]
    assert [(each["code"], each["block"]) for each in findings if "column" in each["code"]] == [
        ("column_gone", "instrument")
    ]
    blocks = state(as_mira, form, {"site": "1", "instrument": "1"})
    assert labels(blocks["instrument"]) == ["Juniper", "Moss", "Plover"]
    assert hand_in(as_mira, form, {"site": "1", "instrument": "1"}).status_code == 201
    as_mira.delete(instruments)
    work(worker)
    row = next(each for each in as_mira.get("/api/forms").json["forms"] if each["id"] == str(form))
    assert "Instruments is not there any more" in row["tables_changed"]


def test_responses_are_found_by_the_record_that_they_chose_as_it_was(as_mira, there):
    form, _, instruments = there
    for number in ("1", "3"):
        assert hand_in(as_mira, form, {"site": "1", "instrument": number}).status_code == 201
    put(as_mira, instruments, {"number": 1, "cells": {"name": "Juniper II"}})
    work_all = as_mira.get(f"/api/forms/{form}/responses").json
    asked = next(each for each in work_all["columns"] if each["label"] == "Instrument")
    for how, words, found in (
        ("is", "juniper", [1]),
        ("contains", "mo", [2]),
        ("is", "Juniper II", []),
        ("answered", None, [2, 1]),
    ):
        where = json.dumps([[asked["id"], how, *([words] if words else [])]])
        rows = as_mira.get(f"/api/forms/{form}/responses", query_string={"where": where}).json["rows"]
        assert [each["number"] for each in rows] == found, (how, words)
