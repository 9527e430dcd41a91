"""Decisions: who may, in steps or all of them; twice or at once one counts, and what hangs on it happens once."""

from concurrent.futures import ThreadPoolExecutor

import pytest
from conftest import Browser, make_person, within
from core.forms import block
from web.mail import work
from web.test_record_choice import hand_in
from web.test_slots import EARLY, claims, document, free, mails_to, own_page, visit

from codexa.services import desk, groups, publishing, team
from codexa.store import groups as groups_store

DECIDED = {"kind": "email", "recipients": [{"field": "mail"}]}
YES = {"id": "u2", "on": "approved", "subject": "Yes, says {decision.by}: {decision.remark}", **DECIDED}
NO = {"id": "u3", "on": "denied", "subject": "No, says {decision.by}: {decision.remark}", **DECIDED}
BACK = {"id": "u4", "on": "asked back", "subject": "Back: {decision.remark}", **DECIDED}


def approval(*steps, **more):
    made = [{"id": f"s{at}", **step} for at, step in enumerate(steps)]
    return {
        "id": "u1",
        "kind": "approval",
        "name": "Keepers",
        "subject": "Night {response.number}",
        "steps": made,
        **more,
    }


@pytest.fixture
def people(connection, mira, app):
    """Mira with two keepers of her team, each in a browser of their own; "keepers" is their group."""
    ids = {"mira": mira.person_id}
    groups.make(within(connection), who=mira, name="Keepers")
    for name in ("kai", "lea"):
        found = make_person(connection, role="reviewer", email=f"{name}@example.org")
        connection.execute("UPDATE person SET name = %s WHERE id = %s", [name.title(), found.person_id])
        groups_store.set_in(connection, team=mira.team_id, code="keepers", person=found.person_id, inside=True)
        ids[name] = found.person_id
    connection.commit()
    agents = {name: Browser(app) for name in ids}
    for name, agent in agents.items():
        assert agent.sign_in(f"{name}@example.org").status_code == 200
    return agents | {"ids": ids}


@pytest.fixture
def publish(connection, mira):
    def make(*follow_ups):
        known = document(visit(), block("email", "mail"), follow_ups=list(follow_ups))
        form = desk.import_form(within(connection), who=mira, document=known)
        publishing.publish(within(connection), who=mira, form=form, revision=1)
        connection.commit()
        return form

    return make


def send(agent, form):
    assert hand_in(agent, form, {"visit": EARLY, "mail": "io@example.org"}).status_code == 201


def waiting(agent):
    return agent.get("/api/decisions").json["waiting"]


def say(agent, one, verdict, remark="", step=None):
    body = {"step": 0 if step is None else step, "verdict": verdict, "remark": remark}
    return agent.post(f"/api/decisions/{one['id']}", json=body)


def to_decide(agent, form):
    """How many responses wait for a decision: by the desk, which has to say what the filter finds."""
    (row,) = [each for each in agent.get("/api/forms").json["forms"] if each["id"] == str(form)]
    asked = '[["response.decision", "any_of", "asked"]]'
    found = agent.get(f"/api/forms/{form}/responses", query_string={"where": asked}).json
    assert len(found["rows"]) == row["deciding"]
    return row["deciding"]


def decision(connection, form):
    return connection.execute("SELECT decision FROM response WHERE form_id = %s", [form]).fetchone()["decision"]


def test_one_of_a_group_decides_and_what_hangs_on_it_happens_once(people, publish, connection, worker):
    form = publish(approval({"deciders": [{"group": "keepers"}]}), YES, NO)
    send(people["mira"], form)
    assert decision(connection, form) == "asked"
    assert to_decide(people["mira"], form) == 1
    work(worker)
    assert [each.message["Subject"] for each in mails_to("lea")] == ["A decision waits for you: Night 1"]
    assert waiting(people["mira"]) == []
    (one,) = waiting(people["kai"])
    shown = people["lea"].get(f"/api/decisions/{one['id']}").json
    assert ([each["name"] for each in shown["deciders"]], shown["may_decide"]) == (["Kai", "Lea"], True)
    # Who may not decide sees it and is refused; another team's people see nothing.
    assert people["mira"].get(f"/api/decisions/{one['id']}").json["may_decide"] is False
    assert say(people["mira"], one, "approve").status_code == 403
    assert say(people["kai"], one, "approve", "Welcome").status_code == 200
    late = say(people["lea"], one, "deny")
    assert (late.status_code, late.json["message"]) == (
        409,
        "Kai has approved it meanwhile. Nothing was changed by you.",
    )
    work(worker)
    work(worker)
    assert [each.message["Subject"] for each in mails_to("io")] == ["Yes, says Kai: Welcome"]
    assert (decision(connection, form), claims(connection, form)) == ("approved", {f"{EARLY}:": 1})
    assert to_decide(people["mira"], form) == 0
    assert [each["kind"] for each in people["kai"].get("/api/decisions").json["decided"]] == ["approved"]


