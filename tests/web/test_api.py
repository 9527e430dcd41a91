"""The API as a agent meets it: who may what, bad input, and what comes back."""

import csv
import io
import json
import re
import uuid
from pathlib import Path
from types import SimpleNamespace

import psycopg
import pytest
from conftest import Browser, app_on, copied_database, make_person, publish_visit, visit_document
from psycopg.rows import dict_row
from web.examples import example_of

from codexa.cli import GENERATED, document_text
from codexa.services.members import signing_in
from codexa.services.response_csv import defused
from codexa.store import members
from codexa.web.endpoint import ENDPOINTS

ROOT = Path(__file__).parent.parent.parent
OPEN_ADDRESSES = (
    *("/api/session", "/api/public/"),
    # What links in mails lead to, and how one is asked for.
    *("/api/account/link", "/api/account/password/by-link", "/api/account/address/confirm", "/api/team/invitation/"),
)


@pytest.mark.parametrize("name", GENERATED)
def test_generated_documents_are_up_to_date(name):
    assert (ROOT / name).read_text(encoding="utf-8") == document_text(GENERATED[name]()), (
        "python -m codexa.cli write-schemas"
    )


CLOSED = [each for each in ENDPOINTS if not each.rule.startswith(OPEN_ADDRESSES)]
CHANGING = [each for each in CLOSED if each.method != "GET"]


def of_each(endpoints):
    return pytest.mark.parametrize("endpoint", endpoints, ids=lambda each: f"{each.method} {each.rule}")


@pytest.fixture(scope="module")
def walked(cluster, tmp_path_factory):
    """A published form, and everybody who may come to it, by role; one database serves the whole walk."""
    with (
        copied_database(cluster) as database,
        app_on(database, tmp_path_factory.mktemp("files")) as app,
        psycopg.connect(database, row_factory=dict_row) as connection,
    ):
        people = {role: make_person(connection, role=role) for role in ("owner", "viewer", "reviewer")}
        people["hidden"] = make_person(connection, role="editor")
        people["stranger"] = make_person(connection, team="harbour")
        form = publish_visit(connection, people["owner"])
        connection.execute("INSERT INTO form_exception VALUES (%s, %s, 'none')", [form, people["hidden"].person_id])
        connection.commit()
        agents = {"nobody": Browser(app)} | {role: Browser(app) for role in people}
        for role, person in people.items():
            agents[role].sign_in(person.email)
        agents["member"] = as_member(app, agents["owner"], connection)
        yield SimpleNamespace(form=form, **agents)


def as_member(app, owner, connection):
    """A browser in which a member of the owner's team is signed in, in a group of it."""
    owner.post("/api/team/groups", json={"name": "Keepers"})
    table = owner.post("/api/team/members").json["table"]
    cells = {"name": "Ada", "email": "ada@example.org", "groups": "Keepers"}
    owner.post(f"/api/tables/{table}/records", json={"changes": [{"number": None, "revision": None, "cells": cells}]})
    member = members.as_member(connection, table=uuid.UUID(table), number=1)
    session = signing_in.new_session(connection, member, confirmed=True)
    connection.commit()
    browser = Browser(app)
    browser.client.set_cookie("codexa_member", session.token)
    # Nor does it open anything where the workbench looks for its own.
    browser.client.set_cookie("codexa_session", session.token)
    return browser


