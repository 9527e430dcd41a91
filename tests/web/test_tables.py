"""Tables: made and given other columns, typed into by many at once, removed and brought back; each team has its own."""

import base64
import csv
import datetime
import io
import threading
import uuid

import pytest
from conftest import make_person, within
from core.test_tables import COLUMNS
from openpyxl import load_workbook
from web.mail import work

from codexa.services import desk
from codexa.services.tables import exporting, importing, working_out
from codexa.services.tidying import tidy
from codexa.store import imports
from codexa.store import tables as store

DEFINITION = {"name": "Telescopes", "columns": COLUMNS, "once": ["c1"]}


@pytest.fixture
def table(as_mira):
    reply = as_mira.post("/api/tables", json={"definition": DEFINITION})
    assert reply.status_code == 200, reply.json
    return f"/api/tables/{reply.json['id']}"


def put(agent, table, *changes):
    """Type into records: each change a dict of cells, or a record that is there with some."""
    body = [each if "cells" in each else {"cells": each} for each in changes]
    reply = agent.post(f"{table}/records", json={"changes": body})
    assert reply.status_code == 200, reply.json
    return reply.json


def names(agent, table, **query):
    found = agent.get(f"{table}/records", query_string=query).json
    return [each["name"] for each in found["records"]], found["count"]


def test_a_table_is_made_and_found_on_the_desk(as_mira, table):
    put(as_mira, table, {"c1": "Nova", "c2": "20.5"})
    found = as_mira.get("/api/tables").json["tables"]
    assert [(each["name"], each["columns"], each["records"]) for each in found] == [("Telescopes", 7, 1)]
    columns = as_mira.get(table).json["columns"]
    assert [each["key"] for each in columns if each["once"] or each["computed"]] == ["name", "double"]
    assert columns[2]["options"] == ["Harbour Deck", "Summit Dome"]
    refused = as_mira.post("/api/tables", json={"definition": {"name": "  "}})
    assert (refused.status_code, refused.json["problems"][0]["path"]) == (422, "name")
    assert as_mira.delete(table).status_code == 204
    assert as_mira.get("/api/tables").json["tables"] == []
    assert as_mira.get(f"{table}/records").status_code == 404


def test_what_is_typed_is_kept_record_by_record_and_what_is_wrong_is_told_by_cell(as_mira, table):
    outcome = put(as_mira, table, {"c1": "Nova", "c2": "20.5"}, {"c2": "-1"}, {"c1": " nova "}, {"c1": "Lyra"})
    assert [each and each["number"] for each in outcome["records"]] == [1, None, None, 2]
    assert {(each["at"], each["column"]) for each in outcome["wrong"]} == {(1, "c1"), (1, "c2"), (2, "c1")}
    assert "has the same" in next(each["message"] for each in outcome["wrong"] if each["at"] == 2)
    nova = outcome["records"][0]
    assert (nova["cells"]["c6"], nova["typed"]) == ("41", {"c1": "Nova", "c2": "20.5"})
    changed = put(as_mira, table, {"number": 1, "revision": 1, "cells": {"c1": "Vega", "c2": ""}})["records"][0]
    assert (changed["revision"], changed["cells"]) == (2, {"c1": "Vega", "c6": "0"})
    # What it was called is free again; what it is called now is not.
    again = put(as_mira, table, {"number": 2, "revision": 1, "cells": {"c1": "VEGA"}}, {"c1": "Nova"})
    assert [each and each["name"] for each in again["records"]] == [None, "Nova"]
    past = as_mira.get(f"{table}/records/1/history").json["changes"]
    assert [(each["kind"], each["cells"].get("c2")) for each in past] == [("changed", "20.5"), ("made", None)]
    assert as_mira.get(f"{table}/records/99/history").status_code == 404


