"""A personal desk, and a form that moves from it to a team: link, embeds and answers stay as they were."""

import pytest
from conftest import Browser, make_person, visit_document

from codexa.store import people


@pytest.fixture
def jonas(app, connection, mira):
    """An editor of Mira's team, on his own desk."""
    make_person(connection, role="editor", email="jonas@example.org")
    connection.commit()
    agent = Browser(app)
    agent.sign_in("jonas@example.org")
    agent.team = agent.get("/api/session").json["team_id"]
    desk = agent.post("/api/team/mine/desk").json
    assert (desk["role"], desk["team_name"]) == ("owner", "Desk of Editor")
    assert agent.post("/api/team/mine/desk").json["team_id"] == desk["team_id"]
    return agent


def published(agent, document=None):
    form = agent.post("/api/forms", json={"name": "Visit", "document": document or visit_document()}).json["id"]
    reply = agent.post(f"/api/forms/{form}/editions", json={"revision": 1})
    assert reply.status_code in {200, 201}, reply.json
    return form


def place_of(agent, form):
    return "/f/" + agent.get(f"/api/forms/{form}").json["address"].split("/f/")[1]


def hand_in(agent, form, key):
    body = {"answers": {"people": "2"}}
    headers = {"Idempotency-Key": key * 10}
    return agent.client.post(f"/api/public/{form}/1/responses", json=body, headers=headers)


def move(agent, form):
    return agent.post(f"/api/forms/{form}/moving", json={"team": agent.team})


def test_a_desk_is_its_persons_own(jonas):
    refused = jonas.post("/api/team/invitations", json={"email": "ana@example.org", "role": "viewer"})
    assert refused.json["code"] == "address_refused"
    teams = jonas.get("/api/team/mine").json["teams"]
    assert [each["personal"] for each in teams] == [False, True]


def test_a_form_moves_with_its_link_embeds_and_answers(app, as_mira, jonas):
    form = published(jonas)
    before = place_of(jonas, form)
    assert hand_in(jonas, form, "a").status_code == 201
    assert as_mira.get(f"/api/forms/{form}").status_code == 404
    assert jonas.get(f"/api/forms/{form}/moving/{jonas.team}").json["hindrances"] == []
    assert move(jonas, form).status_code == 204
    assert jonas.get(f"/api/forms/{form}").status_code == 404
    after = place_of(as_mira, form)
    assert after != before
    visitor = app.test_client()
    for old, new in ((before, after), (before.replace("/f/", "/embed/"), after.replace("/f/", "/embed/"))):
        led = visitor.get(f"{old}?kind=school")
        assert (led.status_code, led.headers["Location"]) == (302, f"{new}?kind=school")
        assert "Your visit" in visitor.get(new).get_data(as_text=True)
    # A page that was open goes on, and numbers go on where they were.
    assert hand_in(jonas, form, "b").json["number"] == 2
    assert as_mira.get(f"/api/forms/{form}").json["responses"] == 2
    told = [each["told"] for each in as_mira.get("/api/team/audit?area=rights").json["entries"]]
    assert told[0] == "moved the form Visit here from Desk of Editor"


def test_an_address_that_the_team_has_makes_way_for_another(as_mira, jonas):
    published(as_mira)
    form = published(jonas)
    assert place_of(jonas, form).endswith("/visit")
    assert move(jonas, form).status_code == 204
    assert place_of(as_mira, form) == "/f/alderlight/visit-2"
    # And back again: its first address is its own there.
    team = jonas.get("/api/session").json["team_id"]
    assert as_mira.post(f"/api/forms/{form}/moving", json={"team": team}).status_code == 403


def test_what_a_form_needs_goes_along_or_keeps_it_and_says_why(as_mira, jonas):
    table = jonas.post("/api/tables", json={"definition": {"name": "Domes"}}).json["id"]
    known = jonas.get(f"/api/tables/{table}").json["known"]
    document = visit_document() | {"tables": [known]}
    choice = {"id": "dome", "type": "record_choice", "key": "dome", "label": "Dome", "table": known["id"]}
    document["pages"][0]["blocks"].append(choice)
    form, other = published(jonas, document), published(jonas, document | {"name": "Other"})
    refused = move(jonas, form)
    assert (refused.status_code, refused.json["code"]) == (409, "move_refused")
    assert "Domes" in refused.json["message"]
    assert "Other" in refused.json["message"]
    assert jonas.delete(f"/api/forms/{other}").status_code == 204
    assert move(jonas, form).status_code == 204
    assert as_mira.get(f"/api/tables/{table}").json["definition"]["name"] == "Domes"
    assert jonas.get(f"/api/tables/{table}").status_code == 404


def test_a_form_waits_until_the_groups_that_it_names_are_there(as_mira, jonas):
    assert jonas.post("/api/team/groups", json={"name": "Keepers"}).json["code"] == "keepers"
    document = visit_document()
    document["pages"][0]["blocks"][0]["shown"] = 'NOT(INGROUP("KEEPERS"))'
    form = published(jonas, document)
    refused = move(jonas, form)
    assert (refused.status_code, refused.json["code"]) == (409, "move_refused")
    assert "keepers" in refused.json["message"]
    assert as_mira.post("/api/team/groups", json={"name": "Keepers"}).json["code"] == "keepers"
    assert move(jonas, form).status_code == 204


def test_only_who_makes_forms_in_both_moves_one(app, as_mira, jonas, connection):
    form = published(jonas)
    stranger = make_person(connection, team="harbour", email="other@example.org")
    connection.commit()
    harbour = people.find_team(connection, slug="harbour")
    assert jonas.post(f"/api/forms/{form}/moving", json={"team": str(harbour)}).status_code == 403
    other = Browser(app)
    other.sign_in(stranger.email)
    assert other.post(f"/api/forms/{form}/moving", json={"team": str(harbour)}).status_code == 404
    as_mira.put(f"/api/team/people/{person_id(as_mira)}/role", json={"role": "viewer"})
    assert move(jonas, form).status_code == 403


def person_id(agent):
    people_of = agent.get("/api/team").json["people"]
    return next(each["id"] for each in people_of if each["email"] == "jonas@example.org")


def test_who_is_taken_out_leaves_their_forms_to_the_team(as_mira, jonas):
    form = published(jonas)
    jonas_id = person_id(as_mira)
    assert [each["name"] for each in as_mira.get(f"/api/team/people/{jonas_id}/hanging").json["desk"]] == ["Visit"]
    out = as_mira.post(f"/api/team/people/{jonas_id}/out", json={"successor": None, "bring": True})
    assert out.json == {"stayed": []}
    assert as_mira.get(f"/api/forms/{form}").status_code == 200
    assert jonas.get(f"/api/forms/{form}").status_code == 404