class TestEveryRoute:
    """Walks every endpoint as nobody, as another team's owner, and as each role: none of them changes anything."""

    @staticmethod
    def ask(agent, endpoint, form, **headers):
        names = "form upload brand account view bulk feed key table file options session person invitation factor team"
        names += " approval calendar"
        places = dict.fromkeys(names.split(), form)
        address = re.sub(r"<\w+:(\w+)>", lambda place: str(places.get(place[1], 1)), endpoint.rule)
        reply = agent.client.open(
            address, method=endpoint.method, headers={**agent.headers, **headers}, json=example_of(endpoint)
        )
        if endpoint.rule == "/api/team/mine/desk" and reply.status_code == 200:
            # From one's own desk back to where the walk goes on.
            team = next(each for each in agent.get("/api/team/mine").json["teams"] if not each["personal"])
            agent.post("/api/team/mine", json={"team": team["id"]})
        return reply

    @of_each(CLOSED)
    def test_is_closed_to_nobody_and_empty_for_strangers(self, walked, endpoint):
        assert self.ask(walked.nobody, endpoint, walked.form).status_code == 401
        assert self.ask(walked.member, endpoint, walked.form).status_code == 401
        reply = self.ask(walked.stranger, endpoint, walked.form)
        if "<uuid:form>" in endpoint.rule:
            assert reply.status_code == 404
        text = reply.get_data(as_text=True)
        assert str(walked.form) not in text
        assert "Your visit" not in text

    @of_each([each for each in CLOSED if "<uuid:form>" in each.rule])
    def test_has_nothing_of_a_form_for_whom_it_is_hidden_from(self, walked, endpoint):
        assert self.ask(walked.hidden, endpoint, walked.form).status_code == 404

    @of_each(CHANGING)
    @pytest.mark.parametrize("role", ["viewer", "reviewer"])
    def test_changes_nothing_for_those_who_only_look(self, walked, endpoint, role):
        status = self.ask(getattr(walked, role), endpoint, walked.form).status_code
        # These change no form: who may look at a draft may try it, and be seen there; all have an account, and who
        # decides, or has something to do, is said by each approval and task.
        free = (
            "/preview/",
            "/conditions/",
            "/presence",
            "/account/",
            "/team/mine",
            "/slots/shown",
            "/decisions/",
            "/api/forms/views",
        )
        looks = any(part in endpoint.rule for part in free)
        # A reviewer works with responses: marks them, moves them, saves views of them; and so with bookings.
        marks = role == "reviewer" and re.search(
            r"/responses/(views|statuses|mark|bulk|exports|.*/(move|notes)$)|/bookings/(?!calendar)", endpoint.rule
        )
        # Who changes records, each table says, by roles and groups: this one is not there.
        marks = marks or "<uuid:table>/records" in endpoint.rule
        assert (status == 403) is not (looks or bool(marks))

    @pytest.mark.parametrize("path", ["/responses", "/responses/1", "/responses.csv"])
    def test_keeps_responses_from_viewers(self, walked, path):
        assert walked.viewer.get(f"/api/forms/{walked.form}").status_code == 200
        assert walked.viewer.get(f"/api/forms/{walked.form}{path}").status_code == 403

    @of_each(CHANGING)
    def test_refuses_changes_without_the_token(self, walked, endpoint):
        reply = self.ask(walked.owner, endpoint, walked.form, **{"X-CSRF-Token": "wrong"})
        assert (reply.status_code, reply.json["code"]) == (403, "foreign_request")


class TestSigningIn:
    def test_sets_a_cookie_that_scripts_can_not_read(self, agent, mira, connection):
        connection.commit()
        cookie = agent.sign_in("MIRA@example.org").headers["Set-Cookie"]
        assert "HttpOnly" in cookie
        assert "SameSite=Lax" in cookie

    def test_tells_a_wrong_password_and_an_unknown_person_alike(self, agent, mira, connection):
        connection.commit()
        wrong, unknown = agent.sign_in("mira@example.org", "wrong"), agent.sign_in("nobody@example.org", "wrong")
        assert wrong.status_code == unknown.status_code == 401
        assert wrong.json == unknown.json

    def test_pauses_after_many_wrong_passwords_even_for_the_right_one(self, agent, mira, connection):
        connection.commit()
        statuses = [agent.sign_in("mira@example.org", "wrong").status_code for _ in range(20)]
        assert statuses == [401] * 10 + [429] * 10
        assert agent.sign_in("mira@example.org").status_code == 429

    def test_signing_out_ends_the_session_on_the_server(self, app, as_mira):
        cookie = as_mira.client.get_cookie("codexa_session").value
        assert as_mira.delete("/api/session").status_code == 204
        again = app.test_client()
        again.set_cookie("codexa_session", cookie)
        assert again.get("/api/forms").status_code == 401
        assert again.get("/api/session").status_code == 204

    def test_refuses_another_site(self, agent, mira, connection):
        connection.commit()
        reply = agent.client.post(
            "/api/session",
            json={"email": "mira@example.org", "password": "x"},
            headers={"Origin": "https://evil.example.com"},
        )
        assert reply.json["code"] == "foreign_request"


