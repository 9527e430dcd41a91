"""Follow-ups from the response to the mail server: kept with what sets them off, done once, tried again, and told."""

import datetime
import http.server
import json
import socket
import threading
import uuid
from contextlib import contextmanager, suppress
from dataclasses import replace

import psycopg
import pytest
from conftest import receive, save_draft, visit_document, within
from web.mail import work

from codexa.core.form.form import read_form
from codexa.core.program.compiling import compile_form
from codexa.practice.mailbox import smtp as practice
from codexa.practice.mailbox import store as mailbox
from codexa.practice.mailbox.server import application as mailbox_pages
from codexa.services import desk, publishing
from codexa.services.accounts.mail_words import notice
from codexa.services.follow_ups import carrying_out, mailing, webhooks
from codexa.services.follow_ups.mail_layout import as_text
from codexa.services.follow_ups.outcomes import NeverError, TryLaterError
from codexa.settings import Settings
from codexa.store.database import Database

MAIL = {
    "id": "u1",
    "kind": "email",
    "name": "Tell the team",
    "recipients": [{"address": "visits@example.org"}, {"role": "bcc", "field": "mail"}],
    "reply_to": "mail",
    "from_name": "Visits",
    "subject": "{people} people, no. {response.number}",
    "paragraphs": [{"text": "<p>For {show.label} &amp; more</p>"}],
    "all_answers": True,
}
ANSWERS = {"people": "3", "show": "o1", "mail": "ingrid@example.org"}


@pytest.fixture
def with_mail(connection, mira):
    document = visit_document() | {"follow_ups": [MAIL]}
    form = desk.import_form(within(connection), who=mira, document=document)
    publishing.publish(within(connection), who=mira, form=form, revision=1)
    connection.commit()
    return form


def hand_in(agent, form, answers=ANSWERS):
    reply = agent.client.post(
        f"/api/public/{form}/1/responses", json={"answers": answers}, headers={"Idempotency-Key": uuid.uuid4().hex}
    )
    assert reply.status_code == 201


def runs_of(agent, form, number=1):
    return agent.get(f"/api/forms/{form}/responses/{number}/runs").json["runs"]


def open_of(agent, form):
    """What waits and what did not work: the response's number, and the state."""
    return [(each["number"], each["state"]) for each in agent.get(f"/api/forms/{form}/runs").json["runs"]]


