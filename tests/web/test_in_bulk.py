"""What is done to many responses at once: wholly, once, and stopped or undone; and what anonymising leaves of them."""

import io
import json
import random
import uuid
import zipfile
from pathlib import Path
from urllib.parse import urlencode

import pytest
from conftest import make_person, publish_visit, receive, visit_document, within
from core.any_form import provable_forms
from core.formulas import CONTEXT
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as some
from PIL import Image
from web.mail import work

from codexa.core.context import Context
from codexa.core.fields.options import OTHER
from codexa.core.form.form import read_form
from codexa.core.program.accept import Accepted, accept
from codexa.core.program.compiling import compile_form
from codexa.core.program.kept import state_of_kept
from codexa.core.program.samples import sample_answers
from codexa.core.responses.anonymising import anonymised, personal_in
from codexa.practice.mailbox import store as mailbox
from codexa.services import desk, publishing
from codexa.services.editions import Editions
from codexa.services.response_set import in_bulk
from codexa.store import bulks
from codexa.store.database import Database

MANY = 1_203
COPIES = """
    INSERT INTO response
        (form_id, number, edition, received_at, answers, computed, idempotency_key, content_digest, told)
    SELECT form_id, n, edition, received_at, answers, computed, 'copy ' || n, content_digest, told
    FROM response, generate_series(3, %s) AS n WHERE form_id = %s AND number = 2 - n %% 2
"""


@pytest.fixture
def many(connection, mira):
    """A form with many responses: large groups have odd numbers, small ones even."""
    form = publish_visit(connection, mira)
    program = Editions(within(connection)).program(form, 1)
    for at, people in enumerate(("20", "3")):
        receive(connection, program, form, f"key-of-number-{at}", {"people": people, "school": "Lyra"})
    connection.execute(COPIES, (MANY, form))
    connection.execute("UPDATE response_counter SET last_number = %s WHERE form_id = %s", (MANY, form))
    connection.commit()
    return form


LARGE = json.dumps([["people", "at_least", "13"]])
LARGE_COUNT = (MANY + 1) // 2


def begin(agent, form, does, value="", **query):
    return agent.post(f"/api/forms/{form}/responses/bulk?{urlencode(query)}", json={"does": does, "value": value})


def bulks_of(agent, form):
    return agent.get(f"/api/forms/{form}/responses/bulk").json["bulks"]


def newest(agent, form):
    return bulks_of(agent, form)[0]


def count(agent, form, *conditions):
    query = urlencode({"where": json.dumps(conditions)})
    return agent.get(f"/api/forms/{form}/responses?{query}").json["count"]


def test_all_that_a_filter_chooses_is_marked_and_told_how_far_it_is(as_mira, many, worker):
    for state, changed in (("done", LARGE_COUNT), ("done", 0)):
        assert begin(as_mira, many, "tag", "Press", where=LARGE).status_code == 200
        waiting = newest(as_mira, many)
        assert (waiting["state"], waiting["count"], waiting["place"]) == ("waiting", LARGE_COUNT, 0)
        work(worker)
        done = newest(as_mira, many)
        assert (done["state"], done["place"], done["changed"], done["person"]) == (state, LARGE_COUNT, changed, "Owner")
    assert count(as_mira, many, ["response.tags", "any_of", "Press"]) == LARGE_COUNT


def test_what_was_removed_comes_back_by_undoing_it(as_mira, connection, many, worker):
    gone = [number for number in range(1, MANY + 1) if number % 2]
    connection.execute("UPDATE response SET payment = 'due' WHERE form_id = %s AND number = 1", (many,))
    connection.commit()
    begun = begin(as_mira, many, "remove", where=LARGE).json["id"]
    work(worker)
    assert newest(as_mira, many)["changed"] == len(gone) - 1
    assert count(as_mira, many) == MANY - len(gone) + 1
    assert as_mira.post(f"/api/forms/{many}/responses/bulk/{begun}/undo").status_code == 200
    work(worker)
    assert count(as_mira, many) == MANY
    again = as_mira.post(f"/api/forms/{many}/responses/bulk/{uuid.uuid4()}/undo")
    assert (again.status_code, again.json["message"]) == (404, "There is nothing of it to undo.")


