"""Responses as a set: what a filter, an order and a chart give is what an independent reading of the export gives."""

import csv
import datetime
import io
import json
import random
import unicodedata
import zipfile
from collections import Counter
from decimal import ROUND_HALF_UP, Decimal
from urllib.parse import urlencode
from xml.etree import ElementTree

import jsonschema
import pytest
from conftest import publish_visit, receive, visit_document, within
from core.any_form import provable_forms
from hypothesis import HealthCheck, Phase, given, settings
from hypothesis import strategies as some

from codexa.core.program.samples import sample_answers
from codexa.services import desk, publishing
from codexa.services.context import context_of
from codexa.services.editions import Editions
from codexa.services.receiving import Received
from codexa.services.response_set import filling
from codexa.store import groups, ledgers, responses

# What fails is told as it was found: a form takes seconds to try, and would be tried hundreds of times to be smaller.
PHASES = [Phase.explicit, Phase.reuse, Phase.generate]
OFTEN = settings(
    max_examples=5, phases=PHASES, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture]
)


def look(agent, form, path="", **query):
    reply = agent.get(f"/api/forms/{form}/responses{path}?{urlencode(query)}")
    assert reply.status_code == 200, reply.json
    return reply.json


def found(agent, form, *conditions, **query):
    """The numbers of what conditions choose."""
    reply = look(agent, form, where=json.dumps(conditions), limit=200, **query)
    numbers = [row["number"] for row in reply["rows"]]
    assert reply["count"] == len(numbers)
    return numbers


def exported(agent, form):
    """The export as people get it: each row's cells by the position of their column."""
    text = agent.get(f"/api/forms/{form}/responses.csv").get_data(as_text=True)
    _heads, *rows = csv.reader(io.StringIO(text))
    return {int(row[0]): [cell.removeprefix("'") for cell in row[3:]] for row in rows}


def bare(text):
    apart = unicodedata.normalize("NFKD", text.lower())
    return " ".join("".join(sign for sign in apart if not unicodedata.combining(sign)).split())


# Each way of asking, as somebody would write it who knows nothing of how it is kept: a cell and the values asked for.
MEANS = {
    "blank": lambda cell: cell == "",
    "answered": lambda cell: cell != "",
    "any_of": lambda cell, *codes: bool(set(cell.split(", ")) & set(codes)),
    "none_of": lambda cell, *codes: not set(cell.split(", ")) & set(codes),
    "all_of": lambda cell, *codes: set(codes) <= set(cell.split(", ")),
    "contains": lambda cell, words: all(word in bare(cell) for word in bare(words).split()),
    "begins": lambda cell, start: bare(cell).startswith(bare(start)),
}
ORDERED = {
    "is": lambda value, wanted: value == wanted,
    "at_least": lambda value, least: value >= least,
    "at_most": lambda value, most: value <= most,
    "between": lambda value, least, most: least <= value <= most,
}
READ = {"number": Decimal, "date": datetime.date.fromisoformat, "text": bare, "yes or no": str}
ASKED = {
    "text": ("contains", "begins", "is", "blank", "answered"),
    "number": ("is", "at_least", "at_most", "between", "blank", "answered"),
    "date": ("is", "at_least", "at_most", "between", "blank", "answered"),
    "choice": ("any_of", "none_of", "blank", "answered"),
    "choices": ("any_of", "all_of", "none_of", "blank", "answered"),
    "yes or no": ("is", "blank", "answered"),
}


def meets(cell, holds, how, values):
    if how in MEANS:
        return MEANS[how](cell, *values)
    read = READ[holds]
    return cell != "" and ORDERED[how](read(cell), *map(read, values))


def values_for(chance, holds, how, cells):
    """Values to ask for, most of them such as are there."""
    there = [cell for cell in cells if cell] or ["0" if holds == "number" else "2026-11-28" if holds == "date" else "x"]
    if how in ("blank", "answered"):
        return []
    if how in ("any_of", "none_of", "all_of"):
        codes = sorted({code for cell in there for code in cell.split(", ")})
        return chance.sample(codes, chance.randint(1, min(2, len(codes))))
    if how == "between":
        return sorted((chance.choice(there), chance.choice(there)), key=READ[holds])
    picked = chance.choice(there)
    if holds == "yes or no":
        return [picked]
    return [picked[: chance.randint(1, len(picked))] if how in ("contains", "begins") else picked]