class TestMail:
    def test_is_kept_with_its_response_and_sent_once_by_a_worker(self, as_mira, with_mail, worker):
        hand_in(as_mira, with_mail)
        assert [(each["state"], each["tries"]) for each in runs_of(as_mira, with_mail)] == [("waiting", 0)]
        settings = worker
        for _ in range(2):
            work(settings)
        (mail,) = mailbox.all_mail()
        assert (mail.times, sorted(mail.recipients)) == (1, ["ingrid@example.org", "visits@example.org"])
        headers = mail.message
        assert (headers["Subject"], headers["Reply-To"]) == ("3 people, no. 1", "ingrid@example.org")
        assert "ingrid" not in headers["To"]
        assert headers["Bcc"] is None
        assert "For First stars & more" in mail.text
        assert "People: 3" in mail.text
        assert "For First stars &amp; more" in mail.html
        (run,) = runs_of(as_mira, with_mail)
        assert (run["state"], run["result"]) == ("done", "sent to visits@example.org, ingrid@example.org")
        events = as_mira.get(f"/api/forms/{with_mail}/responses/1").json["events"]
        assert events[-1]["kind"] == "follow-up done"

    def test_a_repeat_of_the_same_run_is_the_same_mail(self, as_mira, with_mail, database, worker):
        hand_in(as_mira, with_mail)
        run = runs_of(as_mira, with_mail)[0]["id"]
        connect = Database(database, 2)
        with connect.connection() as connection:
            found = carrying_out.runs.take_run(connection, run=run)
        for _ in range(2):
            carrying_out.SENDERS["email"](None, found, worker)
        assert [each.times for each in mailbox.all_mail()] == [2]
        connect.close()

    def test_again_is_another_mail_and_says_who_asked(self, as_mira, with_mail, database, worker):
        hand_in(as_mira, with_mail)
        connect, settings = Database(database, 2), worker
        (run,) = runs_of(as_mira, with_mail)
        carrying_out.carry_out(connect.connection, settings, run["id"])
        assert as_mira.post(f"/api/forms/{with_mail}/runs/{run['id']}/again").status_code == 204
        again = runs_of(as_mira, with_mail)[1]
        assert (again["again"], again["asked_by"], again["state"]) == (1, "Owner", "waiting")
        carrying_out.carry_out(connect.connection, settings, again["id"])
        assert len(list(mailbox.all_mail())) == 2
        connect.close()

    def test_made_up_responses_of_another_time_write_to_nobody(self, connection, with_mail):
        program = compile_form(read_form(visit_document() | {"follow_ups": [MAIL]}))
        then = datetime.datetime(2026, 1, 1, tzinfo=datetime.UTC)
        receive(connection, program, with_mail, "made-up-1", ANSWERS, at=then)
        assert connection.execute("SELECT count(*) FROM run").fetchone()["count"] == 0

    def test_what_goes_wrong_waits_longer_each_time_and_is_told_at_last(self, as_mira, with_mail, database):
        hand_in(as_mira, with_mail)
        (run,) = runs_of(as_mira, with_mail)
        connect, settings = Database(database, 2), Settings(database=database, smtp_port="1")
        pauses = []
        while (waits := carrying_out.carry_out(connect.connection, settings, run["id"])) is not None:
            pauses.append(waits.seconds)
        assert pauses == sorted(pauses)
        assert len(pauses) == carrying_out.MOST_TRIES - 1
        (run,) = runs_of(as_mira, with_mail)
        assert (run["state"], run["tries"]) == ("failed", carrying_out.MOST_TRIES)
        assert "can't be reached" in run["result"]
        (row,) = as_mira.get("/api/forms").json["forms"]
        assert row["failed"] == 1
        assert open_of(as_mira, with_mail) == [(1, "failed")]
        hand_in(as_mira, with_mail)
        assert open_of(as_mira, with_mail) == [(1, "failed"), (2, "waiting")]
        as_mira.post(f"/api/forms/{with_mail}/runs/{run['id']}/again")
        assert open_of(as_mira, with_mail) == [(2, "waiting"), (1, "waiting")]
        connect.close()

    def test_more_mails_than_a_form_may_send_in_an_hour_wait(self, as_mira, with_mail, database, worker):
        for _ in range(2):
            hand_in(as_mira, with_mail)
        connect = Database(database, 2)
        settings = replace(worker, mails_per_hour="1")
        first, second = (runs_of(as_mira, with_mail, number)[0]["id"] for number in (1, 2))
        assert carrying_out.carry_out(connect.connection, settings, first) is None
        assert carrying_out.carry_out(connect.connection, settings, second).seconds > 0
        assert [(each["state"], each["tries"]) for each in runs_of(as_mira, with_mail, 2)] == [("waiting", 0)]
        assert len(list(mailbox.all_mail())) == 1
        connect.close()

    def test_of_a_response_that_was_removed_meanwhile_is_not_sent(self, as_mira, with_mail, worker, connection):
        hand_in(as_mira, with_mail)
        connection.execute("UPDATE response SET stage = 'removed'")
        connection.commit()
        work(worker)
        assert list(mailbox.all_mail()) == []

    def test_goes_out_by_the_edition_that_was_answered(self, as_mira, with_mail, worker, connection, mira):
        hand_in(as_mira, with_mail)
        later = visit_document()
        later["pages"][0]["blocks"] = [each for each in later["pages"][0]["blocks"] if each["id"] != "mail"]
        save_draft(connection, who=mira, form=with_mail, revision=1, document=later)
        publishing.publish(within(connection), who=mira, form=with_mail, revision=2)
        connection.commit()
        hand_in(as_mira, with_mail)
        work(worker)
        assert [mail.message["Subject"] for mail in mailbox.all_mail()] == ["3 people, no. 2", "3 people, no. 1"]

    def test_two_workers_with_one_job_send_one_mail(self, as_mira, with_mail, database, worker):
        hand_in(as_mira, with_mail)
        run = runs_of(as_mira, with_mail)[0]["id"]
        connect, settings = Database(database, 4), worker
        both = [threading.Thread(target=carrying_out.carry_out, args=(connect.connection, settings, run)) for _ in "ab"]
        for each in both:
            each.start()
        for each in both:
            each.join()
        assert len(list(mailbox.all_mail())) == 1
        events = as_mira.get(f"/api/forms/{with_mail}/responses/1").json["events"]
        assert [each["kind"] for each in events].count("follow-up done") == 1
        connect.close()

    def test_a_clock_that_is_set_back_sends_nothing_twice(self, as_mira, with_mail, database, worker, monkeypatch):
        hand_in(as_mira, with_mail)
        run = runs_of(as_mira, with_mail)[0]["id"]
        connect, settings = Database(database, 2), worker
        carrying_out.carry_out(connect.connection, settings, run)
        monkeypatch.setattr("time.time", lambda: 0.0)
        carrying_out.carry_out(connect.connection, settings, run)
        assert [each.times for each in mailbox.all_mail()] == [1]
        connect.close()

    def test_what_it_says_can_be_read_at_the_response(self, as_mira, with_mail):
        hand_in(as_mira, with_mail)
        (run,) = runs_of(as_mira, with_mail)
        seen = as_mira.get(f"/api/forms/{with_mail}/runs/{run['id']}").json
        assert "For First stars &amp; more" in seen["html"]
        assert (seen["text"].startswith("For First stars & more"), seen["deliveries"]) == (True, [])
        assert as_mira.get(f"/api/forms/{with_mail}/runs/999").status_code == 404

    def test_nobody_else_s_run_is_done_again(self, as_mira):
        assert as_mira.post(f"/api/forms/{uuid.uuid4()}/runs/1/again").status_code == 404


