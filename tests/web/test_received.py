"""What was received, seen again: a confirmation at an address of its own, and the response as PDF."""

import io
import json
import re
import uuid

import pytest
from conftest import make_person, visit_document, within
from pypdf import PdfReader

from codexa.services import desk, publishing

CONFIRMATION = {
    "id": "c1",
    "title": "Thank you, {people}",
    "paragraphs": [{"text": "<p>No. {response.number}</p>"}],
    "own_page": True,
    "printing": True,
}


def publish(connection, mira, **changes):
    document = visit_document() | {"confirmations": [CONFIRMATION | changes]}
    form = desk.import_form(within(connection), who=mira, document=document)
    publishing.set_sites(connection, who=mira, form=form, sites=["https://www.example.org"])
    publishing.publish(within(connection), who=mira, form=form, revision=1)
    connection.commit()
    return form


@pytest.fixture
def form(connection, mira):
    return publish(connection, mira)


def hand_in(agent, form):
    answers = {"people": "3", "show": "o1"}
    headers = {"Idempotency-Key": uuid.uuid4().hex}
    return agent.client.post(f"/api/public/{form}/1/responses", json={"answers": answers}, headers=headers).json


def data_of(reply):
    return json.loads(re.search(r'id="form-data">(.*?)</script>', reply.text)[1])


class TestOwnPage:
    def test_shows_the_confirmation_again_to_who_has_its_address(self, agent, form):
        received = hand_in(agent, form)
        reply = agent.client.get(received["page"])
        data = data_of(reply)
        assert data["received"] == received
        assert received["confirmation"]["title"] == "Thank you, 3"
        assert (data["address"], data["framed"]) == ("/f/alderlight/visit", False)
        assert "Thank you, 3" in reply.text.split("<main")[1]
        assert (reply.headers["Cache-Control"], reply.headers["X-Robots-Tag"]) == ("no-store", "noindex")

    def test_stands_in_the_frames_that_the_form_may_stand_in(self, agent, form):
        reply = agent.client.get(f"/embed{hand_in(agent, form)['page']}")
        assert "frame-ancestors 'self' https://www.example.org" in reply.headers["Content-Security-Policy"]
        assert data_of(reply)["address"] == "/embed/alderlight/visit"

    def test_is_nobody_else_s(self, agent, form):
        first, second = hand_in(agent, form)["page"], hand_in(agent, form)["page"]
        mark = first.rsplit("/", 1)[1]
        assert agent.client.get(second.rsplit("/", 1)[0] + "/" + mark).status_code == 404
        assert agent.client.get(first[:-1]).status_code == 404

    def test_goes_with_its_response_and_its_form(self, as_mira, form, connection):
        page = hand_in(as_mira, form)["page"]
        connection.execute("UPDATE response SET stage = 'removed'")
        connection.commit()
        assert as_mira.client.get(page).status_code == 404
        page = hand_in(as_mira, form)["page"]
        as_mira.delete(f"/api/forms/{form}")
        assert as_mira.client.get(page).status_code == 404


class TestPdf:
    def text_of(self, reply):
        assert (reply.status_code, reply.mimetype) == (200, "application/pdf")
        return "\n".join(page.extract_text() for page in PdfReader(io.BytesIO(reply.data)).pages)

    def test_has_what_was_answered_for_the_visitor_and_for_the_team(self, as_mira, form):
        page = hand_in(as_mira, form)["page"]
        team = f"/api/forms/{form}/responses/1/pdf"
        for address in (f"{page}/pdf", team, f"{team}?plain=yes"):
            with as_mira.get(address) as reply:
                text = self.text_of(reply)
            assert all(words in text for words in ("Your visit", "First stars", "Price", "13.50"))

    def test_is_a_page_for_the_team_too_which_loads_what_is_there(self, as_mira, form):
        hand_in(as_mira, form)
        reply = as_mira.client.get(f"/api/forms/{form}/responses/1/sheet")
        text = reply.get_data(as_text=True)
        assert all(words in text for words in ("Your visit", "First stars", "13.50"))
        nonce = re.search(r'<style nonce="([^"]+)"', text)
        assert nonce
        assert f"'nonce-{nonce[1]}'" in reply.headers["Content-Security-Policy"]
        loaded = re.findall(r'(?:url\(|src=)"([^"]+)"', text)
        assert loaded
        for each in loaded:
            with as_mira.client.get(each) as found:
                assert found.status_code == 200

    def test_is_given_to_visitors_only_where_the_form_offers_it(self, agent, connection, mira):
        form = publish(connection, mira, printing=False)
        assert agent.client.get(f"{hand_in(agent, form)['page']}/pdf").status_code == 404

    def test_is_the_team_s_alone(self, agent, form, connection):
        hand_in(agent, form)
        stranger = make_person(connection, team="harbour")
        connection.commit()
        agent.sign_in(stranger.email)
        assert agent.get(f"/api/forms/{form}/responses/1/pdf").status_code == 404
