"""Taking a response: once, whole, with what it was told, and nothing that somebody else has."""

import csv
import datetime
import io
import sys
import threading
import unicodedata
import uuid
from contextlib import suppress

import pytest
from conftest import receive, visit_document, within
from hypothesis import given
from hypothesis import strategies as some

from codexa.core.context import Context
from codexa.core.form.upgrades import read_stored
from codexa.core.program.kept import state_of_kept
from codexa.core.program.public import confirmation_face
from codexa.services import desk, drafts, publishing
from codexa.services.compiled_drafts import CompiledDrafts
from codexa.services.editions import Editions
from codexa.services.receiving import Received
from codexa.services.response_csv import defused
from codexa.store import claims, responses
from codexa.store.database import BusyError, Database
from codexa.web.errors import _STATUSES

ANSWERS = {"people": "3", "show": "o1"}


def with_moment():
    """A form whose confirmation tells the moment, a value from the link, the number, and a file's name."""
    document = visit_document()
    blocks = document["pages"][0]["blocks"]
    blocks += [
        {
            "id": "ref",
            "type": "calculated",
            "key": "ref",
            "label": "Ref",
            "format": "text",
            "formula": '"V-" & response.number',
        },
        {"id": "photo", "type": "file_upload", "key": "photo", "label": "Photo", "kinds": ["pdf"], "megabytes": 5},
    ]
    title = "{ref} at {moment} of {link.talk} with {photo.names}"
    document["figures"] = [
        {
            "kind": "formula",
            "id": "g",
            "key": "moment",
            "name": "Moment",
            "formula": 'NOW() & ""',
            "format": "text",
            "shown_to_visitors": True,
        }
    ]
    document["confirmations"] = [{"id": "c", "name": "Thanks", "title": title}]
    return document


@pytest.fixture
def moment(connection, mira):
    form = desk.import_form(within(connection), who=mira, document=with_moment())
    publishing.publish(within(connection), who=mira, form=form, revision=1)
    connection.commit()
    return form


def send_file(agent, form, visit="visit1", content=b"%PDF-1.4 dome"):
    query = {"name": "dome.pdf", "visit": visit}
    return agent.client.post(f"/api/public/{form}/1/files/photo", query_string=query, data=content)


def hand_in(agent, form, answers, key=None, **body):
    return agent.client.post(
        f"/api/public/{form}/1/responses",
        json={"answers": answers, **body},
        headers={"Idempotency-Key": key or uuid.uuid4().hex},
    )


class TestAgain:
    def test_a_repeat_gets_what_the_first_got(self, agent, moment, connection, mira):
        photo = send_file(agent, moment).json["id"]
        body = {"link": {"talk": "Comets"}, "visit": "visit1"}
        first, again = (
            hand_in(agent, moment, {**ANSWERS, "photo": [photo]}, key="the-same-key", **body) for _ in range(2)
        )
        assert (first.status_code, again.status_code) == (201, 200)
        assert first.json == again.json
        title = first.json["confirmation"]["title"]
        assert title.startswith("V-1 at 20")
        assert title.endswith("of Comets with dome.pdf")

    def test_it_can_be_worked_out_at_any_later_time_as_it_was(self, connection, mira, moment):
        program = Editions(within(connection)).program(moment, 1)
        long_ago = datetime.datetime(2024, 2, 29, 23, 30, tzinfo=datetime.UTC)
        result = receive(connection, program, moment, "long-ago-1", ANSWERS, at=long_ago)
        assert isinstance(result, Received)
        kept = responses.find_response(connection, team=mira.team_id, form=moment, number=result.number)
        assert kept.received_at == long_ago
        state = state_of_kept(program, kept.answers, Context.from_json(kept.told, number=kept.number))
        assert confirmation_face(state) == result.confirmation
        assert "2024-03-01" in result.confirmation.title  # in the form's own zone

    def test_the_team_reads_why_and_what_happened(self, as_mira, agent, published):
        hand_in(agent, published, {**ANSWERS, "people": "20", "school": "Hill School"})
        facts = as_mira.get(f"/api/forms/{published}/responses/1/why/school").json["facts"]
        assert "People is 20" in next(fact["sentence"] for fact in facts if fact["fact"] == "shown")
        assert as_mira.get(f"/api/forms/{published}/responses/1/why/nothing").status_code == 404
        events = as_mira.get(f"/api/forms/{published}/responses/1").json["events"]
        assert [(each["kind"], each["who"]) for each in events] == [("handed in", "visitor"), ("complete", "visitor")]


