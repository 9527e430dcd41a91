"""Preview of a draft: filled in as by a visitor, explained, and nothing kept."""

import json

import pytest
from conftest import make_person, visit_document, within

from codexa.services import desk


@pytest.fixture
def draft(connection, mira):
    form = desk.import_form(within(connection), who=mira, document=visit_document())
    connection.commit()
    return form


def test_the_page_is_the_public_form_of_the_draft_and_for_the_team_alone(agent, as_mira, connection, draft):
    reply = as_mira.get(f"/preview/{draft}")
    data = json.loads(reply.get_data(as_text=True).split('id="form-data">')[1].split("</script>")[0])
    assert (data["face"]["title"], data["token"]) == ("Your visit", as_mira.headers["X-CSRF-Token"])
    assert reply.headers["Content-Security-Policy"].endswith("frame-ancestors 'self'")
    assert agent.client.application.test_client().get(f"/preview/{draft}").status_code == 401
    make_person(connection, team="other", email="stranger@example.org")
    connection.commit()
    agent.sign_in("stranger@example.org")
    assert agent.get(f"/preview/{draft}").status_code == 404


def test_handing_in_tells_what_would_follow_and_keeps_nothing(as_mira, connection, draft):
    address = f"/api/forms/{draft}/preview"
    state = as_mira.post(f"{address}/state", json={"answers": {"people": "20"}, "changed": ["people"]}).json["state"]
    assert state["blocks"]["school"]["shown"] is True
    assert "mail" not in state["blocks"]
    refused = as_mira.post(f"{address}/responses", json={"answers": {}})
    assert (refused.status_code, list(refused.json["errors"])) == (422, ["people"])
    done = as_mira.post(f"{address}/responses", json={"answers": {"people": "3"}})
    assert done.json["confirmation"]["title"] == "Thank you"
    assert connection.execute("SELECT count(*) FROM response").fetchone()["count"] == 0


def test_why_follows_the_draft_as_it_is_saved(as_mira, draft):
    def why(part):
        return as_mira.post(f"/api/forms/{draft}/preview/explain", json={"answers": {"people": "3"}, "part": part})

    def told(part):
        return {fact["fact"]: fact for fact in why(part).json["facts"]}

    sentence = told("school")["shown"]["sentence"]
    assert sentence.startswith("1.3 School is hidden, because 1.2 People is 3 and the rule")
    changed = visit_document()
    changed["pages"][0]["blocks"][2]["shown"] = "people > 2"
    as_mira.put(f"/api/forms/{draft}/draft", json={"revision": 1, "draft": changed})
    assert told("school")["shown"]["value"] == "is shown"
    assert told("price")["value"]["because"]
    assert why("nothing").status_code == 404


def test_a_preview_is_opened_with_what_a_link_would_bring(as_mira, draft):
    changed = visit_document()
    changed["pages"][0]["blocks"][2]["shown"] = 'link.kind = "school"'
    as_mira.put(f"/api/forms/{draft}/draft", json={"revision": 1, "draft": changed})
    page = as_mira.get(f"/preview/{draft}?kind=school&bad-name=1").get_data(as_text=True)
    data = json.loads(page.split('id="form-data">')[1].split("</script>")[0])
    assert (data["link"], data["state"]["blocks"]["school"]["shown"]) == ({"kind": "school"}, True)
    asked = {"answers": {}, "part": "school", "link": {"kind": "school"}}
    facts = as_mira.post(f"/api/forms/{draft}/preview/explain", json=asked).json["facts"]
    assert (facts[0]["value"], facts[0]["formula"]) == ("is shown", 'link.kind = "school"')


def test_samples_are_right_as_far_as_they_go_and_the_same_for_the_same_number(as_mira, draft):
    address = f"/api/forms/{draft}/preview"
    first, again, other = (as_mira.post(f"{address}/sample", json={"seed": seed}).json["answers"] for seed in (1, 1, 2))
    assert first == again != other
    assert as_mira.post(f"{address}/responses", json={"answers": first}).status_code == 200