def test_a_worker_that_dies_leaves_nothing_half_done_or_done_twice(as_mira, connection, many, worker, monkeypatch):
    begin(as_mira, many, "tag", "Press")
    parts = []

    def end_and_die(database, **part):
        parts.append(part)
        if len(parts) == 2:
            raise RuntimeError("the machine went down")
        bulks_end(database, **part)

    bulks_end = bulks.end_part
    monkeypatch.setattr(in_bulk.bulks, "end_part", end_and_die)
    work(worker)
    half = newest(as_mira, many)
    assert (half["state"], half["place"], half["changed"]) == ("waiting", 500, 500)
    connection.execute("UPDATE procrastinate_jobs SET scheduled_at = now() WHERE status = 'todo'")
    connection.commit()
    work(worker)
    assert (newest(as_mira, many)["state"], newest(as_mira, many)["changed"]) == ("done", MANY)
    told = "SELECT count(*) AS n, count(DISTINCT number) AS once FROM event WHERE kind = 'tagged'"
    assert tuple(connection.execute(told).fetchone().values()) == (MANY, MANY)


def test_what_is_stopped_goes_no_further(as_mira, many, worker):
    begun = begin(as_mira, many, "tag", "Press").json["id"]
    assert as_mira.post(f"/api/forms/{many}/responses/bulk/{begun}/stop").status_code == 204
    work(worker)
    assert (newest(as_mira, many)["state"], newest(as_mira, many)["changed"]) == ("stopped", 0)
    assert count(as_mira, many, ["response.tags", "any_of", "Press"]) == 0


def test_what_can_not_be_done_is_refused_before_it_begins(as_mira, agent, many, connection, mira):
    for does, value, query in (
        ("tag", "", {}),
        ("status", "lost", {}),
        ("remove", "", {"where": json.dumps([["people", "is", "999"]])}),
    ):
        assert begin(as_mira, many, does, value, **query).status_code == 422
    assert begin(as_mira, many, "melt").status_code == 400
    assert begin(as_mira, many, "tag", "x", where=json.dumps([["gone", "is", "1"]])).status_code == 422
    assert as_mira.get(f"/api/forms/{many}/responses/bulk").json == {"bulks": []}
    assert begin(as_mira, uuid.uuid4(), "remove").status_code == 404


# What nobody may find any more once it is anonymised: it stands in answers, files, mails, notes, corrections, links.
WHO = "Zqvistberg"


@pytest.fixture
def personal(connection, mira):
    document = visit_document()
    blocks = document["pages"][0]["blocks"]
    blocks[2] |= {"personal": False, "shown": "", "required": ""}
    blocks[0]["other"] = True
    blocks += [
        {"id": "photo", "type": "file_upload", "key": "photo", "label": "Photo"},
        {"id": "greets", "type": "calculated", "key": "greets", "label": "Greets", "formula": '"Dear " & mail'},
        {"id": "long", "type": "calculated", "key": "long", "label": "Long", "formula": "LEN(mail)"},
        {
            "id": "guests",
            "type": "repeat",
            "key": "guests",
            "label": "Guests",
            "kinds": [
                {
                    "id": "k1",
                    "key": "guest",
                    "label": "Guest",
                    "blocks": [
                        {"id": "who", "type": "name", "key": "who", "label": "Name"},
                        {"id": "age", "type": "number", "key": "age", "label": "Age"},
                    ],
                }
            ],
        },
    ]
    document["links"] = [{"field": "mail", "name": "mail"}, {"field": "school", "name": "school"}]
    document["follow_ups"] = [
        {
            "id": "u1",
            "kind": "email",
            "name": "Thanks",
            "recipients": [{"field": "mail"}],
            "subject": "Thank you, {mail}",
            "paragraphs": [{"text": "<p>{greets}</p>"}],
            "all_answers": True,
        }
    ]
    form = desk.import_form(within(connection), who=mira, document=document)
    publishing.publish(within(connection), who=mira, form=form, revision=1)
    connection.commit()
    return form


