"""A worksheet's filter: each kind of column asked for in each way, and what can't be asked told at its condition."""

import json

import pytest
from web.test_tables import names, put

OPTIONS = [{"id": each, "code": each, "label": each.title()} for each in ("deck", "dome")]
COLUMNS = [
    {"type": "short_text", "id": "c1", "key": "name", "label": "Name"},
    {"type": "number", "id": "c2", "key": "size", "label": "Size", "decimals": 1},
    {"type": "yes_no", "id": "c3", "key": "lent", "label": "Lent"},
    {"type": "date", "id": "c4", "key": "since", "label": "Since"},
    {"type": "time", "id": "c5", "key": "opens", "label": "Opens"},
    {"type": "date_time", "id": "c6", "key": "seen", "label": "Seen"},
    {"type": "dropdown", "id": "c7", "key": "site", "label": "Site", "options": OPTIONS},
    {"type": "several_choices", "id": "c8", "key": "sites", "label": "Sites", "options": OPTIONS},
    {"type": "calculated", "id": "c9", "key": "double", "label": "Double", "formula": "size * 2", "format": "number"},
]
ROWS = [
    {"c1": "Große  Nova", "c2": "9", "c3": "Yes", "c4": "2026-03-01", "c5": "18:30", "c6": "2026-03-01T23:30",
     "c7": "Deck", "c8": "Deck, Dome"},
    {"c1": "Lýra 50%", "c2": "-2.5", "c3": "No", "c4": "2026-04-01", "c5": "20:00", "c6": "2026-03-02T00:10",
     "c7": "Dome", "c8": "Dome"},
    {"c1": "Vega"},
]  # fmt: skip

# A condition, and by their first letters the records that it chooses.
FOUND = [
    (["c1", "is", "grosse nova"], "G"),
    (["c1", "contains", "nova gro"], "G"),
    (["c1", "contains", "50%"], "L"),
    (["c1", "contains", "_"], ""),
    (["c1", "begins", "lyr"], "L"),
    (["c1", "begins", "nova"], ""),
    (["c2", "is", "9.0"], "G"),
    (["c2", "at_most", "0"], "L"),
    (["c2", "between", "-3", "9"], "GL"),
    (["c2", "blank"], "V"),
    (["c2", "answered"], "GL"),
    (["c3", "is", "no"], "L"),
    (["c4", "is", "2026-03-01"], "G"),
    (["c4", "at_least", "2026-03-02"], "L"),
    (["c5", "at_most", "18:30"], "G"),
    (["c5", "between", "19:00", "21:00"], "L"),
    (["c6", "is", "2026-03-02"], "L"),
    (["c6", "at_most", "2026-03-01"], "G"),
    (["c7", "any_of", "deck", "dome"], "GL"),
    (["c7", "none_of", "deck"], "LV"),
    (["c8", "all_of", "deck", "dome"], "G"),
    (["c8", "any_of", "dome"], "GL"),
    (["c8", "none_of", "deck"], "LV"),
    (["c9", "at_least", "18"], "G"),
]
REFUSED = [
    ([["c2", "is", "9"], ["c2", "at_least", "many"]], "conditions.1", 'Size: "many" is no number'),
    ([["c2", "contains", "9"]], "conditions.0", "can't be asked"),
    ([["gone", "is", "9"]], "conditions.0", "is gone"),
    ([["c4", "between", "2026-04-01", "2026-03-01"]], "conditions.0", "Swap"),
]


@pytest.fixture
def table(as_mira):
    made = as_mira.post("/api/tables", json={"definition": {"name": "Telescopes", "columns": COLUMNS}})
    assert made.status_code == 200, made.json
    address = f"/api/tables/{made.json['id']}"
    assert put(as_mira, address, *ROWS)["wrong"] == []
    return address


def found(agent, table, *conditions, **query):
    listed, count = names(agent, table, where=json.dumps(conditions), **query)
    assert count == len(listed)
    return "".join(each[0] for each in listed)


def test_each_kind_of_column_is_asked_for_in_its_ways(as_mira, table):
    assert [(condition, found(as_mira, table, condition)) for condition, _ in FOUND] == FOUND


def test_conditions_are_joined_and_go_with_words_and_with_an_order(as_mira, table):
    large, lent = ["c2", "at_least", "5"], ["c3", "is", "no"]
    assert found(as_mira, table, large, lent) == ""
    assert found(as_mira, table, large, lent, match="any", sort="-c1") == "LG"
    assert found(as_mira, table, large, lent, match="any", words="nova") == "G"


def test_records_that_a_column_names_are_asked_for_by_their_names(as_mira, table):
    names_them = [
        {"type": "short_text", "id": "n1", "key": "name", "label": "Name"},
        {"type": "record_choice", "id": "n2", "key": "one", "label": "One", "table": table[-36:].replace("-", "")},
        {**COLUMNS[0], "type": "record_choice", "id": "n3", "key": "some", "label": "Some", "several": True}
        | {"table": table[-36:].replace("-", "")},
    ]
    made = as_mira.post("/api/tables", json={"definition": {"name": "Uses", "columns": names_them}})
    assert made.status_code == 200, made.json
    uses = f"/api/tables/{made.json['id']}"
    wrong = put(as_mira, uses, {"n1": "A", "n2": "Vega"}, {"n1": "B", "n2": "1", "n3": "Vega, 1"}, {"n1": "C"})["wrong"]
    assert wrong == []
    assert found(as_mira, uses, ["n2", "is", "vega"]) == "A"
    assert found(as_mira, uses, ["n3", "contains", "nova"]) == "B"
    assert found(as_mira, uses, ["n2", "blank"]) == "C"
    assert (found(as_mira, uses, sort="n2"), found(as_mira, uses, sort="-n2")) == ("BAC", "ABC")


def test_what_can_not_be_asked_is_told_at_its_condition(as_mira, table):
    for conditions, path, told in REFUSED:
        refused = as_mira.get(f"{table}/records", query_string={"where": json.dumps(conditions)})
        assert (refused.status_code, refused.json["problems"][0]["path"]) == (422, path)
        assert told in refused.json["problems"][0]["message"]
    assert as_mira.get(f"{table}/records", query_string={"where": "nothing"}).status_code == 400
