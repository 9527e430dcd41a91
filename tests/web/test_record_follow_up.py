"""Records from responses: made or found, with what belongs to them, all or none, each once, and never the wrong one."""

import threading

import pytest
from conftest import within
from core.forms import block, program_of
from web.mail import work
from web.test_record_choice import hand_in, shown
from web.test_tables import put

from codexa.core.program.proof import proof
from codexa.services import desk, publishing

MEMBERS = {
    "name": "Members",
    "columns": [
        {"type": "email", "id": "mail", "key": "mail", "label": "E-mail", "required": "TRUE"},
        {"type": "short_text", "id": "name", "key": "name", "label": "Name", "required": "TRUE"},
        {"type": "number", "id": "visits", "key": "visits", "label": "Visits", "minimum": "0"},
        {"type": "calculated", "id": "next", "key": "next", "label": "Next", "formula": "visits + 1"},
    ],
    "named_by": "name",
}
SIGHTINGS = {
    "name": "Sightings",
    "columns": [
        {"type": "short_text", "id": "what", "key": "what", "label": "What", "required": "TRUE"},
        {"type": "date", "id": "on", "key": "on", "label": "On"},
        {"type": "record_choice", "id": "by", "key": "by", "label": "By"},
    ],
}


def table(agent, definition):
    address = f"/api/tables/{agent.post('/api/tables', json={'definition': definition}).json['id']}"
    return address, agent.get(address).json["known"]


def cells(**values):
    return [{"column": column, "value": value} for column, value in values.items()]


def log(members, sightings, way="either"):
    """A form whose responses keep a member, and below them what they have seen, row by row."""
    rows = {"id": "seen", "key": "seen", "label": "Seen", "blocks": [block("short_text", "what"), block("date", "on")]}
    steps = [
        {"id": "m", "table": members["id"], "way": way, "found_by": ["mail"],
         "cells": cells(mail="mail", name="name", visits="ROWCOUNT(log)")},
        {"id": "s", "table": sightings["id"], "rows": "seen", "under": "m", "linked_by": "by",
         "cells": cells(what="what", on="on")},
    ]  # fmt: skip
    blocks = [block("email", "mail"), block("short_text", "name"), block("repeat", "log", kinds=[rows])]
    return {
        "name": "Log", "title": "Log", "tables": [members, sightings], "pages": [{"id": "p1", "blocks": blocks}],
        "follow_ups": [{"kind": "record", "id": "r", "steps": steps}],
    }  # fmt: skip


@pytest.fixture
def there(as_mira, connection, mira):
    """A published form that keeps records: its id, and the addresses of the two tables."""
    members, known_members = table(as_mira, MEMBERS)
    columns = [{**each, "table": known_members["id"]} if each["id"] == "by" else each for each in SIGHTINGS["columns"]]
    sightings, known_sightings = table(as_mira, {**SIGHTINGS, "columns": columns})
    form = desk.import_form(within(connection), who=mira, document=log(known_members, known_sightings))
    publishing.publish(within(connection), who=mira, form=form, revision=1)
    connection.commit()
    return form, members, sightings


def answers(mail="ingrid@example.org", name="Ingrid", *seen):
    rows = [
        {"kind": "seen", "id": f"r{at}", "values": {"what": each, "on": "2026-05-01"}} for at, each in enumerate(seen)
    ]
    return {"mail": mail, "name": name, "log": rows}


def runs(agent, form, number):
    return [
        (each["state"], each["result"]) for each in agent.get(f"/api/forms/{form}/responses/{number}/runs").json["runs"]
    ]


def test_a_record_is_made_with_those_that_belong_to_it(as_mira, worker, there):
    form, members, sightings = there
    assert (
        hand_in(as_mira, form, answers("ingrid@example.org", "Ingrid", "Juniper comet", "Moon halo")).status_code == 201
    )
    work(worker)
    assert shown(as_mira, members) == [{"mail": "ingrid@example.org", "name": "Ingrid", "visits": "2", "next": "3"}]
    assert [each["by"] for each in shown(as_mira, sightings)] == ["Ingrid", "Ingrid"]
    told = "record 1 of Members made; record 1 of Sightings made; record 2 of Sightings made"
    assert runs(as_mira, form, 1) == [("done", told)]
    origins = as_mira.get(f"{sightings}/records/2/named").json["responses"]
    assert [(each["form"], each["number"], each["kind"]) for each in origins] == [(str(form), 1, "made")]


def test_a_record_is_found_whatever_the_letters_and_changed(as_mira, worker, there):
    form, members, _ = there
    put(as_mira, members, {"mail": "Ingrid@Example.org", "name": "I.", "visits": "7"})
    hand_in(as_mira, form, answers(" INGRID@example.org "))
    work(worker)
    assert [(each["name"], each["visits"]) for each in shown(as_mira, members)] == [("Ingrid", "0")]
    assert runs(as_mira, form, 1)[0][1].startswith("record 1 of Members changed")
    assert as_mira.get(f"{members}/records/1/history").json["changes"][0]["cells"]["visits"] == "7"


