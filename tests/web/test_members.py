"""Members: they sign in, fill in forms that are for them, find their answers again, and are forgotten."""

import re
import threading

import pytest
from conftest import Browser, make_person, publish_visit
from web.mail import work

from codexa.practice.mailbox import store as mailbox

TEAM = "alderlight"


@pytest.fixture
def roll(as_mira):
    """The table of Mira's team's members: Ada, a keeper, and Ben, in no group."""
    assert as_mira.post("/api/team/groups", json={"name": "Keepers"}).json["code"] == "keepers"
    table = as_mira.post("/api/team/members").json["table"]
    assert as_mira.post("/api/team/members").json["table"] == table
    cells = [
        {"name": "Ada May Lum", "email": "ada@example.org", "groups": "Keepers"},
        {"name": "Ben", "email": "ben@example.org"},
    ]
    for each in cells:
        add(as_mira, table, each)
    return table


def add(agent, table, cells):
    changes = [{"number": None, "revision": None, "cells": cells}]
    reply = agent.post(f"/api/tables/{table}/records", json={"changes": changes})
    assert reply.status_code == 200, reply.json
    return reply.json


@pytest.fixture
def form(connection, mira):
    return str(publish_visit(connection, mira))


def let_in(agent, form, **access):
    known = agent.get(f"/api/forms/{form}/access").json["access"]
    reply = agent.put(f"/api/forms/{form}/access", json={"access": {**known, **access}})
    assert reply.status_code == 200, reply.json


def address_of(agent, form):
    return "/f/" + agent.get(f"/api/forms/{form}").json["address"].split("/f/")[1]


def mail_to(worker, email):
    work(worker)
    return next(each for each in mailbox.all_mail() if email in str(each.recipients))


def link_in(mail):
    return re.search(r"(/m/[\w-]+/link/[\w-]+)", mail.html)[1]


def code_in(mail):
    return re.search(r": (\d{3} \d{3})<", mail.html)[1]


class Member(Browser):
    """Somebody's browser on the public side."""

    def sign_in_at(self, address, email, way="mail", **typed):
        return self.client.post(address, data={"way": way, "email": email, **typed})

    def page(self, address):
        return self.client.get(address).get_data(as_text=True)

    def entry(self, address):
        return re.search(r'"entry":"([\w.-]*)"', self.page(address))[1]


def signed_in(app, worker, email):
    member = Member(app)
    assert "on its way" in member.sign_in_at(f"/m/{TEAM}", email).get_data(as_text=True)
    assert member.client.post(link_in(mail_to(worker, email))).status_code == 303
    return member


def asked_for(page):
    return re.search(r'name="asked" value="([\w-]+)"', page)[1]


def test_a_guest_sees_the_sign_in_and_nothing_of_a_form_for_members(app, as_mira, roll, form, worker):
    let_in(as_mira, form, who="members")
    address = address_of(as_mira, form)
    guest = Member(app)
    page = guest.page(address)
    assert "members of Alderlight" in page
    assert "Your visit" not in page
    assert "People" not in page
    state = f"/api/public/{form}/1/state"
    for entry in ("", "_m.00000000000000000000000000000000.0", "_p.x.y", "_"):
        refused = guest.client.post(state, json={"answers": {}, "entry": entry})
        assert (refused.status_code, refused.json["code"]) == (403, "sign_in_needed")
    handed_in = guest.client.post(
        f"/api/public/{form}/1/responses", json={"answers": {"people": "2"}}, headers={"Idempotency-Key": "k" * 10}
    )
    assert handed_in.json["code"] == "sign_in_needed"
    ada = signed_in(app, worker, "ada@example.org")
    assert "Your visit" in ada.page(address)
    entry = ada.entry(address)
    # The pass is this form's alone, and goes with the session; no cookie is needed for it.
    assert guest.client.post(state, json={"answers": {}, "entry": entry}).status_code == 200
    other = as_mira.post("/api/forms", json={"name": "Other"}).json["id"]
    refused = guest.client.post(f"/api/public/{other}/1/state", json={"answers": {}, "entry": entry})
    assert refused.status_code in {404, 410}


