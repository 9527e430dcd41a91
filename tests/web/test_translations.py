"""A form's further languages over HTTP: out to translators and back, and filled in by whoever reads them."""

import base64
import csv
import io
import json
import re
import uuid

import pytest
from conftest import visit_document, within
from defusedxml.ElementTree import fromstring
from web.mail import work

from codexa.practice.mailbox import store as mailbox
from codexa.services import desk, publishing

GERMAN = {
    "whole-form.title": ("Your visit", "Ihr Besuch"),
    "show.label": ("Show", "Programm"),
    "show.options.o1.label": ("First stars", "Erste Sterne"),
    "people.label": ("People", "Personen"),
    "people.help": ("Not {show.label}", "Nicht {show.label}"),
    "price.label": ("Price", "Preis"),
    "u1.subject": ("{price} for {show.label}", "{price} für {show.label}"),
    "e1.title": ("Thanks for {price}", "Danke für {price}"),
}
NAMESPACE = "{urn:oasis:names:tc:xliff:document:2.0}"


@pytest.fixture(autouse=True)
def at_once(monkeypatch):
    monkeypatch.setattr("codexa.services.admission._KNOWN_SECONDS", 0.0)


def document(**more):
    found = visit_document()
    found["pages"][0]["blocks"][1] |= {"decimals": 1, "help": "Not {show.label}"}
    mail = {"id": "u1", "kind": "email", "recipients": [{"field": "mail"}], "subject": "{price} for {show.label}"}
    texts = {at: {"of": of, "text": text} for at, (of, text) in GERMAN.items()}
    endings = [{"id": "e1", "title": "Thanks for {price}", "own_page": True}]
    return (
        found | {"languages": [{"locale": "de", "texts": texts}], "follow_ups": [mail], "confirmations": endings} | more
    )


@pytest.fixture
def form(connection, mira):
    made = desk.import_form(within(connection), who=mira, document=document())
    publishing.publish(within(connection), who=mira, form=made, revision=1)
    connection.commit()
    return made


def page_of(agent, address, accepts=""):
    page = agent.client.get(address, headers={"Accept-Language": accepts})
    return page, json.loads(re.search(r'id="form-data">(.*?)</script>', page.text, re.DOTALL)[1])


def hand_in(agent, form, answers, language="", **body):
    return agent.client.post(
        f"/api/public/{form}/1/responses?codexa-language={language}",
        json={"answers": answers, **body},
        headers={"Idempotency-Key": uuid.uuid4().hex},
    )


class TestVisitors:
    """Whoever fills it in."""

    @pytest.mark.parametrize(
        ("query", "accepts", "title"),
        [
            ("", "de-AT,de;q=0.9,en;q=0.5", "Ihr Besuch"),
            ("", "fr,en;q=0.5", "Your visit"),
            ("", "en-GB,de;q=0.8", "Your visit"),
            ("?codexa-language=de", "en", "Ihr Besuch"),
            ("?codexa-language=de-CH", "en", "Ihr Besuch"),
            ("?codexa-language=en", "de", "Your visit"),
            ("?codexa-language=tlh%00", "de", "Ihr Besuch"),
            ("?codexa-language=" + "x" * 3_000, "", "Your visit"),
        ],
    )
    def test_get_the_language_of_the_link_else_of_the_browser(self, agent, form, query, accepts, title):
        page, data = page_of(agent, f"/f/alderlight/visit{query}", accepts)
        assert data["face"]["title"] == title
        assert f"<h1>{title}</h1>" in page.text
        assert ('<html lang="de"' in page.text) is (title == "Ihr Besuch")
        assert "Accept-Language" in page.headers["Vary"]

    def test_get_the_form_s_own_where_it_does_not_go_by_browsers(self, agent, as_mira, form):
        assert save_draft_of(as_mira, form, document(language_by_browser=False)).status_code == 200
        as_mira.post(f"/api/forms/{form}/editions", json={"revision": 2})
        assert page_of(agent, "/f/alderlight/visit", "de")[1]["face"]["title"] == "Your visit"

    def test_hand_in_to_one_set_of_responses(self, agent, as_mira, form, connection):
        one = hand_in(agent, form, {"show": "o1", "people": "1.5", "mail": "ana@example.org"}, "en")
        other = hand_in(agent, form, {"show": "o1", "people": "1,5", "mail": "ana@example.org"}, "de")
        assert (one.json["confirmation"]["title"], other.json["confirmation"]["title"]) == (
            "Thanks for €6.75",
            "Danke für 6,75\xa0€",
        )
        wanted = "SELECT answers, computed, path, confirmation FROM response ORDER BY number"
        rows = [tuple(row.values()) for row in connection.execute(wanted)]
        assert rows[0] == rows[1]
        lines = list(csv.reader(io.StringIO(as_mira.get(f"/api/forms/{form}/responses.csv?with=labels").text)))
        assert lines[1][3:] == lines[2][3:]
        assert "First stars" in lines[2]
        # What is seen again, at its address, is in the language in which it was handed in.
        assert page_of(agent, other.json["page"], "en")[1]["received"]["confirmation"]["title"] == "Danke für 6,75\xa0€"

    def test_are_refused_and_written_to_in_their_language(self, agent, form, connection, box, worker):
        refused = hand_in(agent, form, {"people": "abc"}, "de")
        assert refused.json["errors"]["people"]["message"] == "Geben Sie eine Zahl ein, etwa 12,5."
        hand_in(agent, form, {"show": "o1", "people": "2", "mail": "ana@example.org"}, "de")
        work(worker)
        assert [each.message["Subject"] for each in mailbox.all_mail()] == ["9,00 € für Erste Sterne"]

    def test_go_on_later_in_the_language_in_which_they_began(self, agent, as_mira, form):
        as_mira.put(f"/api/forms/{form}/access", json={"access": {"kept_days": 7}})
        asked = {"token": "7" * 64, "answers": {"people": "1,5"}}
        assert agent.client.post(f"/api/public/{form}/1/kept?codexa-language=de", json=asked).status_code == 200
        _, german = page_of(agent, f"/kept/{'7' * 64}", "en")
        assert (german["face"]["locale"], german["kept"]["answers"]) == ("de", {"people": "1,5"})
        _, english = page_of(agent, f"/kept/{'7' * 64}?codexa-language=en", "de")
        assert (english["face"]["locale"], english["kept"]["answers"]) == ("en", {"people": "1.5"})

    def test_have_what_they_typed_as_it_is_typed_in_the_other_language(self, agent, form):
        asked = {"answers": {"people": "1,5", "show": "o1", "mail": "no mail"}, "language": "de"}
        reply = agent.client.post(f"/api/public/{form}/1/typed?codexa-language=en", json=asked)
        assert reply.json["answers"] == {"people": "1.5", "show": "o1", "mail": "no mail"}