def test_of_two_who_change_one_record_the_later_is_told(app, as_mira, connection, table):
    put(as_mira, table, {"c1": "Nova"})
    outcomes = []

    def change(site):
        body = {"changes": [{"number": 1, "revision": 1, "cells": {"c3": site}}]}
        outcomes.append(as_mira.post(f"{table}/records", json=body).json)

    for each in (threads := [threading.Thread(target=change, args=(site,)) for site in ("deck", "dome")]):
        each.start()
    for each in threads:
        each.join()
    assert sorted(len(each["wrong"]) for each in outcomes) == [0, 1]
    gone = put(as_mira, table, {"number": 77, "revision": 1, "cells": {"c3": "deck"}})
    assert "gone" in gone["wrong"][0]["message"]


def test_records_are_found_by_parts_of_words_and_sorted_with_blanks_last(as_mira, table):
    put(as_mira, table, {"c1": "Große Nova", "c2": "9"}, {"c1": "Lyra", "c2": "100"}, {"c1": "Vega 50%", "c3": "deck"})
    assert names(as_mira, table, words="nov gross") == (["Große Nova"], 1)
    assert names(as_mira, table, words="harbour") == (["Vega 50%"], 1)
    assert names(as_mira, table, words="0%") == (["Vega 50%"], 1)
    assert names(as_mira, table, words="_") == ([], 0)
    assert names(as_mira, table, sort="c2") == (["Große Nova", "Lyra", "Vega 50%"], 3)
    assert names(as_mira, table, sort="-c2") == (["Lyra", "Große Nova", "Vega 50%"], 3)
    assert names(as_mira, table, sort="-c1", first=1, limit=1) == (["Lyra"], 3)
    assert names(as_mira, table, sort="gone")[1] == 3
    assert as_mira.get(f"{table}/records?first=-1").status_code == 400


def test_removed_records_come_back_unless_somebody_has_their_name_by_now(as_mira, connection, table, tmp_path):
    put(as_mira, table, {"c1": "Nova"}, {"c1": "Lyra"})
    assert as_mira.post(f"{table}/records/remove", json={"numbers": [1, 9]}).json == {"removed": [1], "kept": []}
    assert names(as_mira, table) == (["Lyra"], 1)
    assert as_mira.post(f"{table}/records/bring-back", json={"numbers": [1]}).json == {"numbers": [1]}
    as_mira.post(f"{table}/records/remove", json={"numbers": [1]})
    put(as_mira, table, {"c1": "NOVA"})
    refused = as_mira.post(f"{table}/records/bring-back", json={"numbers": [1]})
    assert (refused.status_code, refused.json["code"]) == (409, "record_refused")
    assert names(as_mira, table) == (["Lyra", "NOVA"], 2)
    connection.execute("UPDATE record SET removed_at = now() - interval '31 days' WHERE number = 1")
    tidy(connection, tmp_path)
    assert as_mira.get(f"{table}/records/1/history").status_code == 404