class TestBadInput:
    @pytest.mark.parametrize(
        ("change", "path"),
        [
            ({"colour": "red"}, "colour"),
            ({"pages": [{"id": "p", "blocks": [{"id": "x", "type": "wish"}]}]}, "pages.0.blocks.0"),
        ],
    )
    def test_a_wrong_definition_names_its_place(self, as_mira, published, change, path):
        reply = as_mira.put(
            f"/api/forms/{published}/draft", json={"revision": 1, "draft": {**visit_document(), **change}}
        )
        assert reply.status_code == 422
        assert reply.json["problems"][0]["path"] == path
        assert as_mira.get(f"/api/forms/{published}").json["revision"] == 1

    def test_a_broken_formula_is_saved_and_found(self, as_mira, published):
        draft = visit_document()
        draft["pages"][0]["blocks"][4]["formula"] = "show * (people"
        reply = as_mira.put(f"/api/forms/{published}/draft", json={"revision": 1, "draft": draft})
        finding = reply.json["analysis"]["findings"][0]
        assert (finding["block"], finding["setting"], finding["code"]) == ("price", "formula", "unreadable")
        assert (finding["start"], finding["end"]) == (13, 14)
        refused = as_mira.post(f"/api/forms/{published}/editions", json={"revision": 2})
        assert (refused.status_code, refused.json["code"]) == (422, "not_proven")

    def test_a_clash_is_told(self, as_mira, published):
        save = {"revision": 1, "draft": visit_document()}
        assert as_mira.put(f"/api/forms/{published}/draft", json=save).status_code == 200
        reply = as_mira.put(f"/api/forms/{published}/draft", json=save)
        assert (reply.status_code, reply.json["code"]) == (409, "clash")

    @pytest.mark.parametrize(
        ("body", "kind", "status"),
        [
            (b"{", "application/json", 400),
            (b"[]", "application/json", 400),
            (b'{"answers": {"people": NaN}}', "application/json", 400),
            (b"x=1", "text/plain", 400),
            (b'{"answers": {' + b'"a":1,' * 400_000 + b'"b":1}}', "application/json", 413),
            (b"[" * 100_000, "application/json", 400),
            (b'{"answers": {}, "admin": true}', "application/json", 400),
        ],
    )
    def test_what_is_no_request_gets_a_sentence(self, agent, published, body, kind, status):
        reply = agent.client.post(f"/api/public/{published}/1/state", data=body, content_type=kind)
        assert reply.status_code == status
        assert reply.json["message"].endswith(".")

    def test_an_unexpected_fault_shows_no_trace(self, as_mira, published, monkeypatch):
        monkeypatch.setattr("codexa.web.forms.store.list_forms", lambda *_args, **_options: 1 / 0)
        reply = as_mira.get("/api/forms")
        assert reply.status_code == 500
        assert "ZeroDivision" not in reply.get_data(as_text=True)

    @pytest.mark.parametrize(
        "site",
        [
            "javascript:alert(1)",
            "https://a.example.org; script-src *",
            "https://*",
            "not a site",
            "site",
            "https://x:99999",
        ],
    )
    def test_what_is_no_website_is_not_written_into_the_policy(self, as_mira, published, site):
        assert as_mira.put(f"/api/forms/{published}/sites", json={"sites": [site]}).status_code == 422


