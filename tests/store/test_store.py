"""The store: migrations, editions that nothing can change, responses that are kept once, teams that are apart."""

import subprocess
import threading
import uuid
from pathlib import Path

import psycopg
import pytest
from conftest import make_person, receive, save_draft, visit_document, within

from codexa.services import addresses, desk, publishing
from codexa.services.editions import Editions
from codexa.services.errors import ClashError, KeyReusedError, NotFoundError, NotProvenError
from codexa.store import editions, forms, responses
from codexa.store.database import Database, migrate
from codexa.store.queries import queries
from launch.machine import POSTGRES_BIN

ROOT = Path(__file__).parent.parent.parent
RESOURCES = sorted(path.stem for path in (ROOT / "codexa/store/queries").glob("*.sql"))


def test_migrating_twice_changes_nothing(database):
    migrate(database)
    migrate(database)


def test_the_committed_schema_is_what_the_migrations_make(database):
    dump = [
        POSTGRES_BIN / "pg_dump",
        "--schema-only",
        "--no-owner",
        "--no-privileges",
        "--exclude-table=*yoyo*",
        database,
    ]
    text = subprocess.run(dump, capture_output=True, text=True, check=True).stdout
    lines = [
        line for line in text.splitlines() if line and not line.startswith(("--", "SET ", "SELECT pg_catalog", "\\"))
    ]
    actual = "\n".join(lines) + "\n"
    committed = ROOT / "codexa/store/schema.sql"
    if not committed.exists() or committed.read_text() != actual:
        written = ROOT / "test-results/schema.sql"
        written.parent.mkdir(exist_ok=True)
        written.write_text(actual)
        pytest.fail("codexa/store/schema.sql is out of date: cp test-results/schema.sql codexa/store/schema.sql")


@pytest.mark.parametrize("resource", RESOURCES)
def test_every_query_has_a_line_of_purpose_and_is_used(resource):
    text = (ROOT / f"codexa/store/queries/{resource}.sql").read_text()
    code = (ROOT / f"codexa/store/{resource}.py").read_text()
    names = queries(resource)
    assert len(names) == text.count("-- name:")
    for name in names:
        after = text.split(f"-- name: {name}\n")[1]
        assert after.startswith("-- "), name
        assert f'"{name}"' in code, name


class TestDrafts:
    def test_a_save_from_an_older_revision_is_a_clash_and_keeps_the_newer(self, connection, mira):
        form = desk.import_form(within(connection), who=mira, document=visit_document())
        mine, theirs = ({**visit_document(), "title": title} for title in ("Mine", "Theirs"))
        save_draft(connection, who=mira, form=form, revision=1, document=theirs)
        with pytest.raises(ClashError):
            save_draft(connection, who=mira, form=form, revision=1, document=mine)
        found = forms.find_form(connection, team=mira.team_id, form=form)
        assert (found.draft["title"], found.revision) == ("Theirs", 2)

    def test_every_saved_state_stays(self, connection, mira):
        form = desk.import_form(within(connection), who=mira, document=visit_document())
        for revision in (1, 2):
            save_draft(connection, who=mira, form=form, revision=revision, document=visit_document())
        kept = connection.execute(
            "SELECT revision, saved_by FROM saved_state WHERE form_id = %s ORDER BY 1", (form,)
        ).fetchall()
        assert [row["revision"] for row in kept] == [1, 2, 3]
        assert {row["saved_by"] for row in kept} == {mira.person_id}

    def test_addresses_are_readable_and_never_given_twice(self, connection, mira):
        made = [desk.make_form(connection, who=mira, name="Größe & Höhe!") for _ in range(2)]
        desk.set_deleted(connection, who=mira, form=made[0], deleted=True)
        made.append(desk.make_form(connection, who=mira, name="Größe & Höhe!"))
        slugs = [
            row["slug"] for row in connection.execute("SELECT slug FROM form ORDER BY changed_at, slug").fetchall()
        ]
        assert sorted(slugs) == ["groe-hohe", "groe-hohe-2", "groe-hohe-3"]
        assert addresses.slug_of("東京") == "form"

    def test_deleting_is_undone(self, connection, mira):
        form = desk.make_form(connection, who=mira, name="Gone")
        desk.set_deleted(connection, who=mira, form=form, deleted=True)
        assert forms.list_forms(connection, team=mira.team_id, person=mira.person_id) == []
        desk.set_deleted(connection, who=mira, form=form, deleted=False)
        assert [each.name for each in forms.list_forms(connection, team=mira.team_id, person=mira.person_id)] == [
            "Gone"
        ]