@pytest.mark.usefixtures("roll")
def test_who_may_fill_in_is_asked_of_groups_and_of_the_team(app, as_mira, form, worker, connection):
    address = address_of(as_mira, form)
    ada, ben = signed_in(app, worker, "ada@example.org"), signed_in(app, worker, "ben@example.org")
    let_in(as_mira, form, who="groups", groups=["keepers"])
    assert "Your visit" in ada.page(address)
    assert '"members":"/m/alderlight"' in ada.page(address)
    assert "for others" in ben.page(address)
    # Mira is of the team, and in no group until she is put into one.
    assert "for others" in as_mira.client.get(address).get_data(as_text=True)
    people = as_mira.get("/api/team").json["people"]
    me = next(each["id"] for each in people if each["email"] == "mira@example.org")
    assert as_mira.put(f"/api/team/groups/keepers/people/{me}", json={"inside": True}).status_code == 204
    page = as_mira.client.get(address).get_data(as_text=True)
    assert "Your visit" in page
    assert '"members":""' in page  # she has no page among the members
    let_in(as_mira, form, who="team", groups=[])
    assert "for others" in ada.page(address)
    assert "Your visit" in as_mira.client.get(address).get_data(as_text=True)
    # A member of another team, and a person of another, are guests here.
    stranger = make_person(connection, team="harbour", email="other@example.org")
    connection.commit()
    elsewhere = Browser(app)
    elsewhere.sign_in(stranger.email)
    assert "members of Alderlight" in elsewhere.client.get(address).get_data(as_text=True)
    # Without its group the form is for nobody, and a group that is gone has nobody in it.
    let_in(as_mira, form, who="groups", groups=["keepers"])
    assert as_mira.get("/api/team/groups/keepers/hanging").json["forms"] == ["Visit"]
    assert as_mira.delete("/api/team/groups/keepers").status_code == 204
    assert "for others" in ada.page(address)


def test_one_response_each_and_whose_it_is(app, as_mira, roll, form, worker):
    ada = signed_in(app, worker, "ada@example.org")
    let_in(as_mira, form, who="members", once=True, own=True)
    address = address_of(as_mira, form)

    def hand_in(member, key):
        body = {"answers": {"people": "2"}, "entry": member.entry(address)}
        return member.client.post(f"/api/public/{form}/1/responses", json=body, headers={"Idempotency-Key": key * 10})

    codes = []
    threads = [threading.Thread(target=lambda key=key: codes.append(hand_in(ada, key).status_code)) for key in "abcd"]
    for each in threads:
        each.start()
    for each in threads:
        each.join(timeout=60)
    assert sorted(codes) == [201, 410, 410, 410]
    again = hand_in(ada, "e")
    assert "already" in again.json["message"]
    page = ada.page(f"/m/{TEAM}")
    [number] = re.findall(rf"/m/{TEAM}/{form}/(\d+)\"", page)
    shown = ada.page(f"/m/{TEAM}/{form}/{number}")
    assert "Your visit" in shown
    assert "People" in shown
    ben = signed_in(app, worker, "ben@example.org")
    assert ben.client.get(f"/m/{TEAM}/{form}/{number}").status_code == 404
    assert Member(app).client.get(f"/m/{TEAM}/{form}/{number}").status_code == 404
    # Removed, it makes room for another.
    as_mira.post(f"/api/forms/{form}/responses/{number}/removed", json={})
    # Limits count what came before they were set.
    assert hand_in(ben, "f").status_code == 201
    let_in(as_mira, form, once=False)
    assert hand_in(ben, "g").status_code == 201
    let_in(as_mira, form, once=True)
    assert hand_in(ben, "h").status_code == 410


def test_a_link_works_once_and_looking_at_it_changes_nothing(app, as_mira, roll, connection, worker):
    ada = Member(app)
    # In other letters, with spaces and in full width it is the same address.
    asked = ada.sign_in_at(f"/m/{TEAM}", "  ＡDA@example.ORG ").get_data(as_text=True)
    mail = mail_to(worker, "ada@example.org")
    link = link_in(mail)
    for _ in range(2):
        assert "sign in" in ada.client.get(link).get_data(as_text=True)
    assert ada.client.get(f"/m/{TEAM}").get_data(as_text=True).count("Your answers") == 0
    other = link.replace(f"/m/{TEAM}/", "/m/harbour/")
    make_person(connection, team="harbour", email="h@example.org")
    connection.commit()
    assert ada.client.post(other).status_code == 410
    assert ada.client.post(link).status_code == 303
    assert "Your answers" in ada.page(f"/m/{TEAM}")
    late = Member(app)
    assert late.client.post(link).status_code == 410
    assert late.client.get(link).status_code == 410
    # The code beside it went with it.
    assert late.sign_in_at(f"/m/{TEAM}", "", way="code", asked=asked_for(asked), code=code_in(mail)).status_code == 429
    second = Member(app)
    second.sign_in_at(f"/m/{TEAM}", "ada@example.org")
    newest = link_in(mail_to(worker, "ada@example.org"))
    connection.execute("UPDATE member_link SET expires_at = now() - interval '1 minute'")
    connection.commit()
    assert second.client.post(newest).status_code == 410
    # Nobody learns who is a member.
    stranger = Member(app).sign_in_at(f"/m/{TEAM}", "nobody@example.org")
    assert stranger.status_code == 200
    assert "on its way" in stranger.get_data(as_text=True)