class TestPublicForm:
    ANSWERS = {"people": "3", "show": "o1"}

    def submit(self, agent, form, answers=None, *, edition=1, key=None):
        return agent.client.post(
            f"/api/public/{form}/{edition}/responses",
            json={"answers": answers or self.ANSWERS},
            headers={"Idempotency-Key": key or uuid.uuid4().hex},
        )

    def test_a_repeated_request_stores_one_response(self, agent, published, connection):
        replies = [self.submit(agent, published, key="same-key-1") for _ in range(3)]
        assert [reply.status_code for reply in replies] == [201, 200, 200]
        assert {reply.json["number"] for reply in replies} == {1}
        other = self.submit(agent, published, {"people": "4"}, key="same-key-1")
        assert (other.status_code, other.json["code"]) == (409, "key_reused")

    def test_a_request_needs_a_key(self, agent, published):
        reply = agent.client.post(f"/api/public/{published}/1/responses", json={"answers": self.ANSWERS})
        assert reply.status_code == 400
        assert "Idempotency-Key" in reply.json["message"]

    @pytest.mark.parametrize(
        ("answers", "code", "fields"),
        [
            ({"people": "3", "admin": "yes"}, "unknown_fields", []),
            ({"people": {"a": 1}}, "answers_wrong", ["people"]),
            ({"people": "0", "mail": 7}, "answers_wrong", ["people", "mail"]),
            ({}, "answers_wrong", ["people"]),
        ],
    )
    def test_wrong_answers_are_told_by_field(self, agent, published, answers, code, fields):
        reply = agent.client.post(
            f"/api/public/{published}/1/responses",
            json={"answers": answers},
            headers={"Idempotency-Key": "wrong-answers"},
        )
        assert reply.status_code == 422
        assert reply.json["code"] == code
        assert list(reply.json["errors"]) == fields

    def test_a_price_from_the_browser_is_ignored(self, agent, as_mira, published):
        assert self.submit(agent, published, {**self.ANSWERS, "price": "0.01"}).status_code == 201
        assert as_mira.get(f"/api/forms/{published}/responses/1").json["row"]["cells"]["price"] == "€13.50"

    def test_an_old_edition_still_takes_responses_and_keeps_them_with_it(self, agent, as_mira, published):
        draft = visit_document() | {"title": "New title"}
        as_mira.put(f"/api/forms/{published}/draft", json={"revision": 1, "draft": draft})
        assert as_mira.post(f"/api/forms/{published}/editions", json={"revision": 2}).json["edition"] == 2
        assert self.submit(agent, published, edition=1).status_code == 201
        assert self.submit(agent, published, edition=3).status_code == 404
        assert as_mira.get(f"/api/forms/{published}/responses/1").json["row"]["edition"] == 1

    def test_a_deleted_form_says_so(self, agent, as_mira, published):
        as_mira.delete(f"/api/forms/{published}")
        assert self.submit(agent, published).status_code == 410
        assert agent.get("/f/alderlight/visit").status_code == 404
        as_mira.post(f"/api/forms/{published}/restore")
        assert self.submit(agent, published).status_code == 201

    def test_the_state_follows_the_answers(self, agent, published):
        reply = agent.client.post(
            f"/api/public/{published}/1/state", json={"answers": {"people": "20", "show": "o2"}, "turn": 7}
        )
        assert reply.json["turn"] == 7
        assert reply.json["state"]["blocks"]["school"]["shown"] is True
        assert reply.json["state"]["blocks"]["price"]["value"] == "€120.00"

    def test_only_listed_sites_may_frame_it(self, agent, as_mira, published):
        as_mira.put(f"/api/forms/{published}/sites", json={"sites": ["www.example.org", "http://127.0.0.1:8790/visit"]})
        policies = [
            agent.get(f"/{path}/alderlight/visit").headers["Content-Security-Policy"] for path in ("embed", "f")
        ]
        assert policies[0].endswith("frame-ancestors 'self' https://www.example.org http://127.0.0.1:8790")
        assert policies[1].endswith("frame-ancestors 'none'")

    def test_its_page_carries_nothing_private_and_no_inline_script(self, agent, published):
        html = agent.get("/f/alderlight/visit").get_data(as_text=True)
        assert not [each for each in ("4.5", '"deep"', "show * people", "people &gt;", "minimum") if each in html]
        assert html.count("<script") == html.count('<script type="module" src=') + html.count(
            '<script type="application/json"'
        )

    def test_text_in_a_definition_can_not_break_out_of_its_page(self, agent, as_mira, published, connection, mira):
        draft = visit_document() | {"title": "</script><script>alert(1)</script>"}
        as_mira.put(f"/api/forms/{published}/draft", json={"revision": 1, "draft": draft})
        as_mira.post(f"/api/forms/{published}/editions", json={"revision": 2})
        html = agent.get("/f/alderlight/visit").get_data(as_text=True)
        assert "<script>alert" not in html

    def test_headers_are_strict(self, agent, published):
        headers = agent.get("/f/alderlight/visit").headers
        assert "unsafe" not in headers["Content-Security-Policy"]
        assert headers["X-Content-Type-Options"] == "nosniff"
        assert len(headers["X-Request-Id"]) == 16