def sent(holds, values):
    """What an address says of them: yes and no are words there."""
    return [{"TRUE": "yes", "FALSE": "no"}.get(each, "yes") for each in values] if holds == "yes or no" else values


def hand_in_some(connection, mira, document, seed, count):
    """Publish a form and hand in samples; returns its id."""
    connect = within(connection)
    # Whoever is in it fills in a part of any form.
    groups.insert_group(connection, team=mira.team_id, code="zq", name="zq")
    form = desk.import_form(connect, who=mira, document=document)
    publishing.publish(connect, who=mira, form=form, revision=1)
    program = Editions(connect).program(form, 1)
    chance = random.Random(seed)
    for at in range(count):
        receive(connection, program, form, f"key-{at}", sample_answers(program, chance, context_of(program.form)))
    connection.commit()
    return form


@OFTEN
@given(document=provable_forms(), seed=some.integers(0, 10_000))
def test_filters_orders_and_charts_of_any_form_equal_what_the_export_says(as_mira, connection, mira, document, seed):
    form = hand_in_some(connection, mira, document, seed, 6)
    chance, rows = random.Random(seed), exported(as_mira, form)
    assert sorted(rows) == sorted(found(as_mira, form))
    columns = [each for each in look(as_mira, form, "/asking")["columns"] if not each["facet"]]
    for at, column in enumerate(columns):
        cells = {number: row[at] for number, row in rows.items()}
        holds = column["holds"]
        if "=" in "".join(cells.values()) and holds == "choices":
            cells = {
                number: ", ".join(each.split("=")[0] for each in cell.split("; ")) for number, cell in cells.items()
            }
        for how in ASKED.get(holds, ("blank", "answered")):
            values = values_for(chance, holds, how, list(cells.values()))
            wanted = {number for number, cell in cells.items() if meets(cell, holds, how, values)}
            assert set(found(as_mira, form, [column["id"], how, *sent(holds, values)])) == wanted, (column, how, values)
        if holds in ASKED:
            in_order(as_mira, form, column, cells)
            charted(look(as_mira, form, "/chart", column=column["id"]), holds, list(cells.values()))
        for part in column["parts"] if holds == "rows" and not column["earlier"] else ():
            charted(
                look(as_mira, form, "/chart", column=part["id"]), part["holds"], in_rows(as_mira, form, document, part)
            )


def in_rows(agent, form, document, part):
    """What each row of a repeat has of a field, as a cell; by the keys of the JSON export."""
    repeat_id, field_id = part["id"].split("/")
    repeat = next(each for page in document["pages"] for each in page["blocks"] if each["id"] == repeat_id)
    keys = {kind["key"]: {block["id"]: block.get("key") for block in kind["blocks"]} for kind in repeat["kinds"]}
    whole = agent.get(f"/api/forms/{form}/responses.json").json
    rows = [row for each in whole for row in each["answers"][repeat["key"]]]
    return [as_cell(row.get(keys[row["kind"]].get(field_id))) for row in rows]


def as_cell(value):
    if isinstance(value, list):
        return ", ".join(map(as_cell, value))
    if isinstance(value, dict):
        return next(iter(value))  # a visitor's own words have the code of these
    return {None: "", True: "TRUE", False: "FALSE"}.get(value, value)


def in_order(agent, form, column, cells):
    """Sorted either way blanks come last, page by page nothing is lost or doubled, and steps lead both ways."""
    for sign in ("", "-"):
        sort = f"{sign}{column['id']}"
        whole = found(agent, form, sort=sort)
        assert sorted(whole) == sorted(cells)
        blank = [cells[number] == "" for number in whole]
        assert blank == sorted(blank)
        if column["holds"] in ("number", "date"):
            values = [READ[column["holds"]](cells[number]) for number in whole if cells[number]]
            assert values == sorted(values, reverse=sign == "-")
        paged, after = [], ""
        while True:
            page = look(agent, form, sort=sort, limit=2, after=after)
            paged += [row["number"] for row in page["rows"]]
            if not (after := page["next"]):
                break
        assert paged == whole
        for at, number in enumerate(whole):
            steps = look(agent, form, f"/{number}/neighbours", sort=sort)
            assert steps["before"] == (whole[at - 1] if at else None)
            assert steps["after"] == (whole[at + 1] if at + 1 < len(whole) else None)


def share(count, of):
    return Decimal(100 * count / Decimal(of)).quantize(Decimal("0.1"), ROUND_HALF_UP) if of else Decimal(0)