def test_a_code_signs_in_the_page_that_asked_also_in_a_frame(app, as_mira, roll, form, worker):
    let_in(as_mira, form, who="members")
    address = address_of(as_mira, form).replace("/f/", "/embed/")
    framed = app.test_client(use_cookies=False)
    asked = framed.post(address, data={"way": "mail", "email": "ada@example.org"}).get_data(as_text=True)
    mail = mail_to(worker, "ada@example.org")
    wrong = framed.post(address, data={"way": "code", "asked": asked_for(asked), "code": "000 000"})
    assert wrong.status_code == 403
    page = framed.post(address, data={"way": "code", "asked": asked_for(asked), "code": code_in(mail)})
    text = page.get_data(as_text=True)
    assert page.status_code == 200
    assert "Your visit" in text
    entry = re.search(r'"entry":"([\w.-]+)"', text)[1]
    state = framed.post(f"/api/public/{form}/1/state", json={"answers": {}, "entry": entry})
    assert state.status_code == 200
    tries = app.test_client()
    asked = tries.post(address, data={"way": "mail", "email": "ada@example.org"}).get_data(as_text=True)
    right = code_in(mail_to(worker, "ada@example.org"))
    for _ in range(5):
        assert tries.post(address, data={"way": "code", "asked": asked_for(asked), "code": "1"}).status_code == 403
    assert tries.post(address, data={"way": "code", "asked": asked_for(asked), "code": right}).status_code == 429


def test_passwords_are_counted_and_strangers_lock_nobody_out(app, as_mira, roll, worker):
    ada = signed_in(app, worker, "ada@example.org")
    account = f"/m/{TEAM}/account"
    csrf = re.search(r'name="csrf" value="([\w-]+)"', ada.page(f"/m/{TEAM}"))[1]
    assert ada.client.post(account, data={"what": "password", "password": "twelve letters"}).status_code == 403
    short = ada.client.post(account, data={"what": "password", "password": "short", "csrf": csrf})
    assert short.status_code == 422
    other = signed_in(app, worker, "ada@example.org")
    set_ = ada.client.post(account, data={"what": "password", "password": "twelve letters", "csrf": csrf})
    assert "Saved" in set_.get_data(as_text=True)
    # Other sessions have ended.
    assert "Your answers" not in other.page(f"/m/{TEAM}")
    right = {"way": "password", "member_password": "twelve letters"}
    assert Member(app).sign_in_at(f"/m/{TEAM}", "ADA@example.org", **right).status_code == 303
    wrong = {"way": "password", "member_password": "wrong"}
    codes = []
    # The pauses grow; how many tries there are before one comes within its pause hangs on how long a try takes here.
    while 429 not in codes and len(codes) < 30:
        codes.append(Member(app).sign_in_at(f"/m/{TEAM}", "ada@example.org", **wrong).status_code)
    assert codes[0] == 403
    assert codes[-1] == 429
    # The link goes on working.
    assert "Your answers" in signed_in(app, worker, "ada@example.org").page(f"/m/{TEAM}")


def test_a_member_opens_nothing_of_the_workbench(app, as_mira, roll, form, worker):
    ada = signed_in(app, worker, "ada@example.org")
    of_team = ("/api/forms", f"/api/forms/{form}", "/api/team", "/api/tables", "/api/team/audit")
    for address in (*of_team, f"/preview/{form}"):
        assert ada.client.get(address).status_code in (401, 302), address
    assert ada.client.get("/api/session").status_code == 204