def test_of_two_at_once_one_counts(people, publish, connection, worker):
    form = publish(approval({"deciders": [{"group": "keepers"}]}), YES, NO)
    for _ in range(3):
        connection.execute("DELETE FROM response WHERE form_id = %s", [form])
        connection.execute("DELETE FROM claimable WHERE form_id = %s AND taken > 0", [form])
        connection.commit()
        send(people["mira"], form)
        (one,) = waiting(people["kai"])
        with ThreadPoolExecutor(max_workers=2) as both:
            said = both.map(say, (people["kai"], people["lea"]), (one, one), ("approve", "deny"))
            codes = [each.status_code for each in said]
        assert sorted(codes) == [200, 409]
        kinds = connection.execute(
            "SELECT kind FROM event WHERE form_id = %s AND kind IN ('approved', 'denied')", [form]
        ).fetchall()
        assert len(kinds) == 1


def test_a_denial_gives_the_place_back(people, publish, connection, worker):
    form = publish(approval({"deciders": [{"group": "keepers"}]}), YES, NO)
    send(people["mira"], form)
    assert free(people["mira"], form) == ["19:00", "20:00"]
    assert say(people["kai"], waiting(people["kai"])[0], "deny", "Cloudy").status_code == 200
    assert free(people["mira"], form) == ["18:00", "19:00", "20:00"]
    work(worker)
    assert [each.message["Subject"] for each in mails_to("io")] == ["No, says Kai: Cloudy"]


def test_steps_follow_one_another_and_in_one_every_one_has_to_approve(people, publish, connection, worker):
    ids = people["ids"]
    both = {"deciders": [{"person": str(ids["kai"])}, {"address": '"LEA@example.org"'}], "every": True}
    board = {"deciders": [{"person": str(ids["mira"])}], "name": "Board"}
    never = {"deciders": [{"person": str(ids["kai"])}], "only_when": "ISBLANK(mail)"}
    form = publish(approval(both, never, board), YES)
    send(people["mira"], form)
    (one,) = waiting(people["kai"])
    assert say(people["kai"], one, "approve").status_code == 200
    assert (waiting(people["kai"]), len(waiting(people["lea"])), waiting(people["mira"])) == ([], 1, [])
    assert say(people["lea"], one, "approve").status_code == 200
    assert [each["step_name"] for each in waiting(people["mira"])] == ["Board"]
    assert decision(connection, form) == "asked"
    # A link of the step before changes nothing any more.
    assert say(people["mira"], one, "approve", step=0).status_code == 409
    assert say(people["mira"], one, "approve", step=1).status_code == 200
    assert decision(connection, form) == "approved"


def test_who_stands_in_may_decide_once_its_time_is_over(people, publish, connection, worker):
    ids = people["ids"]
    step = {
        "deciders": [{"person": str(ids["kai"])}],
        "stand_in": {"person": str(ids["lea"])},
        "hours": 48,
        "remind": 24,
    }
    form = publish(approval(step))
    send(people["mira"], form)
    assert waiting(people["lea"]) == []
    (one,) = waiting(people["kai"])
    assert say(people["lea"], one, "approve").status_code == 403
    due = connection.execute("SELECT count(*) AS count FROM procrastinate_jobs WHERE scheduled_at > now()").fetchone()
    assert due["count"] == 2
    connection.execute("UPDATE approval_step SET due_at = now() - interval '1 hour'")
    connection.commit()
    assert len(waiting(people["lea"])) == 1
    assert say(people["lea"], one, "approve").status_code == 200


def test_a_group_that_lost_its_last_person_leaves_it_to_the_owners(people, publish, mira, connection):
    form = publish(approval({"deciders": [{"group": "keepers"}]}))
    send(people["mira"], form)
    for name in ("kai", "lea"):
        groups_store.set_in(connection, team=mira.team_id, code="keepers", person=people["ids"][name], inside=False)
    connection.commit()
    (one,) = waiting(people["mira"])
    assert waiting(people["kai"]) == []
    assert say(people["mira"], one, "approve").status_code == 200
    assert decision(connection, form) == "approved"


def test_two_approvals_are_one_decision(people, publish, connection, worker):
    ids = people["ids"]
    first = approval({"deciders": [{"person": str(ids["kai"])}]})
    second = approval({"deciders": [{"person": str(ids["lea"])}]}) | {"id": "u9"}
    form = publish(first, second, YES, NO)
    send(people["mira"], form)
    assert say(people["kai"], waiting(people["kai"])[0], "approve").status_code == 200
    assert decision(connection, form) == "asked"
    assert say(people["lea"], waiting(people["lea"])[0], "approve").status_code == 200
    assert decision(connection, form) == "approved"
    work(worker)
    assert [each.message["Subject"] for each in mails_to("io")] == ["Yes, says Lea:"]