def charted(chart, holds, cells):
    there = [cell for cell in cells if cell]
    assert (chart["all"], chart["answered"]) == (len(cells), len(there))
    bars = {bar["code"]: bar["count"] for bar in chart["bars"] if bar["count"]}
    if holds == "number":
        numbers = [Decimal(cell) for cell in there]
        assert sum(bars.values()) == len(numbers)
        if numbers:
            assert Decimal(chart["sum"]) == sum(numbers)
            assert (Decimal(chart["least"]), Decimal(chart["greatest"])) == (min(numbers), max(numbers))
            assert abs(Decimal(chart["average"]) - sum(numbers) / len(numbers)) <= Decimal("0.00005")
        for code, count in bars.items():
            assert sum(1 for number in numbers if number >= Decimal(code)) >= count
    elif holds in ("choice", "choices"):
        assert bars == dict(Counter(code for cell in there for code in cell.split(", ")))
        for bar in chart["bars"]:
            assert bar["share"] == f"{share(bar['count'], len(there)):f}".removesuffix(".0")
    elif holds == "text":
        assert bars == dict(Counter(map(bare, there)))
    elif holds == "yes or no":
        assert bars == dict(Counter(cell.lower() for cell in there))
    else:
        assert sum(bars.values()) == len(there)


@pytest.fixture
def answered(as_mira, connection, mira):
    """A published form with four responses."""
    form = publish_visit(connection, mira)
    program = Editions(within(connection)).program(form, 1)
    for at, (show, people, school) in enumerate(
        [("o1", "3", ""), ("o2", "20", "Högskolan i Lund"), ("o2", "14", '50 % "Wick" & Co'), ("o1", "8", "")]
    ):
        answers = {"show": show, "people": people} | ({"school": school} if school else {})
        receive(connection, program, form, f"answer-{at}", answers)
    connection.commit()
    return form


def post(agent, form, path, body, method="post"):
    return getattr(agent, method)(f"/api/forms/{form}/responses{path}", json=body)


STATUSES = {"statuses": [{"code": code, "label": code.title(), "colour": "#146B6B"} for code in ("new", "done")]}


@pytest.mark.parametrize(
    ("words", "numbers"),
    [
        ("hogskolan", [2]),
        ("HÖGSK lund", [2]),
        ("skolan", [2]),
        ('"lund"', [2]),
        ('"lun"', []),
        ("wi", [3]),
        ("50 %", [3]),
        ("ick", [3]),
        ("lund wick", []),
        ("deep sky", [3, 2]),
        ("_ick", []),
    ],
)
def test_a_search_finds_parts_of_words_and_whole_ones_without_accents(as_mira, answered, words, numbers):
    assert found(as_mira, answered, words=words) == numbers


def test_any_of_several_conditions_and_the_words_must_hold(as_mira, answered):
    small, deep = ["people", "at_most", "3"], ["show", "any_of", "deep"]
    assert found(as_mira, answered, small, deep, match="any") == [3, 2, 1]
    assert found(as_mira, answered, small, deep) == []
    assert found(as_mira, answered, small, deep, match="any", words="wick") == [3]
    assert found(as_mira, answered, ["response.received", "last_days", "1"]) == [4, 3, 2, 1]
    assert found(as_mira, answered, ["response.received", "at_most", "2020-01-01"]) == []
    assert found(as_mira, answered, ["response.stage", "none_of", "complete"]) == []
    assert look(as_mira, answered, sort="show,-people", limit=10)["rows"][0]["number"] == 2


@pytest.mark.parametrize(
    ("condition", "says"),
    [
        (["people", "is", "many"], "no number"),
        (["people", "is", "NaN"], "no number"),
        (["people", "is", "9" * 60], "no number"),
        (["people", "between", "5", "3"], "Swap"),
        (["people", "between", "5"], "takes 2 values"),
        (["people", "contains", "5"], "can't be asked"),
        (["people", "is"], "takes 1 values"),
        (["show", "any_of"], "at least one"),
        (["school", "contains", " "], "no text to look for"),
        (["response.received", "is", "tomorrow"], "no date"),
        (["response.received", "last_days", "0"], "no number of days"),
        (["response.received", "this", "century"], "no period"),
        (["response.practice", "is", "maybe"], "choose yes or no"),
        (["gone", "is", "1"], "gone"),
        (["people/x", "is", "1"], "gone"),
    ],
)
def test_a_wrong_condition_is_refused_at_its_place(as_mira, answered, condition, says):
    where = json.dumps([["people", "at_least", "1"], condition])
    for path in ("", "/totals", "/chart"):
        reply = as_mira.get(f"/api/forms/{answered}/responses{path}?{urlencode({'where': where, 'column': 'people'})}")
        assert reply.status_code == 422
        assert reply.json["problems"][0]["path"] == "conditions.1"
        assert says in reply.json["message"]


