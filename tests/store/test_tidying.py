"""What is cleared away, and above all what is not."""

import datetime
import uuid
from pathlib import Path

import pytest
from conftest import make_person, visit_document, within
from hypothesis import HealthCheck, given, settings
from hypothesis import strategies as some
from psycopg.types.json import Jsonb

from codexa.services import desk, history
from codexa.services.brands import picture_path, save_brand
from codexa.services.tidying import KEPT_DAYS, Tidied, tidy
from codexa.store.brands import Picture, insert_picture

NOW = datetime.datetime.now(datetime.UTC)
LONG_AGO = NOW - datetime.timedelta(days=2 * KEPT_DAYS)
SOON = datetime.timedelta(minutes=5)


def put_states(connection, form, states):
    """Replace a form's saved states; each is when, by whom, and whether it was published."""
    connection.execute("DELETE FROM saved_state WHERE form_id = %s", (form,))
    connection.execute("DELETE FROM edition WHERE form_id = %s", (form,))
    for revision, (at, person, published) in enumerate(states, 1):
        draft = Jsonb({**visit_document(), "title": f"State {revision}"})
        known = {"form": form, "revision": revision, "draft": draft, "at": at, "by": person}
        connection.execute("INSERT INTO saved_state VALUES (%(form)s, %(revision)s, %(draft)s, %(at)s, %(by)s)", known)
        if published:
            connection.execute(
                "INSERT INTO edition VALUES (%(form)s, %(revision)s, %(draft)s, %(revision)s, %(at)s, %(by)s)", known
            )


def left(connection, form):
    found = connection.execute("SELECT revision FROM saved_state WHERE form_id = %s ORDER BY 1", (form,)).fetchall()
    return [row["revision"] for row in found]


def kept_of(states):
    """Which revisions must stay, told plainly: all but those that the same person soon saved over."""
    kept = []
    for index, (at, person, published) in enumerate(states):
        following = states[index + 1] if index + 1 < len(states) else None
        soon = following is not None and following[1] == person and following[0] - at < SOON
        if not soon or published or index == 0 or at > NOW - datetime.timedelta(days=KEPT_DAYS):
            kept.append(index + 1)
    return kept


@pytest.fixture
def form(connection, mira):
    return desk.import_form(within(connection), who=mira, document=visit_document())


def test_of_saves_in_quick_succession_the_last_stays(connection, form, mira, tmp_path):
    jonas = make_person(connection, role="editor").person_id
    minutes = [(0, mira.person_id), (1, mira.person_id), (2, mira.person_id), (3, jonas), (4, mira.person_id)]
    minutes += [(5, mira.person_id), (12, mira.person_id), (13, None), (14, None)]
    put_states(connection, form, [(LONG_AGO + datetime.timedelta(minutes=at), by, False) for at, by in minutes])
    assert tidy(connection, tmp_path) == Tidied(uploads=0, states=3, pictures=0)
    assert left(connection, form) == [1, 3, 4, 6, 7, 9]
    assert tidy(connection, tmp_path).states == 0


def test_changes_are_told_over_states_that_are_gone(connection, form, mira, tmp_path):
    times = [LONG_AGO + datetime.timedelta(minutes=at) for at in (0, 1, 2, 30)]
    put_states(connection, form, [(at, mira.person_id, False) for at in times])
    tidy(connection, tmp_path)
    assert left(connection, form) == [1, 3, 4]
    changes = history.compare(within(connection), who=mira, form=form, before=2, after=3)
    assert [each.words for each in changes] == ["title was State 1, is State 3"]


@settings(max_examples=40, deadline=None, suppress_health_check=[HealthCheck.function_scoped_fixture])
@given(data=some.data())
def test_first_newest_published_and_recent_states_always_stay(connection, form, mira, tmp_path, data):
    people = some.sampled_from([mira.person_id, None])
    pauses = some.sampled_from([1, 60, 299, 301, 4000, 40 * 86_400])  # seconds
    at, states = LONG_AGO, []
    for pause, person, published in data.draw(some.lists(some.tuples(pauses, people, some.booleans()), max_size=12)):
        at += datetime.timedelta(seconds=pause)
        states.append((min(at, NOW), person, published))
    put_states(connection, form, states)
    tidy(connection, tmp_path)
    assert left(connection, form) == kept_of(states)


class TestPictures:
    @staticmethod
    def picture(connection, folder: Path, who, *, days):
        """A stored picture of that age, and what drafts call it."""
        made = Picture(id=uuid.uuid4(), name="moon.png", media_type="image/png", size=4, width=1, height=1)
        insert_picture(connection, made, team=who.team_id)
        age = datetime.timedelta(days=days)
        connection.execute("UPDATE picture SET stored_at = %s WHERE id = %s", (NOW - age, made.id))
        path = picture_path(folder, made.id)
        path.parent.mkdir(exist_ok=True)
        path.write_bytes(b"moon")
        return path, f"/pictures/{made.id}"

    def test_that_nothing_names_go_with_their_files(self, connection, mira, tmp_path):
        old, _ = self.picture(connection, tmp_path, mira, days=KEPT_DAYS + 1)
        new, _ = self.picture(connection, tmp_path, mira, days=KEPT_DAYS - 1)
        assert tidy(connection, tmp_path).pictures == 1
        assert (old.exists(), new.exists()) == (False, True)
        assert tidy(connection, tmp_path).pictures == 0

    @pytest.mark.parametrize("where", ["draft", "deleted form", "saved state", "edition", "brand"])
    def test_that_something_names_stay(self, connection, mira, form, tmp_path, where):
        path, source = self.picture(connection, tmp_path, mira, days=2 * KEPT_DAYS)
        look = {"logo": source}
        document = Jsonb({**visit_document(), "brand": look})
        if where == "brand":
            save_brand(connection, who=mira, name="Night", look=look)
        elif where == "saved state":
            connection.execute("UPDATE saved_state SET draft = %s WHERE form_id = %s", (document, form))
        elif where == "edition":
            connection.execute("INSERT INTO edition VALUES (%s, 1, %s, 1)", (form, document))
        else:
            connection.execute("UPDATE form SET draft = %s WHERE id = %s", (document, form))
            if where == "deleted form":
                desk.set_deleted(connection, who=mira, form=form, deleted=True)
        assert tidy(connection, tmp_path).pictures == 0
        assert path.exists()

    def test_that_only_another_team_names_go(self, connection, mira, tmp_path):
        path, source = self.picture(connection, tmp_path, mira, days=2 * KEPT_DAYS)
        stranger = make_person(connection, team="other")
        desk.import_form(within(connection), who=stranger, document={**visit_document(), "brand": {"logo": source}})
        assert tidy(connection, tmp_path).pictures == 1
        assert not path.exists()