def test_another_address_is_confirmed_at_itself_and_taken_once(app, as_mira, roll, worker):
    ada = signed_in(app, worker, "ada@example.org")
    csrf = re.search(r'name="csrf" value="([\w-]+)"', ada.page(f"/m/{TEAM}"))[1]
    want = {"what": "address", "csrf": csrf}
    mixed = ada.client.post(f"/m/{TEAM}/account", data={**want, "email": "аda@example.org"})
    assert mixed.status_code == 422
    ada.client.post(f"/m/{TEAM}/account", data={**want, "email": "Ada.New@example.org"})
    link = link_in(mail_to(worker, "Ada.New@example.org"))
    assert Member(app).client.post(link).status_code == 303
    assert "Ada.New@example.org" in ada.page(f"/m/{TEAM}")
    ada.client.post(f"/m/{TEAM}/account", data={**want, "email": "ben@example.org"})
    taken = Member(app).client.post(link_in(mail_to(worker, "ben@example.org")))
    assert taken.status_code == 409


@pytest.mark.usefixtures("roll")
def test_who_leaves_is_forgotten_and_signed_out_everywhere(app, as_mira, form, worker, connection):
    let_in(as_mira, form, who="members", own=True)
    ada = signed_in(app, worker, "ada@example.org")
    entry = ada.entry(address_of(as_mira, form))
    body = {"answers": {"people": "2"}, "entry": entry}
    kept = ada.client.post(f"/api/public/{form}/1/responses", json=body, headers={"Idempotency-Key": "k" * 10})
    assert kept.status_code == 201
    csrf = re.search(r'name="csrf" value="([\w-]+)"', ada.page(f"/m/{TEAM}"))[1]
    left = ada.client.post(f"/m/{TEAM}/account", data={"what": "leave", "csrf": csrf})
    assert "forgotten" in left.get_data(as_text=True)
    refused = ada.client.post(f"/api/public/{form}/1/responses", json=body, headers={"Idempotency-Key": "n" * 10})
    assert refused.json["code"] == "sign_in_needed"
    rows = connection.execute("SELECT told, member_id FROM response").fetchall()
    assert [(row["told"]["visitor"], row["member_id"]) for row in rows] == [({}, None)]
    assert connection.execute("SELECT count(*) FROM record WHERE kept::text LIKE '%ada@%'").fetchone()["count"] == 0
    [entry] = as_mira.get("/api/team/audit?area=removals").json["entries"]
    assert entry["told"] == "a member left and was forgotten"


def test_what_members_are_known_by_stays_in_their_table(as_mira, roll):
    found = as_mira.get(f"/api/tables/{roll}").json
    definition = found["definition"]
    without = {**definition, "columns": [each for each in definition["columns"] if each["id"] != "email"], "once": []}
    reply = as_mira.put(f"/api/tables/{roll}", json={"revision": found["revision"], "definition": without})
    assert reply.status_code == 422
    assert as_mira.delete(f"/api/tables/{roll}").status_code == 409
    assert as_mira.put("/api/team/groups/keepers", json={"name": "Dome keepers"}).status_code == 204
    columns = as_mira.get(f"/api/tables/{roll}").json["definition"]["columns"]
    groups = next(each for each in columns if each["id"] == "groups")
    assert [(each["code"], each["label"]) for each in groups["options"]] == [("keepers", "Dome keepers")]


def test_members_are_invited_by_mail(app, as_mira, roll, worker):
    assert as_mira.post("/api/team/members/invitations", json={"numbers": [1, 99]}).json == {"count": 1}
    link = link_in(mail_to(worker, "ada@example.org"))
    assert as_mira.get("/api/team/members").json["invited"] == 1
    ada = Member(app)
    assert ada.client.post(link).status_code == 303
    assert as_mira.get("/api/team/members").json["confirmed"] == 1


def joining_document():
    """A form that makes accounts, and fills in who is signed in."""
    locked = {"default": "visitor.email", "default_follows": True, "locked": "NOT(ISBLANK(visitor.email))"}
    blocks = [
        {"id": "email", "type": "email", "key": "email", "label": "E-mail", "required": "TRUE", **locked},
        {"id": "name", "type": "short_text", "key": "name", "label": "Name", "default": "visitor.first"},
        {"id": "crew", "type": "calculated", "key": "crew", "label": "Crew", "formula": 'INGROUP("keepers")'},
    ]
    account = {"id": "join", "kind": "account", "email": "email", "name_of": "name", "groups": ["keepers"]}
    return {"name": "Join", "pages": [{"id": "p1", "blocks": blocks}], "follow_ups": [account]}


@pytest.fixture
def join(as_mira, roll):
    form = as_mira.post("/api/forms", json={"name": "Join", "document": joining_document()}).json["id"]
    assert as_mira.post(f"/api/forms/{form}/editions", json={"revision": 1}).status_code in {200, 201}
    return form