@pytest.mark.parametrize(
    "query",
    [
        {"where": "nothing"},
        {"where": "[1]"},
        {"where": '[["people","wish","1"]]'},
        {"where": "[" * 3000},
        {"match": "some"},
        {"words": "x" * 300},
        {"words": "a\x00"},
        {"sort": "a,b,c,d,e"},
        {"after": "bm90aGluZw=="},
        {"after": "WzEsMl0="},
        {"where": json.dumps([["people", "is", "1"]] * 50)},
    ],
)
def test_what_can_not_be_read_is_refused(as_mira, answered, query):
    assert as_mira.get(f"/api/forms/{answered}/responses?{urlencode(query)}").status_code == 400


def test_a_field_of_another_type_is_a_column_of_its_own_and_a_renamed_one_is_the_same(as_mira, connection, answered):
    draft = {**as_mira.get(f"/api/forms/{answered}").json["draft"]}
    blocks = draft["pages"][0]["blocks"]
    blocks[0]["options"].append({"id": "o3", "code": "moon", "label": "The Moon"})
    blocks[2] = {"id": "school", "type": "number", "key": "school", "label": "School class"}
    blocks[3]["label"] = "Your address"
    saved = as_mira.put(f"/api/forms/{answered}/draft", json={"revision": 1, "draft": draft})
    assert as_mira.post(f"/api/forms/{answered}/editions", json={"revision": saved.json["revision"]}).status_code == 200
    columns = {each["id"]: each for each in look(as_mira, answered, "/asking")["columns"]}
    assert columns["school"]["holds"] == "number"
    assert (columns["school~text"]["holds"], columns["school~text"]["earlier"]) == ("text", True)
    assert columns["mail"]["label"] == "Your address"
    assert [each["label"] for each in columns["show"]["options"]] == ["First stars", "Deep sky", "The Moon"]
    assert found(as_mira, answered, ["school~text", "contains", "lund"]) == [2]
    assert found(as_mira, answered, ["school", "answered"]) == []
    row = look(as_mira, answered, where='[["school~text","contains","lund"]]')["rows"][0]
    assert row["cells"]["school~text"] == "Högskolan i Lund"
    assert as_mira.get(f"/api/forms/{answered}/responses/2/why/school~text").status_code == 200


def test_marks_are_seen_at_once_whether_the_ledger_was_there_or_not(as_mira, connection, answered):
    assert post(as_mira, answered, "/statuses", STATUSES, "put").status_code == 204
    assert post(as_mira, answered, "/mark", {"numbers": [1, 2], "kind": "status", "value": "new"}).json == {
        "changed": 2
    }
    assert sorted(found(as_mira, answered, ["response.status", "any_of", "new"])) == [1, 2]
    assert sorted(found(as_mira, answered)) == [1, 2, 3, 4]
    assert post(as_mira, answered, "/mark", {"numbers": [2, 3], "kind": "tag", "value": "Press"}).json == {"changed": 2}
    assert post(as_mira, answered, "/mark", {"numbers": [2], "kind": "tag", "value": "Press"}).json == {"changed": 0}
    assert found(as_mira, answered, ["response.tags", "any_of", "Press"]) == [3, 2]
    assert post(as_mira, answered, "/mark", {"numbers": [3], "kind": "untag", "value": "Press"}).json == {"changed": 1}
    assert found(as_mira, answered, ["response.tags", "all_of", "Press"]) == [2]
    assert post(as_mira, answered, "/mark", {"numbers": [1], "kind": "status", "value": "lost"}).status_code == 422
    stranger = {"numbers": [1], "kind": "person", "value": "00000000-0000-0000-0000-000000000000"}
    assert post(as_mira, answered, "/mark", stranger).json == {"changed": 0}
    assert post(as_mira, answered, "/2/notes", {"note": "Called\nback"}).status_code == 204
    told = [(each["kind"], each["about"]) for each in as_mira.get(f"/api/forms/{answered}/responses/2").json["events"]]
    assert told[2:] == [("status", "none → New"), ("tagged", "Press"), ("noted", "Called\nback")]