class TestEditions:
    def test_nothing_changes_a_published_edition(self, connection, published):
        with pytest.raises(psycopg.errors.RaiseException):
            connection.execute("UPDATE edition SET definition = '{}' WHERE form_id = %s", (published,))

    def test_publishing_the_same_revision_again_is_the_same_edition(self, connection, mira, published):
        assert publishing.publish(within(connection), who=mira, form=published, revision=1) == 1
        save_draft(connection, who=mira, form=published, revision=1, document={**visit_document(), "title": "New"})
        assert publishing.publish(within(connection), who=mira, form=published, revision=2) == 2
        assert editions.find_definition(connection, form=published, number=1)["title"] == "Your visit"

    def test_a_draft_that_moved_on_or_has_errors_is_not_published(self, connection, mira):
        form = desk.make_form(connection, who=mira, name="Empty")
        with pytest.raises(NotProvenError, match="asks nothing"):
            publishing.publish(within(connection), who=mira, form=form, revision=1)
        save_draft(connection, who=mira, form=form, revision=1, document=visit_document())
        with pytest.raises(ClashError):
            publishing.publish(within(connection), who=mira, form=form, revision=1)


class TestResponses:
    ANSWERS = {"people": "3", "show": "o1"}

    @staticmethod
    def program_of(connection, published):
        return Editions(within(connection)).program(published, 1)

    def receive(self, connection, published, key="key-000001", answers=None, program=None):
        program = program or self.program_of(connection, published)
        return receive(connection, program, published, key, answers or self.ANSWERS)

    def test_a_key_stands_for_one_response(self, connection, published):
        first, again = self.receive(connection, published), self.receive(connection, published)
        assert (first.number, first.repeated, again.number, again.repeated) == (1, False, 1, True)
        with pytest.raises(KeyReusedError):
            self.receive(connection, published, answers={"people": "4"})

    def test_many_at_once_are_each_kept_once_under_a_number_of_their_own(self, database, connection, published):
        results = []
        # Compiled once, as in a server: forty times over would keep the connections of the pool from each other.
        program = self.program_of(connection, published)
        pool = Database(database, 8)

        def send(key):
            with pool.connection() as own:
                results.append((key, self.receive(own, published, key=key, program=program).number))

        threads = [threading.Thread(target=send, args=(f"key-{index % 10:06}",)) for index in range(40)]
        for thread in threads:
            thread.start()
        for thread in threads:
            thread.join()
        pool.close()
        assert len(results) == 40
        assert sorted(set(results)) == sorted(set(results), key=lambda pair: pair[0])
        assert sorted({number for _, number in results}) == list(range(1, 11))
        connection.rollback()
        assert connection.execute("SELECT count(*) FROM response").fetchone()["count"] == 10

    def test_values_come_back_exactly(self, connection, mira, published):
        self.receive(connection, published)
        found = responses.find_response(connection, team=mira.team_id, form=published, number=1)
        assert found.answers == {"people": "3", "show": "stars"}
        assert found.computed == {"price": "13.5"}


class TestTeamsAreApart:
    """Whatever another team's person asks for by id, there is nothing."""

    @pytest.fixture
    def stranger(self, connection):
        return make_person(connection, team="harbour")

    def test_reading(self, connection, published, stranger):
        team = stranger.team_id
        assert forms.list_forms(connection, team=team, person=uuid.uuid4()) == []
        assert forms.find_form(connection, team=team, form=published) is None
        assert editions.list_editions(connection, team=team, form=published) == []
        assert editions.numbers_of_form(connection, team=team, form=published) is None
        assert responses.page_of_responses(connection, team=team, form=published, limit=5) == []
        assert responses.find_response(connection, team=team, form=published, number=1) is None

    @pytest.mark.parametrize(
        "attempt",
        [
            lambda c, who, form: desk.duplicate_form(within(c), who=who, form=form),
            lambda c, who, form: desk.set_deleted(c, who=who, form=form, deleted=True),
            lambda c, who, form: save_draft(c, who=who, form=form, revision=1, document=visit_document()),
            lambda c, who, form: publishing.publish(within(c), who=who, form=form, revision=1),
            lambda c, who, form: publishing.set_sites(c, who=who, form=form, sites=[]),
        ],
    )
    def test_changing(self, connection, published, stranger, attempt):
        with pytest.raises(NotFoundError):
            attempt(connection, stranger, published)

    def test_an_unknown_form_is_treated_alike(self, connection, mira):
        with pytest.raises(NotFoundError):
            desk.duplicate_form(within(connection), who=mira, form=uuid.uuid4())


def test_the_address_follows_the_name_until_the_first_edition(connection, mira):
    form = desk.make_form(connection, who=mira, name="Untitled form")
    named = visit_document() | {"name": "Dome evening"}
    save_draft(connection, who=mira, form=form, revision=1, document=named)
    publishing.publish(within(connection), who=mira, form=form, revision=2)
    assert forms.find_form(connection, team=mira.team_id, form=form).slug == "dome-evening"
    save_draft(connection, who=mira, form=form, revision=2, document=named | {"name": "Renamed"})
    publishing.publish(within(connection), who=mira, form=form, revision=3)
    assert forms.find_form(connection, team=mira.team_id, form=form).slug == "dome-evening"
