"""The engine through the public API: what comes back, what is kept, and what is never told."""

import csv
import io
import json
import random
import uuid

import pytest
from conftest import EXAMPLES, within

from codexa.core.form.form import read_form
from codexa.core.program.compiling import compile_form
from codexa.core.program.faces import FormState
from codexa.core.program.samples import sample_answers
from codexa.services import demo, desk, groups, publishing
from codexa.services.demo_tables import make_tables, with_tables
from codexa.services.drafts import context_of

DOCUMENTS = {path.stem: json.loads(path.read_text(encoding="utf-8")) for path in sorted(EXAMPLES.glob("*.json"))}


# As the demo has them, under the ids by which its forms name them.
_CALENDAR = """INSERT INTO calendar (id, team_id, name, address, user_name, password)
    VALUES (%(id)s, %(team)s, %(name)s, 'http://127.0.0.1:9/', 'alderlight', '')"""


@pytest.fixture
def publish(connection, mira, monkeypatch):
    monkeypatch.setattr("codexa.services.demo_tables._OBJECTS", 60)
    for name in ("Observers", "Dome keepers", "Readers", "Treasury"):
        groups.make(within(connection), who=mira, name=name)
    for called, name, _ in demo._CALENDARS:
        values = {"id": called, "team": mira.team_id, "name": name}
        connection.execute(_CALENDAR, values)

    def publish(document):
        made = make_tables(within(connection), mira, examples=EXAMPLES) if document.get("tables") else {}
        form = desk.import_form(within(connection), who=mira, document=with_tables(document, made))
        publishing.publish(within(connection), who=mira, form=form, revision=1)
        connection.commit()
        return form

    return publish


@pytest.fixture
def ask(agent):
    def ask(form, what, body):
        headers = {"Idempotency-Key": uuid.uuid4().hex} if what == "responses" else {}
        return agent.client.post(f"/api/public/{form}/1/{what}", json=body, headers=headers)

    return ask


def linked_document():
    blocks = [
        {"id": "talk", "type": "hidden", "key": "talk", "label": "Which talk (team)", "formula": "link.talk"},
        {"id": "code", "type": "short_text", "key": "code", "label": "Code", "default": "link.code", "locked": "TRUE"},
        {"id": "stars", "type": "rating", "key": "stars", "label": "How was {talk}?"},
        {
            "id": "ref",
            "type": "calculated",
            "key": "ref",
            "label": "Number",
            "format": "text",
            "formula": '"TF-" & TEXT(response.number, "000")',
        },
        {"id": "note", "type": "text", "key": "note", "text": "<p onmouseover='x'>Hi <script>alert(1)</script></p>"},
        {
            "id": "agree",
            "type": "consent",
            "key": "agree",
            "label": "Rules",
            "statement": "<a href='javascript:x'>read</a> <a href='https://www.example.org'>this</a>",
        },
    ]
    confirmation = {
        "id": "done",
        "title": "Thank you for {ref}",
        "redirect": "https://www.example.org/?n={response.number}",
    }
    return {
        "name": "Talk feedback",
        "title": "Feedback",
        "pages": [{"id": "p", "blocks": blocks}],
        "confirmations": [confirmation],
    }


def test_values_of_the_link_are_kept_and_can_not_be_changed(agent, as_mira, publish, ask):
    form = publish(linked_document())
    html = agent.client.get("/f/alderlight/talk-feedback?talk=Comets&code=AL7&bad;name=1").get_data(as_text=True)
    data = json.loads(html.split('id="form-data">')[1].split("</script>")[0])
    assert data["link"] == {"talk": "Comets", "code": "AL7"}
    assert data["state"]["blocks"]["stars"]["texts"] == {"label": "How was Comets?"}
    assert data["state"]["blocks"]["code"]["fill"] == "AL7"
    assert "Which talk" not in html
    answers = {"stars": "4", "code": "forged", "talk": "forged"}
    assert ask(form, "responses", {"answers": answers, "link": data["link"]}).status_code == 201
    cells = as_mira.get(f"/api/forms/{form}/responses/1").json["row"]["cells"]
    assert (cells["talk"], cells["code"], cells["stars"]) == ("Comets", "AL7", "4")


def test_what_hangs_on_the_number_is_worked_out_when_the_response_is_saved(as_mira, publish, ask):
    form = publish(linked_document())
    replies = [ask(form, "responses", {"answers": {"stars": str(at)}}).json for at in (1, 2)]
    assert [reply["confirmation"]["title"] for reply in replies] == ["Thank you for TF-001", "Thank you for TF-002"]
    assert replies[1]["confirmation"]["redirect"] == "https://www.example.org/?n=2"
    assert as_mira.get(f"/api/forms/{form}/responses/2").json["row"]["cells"]["ref"] == "TF-002"


def test_rich_text_is_sanitised_on_the_way_in_and_out(agent, as_mira, publish):
    form = publish(linked_document())
    draft = json.dumps(as_mira.get(f"/api/forms/{form}").json["draft"])
    page = agent.client.get("/f/alderlight/talk-feedback").get_data(as_text=True)
    for text in (draft, page):
        assert "https://www.example.org" in text
        assert not [bad for bad in ("onmouseover", "alert(1)", "javascript:") if bad in text]