def save_draft_of(as_mira, form, draft, revision=1):
    return as_mira.put(f"/api/forms/{form}/draft", json={"revision": revision, "draft": draft})


def given_back(as_mira, form, content, locale="de"):
    asked = {"locale": locale, "file": base64.b64encode(content).decode()}
    return as_mira.post(f"/api/forms/{form}/translations/file", json=asked)


class TestTranslators:
    """Files that go out and come back."""

    def test_the_list_tells_how_far_a_language_is(self, as_mira, form):
        found = as_mira.get(f"/api/forms/{form}/translations?language=de").json
        assert found["languages"] == [{"locale": "de", "name": "Deutsch", "done": 8, "all": 12}]
        by_address = {each["at"]: each for each in found["texts"]}
        assert (by_address["show.label"]["standing"], by_address["mail.label"]["standing"]) == ("done", "missing")
        assert as_mira.get(f"/api/forms/{form}/translations?language=no-way").status_code == 400

    @pytest.mark.parametrize("kind", ["xlf", "csv"])
    def test_what_went_out_comes_back_as_it_was(self, as_mira, form, kind):
        content = as_mira.get(f"/api/forms/{form}/translations/texts.{kind}?language=de").data
        found = given_back(as_mira, form, content).json
        assert found == {
            "texts": {at: {"of": of, "text": text} for at, (of, text) in GERMAN.items()},
            "changed": 0,
            "passed": [],
        }

    def test_xliff_is_as_its_standard_says(self, as_mira, form):
        root = fromstring(as_mira.get(f"/api/forms/{form}/translations/texts.xlf?language=de").data)
        assert (root.get("version"), root.get("srcLang"), root.get("trgLang")) == ("2.1", "en", "de")
        units = list(root.iter(f"{NAMESPACE}unit"))
        assert len({each.get("id") for each in units}) == len(units) == 12
        states = {each.get("name"): each.find(f"{NAMESPACE}segment").get("state") for each in units}
        assert (states["show.label"], states["mail.label"]) == ("translated", "initial")

    def test_lines_that_fit_nothing_are_told_and_older_words_are_kept_as_such(self, as_mira, form):
        table = "Where,Text,Translation\nshow.label,Which show,Welches\nnobody.label,Who,Wer\nmail.label,E-mail,\n"
        found = given_back(as_mira, form, table.encode()).json
        assert found["texts"] == {"show.label": {"of": "Which show", "text": "Welches"}}
        assert found["changed"] == 1
        assert found["passed"] == [{"at": "nobody.label", "reason": "The form has no such text any more."}]

    def test_cells_that_spreadsheets_would_work_out_come_back_whole(self, as_mira, form):
        draft = document()
        draft["pages"][0]["blocks"][0]["label"] = "=1+1"
        assert save_draft_of(as_mira, form, draft).status_code == 200
        table = as_mira.get(f"/api/forms/{form}/translations/texts.csv?language=de").data
        assert b'"\'=1+1"' in table
        found = given_back(as_mira, form, table.replace(b'\'=1+1","Programm', b"'=1+1\",\"'=2+2"))
        assert found.json["texts"]["show.label"] == {"of": "=1+1", "text": "=2+2"}

    @pytest.mark.parametrize(
        ("content", "told"),
        [
            (b"<xliff", "no XLIFF that can be read"),
            (b'<!DOCTYPE x [<!ENTITY a "b">]><x>&a;</x>', "no XLIFF that can be read"),
            (b"<other/>", "no XLIFF 2"),
            (b'<xliff xmlns="urn:oasis:names:tc:xliff:document:2.0" trgLang="fr"/>', "is in “fr”"),
            (b"Where,Text\n", "no column “Translation”"),
            (b"\xff\xff\xff", "not UTF-8"),
            (b"", "no headers"),
        ],
    )
    def test_a_file_that_can_t_be_read_says_why(self, as_mira, form, content, told):
        reply = given_back(as_mira, form, content)
        assert reply.status_code == 422
        assert told in reply.json["message"]

    def test_a_translation_beyond_all_bounds_is_passed_over(self, as_mira, form):
        table = f"Where,Text,Translation\nshow.label,Show,{'x' * 5_001}\n"
        assert given_back(as_mira, form, table.encode()).json["passed"][0]["reason"].startswith("It has more than")


def test_only_who_may_see_a_form_gets_its_texts(agent, as_mira, form, connection):
    assert agent.client.get(f"/api/forms/{uuid.uuid4()}/translations?language=de").status_code == 404