def test_of_two_who_move_a_card_one_is_told(as_mira, answered):
    post(as_mira, answered, "/statuses", STATUSES, "put")
    before = look(as_mira, answered, "/turn")["turn"]
    assert post(as_mira, answered, "/1/move", {"was": "", "to": "new"}).status_code == 204
    assert post(as_mira, answered, "/1/move", {"was": "", "to": "new"}).status_code == 204
    late = post(as_mira, answered, "/1/move", {"was": "", "to": "done"})
    assert (late.status_code, late.json["code"]) == (409, "moved_meanwhile")
    assert "“New”" in late.json["message"]
    board = look(as_mira, answered, "/board", by="response.status")
    assert [(lane["label"], [row["number"] for row in lane["rows"]]) for lane in board["lanes"]] == [
        ("No status", [4, 3, 2]),
        ("New", [1]),
        ("Done", []),
    ]
    assert board["lanes"][0]["sums"]["people"] == "42"
    assert look(as_mira, answered, "/turn")["turn"] > before
    by_show = look(as_mira, answered, "/board", by="show")["lanes"]
    assert [lane["count"] for lane in by_show] == [0, 2, 2]
    assert as_mira.get(f"/api/forms/{answered}/responses/board?by=people").status_code == 422


def test_views_are_the_teams_and_one_opens_first(as_mira, answered):
    content = {"shown": "charts", "filter": {"conditions": [{"column": "gone", "how": "is", "values": ["1"]}]}}
    first = post(as_mira, answered, "/views", {"name": " Large ", "content": content, "opens_first": True}).json["id"]
    second = post(as_mira, answered, "/views", {"name": "All", "content": {}, "opens_first": True}).json["id"]
    views = look(as_mira, answered, "/views")["views"]
    assert [(each["name"], each["opens_first"]) for each in views] == [("All", True), ("Large", False)]
    assert views[1]["content"]["filter"]["conditions"][0]["column"] == "gone"
    taken = post(as_mira, answered, f"/views/{second}", {"name": "Large", "content": {}}, "put")
    assert (taken.status_code, "Large" in taken.json["message"]) == (422, True)
    assert look(as_mira, answered, "/views")["views"] == views
    assert as_mira.delete(f"/api/forms/{answered}/responses/views/{first}").status_code == 204
    assert post(as_mira, answered, f"/views/{first}", {"name": "Large", "content": {}}, "put").status_code == 404


def test_an_export_has_what_is_filtered_in_its_order(as_mira, answered):
    query = urlencode({"where": '[["people","at_least","8"]]', "sort": "-people"})
    text = as_mira.get(f"/api/forms/{answered}/responses.csv?{query}").get_data(as_text=True)
    assert [row[0] for row in csv.reader(io.StringIO(text))] == ["Number", "2", "3", "4"]
    gone = urlencode({"where": '[["gone","is","1"]]'})
    assert as_mira.get(f"/api/forms/{answered}/responses.csv?{gone}").status_code == 422


def test_a_comparison_says_what_it_comes_to_with_how_many(as_mira, answered):
    chart = look(as_mira, answered, "/chart", column="people", by="show")
    assert {bar["label"]: (bar["count"], bar["value"], bar["value_shown"]) for bar in chart["bars"]} == {
        "Deep sky": (2, "17.0000", "17.00"),
        "First stars": (2, "5.5000", "5.50"),
    }
    crossed = look(as_mira, answered, "/chart", column="show", by="school")
    assert {(cell["row"], cell["code"]): cell["count"] for cell in crossed["cells"]} == {
        ("hogskolan i lund", "deep"): 1,
        ('50 % "wick" & co', "deep"): 1,
    }
    assert {row["label"] for row in crossed["rows"]} == {"Högskolan i Lund", '50 % "Wick" & Co'}


