"""What waits for a person: told on the desk, and by mail to whoever wants to be told."""

import pytest
from conftest import make_person, publish_visit, receive, within
from psycopg.types.json import Jsonb
from web.mail import work

from codexa.practice.mailbox import store as mailbox
from codexa.services import digests
from codexa.services.editions import Editions
from codexa.store.database import Database


@pytest.fixture
def form(connection, mira):
    form = publish_visit(connection, mira)
    program = Editions(within(connection)).program(form, 1)
    for at in range(3):
        receive(connection, program, form, f"key-of-number-{at}", {"people": "3"})
    connection.execute("UPDATE response SET stage = 'waiting', held = true WHERE number = 1")
    connection.execute("UPDATE response SET person_id = %s WHERE number >= 2", (mira.person_id,))
    statuses = Jsonb([{"code": code, "label": code.title()} for code in ("new", "done")])
    connection.execute("UPDATE form SET statuses = %s", (statuses,))
    connection.execute("UPDATE response SET status = 'done' WHERE number = 3")
    connection.commit()
    return form


def desk_row(agent):
    (row,) = agent.get("/api/forms").json["forms"]
    return row["held"], row["mine"]


def morning(worker, connection):
    """A day later, for everybody who is told."""
    connection.execute("UPDATE membership SET digest_until = digest_until - interval '25 hours'")
    connection.commit()
    for _ in range(2):
        digests.ask_for_due(Database(worker.database, 1).connection)
    work(worker)
    return [(mail.message["Subject"], mail.text) for mail in mailbox.all_mail()]


def test_the_desk_tells_each_what_waits_for_them(as_mira, connection, form):
    assert desk_row(as_mira) == (1, 1)
    other = make_person(connection, role="editor", email="editor@example.org")
    connection.commit()
    as_mira.sign_in(other.email)
    assert desk_row(as_mira) == (1, 0)


def test_who_wants_it_is_told_once_a_day_and_of_nothing_not_at_all(as_mira, connection, form, worker):
    assert as_mira.get("/api/account/digest").json == {"every": "none"}
    assert morning(worker, connection) == []
    assert as_mira.put("/api/account/digest", json={"every": "daily"}).status_code == 204
    ((subject, text),) = morning(worker, connection)
    assert subject == "2 new responses in Codexa"
    assert "2 new responses, 1 response held as suspected, 1 response in your hands" in " ".join(text.split())
    digests.ask_for_due(Database(worker.database, 1).connection)
    work(worker)
    assert len(list(mailbox.all_mail())) == 1
    connection.execute("UPDATE response SET received_at = now() - interval '9 days', stage = 'complete', held = false")
    connection.execute("UPDATE response SET status = 'done'")
    connection.commit()
    assert len(morning(worker, connection)) == 1
    as_mira.put("/api/account/digest", json={"every": "weekly"})
    receive(connection, Editions(within(connection)).program(form, 1), form, "one-more-came", {"people": "9"})
    connection.commit()
    assert len(morning(worker, connection)) == 1
    assert as_mira.put("/api/account/digest", json={"every": "hourly"}).status_code == 400