def test_columns_change_and_the_records_with_them(as_mira, connection, mira, table, monkeypatch):
    put(as_mira, table, {"c1": "Nova", "c2": "20"}, {"c1": "Lyra", "c2": "5", "c3": "deck"})
    known = as_mira.get(table).json

    def save(**changes):
        document = {**as_mira.get(table).json["definition"], **changes}
        return as_mira.put(table, json={"revision": as_mira.get(table).json["revision"], "definition": document})

    thrice = [{**each, "formula": "aperture * 3"} if each["id"] == "c6" else each for each in COLUMNS]
    assert save(columns=thrice).status_code == 200
    records = as_mira.get(f"{table}/records").json["records"]
    assert [each["cells"]["c6"] for each in records] == ["60", "15"]
    late = as_mira.put(table, json={"revision": known["revision"], "definition": DEFINITION})
    assert (late.status_code, late.json["code"]) == (409, "clash")
    for wrong in ({**COLUMNS[0], "key": "title"}, {"id": "c1", "type": "number", "key": "name", "label": "Name"}):
        assert save(columns=[wrong], once=[]).status_code == 422
    # A column that is taken away and comes back has what it had.
    assert save(columns=COLUMNS[:1]).status_code == 200
    assert names(as_mira, table, words="harbour") == ([], 0)
    assert save(columns=COLUMNS).status_code == 200
    assert names(as_mira, table, words="harbour") == (["Lyra"], 1)
    put(as_mira, table, {"c1": "Vega", "c2": "5"})
    twice = save(once=["c1", "c2"])
    assert (twice.status_code, "records 2 and 3" in twice.json["problems"][0]["message"]) == (422, True)
    assert save(once=["c3"]).status_code == 200
    # Known to others as the same from now on: what is compared is what people read.
    alike = [{**each, "label": "Harbour Deck" if each["code"] == "dome" else "Quay"} for each in COLUMNS[2]["options"]]
    assert (
        save(columns=[{**each, "options": alike} if each["id"] == "c3" else each for each in COLUMNS]).status_code
        == 200
    )
    assert put(as_mira, table, {"c1": "Quay too", "c3": "deck"})["wrong"][0]["column"] == "c3"
    assert save(columns=COLUMNS).status_code == 200
    assert len(put(as_mira, table, {"c1": "Nova"}, {"c1": "More", "c3": "Harbour Deck"})["wrong"]) == 1
    # Of many records a job does it, in parts that may be done twice.
    monkeypatch.setattr(working_out, "_WHILE_SAVING", 2)
    monkeypatch.setattr(working_out, "_AT_ONCE", 2)
    saved = save(columns=thrice).json
    about = {"team": mira.team_id, "table_id": uuid.UUID(table[-36:]), "revision": saved["revision"]}
    assert as_mira.get(f"{table}/records").json["records"][0]["cells"]["c6"] == "40"
    for _ in range(2):
        assert working_out.carry_out(within(connection), **about) == "all records are worked out"
        connection.commit()
    assert [each["cells"].get("c6") for each in as_mira.get(f"{table}/records").json["records"]] == [
        "60", "15", "15", "0",
    ]  # fmt: skip
    assert "again" in working_out.carry_out(within(connection), **{**about, "revision": 1})


def test_all_of_a_table_leaves_as_csv_that_no_spreadsheet_computes(as_mira, table, monkeypatch):
    monkeypatch.setattr("codexa.services.tables.records._AT_ONCE", 2)
    put(as_mira, table, {"c1": "=1+1", "c3": "deck"}, {"c1": 'a "b"\nc', "c2": "1234.5"}, {"c1": "Lyra", "c5": "no"})
    rows = list(csv.reader(io.StringIO(as_mira.get(f"{table}/records.csv").get_data(as_text=True))))
    assert rows == [
        ["Name", "Aperture", "Site", "Bought", "Lent", "Double", "Charge"],
        ["'=1+1", "", "deck", "", "", "0", ""],
        ['a "b"\nc', "1234.5", "", "", "", "2469", ""],
        ["Lyra", "", "", "", "FALSE", "0", ""],
    ]
    chosen = {"where": '[["c2","at_least","1000"]]', "columns": "c2,c1,gone"}
    text = as_mira.get(f"{table}/records.csv", query_string=chosen).get_data(as_text=True)
    assert list(csv.reader(io.StringIO(text))) == [["Name", "Aperture"], ['a "b"\nc', "1234.5"]]
    with as_mira.get(f"{table}/records.xlsx", query_string={"words": "lyra", "columns": "c1"}) as reply:
        assert list(load_workbook(io.BytesIO(reply.data)).active.values) == [("Name",), ("Lyra",)]
    refused = as_mira.get(f"{table}/records.csv", query_string={"where": '[["c9","blank"]]'})
    assert (refused.status_code, "is gone" in refused.json["message"]) == (422, True)