def test_fields_in_rows_are_charted_row_by_row(as_mira, connection, mira, logged):
    hours = look(as_mira, logged, "/chart", column="rows/hours")
    assert (hours["all"], hours["answered"], hours["sum"], hours["headline"]) == (2, 2, "6.5", "3.25 on average")
    assert hours["aside"] == "2.5 to 4, answered in 2 of 2 rows"
    by_show = look(as_mira, logged, "/chart", column="rows/hours", by="show")
    assert [(bar["label"], bar["count"], bar["value"]) for bar in by_show["bars"]] == [("First stars", 2, "3.2500")]
    by_note = look(as_mira, logged, "/chart", column="rows/hours", by="rows/note")
    assert {bar["label"]: bar["value"] for bar in by_note["bars"]} == {"Wölfe": "2.5000", "not answered": "4.0000"}
    query = urlencode({"column": "people", "by": "rows/note"})
    refused = as_mira.get(f"/api/forms/{logged}/responses/chart?{query}")
    assert (refused.status_code, refused.json["message"]) == (
        422,
        "Only fields of the same rows can be compared by Note.",
    )
    # What an earlier edition asked for in the same place, and was no number, is none now.
    connection.execute(
        """UPDATE response SET answers = jsonb_set(answers, '{rows,0,values,hours}', '"a while"') WHERE number = 1"""
    )
    ledgers.forget(connection, form=logged)
    connection.commit()
    assert look(as_mira, logged, "/chart", column="rows/hours")["answered"] == 1


def test_a_large_form_is_read_in_by_a_job_and_says_how_much_is_missing(as_mira, connection, answered, monkeypatch):
    monkeypatch.setattr(filling, "_AT_ONCE", 3)
    reply = look(as_mira, answered)
    assert (reply["count"], reply["behind"]) == (0, 4)
    assert as_mira.get(f"/api/forms/{answered}/responses.csv").status_code == 503
    editions = Editions(within(connection))
    assert filling.of_form(within(connection), editions, answered).fill() == 4
    connection.commit()
    assert (look(as_mira, answered)["count"], look(as_mira, answered)["behind"]) == (4, 0)
    ledgers.forget(connection, form=answered)
    connection.commit()
    assert look(as_mira, answered)["behind"] == 4


SHEET = "{http://schemas.openxmlformats.org/spreadsheetml/2006/main}"


def cells_of(book, sheet):
    """The cells of a sheet by row: text, or a number."""
    rows = []
    for row in ElementTree.fromstring(book.read(f"xl/worksheets/sheet{sheet}.xml")).iter(f"{SHEET}row"):
        assert not list(row.iter(f"{SHEET}f"))  # nothing computes
        rows.append({})
        for cell in row:
            text = "".join(part.text or "" for part in cell.iter(f"{SHEET}t"))
            place = cell.get("r").rstrip("0123456789")
            rows[-1][place] = text if cell.get("t") == "inlineStr" else float(cell.find(f"{SHEET}v").text)
    return rows


@pytest.fixture
def logged(as_mira, connection, mira):
    """A form with a code, a day and rows, answered twice."""
    document = visit_document()
    hours = {"id": "hours", "type": "number", "key": "hours", "label": "Hours", "decimals": 1}
    note = {"id": "note", "type": "short_text", "key": "note", "label": "Note"}
    kinds = [{"id": "k1", "key": "exposure", "label": "Exposure", "blocks": [hours, note]}]
    document["pages"][0]["blocks"] += [
        {"id": "day", "type": "date", "key": "day", "label": "Day"},
        {"id": "code", "type": "short_text", "key": "code", "label": "Code"},
        {"id": "rows", "type": "repeat", "key": "rows", "label": "What / when", "kinds": kinds, "max_rows": 3},
    ]
    form = desk.import_form(within(connection), who=mira, document=document)
    publishing.publish(within(connection), who=mira, form=form, revision=1)
    values = ({"hours": "2.5", "note": "Wölfe"}, {"hours": "4"})
    rows = [{"kind": "k1", "id": f"r{at}", "values": each} for at, each in enumerate(values)]
    program = Editions(within(connection)).program(form, 1)
    given = {"people": "3", "show": "o1", "day": "2026-12-24", "code": "0042", "rows": rows}
    for at, answers in enumerate((given, {"people": "20", "school": '=HYPERLINK("x")'})):
        assert isinstance(receive(connection, program, form, f"logged-{at}", answers), Received)
    connection.commit()
    return form