def test_a_repeat_is_one_cell_that_people_can_read(as_mira, publish, ask):
    form = publish(DOCUMENTS["observation_log"])
    program = compile_form(read_form(DOCUMENTS["observation_log"]))
    answers = sample_answers(program, random.Random(4), context_of(program.form))
    answers["entries"] = [{"kind": "kone", "id": "a", "values": {"e1t": "=1+1", "e1s": "12.5"}}]
    assert ask(form, "responses", {"answers": answers}).status_code == 201
    rows = list(csv.reader(io.StringIO(as_mira.get(f"/api/forms/{form}/responses.csv").get_data(as_text=True))))
    cells = dict(zip(rows[0], rows[1], strict=True))
    assert cells["Entries"] == "Single exposure (Object: =1+1; Exposure: 12.5)"
    assert cells["Seconds of exposure"] == "12.5"


def test_what_a_figure_keeps_besides_its_value_are_columns_of_their_own(as_mira, publish, ask):
    bird = {"kind": "profile", "id": "fbird", "key": "bird", "name": "Bird", "profiles": [
        {"code": "owl", "label": "Owl"}, {"code": "robin", "label": "Robin"}],
        "questions": [{"field": "night", "points": {"TRUE": {"owl": "3"}, "FALSE": {"robin": "1"}}}]}  # fmt: skip
    level = {"kind": "bands", "id": "flevel", "key": "level", "name": "Level", "formula": "stars",
             "bands": [{"value": "1", "label": "low"}, {"start": "3", "value": "2", "label": "high"}]}  # fmt: skip
    quiz = {"kind": "score", "id": "fquiz", "key": "quiz", "name": "Quiz",
            "questions": [{"field": "night", "right": ["TRUE"], "worth": "2"}]}  # fmt: skip
    fields = [
        {"id": "stars", "type": "rating", "key": "stars", "label": "Stars"},
        {"id": "night", "type": "yes_no", "key": "night", "label": "Awake at night?"},
    ]
    pages = [{"id": "p", "title": "One", "blocks": fields}]
    form = publish({"name": "Parts", "title": "Parts", "pages": pages, "figures": [bird, level, quiz]})
    assert ask(form, "responses", {"answers": {"stars": "4", "night": True}}).status_code == 201
    rows = list(csv.reader(io.StringIO(as_mira.get(f"/api/forms/{form}/responses.csv").get_data(as_text=True))))
    cells = dict(zip(rows[0], rows[1], strict=True))
    wanted = {
        "Level": "2", "Level: name": "high", "Quiz": "2", "Quiz: greatest": "2", "Quiz: right answers": "1",
        "Bird": "owl", "Bird: Owl, points": "3", "Bird: Owl, percent": "100", "Bird: Robin, percent": "0",
    }  # fmt: skip
    assert {name: cells[name] for name in wanted} == wanted


@pytest.mark.parametrize("name", DOCUMENTS)
class TestEveryExample:
    def test_a_part_of_the_state_is_what_changed(self, publish, ask, name):
        form, program = publish(DOCUMENTS[name]), compile_form(read_form(DOCUMENTS[name]))
        answers = sample_answers(program, random.Random(1), context_of(program.form))
        whole = ask(form, "state", {"answers": answers}).json["state"]
        changed = next(iter(answers))
        part = ask(form, "state", {"answers": answers, "changed": [changed], "turn": 3}).json
        assert part["turn"] == 3
        assert changed in part["state"]["blocks"]
        assert len(part["state"]["blocks"]) < len(whole["blocks"])
        assert all(whole["blocks"][block] == facts for block, facts in part["state"]["blocks"].items())
        FormState.model_validate(whole)
        FormState.model_validate(part["state"])

    def test_no_page_and_no_reply_tells_anything_private(self, agent, publish, ask, name):
        document = DOCUMENTS[name]
        form, program = publish(document), compile_form(read_form(document))
        slug = document["name"].lower().replace(" ", "-")
        told = agent.client.get(f"/f/alderlight/{slug}").get_data(as_text=True)
        told += agent.client.get(f"/embed/alderlight/{slug}").get_data(as_text=True)
        for seed in range(5):
            answers = sample_answers(program, random.Random(seed), context_of(program.form))
            for what in ("state", "responses"):
                told += ask(form, what, {"answers": answers}).get_data(as_text=True)
        told += ask(form, "responses", {"answers": {}}).get_data(as_text=True)
        told += ask(form, "responses", {"answers": {"nothing": 1}}).get_data(as_text=True)
        private = {text for each in program.formulas if set(text := each.compiled.text) & set("<>=+*/(")}
        private |= {
            figure.name for figure in program.form.figures if " " in figure.name and not figure.shown_to_visitors
        }
        settings = ("counts_as", "points", "right", "formula", "earliest", "minimum", "belongs_to", "key", "checks")
        private |= {f'"{setting}"' for setting in settings}
        private |= {block.label for block in program.form.fields() if block.type == "hidden"}
        assert [each for each in private if each in told] == []


@pytest.mark.parametrize(
    "body",
    [
        {"answers": {}, "link": {"a": 1}},
        {"answers": {}, "link": {str(at): "x" for at in range(60)}},
        {"answers": {}, "link": {"a": "x" * 2_001}},
        {"answers": {}, "changed": "people"},
        {"answers": {}, "changed": [1]},
        {"answers": []},
    ],
)
def test_a_request_of_another_shape_is_refused(ask, published, body):
    reply = ask(published, "state", body)
    assert reply.status_code == 400
    assert reply.json["problems"]


def test_unknown_names_among_what_changed_do_no_harm(ask, published):
    reply = ask(published, "state", {"answers": {"people": "20"}, "changed": ["nothing", "people"]})
    assert reply.json["state"]["blocks"]["school"]["shown"] is True