def filled_in(agent, form):
    """A response that names somebody wherever it can, with all that followed from it."""
    content = io.BytesIO()
    Image.new("RGB", (400, 300)).save(content, "PNG")
    address = f"/api/public/{form}/1/files/photo?{urlencode({'name': f'{WHO}.png', 'visit': 'v1'})}"
    photo = agent.client.post(address, data=content.getvalue()).json["id"]
    answers = {
        "show": {OTHER: f"{WHO} comet"},
        "people": "3",
        "mail": f"{WHO.lower()}@example.org",
        "photo": [photo],
        "guests": [{"kind": "k1", "id": "r1", "values": {"who": {"first": "Ada", "last": WHO}, "age": "9"}}],
    }
    link = {"mail": f"{WHO}@example.org", "school": "Lyra", "unknown": WHO}
    asked = {"answers": answers, "link": link, "visit": "v1"}
    reply = agent.client.post(
        f"/api/public/{form}/1/responses", json=asked, headers={"Idempotency-Key": uuid.uuid4().hex}
    )
    assert reply.status_code == 201, reply.json
    return photo


def everywhere(connection, word):
    """The tables in which a word stands, in any row of the whole database."""
    connection.rollback()
    tables = connection.execute(
        "SELECT format('%I.%I', schemaname, tablename) AS name FROM pg_tables "
        "WHERE schemaname IN ('public', 'ledgers') AND tablename NOT LIKE 'procrastinate%'"
    ).fetchall()
    asked = "SELECT count(*) AS n FROM {} AS each WHERE each::text ILIKE %s"
    found = {each["name"]: connection.execute(asked.format(each["name"]), (f"%{word}%",)).fetchone() for each in tables}
    return {name for name, row in found.items() if row["n"]}


def test_of_what_is_anonymised_nothing_tells_of_a_person_any_more(as_mira, connection, personal, worker):
    photo = filled_in(as_mira, personal)
    place = f"/api/forms/{personal}/responses/1"
    before = as_mira.get(f"{place}/correction").json
    corrected = {**before["answers"], "people": "4"}
    body = {"answers": corrected, "version": before["version"], "because": f"{WHO} rang"}
    assert as_mira.post(f"{place}/correction", json=body).json["wrong"] == []
    as_mira.post(f"{place}/notes", json={"note": f"Ask {WHO}"})
    assert as_mira.get(f"/api/forms/{personal}/responses?{urlencode({'words': WHO})}").json["count"] == 1
    work(worker)
    assert len(list(mailbox.all_mail())) == 1
    assert {"public.response", "public.event", "public.run", "public.upload"} <= everywhere(connection, WHO)
    files = Path(worker.files)
    assert (files / photo).exists()
    for _ in range(2):
        begin(as_mira, personal, "anonymise")
        work(worker)
        assert newest(as_mira, personal)["changed"] == 1
    assert everywhere(connection, WHO) == set()
    assert [path.name for path in files.iterdir() if photo in path.name] == []
    shown = as_mira.get(place).json
    cells = shown["row"]["cells"]
    assert cells.keys() == {"show", "people", "school", "price", "long", "guests"}
    assert (cells["show"], cells["people"], cells["school"], cells["long"]) == ("…", "4", "Lyra", "22")
    assert "9" in cells["guests"]
    kinds = [each["kind"] for each in shown["events"]]
    assert kinds[-3:] == ["follow-up done", "anonymised", "anonymised"]
    assert count(as_mira, personal, ["people", "is", "4"]) == 1
    with as_mira.get(f"{place}/pdf") as pdf:
        assert pdf.status_code == 200