def test_a_workbook_has_typed_cells_a_sheet_for_rows_and_computes_nothing(as_mira, logged):
    reply = as_mira.get(f"/api/forms/{logged}/responses.xlsx?sort=response.number&with=labels")
    assert reply.headers["Content-Disposition"] == "attachment; filename=visit-responses.xlsx"
    book = zipfile.ZipFile(io.BytesIO(reply.data))
    heads, first, second = cells_of(book, 1)
    by_head = {head: (first.get(place), second.get(place)) for place, head in heads.items()}
    assert by_head["Number"] == (1, 2)
    assert by_head["People"] == (3, 20)
    assert by_head["Day"] == (46380, None)  # the day's number there
    assert by_head["Code"] == ("0042", None)
    assert by_head["School"] == (None, '=HYPERLINK("x")')
    assert by_head["Show"] == ("First stars", None)
    assert by_head["Price"] == (13.5, 0)
    assert [list(row.values()) for row in cells_of(book, 2)] == [
        ["Number", "Row", "Kind", "Hours", "Note"],
        [1, 1, "Exposure", 2.5, "Wölfe"],
        [1, 2, "Exposure", 4],
    ]
    assert 'name="What   when"' in book.read("xl/workbook.xml").decode()


def test_json_says_by_key_what_was_kept_and_fits_its_schema(as_mira, logged):
    whole = as_mira.get(f"/api/forms/{logged}/responses.json?sort=response.number").json
    lines = as_mira.get(f"/api/forms/{logged}/responses.jsonl?sort=response.number").get_data(as_text=True)
    assert [json.loads(line) for line in lines.splitlines()] == whole
    assert whole[0]["answers"] == {
        "show": "stars",
        "people": "3",
        "school": None,
        "mail": None,
        "price": "13.5",
        "day": "2026-12-24",
        "code": "0042",
        "rows": [
            {"kind": "exposure", "hours": "2.5", "note": "Wölfe"},
            {"kind": "exposure", "hours": "4", "note": None},
        ],
    }
    schema = as_mira.get(f"/api/forms/{logged}/responses.schema.json").json
    for each in whole:
        jsonschema.validate(each["answers"], schema)
    wrong = whole[0]["answers"] | {"rows": [{"kind": "nothing"}]}
    with pytest.raises(jsonschema.ValidationError):
        jsonschema.validate(wrong, schema)
    nothing = urlencode({"where": '[["people","at_least","99"]]'})
    assert as_mira.get(f"/api/forms/{logged}/responses.json?{nothing}").json == []


def test_a_workbook_of_too_many_is_refused_before_it_is_made(as_mira, logged, monkeypatch):
    monkeypatch.setattr("codexa.store.ledger_queries.EXACT", 1)
    reply = as_mira.get(f"/api/forms/{logged}/responses.xlsx")
    assert (reply.status_code, reply.json["code"]) == (422, "too_many")


def test_removed_responses_come_back_with_what_they_had_claimed_and_are_forgotten_in_time(
    as_mira, connection, mira, answered
):
    assert post(as_mira, answered, "/remove", {"numbers": [1, 2, 99]}).json == {"numbers": [1, 2]}
    assert post(as_mira, answered, "/remove", {"numbers": [1]}).json == {"numbers": []}
    assert found(as_mira, answered) == [4, 3]
    assert found(as_mira, answered, ["response.stage", "any_of", "removed"]) == [2, 1]
    assert look(as_mira, answered, "/chart", column="people")["all"] == 2
    assert post(as_mira, answered, "/bring-back", {"numbers": [2, 3]}).json == {"numbers": [2]}
    assert found(as_mira, answered) == [4, 3, 2]
    kinds = [each["kind"] for each in as_mira.get(f"/api/forms/{answered}/responses/2").json["events"]]
    assert kinds[2:] == ["removed", "brought back"]
    responses.forget_removed(connection, days=30)
    connection.commit()
    assert found(as_mira, answered, ["response.stage", "any_of", "removed"]) == [1]
    connection.execute("UPDATE event SET at = at - interval '31 days' WHERE kind = 'removed'")
    responses.forget_removed(connection, days=30)
    connection.commit()
    assert found(as_mira, answered, ["response.stage", "any_of", "removed"]) == []
    assert found(as_mira, answered) == [4, 3, 2]
    assert as_mira.get(f"/api/forms/{answered}/responses/1").status_code == 404


def test_a_field_that_changes_its_type_after_it_was_looked_at_is_read_in_anew(as_mira, answered):
    assert found(as_mira, answered, ["school", "contains", "lund"]) == [2]
    draft = as_mira.get(f"/api/forms/{answered}").json["draft"]
    draft["pages"][0]["blocks"][2] = {"id": "school", "type": "number", "key": "school", "label": "School class"}
    saved = as_mira.put(f"/api/forms/{answered}/draft", json={"revision": 1, "draft": draft})
    as_mira.post(f"/api/forms/{answered}/editions", json={"revision": saved.json["revision"]})
    assert found(as_mira, answered, ["school", "at_least", "1"]) == []
    assert found(as_mira, answered, ["school~text", "contains", "lund"]) == [2]