def test_a_column_becomes_another_type_where_all_that_stands_there_can_be_read_so(as_mira, table, monkeypatch):
    """What can't be read is told with its record, and nothing is kept then; the former text is in the history."""
    put(as_mira, table, {"c1": "12.5", "c3": "deck"}, {"c1": "about 30"}, {"c1": "7", "c3": "dome"})

    def save(revision, **changed):
        columns = [{**each, **changed.get(each["id"], {})} for each in COLUMNS]
        columns = [{name: known for name, known in each.items() if known is not None} for each in columns]
        body = {"revision": revision, "definition": {**DEFINITION, "columns": columns}}
        return as_mira.put(table, json=body)

    as_number = {"type": "number", "decimals": 1}
    refused = save(1, c1=as_number)
    [problem] = refused.json["problems"]
    assert (refused.status_code, problem["path"]) == (422, "columns.0.type")
    assert "record 2 “about 30”" in problem["message"]
    put(as_mira, table, {"number": 2, "cells": {"c1": "30"}})
    assert save(1, c1=as_number).status_code == 200
    found = as_mira.get(f"{table}/records", query_string={"sort": "c1"}).json["records"]
    assert [each["cells"]["c1"] for each in found] == ["7", "12.5", "30"]
    assert as_mira.get(f"{table}/records/1/history").json["changes"][0]["cells"]["c1"] == "12.5"
    assert put(as_mira, table, {"c1": "30.0"})["wrong"][0]["column"] == "c1"  # still once
    monkeypatch.setattr("codexa.services.tables.retyping.MOST_RETYPED", 2)
    assert "at most 2" in save(2, c1={}).json["problems"][0]["message"]
    worked_out = save(2, c6={"type": "number", "formula": None})
    assert "worked out" in worked_out.json["problems"][0]["message"]


def test_a_workbook_has_typed_cells_and_says_where_it_ends(as_mira, table, monkeypatch):
    put(as_mira, table, {"c1": "=1+1", "c2": "1234.5", "c3": "deck", "c4": "2025-12-03"}, {"c1": "Lyra"})
    with as_mira.get(f"{table}/records.xlsx") as reply:
        rows = list(load_workbook(io.BytesIO(reply.data)).active.iter_rows(values_only=True))
    assert rows[0][:4] == ("Name", "Aperture", "Site", "Bought")
    assert rows[1][:4] == ("=1+1", 1234.5, "Harbour Deck", datetime.datetime(2025, 12, 3))  # noqa: DTZ001 - a day
    assert rows[2][1:5] == (None, None, None, None)
    monkeypatch.setattr(exporting, "_MOST_IN_WORKBOOK", 1)
    refused = as_mira.get(f"{table}/records.xlsx")
    assert (refused.status_code, "Take CSV" in refused.json["message"]) == (422, True)


def test_whom_records_name_is_found_given_out_and_forgotten_with_what_they_had_before(as_mira, connection, table):
    who, other = "ana@example.org", "diana@example.org"
    put(as_mira, table, {"c1": f"Ana Bell, {who}"}, {"c1": other}, {"c1": who.upper()}, {"c1": "Lyra"})
    put(as_mira, table, {"number": 3, "cells": {"c1": "somebody"}})  # its history still names her
    as_mira.post(f"{table}/records/remove", json={"numbers": [1]})
    found = as_mira.post("/api/person/find", json={"email": who}).json
    assert found == {"found": [], "records": [{"table": table[-36:], "name": "Telescopes", "numbers": [1, 3]}]}
    given = as_mira.post("/api/person/export", json={"email": who}).json["tables"]
    assert given[0] == {"table": "Telescopes", "number": 1, "record": {"name": f"Ana Bell, {who}", "double": "0"}}
    forgotten = as_mira.post("/api/person/forget", json={"email": who, "does": "remove"})
    assert forgotten.json == {"responses": 0, "staying": 0, "records": 2}
    assert as_mira.post("/api/person/find", json={"email": who}).json["records"] == []
    for name in ("record", "record_once", "record_change"):
        rows = connection.execute(f"SELECT to_jsonb({name})::text AS row FROM {name}").fetchall()
        assert not any("ana bell" in row["row"].lower() or f'"{who}' in row["row"].lower() for row in rows)
    assert names(as_mira, table)[0] == [other, "Lyra"]