@contextmanager
def dropping_server(step):
    """A mail server that drops the line once it reads a command; yields its port."""
    listener = socket.create_server(("127.0.0.1", 0))

    def serve():
        line, _ = listener.accept()
        with line, line.makefile("rwb") as file:
            file.write(b"220 ready\r\n")
            file.flush()
            while (said := file.readline()) and not said.upper().startswith(step.encode()):
                in_mail = said[:1] not in b"EMRDQ" or b":" in said[:12].replace(b"MAIL FROM:", b"").replace(
                    b"RCPT TO:", b""
                )
                if in_mail:
                    continue
                file.write(b"354 go on\r\n" if said.startswith(b"DATA") else b"250 ok\r\n")
                file.flush()

    thread = threading.Thread(target=serve, daemon=True)
    thread.start()
    yield listener.getsockname()[1]
    listener.close()
    thread.join(5)


def content_of(**changes):
    mail = notice(to=["a@example.org"], subject="Hello", text="<p>Dear <b>Ola</b></p>")
    return mail | changes


class TestMailServer:
    def test_one_refused_recipient_stops_no_other(self, box):
        sent = mailing.send(content_of(to=["a@example.org", "refused@example.org"]), key="k1", settings=box)
        assert sent.startswith("sent to a@example.org; refused: refused@example.org (550 ")

    def test_a_refusal_for_good_is_not_tried_again_and_one_for_now_is(self, box):
        with pytest.raises(NeverError, match=r"refused@example.org \(550"):
            mailing.send(content_of(to=["refused@example.org"]), key="k2", settings=box)
        mailbox.set_mode("later")
        with pytest.raises(TryLaterError, match="451"):
            mailing.send(content_of(), key="k3", settings=box)
        assert list(mailbox.all_mail()) == []

    def test_a_line_break_in_an_address_sends_nothing(self, box):
        with pytest.raises(NeverError):
            mailing.send(content_of(to=["a@example.org\nBcc: all@example.org"]), key="k4", settings=box)
        assert list(mailbox.all_mail()) == []

    def test_takes_long_names_and_other_scripts(self, box):
        mailing.send(content_of(from_name="N" * 500, subject="Ø" * 200), key="k6", settings=box)
        (mail,) = mailbox.all_mail()
        assert mail.message["Subject"] == "Ø" * 200

    @pytest.mark.parametrize("step", ["EHLO", "MAIL", "RCPT", "DATA", "."])
    def test_a_line_that_drops_at_any_step_is_tried_later(self, step, monkeypatch):
        monkeypatch.setattr(mailing, "_SECONDS", 1.0)
        with dropping_server(step) as port, pytest.raises(TryLaterError):
            mailing.send(content_of(), key="k7", settings=Settings(smtp_port=str(port)))

    def test_one_that_is_slow_is_waited_for_only_so_long(self, box, monkeypatch):
        monkeypatch.setattr(practice, "_SLOW_SECONDS", 3.0)
        monkeypatch.setattr(mailing, "_SECONDS", 0.3)
        mailbox.set_mode("slow")
        with pytest.raises(TryLaterError, match="can't be reached"):
            mailing.send(content_of(), key="k8", settings=box)

    def test_one_that_loses_the_line_once_it_has_the_mail_gets_it_again_as_the_same(self, box):
        mailbox.set_mode("lost")
        with pytest.raises(TryLaterError):
            mailing.send(content_of(), key="k9", settings=box)
        mailbox.set_mode("take")
        mailing.send(content_of(), key="k9", settings=box)
        assert [each.times for each in mailbox.all_mail()] == [2]

    def test_the_mailbox_shows_what_came(self, box):
        mailing.send(content_of(), key="k5", settings=box)
        pages = mailbox_pages().test_client()
        listed = pages.get("/?find=hello").text
        assert "a@example.org" in listed
        assert "There is no mail" in pages.get("/?find=nothing").text
        (mail,) = mailbox.all_mail()
        assert "Dear Ola" in pages.get(f"/mail/{mail.id}").text
        assert pages.get(f"/mail/{mail.id}/html").headers["Content-Security-Policy"].startswith("default-src 'none'")
        assert pages.get("/mail/none").status_code == 404
        pages.post("/mode", data={"mode": "refuse"})
        assert mailbox.mode() == "refuse"
        pages.post("/empty")
        assert list(mailbox.all_mail()) == []