def test_the_same_mail_is_sent_again_to_all_that_had_it(as_mira, connection, personal, worker):
    filled_in(as_mira, personal)
    receive(connection, Editions(within(connection)).program(personal, 1), personal, "without-mail-1", {"people": "1"})
    connection.commit()
    work(worker)
    begin(as_mira, personal, "mail again", "u1")
    work(worker)
    assert newest(as_mira, personal)["changed"] == 1
    assert [each["again"] for each in as_mira.get(f"/api/forms/{personal}/responses/1/runs").json["runs"]] == [0, 1]


def test_what_is_too_old_is_anonymised_or_removed_by_the_clock(as_mira, connection, many, worker):
    place = f"/api/forms/{many}/responses/retention"
    assert as_mira.get(place).json == {"days": None, "does": "anonymise"}
    connection.execute("UPDATE response SET received_at = now() - interval '31 days' WHERE number <= 600")
    connection.execute("UPDATE response SET payment = 'due' WHERE number = 1")
    connection.execute("UPDATE response SET held = true, stage = 'waiting' WHERE number = 2")
    connection.commit()

    def by_night():
        for _ in range(2):
            in_bulk.ask_for_due(Database(worker.database, 1).connection)
        work(worker)
        return [(each["does"], each["changed"], each["person"]) for each in bulks_of(as_mira, many)]

    assert by_night() == []
    assert as_mira.put(place, json={"days": 30, "does": "anonymise"}).status_code == 204
    assert by_night() == [("anonymise", 598, None)]
    assert by_night() == [("anonymise", 598, None)]
    assert as_mira.get(f"/api/forms/{many}/responses/3").json["events"][-1]["who"] == "clock"
    assert "school" not in as_mira.get(f"/api/forms/{many}/responses/3").json["row"]["cells"]
    assert as_mira.put(place, json={"days": 30, "does": "remove"}).status_code == 204
    assert by_night()[0] == ("remove", 598, None)
    assert count(as_mira, many) == MANY - 599
    for wrong in ({"days": 0}, {"days": 40_000}, {"days": 3, "does": "melt"}):
        assert as_mira.put(place, json=wrong).status_code == 400


@settings(max_examples=40, deadline=None, suppress_health_check=[HealthCheck.too_slow])
@given(document=provable_forms(), seed=some.integers(0, 1000))
def test_of_any_form_answers_that_are_personal_go_and_all_others_stay(document, seed):
    form = read_form(document)
    program = compile_form(form)
    accepted = accept(program, sample_answers(program, random.Random(seed), CONTEXT), CONTEXT)
    if not isinstance(accepted, Accepted):
        return
    personal = personal_in(form, form)
    told = accepted.state.context.as_json()
    left = anonymised(program, personal, answers=accepted.answers, computed=accepted.computed, told=told)
    inner = {each for block in program.repeats for row in left.answers.get(block, ()) for each in row["values"]}
    assert personal.isdisjoint(left.answers.keys() | inner)
    assert left.answers.keys() == {each for each in accepted.answers if each not in personal}
    # It can still be read, shown and counted.
    state_of_kept(program, left.answers, Context.from_json(left.told)).errors()