def test_a_group_that_the_team_does_not_have_is_told_before_anybody_waits_for_it(as_mira, join):
    document = joining_document()
    document["pages"][0]["blocks"][2]["formula"] = 'IF(INGROUP("Keepers"), INGROUP("keeper"), FALSE)'
    document["follow_ups"][0]["groups"] = ["keepers", "gone"]
    saved = as_mira.put(f"/api/forms/{join}/draft", json={"revision": 1, "draft": document})
    found = [each for each in saved.json["analysis"]["findings"] if each["code"] == "no_such_group"]
    assert [(each["block"], each["setting"]) for each in found] == [("crew", "formula"), ("join", "groups")]
    assert found[0]["message"] == 'The team has no group "keeper". Did you mean "keepers"?'
    refused = as_mira.post(f"/api/forms/{join}/editions", json={"revision": saved.json["revision"]})
    assert refused.status_code == 422


def hand_in(member, form, key, email, entry="", **more):
    body = {"answers": {"email": email, **more}, "entry": entry}
    return member.client.post(f"/api/public/{form}/1/responses", json=body, headers={"Idempotency-Key": key * 10})


def names_of(as_mira, table):
    return [each["cells"]["email"] for each in as_mira.get(f"/api/tables/{table}/records").json["records"]]


@pytest.mark.parametrize("written", ["ada@example.org", " ADA@Example.ORG ", "ａｄａ@example.org"])
def test_a_guest_with_a_members_address_is_asked_to_sign_in(app, join, written):
    refused = hand_in(Member(app), join, "a", written)
    assert refused.status_code == 422
    assert refused.json["errors"]["email"]["code"] in {"known_member", "not_an_email"}


def test_two_at_once_make_one_account_and_look_alikes_none(app, as_mira, join, roll, worker):
    for key, email in (("a", "kemi@example.org"), ("b", "KEMI@example.org"), ("c", "kеmi@example.org")):
        assert hand_in(Member(app), join, key, email, name="Kemi").status_code == 201
    work(worker)
    assert names_of(as_mira, roll) == ["ada@example.org", "ben@example.org", "kemi@example.org"]
    runs = [as_mira.get(f"/api/forms/{join}/responses/{number}/runs").json["runs"][0] for number in (1, 2, 3)]
    assert [each["state"] for each in runs] == ["done", "done", "failed"]
    assert "several alphabets" in runs[2]["result"]
    kemi = signed_in(app, worker, "kemi@example.org")
    assert "Keepers" in as_mira.get(f"/api/tables/{roll}/records").get_data(as_text=True)
    # Signed in, it is theirs, whatever is sent for what is locked; the account stays one.
    entry = kemi.entry(address_of(as_mira, join))
    assert hand_in(kemi, join, "d", "ben@example.org", entry=entry).status_code == 201
    answers = as_mira.get(f"/api/forms/{join}/responses/4").get_data(as_text=True)
    assert "kemi@example.org" in answers
    assert "ben@example.org" not in answers
    work(worker)
    assert len(names_of(as_mira, roll)) == 3


def test_signing_in_while_filling_in_gives_the_page_another_pass(app, as_mira, join, worker):
    guest, place = Member(app), f"/api/public/{join}/1/sign-in"
    state = f"/api/public/{join}/1/state"
    asked = guest.client.post(place, json={"way": "mail", "email": "Ada@example.org"}).json
    assert asked["asked"]
    wrong = guest.client.post(place, json={"way": "password", "email": "ada@example.org", "password": "x"})
    assert (wrong.status_code, wrong.json["code"]) == (403, "wrong_sign_in")
    code = code_in(mail_to(worker, "ada@example.org"))
    signed = guest.client.post(place, json={"way": "code", "asked": asked["asked"], "code": code}).json
    assert signed["visitor"] == "Ada May Lum"
    facts = guest.client.post(state, json={"answers": {"email": "x@example.org"}, "entry": signed["entry"]}).json
    blocks = facts["state"]["blocks"]
    assert (blocks["email"]["locked"], blocks["crew"]["value"]) == (True, "1")
    # Whoever is taken off the roll has lost the form at once.
    table = as_mira.get("/api/team/members").json["table"]
    gone = as_mira.post(f"/api/tables/{table}/records/remove", json={"numbers": [1], "way": "ask"})
    assert gone.status_code == 200, gone.json
    late = hand_in(guest, join, "a", "x@example.org", entry=signed["entry"])
    assert late.status_code == 201
    assert "ada@example.org" not in as_mira.get(f"/api/forms/{join}/responses/1").get_data(as_text=True)