def test_a_mail_as_text_keeps_lines_lists_and_bars():
    pieces = [
        {"html": "<p>One<br>two</p><ul><li>three</li></ul>"},
        {"bars": [{"label": "Owl", "text": "60 %", "share": 0.6}]},
        {"answers": [["Who", "Ola"]]},
    ]
    assert as_text(pieces) == "One\ntwo\nthree\n\nOwl: 60 %\n\nWho: Ola\n"


class Receiver(http.server.BaseHTTPRequestHandler):
    """Another system: answers what it was told to, and keeps what it got."""

    status, got, said = 200, [], b"thanks"

    def do_POST(self):
        body = self.rfile.read(int(self.headers["Content-Length"]))
        Receiver.got.append((dict(self.headers), body))
        self.send_response(Receiver.status)
        self.end_headers()
        # Who is not heard out may hang up.
        with suppress(OSError):
            self.wfile.write(Receiver.said)

    def log_message(self, *_ignored):
        pass


@pytest.fixture
def receiver():
    Receiver.got, Receiver.status, Receiver.said = [], 200, b"thanks"
    server = http.server.HTTPServer(("127.0.0.1", 0), Receiver)
    thread = threading.Thread(target=server.serve_forever, daemon=True)
    thread.start()
    yield f"http://127.0.0.1:{server.server_port}/in?a=1"
    server.shutdown()
    server.server_close()
    thread.join(5)


