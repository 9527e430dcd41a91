"""Jobs that follow from no response: whether mail works, tidying, and failures told once; and who may see them."""

import datetime
from dataclasses import replace

import pytest
from conftest import make_person, within
from web.mail import work
from web.test_follow_ups import MAIL, hand_in, visit_document

from codexa.practice.mailbox import store as mailbox
from codexa.services import desk, publishing
from codexa.services.errands import told_failures
from codexa.services.errands.asking import ask
from codexa.services.errands.running import run_errand
from codexa.store.database import Database


def errands_of(agent):
    found = agent.get("/api/workings").json["errands"]
    return [(each["kind"], each["state"], each["tries"], each["result"]) for each in found]


def test_a_test_mail_says_whether_mail_works(as_mira, worker):
    asked = as_mira.post("/api/workings/test-mail")
    assert asked.json["errand"] == 1
    assert errands_of(as_mira) == [("test mail", "waiting", 0, "")]
    work(worker)
    assert errands_of(as_mira) == [("test mail", "done", 1, "sent to mira@example.org")]
    (mail,) = mailbox.all_mail()
    assert f"This mail came through 127.0.0.1:{worker.smtp_port}" in mail.text
    shown = as_mira.get("/api/workings").json
    assert (shown["smtp_host"], shown["queue"]["waiting"], "smtp_password" in shown) == ("127.0.0.1", 0, False)


def test_one_that_does_not_work_is_tried_again_and_then_told(as_mira, database, worker):
    errand = as_mira.post("/api/workings/test-mail").json["errand"]
    connect, nowhere = Database(database, 2), replace(worker, smtp_port="1")
    pauses = []
    while (waits := run_errand(connect.connection, nowhere, errand)) is not None:
        pauses.append(waits.seconds)
    connect.close()
    assert (pauses, len(pauses)) == (sorted(pauses), 5)
    ((_, state, tries, result),) = errands_of(as_mira)
    assert (state, tries, "can't be reached" in result) == ("failed", 6, True)


@pytest.mark.parametrize("role", ["editor", "reviewer", "viewer"])
def test_owners_alone_see_them(agent, connection, role):
    person = make_person(connection, role=role)
    connection.commit()
    agent.sign_in(person.email)
    assert agent.get("/api/workings").status_code == 403
    assert agent.post("/api/workings/test-mail").status_code == 403
    assert [each["name"] for each in agent.get("/api/people").json["people"]] == [role.title()]


def test_those_of_another_team_are_not_seen(as_mira, connection, worker):
    other = make_person(connection, team="harbour")
    ask(connection, "test mail", {"to": other.email, "name": "Other"}, team=other.team_id)
    ask(connection, "tidying up", {})
    connection.commit()
    work(worker)
    ((kind, state, _, result),) = errands_of(as_mira)
    assert (kind, state) == ("tidying up", "done")
    assert result == "0 uploads, 0 saved states and 0 pictures were not needed any more"


class TestFailures:
    @pytest.fixture
    def failing(self, connection, mira, monkeypatch):
        monkeypatch.setattr(told_failures, "_GATHERED", datetime.timedelta(0))
        refused = MAIL | {"recipients": [{"address": "refused@example.org"}], "name": "To <nobody>"}
        form = desk.import_form(within(connection), who=mira, document=visit_document() | {"follow_ups": [refused]})
        publishing.publish(within(connection), who=mira, form=form, revision=1)
        make_person(connection, role="editor", email="jonas@example.org")
        connection.commit()
        return form

    def told(self, worker):
        # What is asked for while a worker works is done by the next.
        work(worker)
        work(worker)
        return [each for each in mailbox.all_mail() if "did not work" in each.message["Subject"]]

    def test_are_told_to_owners_once_together(self, as_mira, failing, worker):
        for _ in range(3):
            hand_in(as_mira, failing)
        (mail,) = self.told(worker)
        assert mail.recipients == ["mira@example.org"]
        assert mail.text.count("To <nobody>: The mail server refused refused@example.org") == 3
        assert f"/forms/{failing}/follow-ups" in mail.text
        hand_in(as_mira, failing)
        assert len(self.told(worker)) == 1

    def test_are_told_again_the_next_day(self, as_mira, failing, worker, connection):
        hand_in(as_mira, failing)
        assert len(self.told(worker)) == 1
        connection.execute("UPDATE form SET failures_told_at = failures_told_at - interval '25 hours'")
        connection.commit()
        hand_in(as_mira, failing)
        assert len(self.told(worker)) == 2

    def test_that_were_mended_meanwhile_are_not_told(self, as_mira, failing, worker, connection, monkeypatch):
        monkeypatch.setattr(told_failures, "_GATHERED", datetime.timedelta(minutes=1))
        hand_in(as_mira, failing)
        work(worker)
        connection.execute("UPDATE run SET state = 'done'")
        connection.execute("UPDATE procrastinate_jobs SET scheduled_at = now() WHERE status = 'todo'")
        connection.commit()
        assert self.told(worker) == []
        assert errands_of(as_mira) == [("failed follow-ups told", "done", 1, "nothing to send any more")]