def test_a_table_is_its_team_s_alone_and_viewers_do_not_see_it(agent, as_mira, connection, table):
    put(as_mira, table, {"c1": "Nova"})
    stranger = make_person(connection, team="harbour")
    reviewer = make_person(connection, role="reviewer", email="reviewer@example.org", team="alderlight")
    viewer = make_person(connection, role="viewer", email="viewer@example.org", team="alderlight")
    connection.commit()
    asked = [
        ("get", "", None),
        ("put", "", {"revision": 1, "definition": DEFINITION}),
        ("delete", "", None),
        ("get", "/records", None),
        ("post", "/records", {"changes": [{"number": 1, "cells": {"c1": "Mine"}}]}),
        ("post", "/records/remove", {"numbers": [1]}),
        ("post", "/records/bring-back", {"numbers": [1]}),
        ("post", "/records/publish", {"numbers": [1], "published": True}),
        ("get", "/records/1/history", None),
        ("get", "/records.csv", None),
        ("get", "/records.xlsx", None),
    ]
    for who, reads, writes in ((stranger, 404, 404), (reviewer, 200, 403), (viewer, 403, 403)):
        agent.sign_in(who.email)
        for method, path, body in asked:
            reply = getattr(agent, method)(f"{table}{path}", **({"json": body} if body else {}))
            wanted = writes if body or method == "delete" else reads
            assert reply.status_code == wanted, (who.email, method, path)
    assert store.count_records(connection, table=uuid.UUID(table[-36:])) == 1


FILE = """Name;Site;Aperture;Remark;Since
Nova;Harbour Deck;20,5;a;03.12.2025
Lyra;Moon;9;b;04.12.2025
;Summit Dome;9;c;
Vega;;1.000,25;"two
lines";13.12.2025
nova;;1;e;
"""


def in_base64(text):
    return base64.b64encode(text.encode()).decode()


def test_a_file_is_planned_and_taken_in_with_new_columns_and_what_is_wrong_is_told_by_line(worker, as_mira, table):
    plan = as_mira.post(f"{table}/import/plan", json={"file": in_base64(FILE)}).json
    assert [(each["column"], each["type"]) for each in plan["columns"]] == [
        ("c1", "short_text"),
        ("c3", "short_text"),
        ("c2", "number"),
        ("new", "long_text"),
        ("new", "date"),
    ]
    assert (plan["lines"], plan["writing"], plan["wrong_count"]) == (5, {"comma": True, "days": "day"}, 2)
    assert plan["wrong"][0] == {"line": 3, "message": "Site – Choose one of the options."}
    columns = {each["header"]: each["column"] for each in plan["columns"]} | {"Remark": ""}
    body = {"file": in_base64(FILE), "name": "new.csv", "columns": columns, "writing": plan["writing"]}
    assert as_mira.post(f"{table}/import", json=body).status_code == 200
    work(worker)
    rows = as_mira.get(f"{table}/records").json["records"]
    assert [(each["name"], each["cells"].get("c2"), each["cells"].get("c8")) for each in rows] == [
        ("Nova", "20.5", "December 3, 2025"),
        ("Vega", "1,000.25", "December 13, 2025"),
    ]
    told = as_mira.get(f"{table}/import").json["imports"][0]
    assert (told["state"], told["count"], told["kept"]) == ("done", 5, 2)
    assert [each["line"] for each in told["refused"]] == [3, 4, 7]
    # Once more by its names: what is there is changed, and nothing is doubled.
    again = FILE.replace("20,5", "30").replace("Moon", "Summit Dome")
    body |= {"file": in_base64(again), "key_column": "c1"}
    body["columns"] |= {"Since": "c8"}
    for _ in range(2):
        assert as_mira.post(f"{table}/import", json=body).status_code == 200
        work(worker)
    rows = as_mira.get(f"{table}/records").json["records"]
    assert [(each["name"], each["cells"].get("c2"), each["revision"]) for each in rows] == [
        ("Nova", "30", 2),
        ("Vega", "1,000.25", 1),
        ("Lyra", "9", 1),
    ]
    refused = as_mira.get(f"{table}/import").json["imports"][0]["refused"]
    assert [(each["line"], "earlier line" in each["message"]) for each in refused] == [(4, False), (7, True)]


