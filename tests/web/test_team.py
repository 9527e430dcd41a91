"""The people of a team: invited, accepted once, given roles, taken out with what hangs on them."""

import io
import re
import threading
from pathlib import Path

import pytest
from conftest import Browser, make_person, receive, within
from web.mail import work
from web.test_uploads import picture

from codexa.practice.mailbox import store as mailbox
from codexa.services.editions import Editions
from codexa.store import people
from codexa.web import files
from codexa.web.guard import NotSignedInError

PASSWORD = "clear skies tonight"


@pytest.fixture
def invited(worker, as_mira):
    """Invite somebody, and return the token of the link in their latest mail."""

    def invite(email, role="editor"):
        assert as_mira.post("/api/team/invitations", json={"email": email, "role": role}).status_code == 204
        work(worker)
        newest = next(each for each in mailbox.all_mail() if email.lower() in str(each.recipients).lower())
        return re.search(r"/join#([\w-]+)", newest.html)[1]

    return invite


def join(agent, token, **given):
    return agent.client.post("/api/team/invitation/accept", json={"token": token, **given}, headers=agent.headers)


def test_somebody_new_is_invited_by_mail_and_comes_with_a_name_and_a_password(app, as_mira, invited):
    token = invited("Ana@Example.org", "reviewer")
    [waiting] = as_mira.get("/api/team").json["invitations"]
    assert (waiting["email"], waiting["role"], waiting["invited_by"]) == ("Ana@example.org", "reviewer", "Owner")
    ana = Browser(app)
    look = ana.client.post("/api/team/invitation/look", json={"token": token}).json
    assert (look["known"], look["signed_in"], look["role"]) == (False, False, "reviewer")
    short = join(ana, token, name="Ana", password="short")
    assert (short.status_code, short.json["code"]) == (422, "password_refused")
    joined = join(ana, token, name="  Ana   Bell ", password=PASSWORD)
    assert (joined.json["person_name"], joined.json["role"]) == ("Ana Bell", "reviewer")
    assert join(Browser(app), token, name="Other", password=PASSWORD).json["code"] == "invitation_used"
    found = as_mira.get("/api/team").json
    assert [(each["name"], each["role"]) for each in found["people"]] == [("Ana Bell", "reviewer"), ("Owner", "owner")]
    assert found["invitations"] == []
    assert Browser(app).sign_in("ANA@example.org", PASSWORD).status_code == 200


def test_an_invitation_is_taken_once_however_often_it_is_pressed(app, as_mira, invited):
    token, codes = invited("ana@example.org"), []

    def press():
        codes.append(join(Browser(app), token, name="Ana", password=PASSWORD).status_code)

    threads = [threading.Thread(target=press) for _ in range(4)]
    for each in threads:
        each.start()
    for each in threads:
        each.join(timeout=60)
    assert sorted(codes) == [200, 410, 410, 410]
    assert len(as_mira.get("/api/team").json["people"]) == 2


def test_links_that_are_old_taken_back_or_for_somebody_else_open_nothing(app, as_mira, connection, invited):
    first = invited("ana@example.org")
    second = invited("ana@example.org", "viewer")
    assert join(Browser(app), first, name="Ana", password=PASSWORD).json["code"] == "invitation_used"
    other = make_person(connection, team="harbour", email="other@example.org")
    connection.commit()
    stranger = Browser(app)
    stranger.sign_in(other.email)
    refused = join(stranger, second)
    assert (refused.status_code, refused.json["code"]) == (409, "wrong_person")
    assert "ana@example.org" in refused.json["message"]
    [waiting] = as_mira.get("/api/team").json["invitations"]
    assert as_mira.delete(f"/api/team/invitations/{waiting['id']}").status_code == 204
    assert join(Browser(app), second, name="Ana", password=PASSWORD).status_code == 410
    third = invited("ana@example.org")
    connection.execute("UPDATE invitation SET expires_at = now()")
    connection.commit()
    assert join(Browser(app), third, name="Ana", password=PASSWORD).status_code == 410
    for email, code in (("nobody", "address_refused"), ("MIRA@example.org", "name_taken")):
        assert as_mira.post("/api/team/invitations", json={"email": email, "role": "viewer"}).json["code"] == code


def test_who_is_known_joins_with_their_password_and_goes_between_teams(app, as_mira, connection, invited):
    known = make_person(connection, team="harbour", email="known@example.org")
    connection.commit()
    token = invited(known.email, "viewer")
    assert join(Browser(app), token, password="wrong wrong wrong").json["code"] == "wrong_sign_in"
    agent = Browser(app)
    joined = join(agent, token, password="a long password")
    assert (joined.status_code, joined.json["team_slug"], joined.json["role"]) == (200, "alderlight", "viewer")
    agent.headers = {"X-CSRF-Token": joined.json["csrf_token"]}
    mine = agent.get("/api/team/mine").json["teams"]
    assert {(each["name"], each["role"]) for each in mine} == {("Harbour", "owner"), ("Alderlight", "viewer")}
    home = next(each["id"] for each in mine if each["name"] == "Harbour")
    assert agent.post("/api/team/mine", json={"team": home}).json["team_slug"] == "harbour"
    assert agent.get("/api/team").json["people"][0]["email"] == known.email
    elsewhere = as_mira.get("/api/team/mine").json["teams"][0]["id"]
    assert agent.post("/api/team/mine", json={"team": elsewhere}).status_code == 200
    assert as_mira.post("/api/team/mine", json={"team": home}).status_code == 404