def test_a_draft_is_tried_as_a_member_and_a_trial_remembers_it(as_mira, join):
    visitor = {"email": "ada@example.org", "name": "Ada May Lum", "groups": ["keepers"]}
    asked = {"answers": {}, "visitor": visitor}
    found = as_mira.post(f"/api/forms/{join}/preview/outcome", json=asked).json
    assert found["values"]["email"] == "ada@example.org"
    assert found["values"]["name"] == "Ada May"
    draft = joining_document()
    kept = {"id": "t1", "name": "A keeper", "day": "2026-11-29", "visitor": visitor, "expected": found["outcome"]}
    guest = {**kept, "id": "t2", "name": "A guest", "visitor": {}}
    saved = as_mira.put(f"/api/forms/{join}/draft", json={"revision": 1, "draft": {**draft, "trials": [kept, guest]}})
    assert saved.status_code == 200, saved.json
    results = as_mira.get(f"/api/forms/{join}/preview/trials").json["results"]
    assert [each["passed"] for each in results] == [True, False]
    page = as_mira.client.get(f"/preview/{join}?codexa-visitor=member.1").get_data(as_text=True)
    assert '"visitor":"Ada May Lum"' in page
    assert as_mira.client.get(f"/preview/{join}?codexa-visitor=member.99").status_code == 404


def test_groups_see_and_change_a_table_besides_the_roles(app, as_mira, roll, connection):
    aylin = make_person(connection, role="viewer", email="aylin@example.org")
    connection.commit()
    viewer = Browser(app)
    viewer.sign_in("aylin@example.org")
    made = as_mira.post("/api/tables", json={"definition": {"name": "Domes"}}).json["id"]
    place = f"/api/tables/{made}"

    def grant(**groups):
        rights = {"seen_by": "owner", "changed_by": "owner", **groups}
        assert as_mira.put(f"{place}/rights", json=rights).status_code == 200

    def may():
        typed = {"number": None, "revision": None, "cells": {"c1": "Summit"}}
        change = viewer.post(f"{place}/records", json={"changes": [typed]}).status_code
        return viewer.get(place).status_code, change, made in viewer.get("/api/tables").get_data(as_text=True)

    as_mira.put(f"/api/team/groups/keepers/people/{aylin.person_id}", json={"inside": True})
    grant()
    assert may() == (403, 403, False)
    grant(seen_groups=["keepers"])
    assert may() == (200, 403, True)
    grant(changed_groups=["keepers"])
    assert may() == (200, 200, True)
    # The columns stay the editors'.
    assert viewer.delete(place).status_code == 403
    as_mira.put(f"/api/team/groups/keepers/people/{aylin.person_id}", json={"inside": False})
    assert may() == (403, 403, False)


def test_members_see_what_others_answered_as_far_as_the_author_lets_them(app, as_mira, roll, form, worker):
    ada, ben = signed_in(app, worker, "ada@example.org"), signed_in(app, worker, "ben@example.org")
    address = address_of(as_mira, form)
    let_in(as_mira, form, who="members", own=True)
    for member in (ada, ben):
        entry = re.search(r'"entry":"([^"]+)"', member.page(address))[1]
        body = {"answers": {"people": "3", "show": "o1", "mail": "kept@example.org"}, "entry": entry}
        headers = {"Idempotency-Key": entry[-30:]}
        assert member.client.post(f"/api/public/{form}/1/responses", json=body, headers=headers).status_code == 201
    mine, theirs = f"/m/{TEAM}/{form}/1", f"/m/{TEAM}/{form}/2"

    def seen(member):
        return [member.client.get(each).status_code == 200 for each in (f"/m/{TEAM}/{form}", mine, theirs)]

    assert (seen(ada), seen(ben)) == ([False, True, False], [False, False, True])
    # Ben is in no group, Ada a keeper: in a group with her is she alone.
    let_in(as_mira, form, who="members", own=True, others="groups")
    assert (seen(ada), seen(ben)) == ([True, True, False], [True, False, True])
    let_in(as_mira, form, who="members", own=True, others="all")
    assert (seen(ada), seen(ben)) == ([True] * 3, [True] * 3)
    assert "kept@example.org" in ben.page(mine)
    assert f"/m/{TEAM}/{form}" in ben.page(f"/m/{TEAM}")
    let_in(as_mira, form, who="groups", groups=["keepers"], own=True, others="all")
    assert (seen(ada), seen(ben)) == ([True] * 3, [False, False, True])
    assert Member(app).client.get(mine).status_code == 404