class TestWebhook:
    def send(self, address, **settings):
        content = {"address": address, "body": {"number": 7}}
        return webhooks.send(content, key="k1", secret="s", settings=Settings(**settings))

    def test_is_signed_with_the_time_and_has_a_key_of_its_own(self, receiver):
        assert self.send(receiver).result == "answered 200 thanks"
        ((headers, body),) = Receiver.got
        assert (json.loads(body), headers["Idempotency-Key"]) == ({"number": 7}, "k1")
        assert headers["Codexa-Signature"] == webhooks.signature("s", headers["Codexa-Time"], body)

    @pytest.mark.parametrize(("status", "expected"), [(500, TryLaterError), (429, TryLaterError), (404, NeverError)])
    def test_an_answer_says_whether_another_try_helps(self, receiver, status, expected):
        Receiver.status = status
        with pytest.raises(expected, match=str(status)):
            self.send(receiver)

    def test_a_redirect_is_not_followed(self, receiver):
        Receiver.status = 302
        with pytest.raises(NeverError, match="302"):
            self.send(receiver)

    @pytest.mark.parametrize(
        "host", ["127.0.0.1", "localhost", "[::1]", "2130706433", "10.0.0.8", "169.254.169.254", "[::ffff:10.0.0.8]"]
    )
    def test_nothing_is_sent_into_a_private_network(self, host):
        with pytest.raises(NeverError, match="not on the open network"):
            self.send(f"http://{host}:8080/in", mode="production")

    def test_of_an_answer_of_fifty_megabytes_the_beginning_is_read(self, receiver):
        Receiver.said = b"x" * 50_000_000
        done = self.send(receiver)
        assert len(done.delivery.reply["body"]) == 64 * 1024

    def test_every_try_is_kept_with_request_and_reply(self, as_mira, connection, mira, database, receiver):
        hook = {"id": "u2", "kind": "webhook", "address": receiver}
        form = desk.import_form(within(connection), who=mira, document=visit_document() | {"follow_ups": [hook]})
        publishing.publish(within(connection), who=mira, form=form, revision=1)
        connection.commit()
        hand_in(as_mira, form)
        (run,) = runs_of(as_mira, form)
        connect = Database(database, 2)
        for Receiver.status in (503, 200):
            carrying_out.carry_out(connect.connection, Settings(database=database), run["id"])
        connect.close()
        seen = as_mira.get(f"/api/forms/{form}/runs/{run['id']}").json
        assert seen["body"]["answers"]["people"] == "3"
        assert [(each["try_"], each["reply"]["status"], each["reply"]["body"]) for each in seen["deliveries"]] == [
            (1, 503, "thanks"),
            (2, 200, "thanks"),
        ]
        assert seen["deliveries"][0]["request"]["headers"]["Idempotency-Key"].endswith(".1.u2.complete.0")

    def test_who_does_not_answer_is_tried_later(self):
        with socket.socket() as closed:
            closed.bind(("127.0.0.1", 0))
            port = closed.getsockname()[1]
        with pytest.raises(TryLaterError):
            self.send(f"http://127.0.0.1:{port}/")


def test_runs_are_kept_in_the_transaction_of_what_sets_them_off(database, connection, with_mail):
    program = compile_form(read_form(visit_document() | {"follow_ups": [MAIL]}))
    with psycopg.connect(database, row_factory=psycopg.rows.dict_row) as other:
        receive(other, program, with_mail, "broken-off", ANSWERS)
        other.rollback()
    counts = "SELECT (SELECT count(*) FROM run) + (SELECT count(*) FROM procrastinate_jobs) AS count"
    assert connection.execute(counts).fetchone()["count"] == 0
    assert carrying_out.TASK == "carry_out"


def test_a_draft_s_mail_is_shown_in_full_and_sent_to_who_asks_alone(as_mira, with_mail, worker):
    asked = {"answers": ANSWERS, "link": {}}
    reply = as_mira.post(f"/api/forms/{with_mail}/preview/follow-ups", json=asked).json
    (due,) = reply["due"]
    assert (due["follow_up"], due["text"].startswith("For First stars & more")) == ("u1", True)
    assert len(as_mira.get(f"/api/forms/{with_mail}/follow-ups/secret").json["secret"]) == 64
    tried = as_mira.post(f"/api/forms/{with_mail}/follow-ups/try", json=asked | {"follow_up": "u1"})
    assert tried.status_code == 204
    work(worker)
    (mail,) = mailbox.all_mail()
    assert (mail.recipients, mail.message["Subject"]) == (["mira@example.org"], "Try: 3 people, no. 1")
    nothing = as_mira.post(f"/api/forms/{with_mail}/follow-ups/try", json=asked | {"follow_up": "gone"})
    assert nothing.status_code == 404
