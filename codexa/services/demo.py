"""The demo: the team of Alderlight Observatory, its forms, and responses made through the real `receive`."""

import datetime
import json
from pathlib import Path
from random import Random
from uuid import UUID

from codexa.core.program.accept import sample_answers
from codexa.core.program.program import Program
from codexa.services import answering, desk, publishing, signing_in
from codexa.services.answering import Given
from codexa.services.drafts import context_of
from codexa.store import people, sessions
from codexa.store.database import Connection, open_pool
from codexa.store.sessions import SignedIn

TEAM = "alderlight"
PASSWORD = "alderlight"  # noqa: S105 - the demo's, printed at its start
PEOPLE = (
    ("owner", "mira@alderlight.example.org", "Mira Okafor"),
    ("editor", "jonas@alderlight.example.org", "Jonas Lindqvist"),
    ("viewer", "aylin@alderlight.example.org", "Aylin Demir"),
)
FORMS = {  # file: how many responses
    "plan_a_visit.json": 300,
    "travelling_dome_quote.json": 48,
    "observation_log.json": 36,
    "northern_sky_quiz.json": 60,
    "night_watcher_profile.json": 72,
}
_DAYS = 40


def load_demo(database: str, *, examples: Path, sites: list[str]) -> None:
    """Load the demo data into a migrated database; does nothing where it is there already."""
    pool = open_pool(database, 2)
    with pool, pool.connection() as connection:
        if people.team_exists(connection, slug=TEAM):
            return
        who = _make_team(connection)
        for file, count in FORMS.items():
            document = json.loads((examples / file).read_text(encoding="utf-8"))
            form = desk.import_form(connection, who=who, document=document)
            publishing.set_sites(connection, who=who, form=form, sites=sites)
            edition = publishing.publish(connection, who=who, form=form, revision=1)
            connection.commit()
            _answer(connection, answering.Programs(pool).of(form, edition), form, edition, count)


def _make_team(connection: Connection) -> SignedIn:
    team = people.insert_team(connection, slug=TEAM, name="Alderlight Observatory")
    hashed = signing_in.hash_password(PASSWORD)
    for role, email, name in PEOPLE:
        people.insert_person(connection, team=team, role=role, email=email, name=name, password_hash=hashed)
    session = signing_in.sign_in(connection, email=PEOPLE[0][1], password=PASSWORD)
    digest = signing_in.digest_of(session.token)
    who = sessions.find_session(connection, digest=digest)
    assert who is not None
    sessions.delete_session(connection, digest=digest)
    return who


def _answer(connection: Connection, program: Program, form: UUID, edition: int, count: int) -> None:
    random = Random(f"{TEAM} {program.form.name}")  # noqa: S311 - the same demo every time
    now = datetime.datetime.now(datetime.UTC)
    ages = sorted((random.random() ** 1.3 * _DAYS for _ in range(count)), reverse=True)
    context = context_of(program.form)
    for index, age in enumerate(ages):
        answering.receive(
            connection,
            program,
            form=form,
            edition=edition,
            key=f"demo-{index:06}",
            given=Given(answers=sample_answers(program, random, context), link={}),
            received_at=now - datetime.timedelta(days=age),
        )
