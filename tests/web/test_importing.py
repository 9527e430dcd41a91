"""Responses from a table: fields found by their headers, every line through the core, what is wrong told by line."""

import base64
import datetime
import io
import zipfile

import pytest
import xlsxwriter
from conftest import publish_visit
from web.mail import work

from codexa.services import importing
from codexa.store import imports

TABLE = """People;Show;E-mail;Received;Remark
3;deep;ingrid@example.org;2025-03-01T18:30;by telephone
61;stars;;;too many
;stars;;;nobody
14;First stars;;yesterday;
14;comet;;;
7;;not an address;;

5;Deep sky;;2025-03-02;
"""


@pytest.fixture
def form(connection, mira):
    return publish_visit(connection, mira)


def in_base64(content):
    return base64.b64encode(content if isinstance(content, bytes) else content.encode()).decode()


def plan(agent, form, content, columns=None):
    reply = agent.post(
        f"/api/forms/{form}/responses/import/plan", json={"table": in_base64(content), "columns": columns}
    )
    return reply.json


def take_in(agent, form, content, columns):
    asked = {"table": in_base64(content), "columns": columns, "name": "visits.csv"}
    return agent.post(f"/api/forms/{form}/responses/import", json=asked)


def newest(agent, form):
    return agent.get(f"/api/forms/{form}/responses/import").json["imports"][0]


def rows(agent, form):
    found = agent.get(f"/api/forms/{form}/responses").json["rows"]
    return {row["number"]: (row["received_at"][:16], row["cells"]) for row in found}


WRONG = [
    (3, "People – Enter 60 or less."),
    (4, "People – Please answer this."),
    (5, "Received – “yesterday” is no date or moment as in ISO 8601, such as 2026-11-29."),
    (6, "Show – Choose one of the options."),
    (7, "E-mail – "),
]


def test_lines_that_fit_come_in_and_the_others_are_told(as_mira, form, worker, connection):
    told = plan(as_mira, form, TABLE)
    assert told["columns"] == {"People": "people", "Show": "show", "E-mail": "mail", "Received": "response.received"}
    assert (told["lines"], told["empty"], told["tried"], told["wrong_count"]) == (7, 1, 7, 5)
    assert [each["line"] for each in told["wrong"]] == [line for line, _ in WRONG]
    assert take_in(as_mira, form, TABLE, told["columns"]).status_code == 200
    assert newest(as_mira, form)["state"] == "waiting"
    work(worker)
    done = newest(as_mira, form)
    assert (done["state"], done["count"], done["kept"], done["person"]) == ("done", 7, 2, "Owner")
    for each, (line, message) in zip(done["refused"], WRONG, strict=True):
        assert (each["line"], each["message"][: len(message)]) == (line, message)
    kept = rows(as_mira, form)
    assert {moment for moment, _ in kept.values()} == {"2025-03-01T18:30", "2025-03-02T00:00"}
    assert [cells["price"] for _, cells in sorted(kept.values())] == ["€18.00", "€30.00"]
    assert as_mira.get(f"/api/forms/{form}/responses/1").json["way"] == "table"
    # What people gave stands in the responses alone.
    assert connection.execute("SELECT lines FROM file_import").fetchone()["lines"] == []


def test_a_workbook_says_the_same_as_a_csv(as_mira, form, worker):
    content = io.BytesIO()
    book = xlsxwriter.Workbook(content)
    sheet, day = book.add_worksheet(), book.add_format({"num_format": "yyyy-mm-dd"})
    for at, header in enumerate(("Show", "People", "Received", "Number")):
        sheet.write(0, at, header)
    sheet.write(1, 0, "deep")
    sheet.write(1, 1, 4.0)
    sheet.write_datetime(1, 2, datetime.date(2025, 4, 1), day)
    sheet.write(1, 3, "0007")
    sheet.write_formula(2, 1, "=2+3", None, 5)
    sheet.write_blank(4, 2, None, day)
    book.close()
    told = plan(as_mira, form, content.getvalue())
    assert (told["lines"], told["wrong_count"], told["columns"]["Received"]) == (2, 0, "response.received")
    take_in(as_mira, form, content.getvalue(), told["columns"])
    work(worker)
    kept = rows(as_mira, form)
    assert sorted(cells["people"] for _, cells in kept.values()) == ["4", "5"]
    assert kept[1][0] == "2025-04-01T00:00"


def bomb():
    packed = io.BytesIO()
    with zipfile.ZipFile(packed, "w", zipfile.ZIP_DEFLATED) as parts:
        parts.writestr("xl/worksheets/sheet1.xml", b"0" * 210_000_000)
    return packed.getvalue()


@pytest.mark.parametrize(
    ("content", "columns", "words"),
    [
        (b"PK\x03\x04 no workbook", None, "can't be read"),
        (bomb, None, "too large"),
        ("", None, "no headers"),
        ("People,People\n1,2\n", None, "Give each a name of its own"),
        ("People,Show\n1,stars,2\n", None, "more cells than there are headers"),
        (b"People\n\xff\n", None, "UTF-8"),
        ("People\n1\n", {"Persons": "people"}, "no column “Persons”"),
        ("People\n1\n", {"People": "price"}, "no field of the key “price”"),
        ("People,More\n1,2\n", {"People": "people", "More": "people"}, "the same field"),
    ],
)
def test_a_table_that_can_not_be_read_is_refused_as_a_whole(as_mira, form, content, columns, words):
    content = content() if callable(content) else content
    assert words in plan(as_mira, form, content, columns)["message"]


def test_each_line_comes_in_once_however_often_a_worker_dies(as_mira, form, worker, connection, monkeypatch):
    table = "People\n" + "".join(f"{1 + at % 12}\n" for at in range(250))
    take_in(as_mira, form, table, {"People": "people"})
    ends, kept = [], imports.end_part

    def end_and_die(database, **part):
        ends.append(part)
        if len(ends) == 2:
            raise RuntimeError("the machine went down")
        kept(database, **part)

    monkeypatch.setattr(importing.imports, "end_part", end_and_die)
    work(worker)
    assert (newest(as_mira, form)["place"], newest(as_mira, form)["kept"]) == (100, 100)
    connection.execute("UPDATE procrastinate_jobs SET scheduled_at = now() WHERE status = 'todo'")
    connection.commit()
    work(worker)
    assert (newest(as_mira, form)["state"], newest(as_mira, form)["kept"]) == ("done", 250)
    assert as_mira.get(f"/api/forms/{form}/responses").json["count"] == 250


def test_nothing_more_comes_in_of_what_is_stopped(as_mira, form, worker):
    begun = take_in(as_mira, form, "People\n1\n", {"People": "people"}).json["id"]
    assert as_mira.post(f"/api/forms/{form}/responses/import/{begun}/stop").status_code == 204
    work(worker)
    assert (newest(as_mira, form)["state"], rows(as_mira, form)) == ("stopped", {})