def test_of_two_that_could_be_meant_none_is_touched(as_mira, worker, there):
    form, members, sightings = there
    put(as_mira, members, {"mail": "ingrid@example.org", "name": "A"}, {"mail": "ingrid@example.org", "name": "B"})
    hand_in(as_mira, form, answers("ingrid@example.org", "Ingrid", "Moon"))
    work(worker)
    state, result = runs(as_mira, form, 1)[0]
    assert (state, "Records 1 and 2 of Members have the same E-mail" in result) == ("failed", True)
    assert [each["name"] for each in shown(as_mira, members)] == ["A", "B"]
    assert shown(as_mira, sightings) == []


def test_two_rows_that_mean_one_record_keep_nothing_also_where_it_is_not_there_yet(
    as_mira, worker, there, connection, mira
):
    _, members, sightings = there
    document = log(*(as_mira.get(each).json["known"] for each in (members, sightings)))
    document["name"] = "Log by what was seen"
    document["follow_ups"][0]["steps"][1] |= {"way": "either", "found_by": ["what"]}
    form = desk.import_form(within(connection), who=mira, document=document)
    publishing.publish(within(connection), who=mira, form=form, revision=1)
    connection.commit()
    hand_in(as_mira, form, answers("ingrid@example.org", "Ingrid", "Moon halo", " moon HALO"))
    work(worker)
    assert runs(as_mira, form, 1) == [("failed", "Two rows mean the same record of Sightings.")]
    assert shown(as_mira, members) == shown(as_mira, sightings) == []
    hand_in(as_mira, form, answers("ingrid@example.org", "Ingrid", "Moon halo", "Meteor"))
    work(worker)
    assert [each["what"] for each in shown(as_mira, sightings)] == ["Moon halo", "Meteor"]


@pytest.mark.parametrize(
    ("given", "words"),
    [
        (answers("", "Ingrid"), "E-mail is blank"),
        (answers("ingrid@example.org", ""), "Members, Name"),
        (answers("ingrid@example.org", "Ingrid", "Moon", ""), "Sightings, What"),
    ],
)
def test_what_can_not_be_kept_is_told_and_nothing_of_it_is_kept(as_mira, worker, there, given, words):
    form, members, sightings = there
    hand_in(as_mira, form, {name: each for name, each in given.items() if each})
    work(worker)
    state, result = runs(as_mira, form, 1)[0]
    assert (state, words in result) == ("failed", True), result
    assert shown(as_mira, members) == shown(as_mira, sightings) == []


def test_two_responses_at_once_make_one_record(as_mira, worker, there):
    form, members, _ = there
    for name in ("Ingrid", "Inga"):
        hand_in(as_mira, form, answers("ingrid@example.org", name))
    for each in (workers := [threading.Thread(target=work, args=(worker,)) for _ in range(2)]):
        each.start()
    for each in workers:
        each.join()
    assert len(shown(as_mira, members)) == 1
    assert sorted(runs(as_mira, form, number)[0][1].split()[-1] for number in (1, 2)) == ["changed", "made"]
    work(worker)
    assert len(as_mira.get(f"{members}/records/1/history").json["changes"]) == 2


def test_a_table_that_is_gone_is_told(as_mira, worker, there):
    form, members, sightings = there
    assert as_mira.delete(sightings).status_code == 204
    hand_in(as_mira, form, answers())
    work(worker)
    assert runs(as_mira, form, 1) == [("failed", "The table Sightings is not there any more.")]
    assert shown(as_mira, members) == []


def test_what_it_needs_is_said_before_anything_is_published(there, as_mira):
    _, members, sightings = there
    known = [as_mira.get(each).json["known"] for each in (members, sightings)]
    document = log(*known)
    first, second = document["follow_ups"][0]["steps"]
    first |= {"found_by": ["name"], "cells": cells(mail="mail", visits='"many"', next="3", gone="1")}
    second |= {"linked_by": "what", "rows": "elsewhere"}
    program = program_of(tables=known, pages=document["pages"], follow_ups=document["follow_ups"])
    found = {(each.code, each.setting): each.message for each in proof(program)}
    assert found["column_missing", "steps.0.cells"] == "Members needs E-mail, Name; missing: Name."
    assert {setting for _, setting in found} >= {
        "steps.0.cells.1.value", "steps.0.cells.2.value", "steps.0.cells.3.value", "steps.0.found_by",
        "steps.1.linked_by", "steps.1.rows",
    }  # fmt: skip