def test_the_last_owner_stays_and_roles_count_at_once(app, as_mira, connection, mira):
    jonas = make_person(connection, role="editor", email="jonas@example.org")
    connection.commit()
    agent = Browser(app)
    agent.sign_in(jonas.email)
    own, other = f"/api/team/people/{mira.person_id}", f"/api/team/people/{jonas.person_id}"
    assert as_mira.put(f"{own}/role", json={"role": "editor"}).json["code"] == "last_owner"
    assert as_mira.post(f"{own}/out", json={"successor": None}).json["code"] == "last_owner"
    assert agent.put(f"{own}/role", json={"role": "viewer"}).status_code == 403
    assert agent.post("/api/forms", json={"name": "Mine"}).status_code == 200
    assert as_mira.put(f"{other}/role", json={"role": "viewer"}).status_code == 204
    assert agent.post("/api/forms", json={"name": "More"}).status_code == 403
    assert as_mira.put(f"{other}/role", json={"role": "owner"}).status_code == 204
    codes = []

    def step_down(who, address):
        codes.append(who.put(f"{address}/role", json={"role": "editor"}).status_code)

    threads = [threading.Thread(target=step_down, args=each) for each in ((as_mira, own), (agent, other))]
    for each in threads:
        each.start()
    for each in threads:
        each.join(timeout=60)
    assert sorted(codes) == [204, 409]


def test_what_hangs_on_somebody_is_told_and_goes_to_whoever_takes_over(app, as_mira, connection, mira, published):
    jonas = make_person(connection, role="editor", email="jonas@example.org")
    aylin = make_person(connection, role="viewer", email="aylin@example.org")
    program = Editions(within(connection)).program(published, 1)
    receive(connection, program, published, "key-0001", {"people": "3", "show": "o1"})
    connection.execute("UPDATE response SET person_id = %s", [jonas.person_id])
    mailing = {"kind": "email", "id": "u1", "name": "Told", "recipients": [{"person": str(jonas.person_id)}]}
    draft = {"name": "Told", "title": "Told", "follow_ups": [mailing], "pages": [{"id": "p1"}]}
    connection.commit()
    told = as_mira.post("/api/forms", json={"document": draft}).json["id"]
    agent = Browser(app)
    agent.sign_in(jonas.email)
    place = f"/api/team/people/{jonas.person_id}"
    hanging = as_mira.get(f"{place}/hanging").json
    assert ([each["name"] for each in hanging["forms"]], hanging["in_hand"]) == (["Told"], 1)
    for nobody in (jonas.person_id, make_person(connection, team="harbour", email="far@example.org").person_id):
        connection.commit()
        assert as_mira.post(f"{place}/out", json={"successor": str(nobody)}).status_code == 404
    assert as_mira.post(f"{place}/out", json={"successor": str(aylin.person_id)}).status_code == 200
    assert agent.get("/api/forms").status_code == 401
    assert agent.sign_in(jonas.email).json["code"] == "no_team"
    asked = {"form": told, "ids": [str(jonas.person_id)]}
    assert people.addresses(connection, **asked) == {str(jonas.person_id): "aylin@example.org"}
    [row] = connection.execute("SELECT person_id FROM response").fetchall()
    assert row["person_id"] == aylin.person_id
    # On goes what was handed on, and nobody gets it once there is nobody.
    assert as_mira.post(f"/api/team/people/{aylin.person_id}/out", json={"successor": None}).status_code == 200
    connection.commit()
    assert people.addresses(connection, **asked) == {}


@pytest.fixture
def leaving(app, as_mira, connection):
    """An editor with an open window, and how Mira takes them out of the team meanwhile."""
    jonas = make_person(connection, role="editor", email="jonas@example.org")
    connection.commit()
    agent = Browser(app)
    agent.sign_in(jonas.email)
    out = f"/api/team/people/{jonas.person_id}/out"
    return agent, lambda: as_mira.post(out, json={"successor": None}).status_code