@pytest.mark.parametrize(
    ("change", "told"),
    [
        ({"columns": {"Gone": "c1"}}, "no column “Gone”"),
        ({"columns": {"Name": "zz"}}, "no such column"),
        ({"columns": {"Name": "c1", "Site": "c1"}}, "same one here"),
        ({"columns": {}}, "at least one"),
        ({"columns": {"Name": "c1"}, "key_column": "c2"}, "told apart only"),
        ({"columns": {"Site": "c3"}, "key_column": "c1"}, "no column by which"),
        ({"columns": {"Name": "c1"}, "file": in_base64("Name;Site\n")}, "no lines"),
        ({"columns": {"Name": "c1"}, "file": "//8="}, "UTF-8"),
    ],
)
def test_a_file_that_can_not_be_taken_in_is_refused_in_words(as_mira, table, change, told):
    body = {"file": in_base64(FILE), "name": "a.csv", "writing": {"comma": False, "days": "day"}, **change}
    refused = as_mira.post(f"{table}/import", json=body)
    assert (refused.status_code, told in refused.json["message"]) == (422, True), refused.json


def test_a_table_is_made_of_a_file_and_a_stopped_one_takes_no_more(worker, as_mira, connection, monkeypatch):
    monkeypatch.setattr(importing, "_AT_ONCE", 2)
    lines = "\n".join(f"Talk {at};{'Deck' if at % 2 else 'Dome'};{at}" for at in range(9))
    made = as_mira.post(
        "/api/tables/from-file", json={"name": "Talks", "file": in_base64(f"Title;Place;Seats\n{lines}")}
    )
    assert made.status_code == 200, made.json
    table = f"/api/tables/{made.json['id']}"
    assert [(each["key"], each["type"]) for each in as_mira.get(table).json["columns"]] == [
        ("title", "short_text"),
        ("place", "dropdown"),
        ("seats", "number"),
    ]
    taking = as_mira.get(f"{table}/import").json["imports"][0]["id"]
    found = imports.find_table_import(connection, taking=taking)
    imports.end_part(connection, taking=taking, gone=2, kept=2, refused=[])  # as if a worker had died after it
    connection.commit()
    assert importing.carry_out(within(connection), uuid.UUID(taking)) == "7 records taken in"
    connection.commit()
    assert names(as_mira, table)[0] == [f"Talk {at}" for at in range(2, 9)]
    assert len(found.lines) == 9
    assert as_mira.post(f"{table}/import/{taking}/stop").status_code == 404
    body = {"file": in_base64("Title\nMore"), "name": "b.csv", "columns": {"Title": "c1"}}
    body["writing"] = {"comma": False, "days": "day"}
    more = as_mira.post(f"{table}/import", json=body).json["id"]
    assert as_mira.post(f"{table}/import/{more}/stop").status_code == 204
    work(worker)
    assert names(as_mira, table)[1] == 7