class TestResponses:
    @pytest.fixture
    def with_response(self, agent, published):
        answers = {"people": "20", "show": "o2", "school": '=HYPERLINK("x")'}
        reply = agent.client.post(
            f"/api/public/{published}/1/responses", json={"answers": answers}, headers={"Idempotency-Key": "response-1"}
        )
        assert reply.status_code == 201
        return published

    def test_the_grid_shows_what_people_read(self, as_mira, with_response):
        reply = as_mira.get(f"/api/forms/{with_response}/responses?limit=10").json
        assert reply["count"] == 1
        assert [column["label"] for column in reply["columns"]] == ["Show", "People", "School", "E-mail", "Price"]
        assert reply["rows"][0]["cells"] == {
            "show": "Deep sky",
            "people": "20",
            "school": '=HYPERLINK("x")',
            "price": "€120.00",
        }

    def test_the_export_is_for_programs_and_defused(self, as_mira, with_response):
        reply = as_mira.get(f"/api/forms/{with_response}/responses.csv")
        assert reply.headers["Content-Disposition"] == 'attachment; filename="visit-responses.csv"'
        header, row = csv.reader(io.StringIO(reply.get_data(as_text=True), newline=""))
        assert header[3:] == ["Show", "People", "School", "E-mail", "Price"]
        assert row[3:] == ["deep", "20", '\'=HYPERLINK("x")', "", "120.00"]
        assert reply.get_data().count(b"\r\n") == 2
        labelled = as_mira.get(f"/api/forms/{with_response}/responses.csv?with=labels").get_data(as_text=True)
        _, row = csv.reader(io.StringIO(labelled, newline=""))
        assert row[3:] == ["Deep sky", "20", '\'=HYPERLINK("x")', "", "€120.00"]

    def test_the_export_is_written_as_it_is_wanted(self, as_mira, with_response):
        address = f"/api/forms/{with_response}/responses.csv"
        reply = as_mira.get(f"{address}?separator=semicolon&decimals=comma&mark=yes&tries=yes")
        text = reply.get_data(as_text=True)
        assert text.startswith("\ufeff")
        header, row = csv.reader(io.StringIO(text.removeprefix("\ufeff"), newline=""), delimiter=";")
        assert header[3:] == ["Practice", "Show", "People", "School", "E-mail", "Price"]
        assert row[3:] == ["no", "deep", "20", '\'=HYPERLINK("x")', "", "120,00"]
        tabs = as_mira.get(f"{address}?separator=tab").get_data(as_text=True)
        assert tabs.splitlines()[0].count("\t") == 7
        for wrong in ("separator=pipe", "decimals=dot", "tries=maybe", "with=all", "mark=1"):
            assert as_mira.get(f"{address}?{wrong}").status_code == 400

    @pytest.mark.parametrize(
        ("cell", "safe"),
        [
            ("=1", "'=1"),
            ("+1", "+1"),
            ("+49 170 1234567", "+49 170 1234567"),
            ("+49-1", "'+49-1"),
            ("+1+2", "'+1+2"),
            ("-1", "-1"),
            ("-1.5", "-1.5"),
            ("-a", "'-a"),
            ("@x", "'@x"),
            ("\tx", "'\tx"),
            ("a=1", "a=1"),
            ("", ""),
        ],
    )
    def test_cells_are_defused_and_numbers_stay_numbers(self, cell, safe):
        assert defused(cell) == safe

    def test_a_column_of_an_older_edition_stays_readable(self, as_mira, with_response):
        draft = visit_document()
        del draft["pages"][0]["blocks"][0], draft["pages"][0]["blocks"][3]
        as_mira.put(f"/api/forms/{with_response}/draft", json={"revision": 1, "draft": draft})
        assert as_mira.post(f"/api/forms/{with_response}/editions", json={"revision": 2}).status_code == 200
        reply = as_mira.get(f"/api/forms/{with_response}/responses").json
        assert [(column["label"], column["number"]) for column in reply["columns"][-2:]] == [
            ("Show", ""),
            ("Price", ""),
        ]
        assert reply["rows"][0]["cells"]["price"] == "€120.00"

    @pytest.mark.parametrize(
        "query", ["limit=x", "limit=-1", "limit=1e3", "after=1", "after=2026-01-01_1", "after=2026-01-01T00:00Z_x"]
    )
    def test_a_strange_page_is_refused(self, as_mira, published, query):
        assert as_mira.get(f"/api/forms/{published}/responses?{query}").status_code == 400