class TestFiles:
    def test_of_two_responses_at_once_one_gets_the_file(self, app, agent, database, moment, connection):
        photo = send_file(agent, moment).json["id"]
        pool, results = Database(database, 4), []
        program = app.extensions["codexa"].editions.program(moment, 1)

        def once(at):
            with pool.connection() as own:
                given = {**ANSWERS, "photo": [photo]}
                results.append(receive(own, program, moment, f"key-of-{at:04}", given, visit="visit1"))

        threads = [threading.Thread(target=once, args=(at,)) for at in range(4)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        pool.close()
        refused = [each for each in results if not isinstance(each, Received)]
        assert len(refused) == 3
        assert {next(iter(each.errors.values())).code for each in refused} == {"not_files"}
        assert {next(iter(each.errors)) for each in refused} == {"photo"}

    def test_one_that_was_sent_on_another_visit_is_not_here(self, agent, moment):
        photo = send_file(agent, moment, visit="visit1").json["id"]
        assert hand_in(agent, moment, {**ANSWERS, "photo": [photo]}, visit="visit2").status_code == 422
        assert hand_in(agent, moment, {**ANSWERS, "photo": [photo]}, visit="visit1").status_code == 201

    def test_the_field_says_its_own_limit(self, agent, moment):
        assert send_file(agent, moment, content=b"%PDF-1.4" + b" " * 4_900_000).status_code == 200
        refused = send_file(agent, moment, content=b"%PDF-1.4" + b" " * 5_100_000)
        assert refused.status_code == _STATUSES["file_refused"]
        assert refused.json["message"] == "dome.pdf is too large (5.2 MB); send at most 5 MB."

    def test_what_waits_is_counted_by_network_form_and_disk(self, app, agent, moment):
        settings = app.config["SETTINGS"]
        for name, words in (
            ("upload_quota_network", "your network"),
            ("upload_quota_form", "no more files"),
        ):
            app.config["SETTINGS"] = type(settings)(**{**vars_of(settings), name: "0"})
            assert words in send_file(agent, moment).json["message"]
        app.config["SETTINGS"] = type(settings)(**{**vars_of(settings), "least_free_disk": "999999999"})
        assert "no more files" in send_file(agent, moment).json["message"]

    def test_they_stay_private_on_disk_and_on_the_way(self, as_mira, agent, moment, tmp_path):
        photo = send_file(agent, moment).json["id"]
        hand_in(agent, moment, {**ANSWERS, "photo": [photo]}, visit="visit1")
        assert (tmp_path / photo).stat().st_mode & 0o777 == 0o640
        with as_mira.get(f"/api/forms/{moment}/files/{photo}") as reply:
            assert reply.headers["Cache-Control"] == "private, no-store"


def vars_of(settings):
    return {name: getattr(settings, name) for name in type(settings).__dataclass_fields__}


class TestAForm:
    def test_that_was_deleted_takes_nothing(self, agent, as_mira, moment, app, monkeypatch):
        monkeypatch.setattr("codexa.services.admission._KNOWN_SECONDS", 0)
        as_mira.delete(f"/api/forms/{moment}")
        app.extensions["codexa"].admissions._known.clear()
        for reply in (
            agent.client.post(f"/api/public/{moment}/1/state", json={"answers": {}}),
            hand_in(agent, moment, ANSWERS),
            send_file(agent, moment),
        ):
            assert (reply.status_code, reply.json["code"]) == (410, "closed")

    def test_is_published_once_however_many_press_at_once(self, database, connection, mira):
        form = desk.import_form(within(connection), who=mira, document=visit_document())
        same = [desk.make_form(connection, who=mira, name="Same name") for _ in range(3)]
        for each in same:
            connection.execute(
                "UPDATE form SET draft = (SELECT draft FROM form WHERE id = %s) WHERE id = %s", (form, each)
            )
        connection.commit()
        pool, results = Database(database, 8), []

        def press(which):
            results.append((which, publishing.publish(pool.connection, who=mira, form=which, revision=1)))

        threads = [threading.Thread(target=press, args=(which,)) for which in [form] * 4 + same]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        pool.close()
        assert {number for _, number in results} == {1}
        assert len(results) == 7

    def test_has_an_address_of_its_own_however_many_get_one_name_at_once(self, database, connection, mira):
        same = [desk.make_form(connection, who=mira, name=f"Begun as {number}") for number in range(3)]
        connection.commit()
        pool = Database(database, 8)
        kept = Editions(pool.connection), CompiledDrafts(pool.connection)

        def rename(which):
            document = visit_document() | {"name": "Same name"}
            for _ in range(5):
                # On a laden machine a first connection may come late; a person then saves again, too.
                with suppress(BusyError):
                    drafts.save_draft(pool.connection, *kept, who=mira, form=which, revision=1, document=document)
                    return

        threads = [threading.Thread(target=rename, args=(which,)) for which in same]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        pool.close()
        slugs = connection.execute("SELECT slug FROM form WHERE id = ANY(%s)", (same,)).fetchall()
        assert {row["slug"] for row in slugs} == {"same-name", "same-name-2", "same-name-3"}


def test_pages_follow_one_another_without_a_gap(as_mira, connection, mira, published):
    program = Editions(within(connection)).program(published, 1)
    same = datetime.datetime(2026, 5, 1, tzinfo=datetime.UTC)
    for index in range(7):
        receive(connection, program, published, f"paged-{index:03}", ANSWERS, at=same)
    connection.commit()
    seen, after = [], ""
    while True:
        page = as_mira.get(f"/api/forms/{published}/responses", query_string={"limit": 3, "after": after}).json
        seen += [row["number"] for row in page["rows"]]
        after = page["next"]
        if not after:
            break
    assert seen == [7, 6, 5, 4, 3, 2, 1]


def test_a_page_reads_only_the_editions_that_its_responses_were_given_to(
    app, as_mira, connection, published, monkeypatch
):
    """There may be more editions than a process keeps whole; their columns are kept."""
    address = f"/api/forms/{published}"
    for revision, label in ((1, "Second"), (2, "Third")):
        draft = visit_document()
        draft["pages"][0]["blocks"].append({"id": f"n{revision}", "type": "short_text", "key": "k", "label": label})
        assert as_mira.put(f"{address}/draft", json={"revision": revision, "draft": draft}).status_code == 200
        assert as_mira.post(f"{address}/editions", json={"revision": revision + 1}).status_code == 200
    receive(connection, Editions(within(connection)).program(published, 1), published, "of-the-first", ANSWERS)
    connection.commit()
    first = as_mira.get(f"{address}/responses").json
    columns = [(each["label"], each["number"]) for each in first["columns"]]
    assert columns[-2:] == [("Third", "1.6"), ("Second", "")]
    app.extensions["codexa"].editions._forms._kept.clear()
    read = []
    monkeypatch.setattr(
        "codexa.services.editions.read_stored", lambda document: read.append(document) or read_stored(document)
    )
    assert as_mira.get(f"{address}/responses").json == first
    assert len(read) == 1


@given(
    some.text(max_size=6), some.sampled_from(["=", "+", "-", "@", "\uff1d", "\uff0b", "\uff0d", "\uff20", "\t", "\r"])
)
def test_no_spreadsheet_takes_a_cell_for_a_formula(text, begins):
    for invisible in ("", "\u200b", "\ufeff", " ", "\u00a0", "\u2060\u200e"):
        assert defused(f"{invisible}{begins}{text}x").startswith("'")
    assert next(csv.reader(io.StringIO(f'"{defused("-12.5")}"'))) == ["-12.5"]
    assert defused("Dome = night") == "Dome = night"


def test_what_begins_with_a_letter_is_no_formula_however_it_is_folded():
    letters = (sign for sign in map(chr, range(sys.maxunicode + 1)) if sign.isalnum())
    assert not any(unicodedata.normalize("NFKC", sign)[0] in "=+-@" for sign in letters)


class TestStock:
    @pytest.fixture
    def lamps(self, connection, mira):
        document = visit_document()
        lamp = {"id": "lamp", "type": "product", "key": "lamp", "label": "Lamp", "price": "9", "stock": 5}
        document["pages"][0]["blocks"] += [lamp, {"id": "code", "type": "short_text", "key": "code", "label": "Code"}]
        discount = {"id": "d1", "name": "Early", "code": "early", "percent": "10", "uses": 3}
        document["order"] = {"code_field": "code", "discounts": [discount]}
        form = desk.import_form(within(connection), who=mira, document=document)
        publishing.publish(within(connection), who=mira, form=form, revision=1)
        connection.commit()
        return form

    def state_of_lamp(self, agent, form, **answers):
        reply = agent.client.post(f"/api/public/{form}/1/state", json={"answers": {**ANSWERS, **answers}})
        return reply.json["state"]["blocks"]["lamp"]

    def test_of_many_at_once_as_many_get_some_as_there_are(self, app, database, lamps, connection):
        pool, results = Database(database, 8), []
        program = app.extensions["codexa"].editions.program(lamps, 1)

        def order(at):
            with pool.connection() as own:
                results.append(
                    receive(own, program, lamps, f"key-of-{at:04}", {**ANSWERS, "lamp": "1", "code": "early"})
                )

        threads = [threading.Thread(target=order, args=(at,)) for at in range(8)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        pool.close()
        assert sum(isinstance(each, Received) for each in results) == 3
        assert claims.taken(connection, form=lamps) == {"stock:lamp": 3, "code:d1": 3}
        refused = [each.errors for each in results if not isinstance(each, Received)]
        assert {error.code for errors in refused for error in errors.values()} == {"code_used_up"}
        numbers = connection.execute("SELECT array_agg(number ORDER BY number) AS n FROM response").fetchone()["n"]
        assert numbers == [1, 2, 3]

    def test_is_counted_down_told_and_given_back_once(self, agent, lamps, connection):
        assert self.state_of_lamp(agent, lamps)["left"] == {"": "5 left"}
        first = hand_in(agent, lamps, {**ANSWERS, "lamp": "4"}, key="the-first-key")
        assert first.status_code == 201
        assert self.state_of_lamp(agent, lamps)["left"] == {"": "1 left"}
        assert self.state_of_lamp(agent, lamps, lamp="2")["error"]["message"] == "There are only 1 left."
        refused = hand_in(agent, lamps, {**ANSWERS, "lamp": "2"})
        assert (refused.status_code, refused.json["errors"]["lamp"]["code"]) == (422, "only_left")
        assert hand_in(agent, lamps, {**ANSWERS, "lamp": "1"}).status_code == 201
        assert self.state_of_lamp(agent, lamps)["gone"] == {"": "Sold out."}
        # Who had some already is told so again, however little is left.
        assert hand_in(agent, lamps, {**ANSWERS, "lamp": "4"}, key="the-first-key").status_code == 200
        for _ in range(2):
            claims.release(connection, form=lamps, number=1)
        connection.commit()
        assert self.state_of_lamp(agent, lamps)["left"] == {"": "4 left"}