def test_everything_about_a_person_is_found_given_out_and_forgotten(as_mira, connection, personal, worker, many):
    filled_in(as_mira, personal)
    program = Editions(within(connection)).program(personal, 1)
    # Somebody whose address ends alike is somebody else.
    receive(connection, program, personal, "somebody-else", {"people": "2", "mail": f"anna.{WHO.lower()}@example.org"})
    connection.commit()
    asked = {"email": f" {WHO}@Example.org "}
    assert as_mira.post("/api/person/find", json=asked).json["found"] == [
        {"form": str(personal), "name": "Visit", "numbers": [1]}
    ]
    given_out = as_mira.post("/api/person/export", json=asked).json
    (response,) = given_out["forms"][0]["responses"]
    assert (response["number"], response["answers"]["mail"]) == (1, f"{WHO.lower()}@example.org")
    connection.execute(
        "UPDATE response SET stage = 'waiting', held = true WHERE form_id = %s AND number = 1", (personal,)
    )
    connection.commit()
    kept = as_mira.post("/api/person/forget", json=asked | {"does": "anonymise"})
    assert kept.json == {"responses": 0, "staying": 1, "records": 0}
    work(worker)
    connection.execute(
        "UPDATE response SET stage = 'complete', held = false WHERE form_id = %s AND number = 1", (personal,)
    )
    connection.commit()
    forgotten = as_mira.post("/api/person/forget", json=asked | {"does": "anonymise"})
    assert forgotten.json == {"responses": 1, "staying": 0, "records": 0}
    work(worker)
    assert as_mira.post("/api/person/find", json=asked).json == {"found": [], "records": []}
    assert as_mira.get(f"/api/forms/{personal}/responses/2").json["row"]["cells"]["mail"].startswith("anna.")
    assert as_mira.post("/api/person/find", json={"email": "nobody"}).status_code == 422
    editor = make_person(connection, role="editor", email="editor@example.org")
    connection.commit()
    as_mira.sign_in(editor.email)
    for path in ("find", "export", "forget"):
        assert as_mira.post(f"/api/person/{path}", json=asked | {"does": "remove"}).status_code in (400, 403)


def files_of(agent, form):
    return agent.get(f"/api/forms/{form}/responses/exports").json["files"]


def test_a_file_of_any_number_is_made_by_a_job_and_fetched_in_pieces(as_mira, many, worker, monkeypatch):
    # In an answer to a request a workbook of so many would be refused.
    monkeypatch.setattr("codexa.store.ledger_queries.EXACT", 100)
    place = f"/api/forms/{many}/responses"
    for kind in ("xlsx", "csv", "jsonl", "json"):
        assert as_mira.post(f"{place}/exports?kind={kind}&{urlencode({'where': LARGE})}").status_code == 200
    assert as_mira.get(f"{place}.xlsx").status_code == 422
    assert {each["state"] for each in files_of(as_mira, many)} == {"waiting"}
    work(worker)
    made = {each["name"].rsplit(".")[-1]: each for each in files_of(as_mira, many)}
    assert {(each["state"], each["rows"]) for each in made.values()} == {("done", LARGE_COUNT)}
    for kind, each in made.items():
        with as_mira.get(f"{place}/exports/{each['id']}") as whole:
            assert len(whole.data) == each["size"]
            if kind != "xlsx":
                direct = as_mira.get(f"{place}.{kind}?{urlencode({'where': LARGE})}").data
                assert whole.data == direct
        with as_mira.get(f"{place}/exports/{each['id']}", headers={"Range": "bytes=10-19"}) as piece:
            assert (piece.status_code, piece.data) == (206, whole.data[10:20])
    with as_mira.get(f"{place}/exports/{made['xlsx']['id']}") as whole:
        content = io.BytesIO(whole.data)
    with zipfile.ZipFile(content) as book:
        assert book.read("xl/worksheets/sheet1.xml").count(b"<row ") == LARGE_COUNT + 1
    # What is anonymised stands in no file that was made before.
    begin(as_mira, many, "anonymise", where=LARGE)
    work(worker)
    assert files_of(as_mira, many) == []
    assert as_mira.get(f"{place}/exports/{made['csv']['id']}").status_code == 404
    assert list((Path(worker.files) / "exports").iterdir()) == []


def test_a_file_that_nobody_wants_any_more_is_made_no_further(as_mira, many, worker):
    place = f"/api/forms/{many}/responses/exports"
    begun = as_mira.post(f"{place}?kind=csv").json["id"]
    assert as_mira.delete(f"{place}/{begun}").status_code == 204
    work(worker)
    assert (files_of(as_mira, many), list((Path(worker.files) / "exports").glob("*"))) == ([], [])
    assert as_mira.post(f"{place}?kind=pdf").status_code == 400