def test_who_is_asked_back_changes_it_and_it_is_decided_further(people, publish, connection, worker):
    page_back = BACK | {"paragraphs": [{"text": "<p>{response.page}</p>"}]}
    form = publish(approval({"deciders": [{"group": "keepers"}]}), page_back, YES)
    send(people["mira"], form)
    (one,) = waiting(people["kai"])
    assert say(people["kai"], one, "ask back").status_code == 400
    assert say(people["kai"], one, "ask back", "Which evening else?").status_code == 200
    assert waiting(people["kai"]) == []
    assert to_decide(people["mira"], form) == 1
    assert say(people["lea"], one, "approve").status_code == 409
    work(worker)
    (mail,) = mails_to("io")
    assert mail.message["Subject"] == "Back: Which evening else?"
    place, visitor = own_page("io"), people["mira"].client
    assert "Which evening else?" in visitor.get(place).get_data(as_text=True)
    assert EARLY in visitor.get(f"{place}/answers").get_data(as_text=True)
    wrong = visitor.post(f"/api/public/own{place[2:]}/responses", json={"answers": {"visit": "2020-01-01T10:00"}})
    assert (wrong.status_code, list(wrong.json["errors"])) == (422, ["visit"])
    changed = {"answers": {"visit": f"{EARLY[:11]}19:00", "mail": "io@example.org"}}
    assert visitor.post(f"/api/public/own{place[2:]}/responses", json=changed).status_code == 200
    assert claims(connection, form) == {f"{EARLY[:11]}19:00:": 1}
    # What is not asked about any more can't be changed by that address.
    assert visitor.post(f"/api/public/own{place[2:]}/responses", json=changed).status_code == 404
    (again,) = waiting(people["lea"])
    assert say(people["lea"], again, "approve").status_code == 200
    said = people["lea"].get(f"/api/decisions/{again['id']}").json["said"]
    assert [each["kind"] for each in said] == ["decision asked", "asked back", "sent again", "approved"]


@pytest.mark.parametrize("path", ["", "/answers", "/other-times?at=visit"])
def test_nobody_opens_another_ones_page(people, publish, worker, path):
    form = publish(approval({"deciders": [{"group": "keepers"}]}))
    send(people["mira"], form)
    assert people["mira"].client.get(f"/r/{form}/1/{'0' * 40}{path}").status_code == 404


def test_a_task_is_done_once_and_stands_in_the_timeline(people, publish, connection, worker):
    task = {"id": "u7", "kind": "task", "words": "Book a room for {response.number}", "days": 3}
    form = publish(task | {"who": {"group": "keepers"}})
    send(people["mira"], form)
    work(worker)
    work(worker)
    assert people["mira"].get("/api/decisions/tasks").json["tasks"] == []
    (one,) = people["kai"].get("/api/decisions/tasks").json["tasks"]
    assert (one["words"], one["late"]) == ("Book a room for 1", False)
    assert people["mira"].post(f"/api/decisions/tasks/{one['id']}", json={}).status_code == 403
    assert people["lea"].post(f"/api/decisions/tasks/{one['id']}", json={"remark": "Room 2"}).status_code == 204
    assert people["kai"].post(f"/api/decisions/tasks/{one['id']}", json={}).status_code == 409
    events = people["mira"].get(f"/api/forms/{form}/responses/1").json["events"]
    (event,) = [each for each in events if each["kind"] == "task done"]
    assert (event["person"], event["about"]) == ("Lea", "Book a room for 1: Room 2")


def test_what_waits_for_who_is_taken_out_goes_to_whoever_takes_over(people, publish, mira, connection, worker):
    kai = {"person": str(people["ids"]["kai"])}
    form = publish(approval({"deciders": [kai]}), {"id": "u7", "kind": "task", "words": "Heat the dome", "who": kai})
    send(people["mira"], form)
    work(worker)
    place = f"/api/team/people/{people['ids']['kai']}"
    assert people["mira"].get(f"{place}/hanging").json["waiting"] == 2
    team.take_out(within(connection), who=mira, person=people["ids"]["kai"], successor=people["ids"]["lea"])
    connection.commit()
    assert len(waiting(people["lea"])) == 1
    assert len(people["lea"].get("/api/decisions/tasks").json["tasks"]) == 1
    # The live edition names who has left still: what comes now is asked of whoever has taken over, too.
    hand_in(people["mira"], form, {"visit": f"{EARLY[:11]}19:00", "mail": "io@example.org"})
    assert len(waiting(people["lea"])) == 2