def test_fields_may_be_called_as_what_every_response_has(as_mira, connection, mira):
    names = ("number", "status", "page", "person", "language", "tags", "stage")
    blocks = [{"id": name, "type": "short_text", "key": f"k{name}", "label": name} for name in names]
    document = {"name": "Names", "title": "Names", "pages": [{"id": "p1", "title": "", "blocks": blocks}]}
    form = desk.import_form(within(connection), who=mira, document=document)
    publishing.publish(within(connection), who=mira, form=form, revision=1)
    program = Editions(within(connection)).program(form, 1)
    for at in ("a", "b"):
        receive(connection, program, form, f"names-{at}", {name: f"{at} {name}" for name in names})
    connection.commit()
    for name in names:
        assert found(as_mira, form, [name, "begins", "b"], sort=f"-{name}") == [2]
        chart = look(as_mira, form, "/chart", column=name)
        assert [bar["label"] for bar in chart["bars"]] == [f"a {name}", f"b {name}"]


def test_what_visitors_enter_at_the_ends_of_all_days_and_numbers_is_charted(as_mira, connection, mira):
    blocks = [
        {"id": "day", "type": "date", "key": "day", "label": "Day"},
        {"id": "many", "type": "number", "key": "many", "label": "Many"},
    ]
    # Two numbers of fifteen digits come to thirty, and a formula to as many as there may be.
    worked_out = {"twice": "many * many", "huge": "many ^ 400", "near": "1 + many / 10 ^ 33"}
    plain = {"type": "calculated", "format": "number"}
    blocks += [plain | {"id": key, "key": key, "label": key, "formula": each} for key, each in worked_out.items()]
    document = {"name": "Ends", "title": "Ends", "pages": [{"id": "p1", "title": "", "blocks": blocks}]}
    form = desk.import_form(within(connection), who=mira, document=document)
    publishing.publish(within(connection), who=mira, form=form, revision=1)
    program = Editions(within(connection)).program(form, 1)
    for at, (day, many) in enumerate([("9999-12-31", "9" * 15), ("9999-12-01", "-" + "9" * 15), ("1850-01-01", "1")]):
        assert isinstance(receive(connection, program, form, f"ends-{at}", {"day": day, "many": many}), Received)
        connection.commit()
        assert look(as_mira, form, "/chart", column="day")["answered"] == at + 1
        for column in ("many", *worked_out):
            chart = look(as_mira, form, "/chart", column=column)
            assert (chart["answered"], sum(bar["count"] for bar in chart["bars"])) == (at + 1, at + 1)
            assert len(chart["bars"]) <= 20
            assert look(as_mira, form, "/totals")["totals"][column]["count"] == at + 1
    # What a formula gives is kept with 28 digits.
    twice = look(as_mira, form, "/totals")["totals"]["twice"]
    assert twice["sum"] == "1999999999999996000000000000001"
    assert twice["average"] == "666666666666665333333333333333.6667"
    assert len(found(as_mira, form, ["day", "at_most", "9999-12-31"])) == 3
    for kind in ("csv", "xlsx"):
        assert as_mira.get(f"/api/forms/{form}/responses.{kind}").status_code == 200


def test_who_fills_with_what_was_read_before_a_change_does_not_undo_it(as_mira, connection, answered):
    post(as_mira, answered, "/statuses", STATUSES, "put")
    assert found(as_mira, answered, ["response.status", "answered"]) == []
    post(as_mira, answered, "/1/move", {"was": "", "to": "new"})
    slow = filling.of_form(within(connection), Editions(within(connection)), answered)
    ledger = slow.ledger()
    changes = ledgers.changed(connection, form=answered, most=10)
    read = list(slow._entries(changes.sources, ledger))
    connection.commit()
    post(as_mira, answered, "/1/move", {"was": "new", "to": "done"})
    assert found(as_mira, answered, ["response.status", "any_of", "done"]) == [1]
    ledgers.take_up(connection, ledger, read, changes)
    connection.commit()
    assert found(as_mira, answered, ["response.status", "any_of", "done"]) == [1]