def test_an_owner_says_who_sees_a_table_and_who_changes_it(agent, as_mira, connection, mira, table):
    """A form shows and fills no table that its author may not see or change; what was there before stays."""
    put(as_mira, table, {"c1": "Nova"})
    people = {role: make_person(connection, role=role, email=f"{role}@example.org") for role in ("editor", "viewer")}
    known = as_mira.get(table).json["known"]
    step = {"id": "s1", "table": known["id"], "cells": [{"column": "c1", "value": '"New"'}]}
    keeps = {"kind": "record", "id": "u1", "name": "Kept", "steps": [step]}
    choice = {"id": "b1", "type": "record_choice", "key": "which", "label": "Which", "table": known["id"]}
    document = {
        "name": "Loan", "title": "Loan", "tables": [known], "follow_ups": [keeps],
        "pages": [{"id": "p1", "blocks": [choice]}],
    }  # fmt: skip
    form = desk.import_form(within(connection), who=mira, document=document)
    connection.commit()

    def grant(seen_by, changed_by):
        agent.sign_in(mira.email)
        reply = agent.put(f"{table}/rights", json={"seen_by": seen_by, "changed_by": changed_by})
        assert reply.status_code == 200, reply.json
        return reply.json

    def tried(role):
        agent.sign_in(people[role].email)
        listed = len(agent.get("/api/tables").json["tables"])
        seen = agent.get(table).status_code
        return listed, seen, agent.post(f"{table}/records", json={"changes": [{"cells": {}}]}).status_code

    assert (tried("editor"), tried("viewer")) == ((1, 200, 200), (0, 403, 403))
    assert grant("viewer", "editor")["may_change"]
    assert (tried("editor"), tried("viewer")) == ((1, 200, 200), (1, 200, 403))
    grant("editor", "owner")
    assert tried("editor") == (1, 200, 403)
    assert not agent.get(table).json["may_change"]
    assert agent.put(f"{table}/rights", json={"seen_by": "viewer", "changed_by": "editor"}).status_code == 403
    assert agent.delete(table).status_code == 403

    def save(revision, **changes):
        body = {"revision": revision, "draft": {**agent.get(f"/api/forms/{form}").json["draft"], **changes}}
        return agent.put(f"/api/forms/{form}/draft", json=body)

    kept = agent.get(f"/api/forms/{form}").json["draft"]["follow_ups"]
    assert save(1, title="Loan of instruments").status_code == 200
    assert save(2, tables=[{**known, "name": "As I see it"}]).status_code == 200
    refused = save(3, follow_ups=[*kept, {**kept[0], "id": "u2"}])
    assert (refused.status_code, refused.json["problems"][0]["path"]) == (422, "follow_ups.1")
    grant("owner", "owner")
    agent.sign_in(people["editor"].email)
    assert save(3, title="Loan").status_code == 200
    refused = save(4, tables=[{**known, "columns": []}])
    assert (refused.status_code, refused.json["problems"][0]["path"]) == (422, "tables.0")
    copied = agent.post("/api/forms", json={"document": document})
    assert copied.status_code == 422


def test_a_table_can_name_records_of_its_own(worker, as_mira):
    """Pieces are part of pieces, of themselves too: names follow, removal asks, and nothing goes round for ever."""
    table = f"/api/tables/{as_mira.post('/api/tables', json={'definition': {'name': 'Pieces'}}).json['id']}"
    known = as_mira.get(table).json
    part = {"id": "c2", "type": "record_choice", "key": "of", "label": "Part of", "table": table[-36:].replace("-", "")}
    shown = {
        "id": "c3",
        "type": "calculated",
        "key": "full",
        "label": "Full",
        "format": "text",
        "formula": 'name & " of " & of',
    }
    definition = {**known["definition"], "columns": [*known["definition"]["columns"], part, shown], "named_by": "c3"}
    assert as_mira.put(table, json={"revision": 1, "definition": definition}).status_code == 200
    put(as_mira, table, {"c1": "Dome"})
    put(as_mira, table, {"c1": "Wheel", "c2": "1"})
    assert put(as_mira, table, {"number": 2, "cells": {"c2": "2"}})["wrong"] == []
    assert put(as_mira, table, {"number": 2, "cells": {"c1": "Rim"}})["records"][0]["name"].startswith("Rim of ")
    put(as_mira, table, {"c1": "Spoke", "c2": "1"})
    put(as_mira, table, {"number": 1, "cells": {"c1": "Summit Dome"}})
    work(worker)
    assert names(as_mira, table, sort="c1")[0][1:] == ["Spoke of Summit Dome of ", "Summit Dome of "]
    asked = as_mira.post(f"{table}/records/remove", json={"numbers": [1]})
    assert (asked.status_code, "1 record of Pieces (Part of)" in asked.json["message"]) == (409, True)
    assert as_mira.post(f"{table}/records/remove", json={"numbers": [1, 2], "way": "empty"}).json["removed"] == [1, 2]
    assert as_mira.get(f"{table}/records").json["records"][0]["cells"].keys() == {"c1", "c3"}