def test_who_is_taken_out_while_they_download_gets_no_more_of_it(leaving, as_mira, monkeypatch):
    agent, out = leaving
    table = as_mira.post("/api/team/members").json["table"]
    monkeypatch.setattr(files, "_PIECE", 1)
    monkeypatch.setattr(files, "_LOOK_AGAIN", -1)
    assert len(agent.get(f"/api/tables/{table}/records.csv").get_data().splitlines()) == 1
    for name in ("Ada", "Ben", "Cleo"):
        cells = {"name": name, "email": f"{name}@example.org"}
        added = {"changes": [{"number": None, "revision": None, "cells": cells}]}
        assert as_mira.post(f"/api/tables/{table}/records", json=added).status_code == 200
    pieces = agent.get(f"/api/tables/{table}/records.csv").iter_encoded()
    assert b"E-mail" in next(pieces)
    assert b"Ada" in next(pieces)
    assert out() == 200
    with pytest.raises(NotSignedInError):
        next(pieces)


class Slowly(io.BytesIO):
    """A body of which the last part comes after something has happened."""

    def __init__(self, content, happens):
        super().__init__(content)
        self.happens = happens

    def readinto(self, buffer):
        read = super().readinto(buffer)
        if self.happens and self.tell() == len(self.getvalue()):
            self.happens = self.happens() and None
        return read


def test_who_is_taken_out_while_they_upload_leaves_nothing(leaving, app):
    agent, out = leaving
    content = picture("WEBP")
    sent = {"input_stream": Slowly(content, out), "content_length": len(content)}
    reply = agent.post("/api/pictures?name=dome.webp", **sent)
    assert (reply.status_code, reply.json["code"]) == (401, "not_signed_in")
    assert list(Path(app.config["SETTINGS"].files).rglob("*")) == []


def test_sessions_are_listed_and_ended_one_by_one(app, as_mira, mira):
    other = Browser(app)
    other.client.environ_base["HTTP_USER_AGENT"] = "Lantern 4"
    other.sign_in(mira.email)
    found = as_mira.get("/api/account/sessions").json["sessions"]
    assert [(each["own"], each["program"] == "Lantern 4") for each in found if not each["own"]] == [(False, True)]
    [ended] = [each["id"] for each in found if not each["own"]]
    assert as_mira.delete(f"/api/account/sessions/{ended}").status_code == 204
    assert other.get("/api/forms").status_code == 401
    assert as_mira.delete(f"/api/account/sessions/{ended}").status_code == 404
    assert as_mira.get("/api/forms").status_code == 200


def test_an_exception_holds_for_one_form_alone_and_hides_it_where_it_says_so(app, as_mira, connection):
    known = {role: make_person(connection, role=role, email=f"{role}@example.org") for role in ("editor", "viewer")}
    connection.commit()
    agents = {role: Browser(app) for role in known}
    for role, agent in agents.items():
        agent.sign_in(f"{role}@example.org")
    forms = [as_mira.post("/api/forms", json={"name": name}).json["id"] for name in ("One", "Other")]

    def give(role, to, form=forms[0]):
        asked = {"form": form, "person": str(known[to].person_id), "role": role}
        return as_mira.put("/api/team/exceptions", json=asked).status_code

    def does(agent, form):
        draft = agent.get(f"/api/forms/{form}")
        if draft.status_code != 200:
            return draft.status_code
        copied = agent.post(f"/api/forms/{form}/copies", json={}).status_code
        return draft.json["role"], copied, agent.get(f"/api/forms/{form}/responses.csv").status_code

    assert does(agents["viewer"], forms[0]) == ("viewer", 403, 403)
    assert give("editor", "viewer") == 204
    assert does(agents["viewer"], forms[0]) == ("editor", 200, 200)
    assert does(agents["viewer"], forms[1]) == ("viewer", 403, 403)
    # Tables ask for the role in the team: an exception gives no right on them.
    assert agents["viewer"].post("/api/tables", json={"definition": {"name": "Domes"}}).status_code == 403
    assert give("none", "editor") == 204
    assert does(agents["editor"], forms[0]) == 404
    assert does(agents["editor"], forms[1])[0] == "editor"
    names = [each["name"] for each in agents["editor"].get("/api/forms").json["forms"]]
    assert "One" not in names
    assert "Other" in names
    listed = as_mira.get("/api/team/exceptions").json["exceptions"]
    assert [(each["person_name"], each["role"]) for each in listed] == [("Editor", "none"), ("Viewer", "editor")]
    assert agents["editor"].put("/api/team/exceptions", json={}).status_code in {400, 403}
    # Owners may do everything; taken out, somebody has no exceptions left.
    me = next(each["id"] for each in as_mira.get("/api/team").json["people"] if each["role"] == "owner")
    asked = {"form": forms[0], "person": me, "role": "none"}
    assert as_mira.put("/api/team/exceptions", json=asked).status_code == 404
    assert give(None, "editor") == 204
    assert does(agents["editor"], forms[0])[0] == "editor"
    as_mira.post(f"/api/team/people/{known['viewer'].person_id}/out", json={"successor": None})
    assert as_mira.get("/api/team/exceptions").json["exceptions"] == []