def test_the_desk_and_the_workbench_are_told_the_same_form(as_mira, published):
    row = as_mira.get("/api/forms").json["forms"][0]
    form = as_mira.get(f"/api/forms/{published}").json
    assert (row["id"], row["live_edition"], len(row["days"])) == (str(published), 1, 14)
    assert form["address"].endswith("/f/alderlight/visit")
    assert form["changes"] == 0
    as_mira.put(f"/api/forms/{published}/draft", json={"revision": 1, "draft": visit_document() | {"title": "New"}})
    assert as_mira.get(f"/api/forms/{published}").json["changes"] == 1


def test_a_document_can_be_imported_and_a_form_duplicated(as_mira, published):
    made = as_mira.post("/api/forms", json={"document": visit_document()}).json["id"]
    copied = as_mira.post(f"/api/forms/{made}/copies").json["id"]
    as_mira.post(f"/api/forms/{copied}/copies")
    names = {form["name"] for form in as_mira.get("/api/forms").json["forms"]}
    assert names == {"Visit", "Visit (copy)", "Visit (copy 2)"}
    assert json.dumps(as_mira.get(f"/api/forms/{copied}").json["draft"]["pages"]) == json.dumps(
        as_mira.get(f"/api/forms/{made}").json["draft"]["pages"]
    )


def test_renaming_a_key_comes_back_rewritten_and_unsaved(as_mira, published):
    body = {"draft": visit_document(), "part": "people", "setting": "key", "name": "guests"}
    reply = as_mira.post(f"/api/forms/{published}/draft/rename", json=body)
    assert reply.json["draft"]["pages"][0]["blocks"][4]["formula"] == "show * guests"
    refused = as_mira.post(f"/api/forms/{published}/draft/rename", json={**body, "name": "9"})
    assert refused.status_code == 422
    assert as_mira.get(f"/api/forms/{published}").json["revision"] == 1


def test_health_and_readiness(agent, app):
    assert agent.get("/health").status_code == 200
    assert agent.get("/ready").status_code == 200
    app.extensions["codexa"].close()
    assert agent.get("/health").status_code == 200


def test_editions_are_listed(as_mira, published, connection, mira):
    assert [each["number"] for each in as_mira.get(f"/api/forms/{published}/editions").json["editions"]] == [1]
