"""The funnel: its numbers are those of the visits that were told, before and after these are counted and forgotten."""

import datetime
import json
import random
import uuid
from collections import Counter
from statistics import median
from urllib.parse import urlencode

import pytest
from conftest import make_person, save_draft, visit_document, within
from hypothesis import given
from hypothesis import strategies as some

from codexa.core.responses.visits import LONGEST, bucket_of, median_seconds
from codexa.services import desk, publishing, visits
from codexa.services.editions import Editions
from codexa.services.visits import Told, Whence

NOW = datetime.datetime.now(datetime.UTC)
FIELDS = ("show", "people", "mail", "note")


def two_pages():
    document = visit_document() | {"presentation": "paged", "time_zone": "Pacific/Auckland"}
    note = {"id": "note", "type": "short_text", "key": "note", "label": "Note"}
    document["pages"] += [{"id": "p2", "title": "More", "blocks": [note]}]
    return document


@pytest.fixture
def two_editions(connection, mira, as_mira):
    """A form with two editions; the second lacks the field "note"'s page."""
    form = desk.import_form(within(connection), who=mira, document=two_pages())
    publishing.publish(within(connection), who=mira, form=form, revision=1)
    save_draft(connection, who=mira, form=form, revision=1, document=visit_document() | PAGED)
    publishing.publish(within(connection), who=mira, form=form, revision=2)
    connection.commit()
    return form


PAGED = {"presentation": "paged", "time_zone": "Pacific/Auckland"}


def made_visits(chance, count):
    """Visits as somebody would write them down who watched."""
    for _ in range(count):
        edition = chance.choice((1, 1, 2))
        pages = ("p1", "p2") if edition == 1 else ("p1",)
        reached = pages[: chance.randint(1, len(pages))]
        sent = reached == pages and chance.random() < 0.6
        yield {
            "at": NOW - datetime.timedelta(hours=chance.choice((2, 20, 30, 100, 900))),
            "edition": edition,
            "way": chance.choice(("link", "script")),
            "page": chance.choice(("", "https://www.example.org/Visit")),
            "width": chance.choice(("narrow", "wide")),
            "started": sent or chance.random() < 0.7,
            "sent": sent,
            "place": reached[-1],
            "field": chance.choice(("", *FIELDS[: 3 if edition == 2 else 4])),
            "steps": {page: chance.randint(0, 5_000) for page in reached},
            "wrong": chance.sample(FIELDS[:3], chance.randint(0, 2)),
            "seconds": chance.randint(1, 9_000),
        }


def keep(connection, form, one):
    program = Editions(within(connection)).program(form, one["edition"])
    whence = Whence(edition=one["edition"], way=one["way"], page=one["page"], link="")
    told = {name: one[name] for name in ("width", "started", "sent", "place", "field", "steps", "wrong", "seconds")}
    visits.keep(connection, program, form, Told(id=uuid.uuid4(), turn=1, **told), whence, at=one["at"])


def told(agent, form, *conditions, **query):
    query |= {"where": json.dumps(conditions)}
    reply = agent.get(f"/api/forms/{form}/responses/funnel?{urlencode(query)}")
    assert reply.status_code == 200, reply.json
    return reply.json


def is_near(seconds, times):
    """A median by classes is one of the middle times, but for six hundredths and what rounding takes."""
    between = sorted(times)[(len(times) - 1) // 2]
    return abs(seconds - between) <= 0.06 * between + 1


def counts_of(found):
    return {each["id"]: each["count"] for each in found}


def assert_is_of(funnel, watched):
    """The funnel is what these visits come to."""
    sent = [one for one in watched if one["sent"]]
    left = [one for one in watched if not one["sent"]]
    assert (funnel["all"]["seen"], funnel["all"]["sent"]) == (len(watched), len(sent))
    assert funnel["all"]["started"] == sum(one["started"] for one in watched)
    assert (funnel["seconds"] is None) == (not sent)
    assert not sent or is_near(funnel["seconds"], [one["seconds"] for one in sent])
    for step in funnel["steps"]:
        reached = [one["steps"][step["id"]] for one in watched if step["id"] in one["steps"]]
        assert step["reached"] == len(reached)
        assert step["left"] == sum(one["place"] == step["id"] for one in left)
        assert is_near(step["seconds"], reached) if reached else step["seconds"] is None
    assert counts_of(funnel["left_at"]) == dict(Counter(one["field"] for one in left if one["field"]))
    assert counts_of(funnel["wrong"]) == dict(Counter(field for one in watched for field in one["wrong"]))


@pytest.mark.parametrize("seed", range(3))
def test_the_funnel_is_of_the_visits_told_before_and_after_they_are_counted(as_mira, connection, two_editions, seed):
    watched = list(made_visits(random.Random(seed), 60))
    for one in watched:
        keep(connection, two_editions, one)
    connection.commit()
    whole = told(as_mira, two_editions)
    assert_is_of(whole, watched)
    assert [step["id"] for step in whole["steps"]] == ["p1", "p2"]
    assert [step["earlier"] for step in whole["steps"]] == [False, True]
    assert visits.count_over(within(connection)) == sum(
        one["at"] < NOW - datetime.timedelta(hours=23) for one in watched
    )
    connection.commit()
    assert told(as_mira, two_editions) == whole
    kept = connection.execute("SELECT count(*) AS count FROM visit WHERE seen_at < now() - interval '1 day'").fetchone()
    assert kept["count"] == 0
    # By what they have in common, and each group alone.
    for by, column in (("edition", "response.edition"), ("way", "response.way"), ("page", "response.page")):
        groups = told(as_mira, two_editions, by=by)["groups"]
        assert {each["value"]: each["seen"] for each in groups} == Counter(str(one[by]) for one in watched)
        for each in groups:
            how = "any_of" if by == "way" else "is"
            condition = [column, how, each["value"]] if each["value"] else [column, "is", "www.example.org"]
            if each["value"]:
                alone = told(as_mira, two_editions, condition)
                assert_is_of(alone, [one for one in watched if str(one[by]) == each["value"]])
    narrow = [one for one in watched if one["width"] == "narrow"]
    assert_is_of(told(as_mira, two_editions, width="narrow"), narrow)


@given(some.lists(some.integers(0, LONGEST), min_size=1))
def test_a_median_of_classes_is_near_the_median(times):
    assert is_near(median_seconds(Counter(map(bucket_of, times))), times)
    assert median(map(bucket_of, times)) <= bucket_of(max(times))


def by_days(agent, form, *conditions):
    return {each["value"]: each["seen"] for each in told(agent, form, *conditions)["days"]}


def test_days_are_those_of_the_form_and_what_can_not_be_asked_of_visits_is_told(as_mira, connection, two_editions):
    # Noon in Auckland on the 2nd is late on the 1st in UTC.
    at = datetime.datetime(2026, 3, 1, 23, 30, tzinfo=datetime.UTC)
    one = next(made_visits(random.Random(4), 1))
    for hours in (0, 1, 24):
        keep(connection, two_editions, one | {"at": at + datetime.timedelta(hours=hours)})
    connection.commit()
    visits.count_over(within(connection))
    connection.commit()
    assert by_days(as_mira, two_editions) == {"2026-03-02": 2, "2026-03-03": 1}
    assert by_days(as_mira, two_editions, ["response.received", "is", "2026-03-02"]) == {"2026-03-02": 2}
    assert by_days(as_mira, two_editions, ["response.received", "at_least", "2026-03-03"]) == {"2026-03-03": 1}
    people, edition = ["people", "at_least", "2"], ["response.edition", "is", "9"]
    asked = told(as_mira, two_editions, people, edition, words="dark")
    assert (asked["unheeded"], asked["words_unheeded"], asked["all"]["seen"]) == ([0], True, 0)
    # Any of the two: whoever did not send might have meant to come with many.
    either = told(as_mira, two_editions, people, edition, match="any")
    assert (either["unheeded"], either["all"]["seen"]) == ([0, 1], 3)


def test_what_a_funnel_can_not_be_asked_is_refused(as_mira, two_editions):
    wrong = {
        "by=shoe": 400,
        "width=broad": 400,
        'where=[["people","at_least","many"]]': 422,
        'where=[["gone","is","1"]]': 422,
    }
    for query, status in wrong.items():
        assert as_mira.get(f"/api/forms/{two_editions}/responses/funnel?{query}").status_code == status


def visit(agent, form, edition=1, headers=None, **more):
    body = {"visit": str(uuid.uuid4()), "turn": 1, "width": "narrow"} | more
    return agent.client.post(f"/api/public/{form}/{edition}/visit", json=body, headers=headers or {})


def test_a_browser_tells_how_far_it_has_come(as_mira, two_editions):
    known = str(uuid.uuid4())
    came = {"way": "script", "page": "https://www.example.org/visit?name=Ana#here", "seconds": None}
    steps = {"p1": 12, "p2": 3}
    assert visit(as_mira, two_editions, visit=known, came=came, place="p1", steps={"p1": 4}).status_code == 204
    last = {"turn": 3, "started": True, "sent": True, "seconds": 15}
    assert visit(as_mira, two_editions, visit=known, came=came, steps=steps, **last).status_code == 204
    # It was on its way for longer.
    assert visit(as_mira, two_editions, visit=known, turn=2, place="p2", steps={"p1": 9}).status_code == 204
    for refusing in ({"DNT": "1"}, {"Sec-GPC": "1"}):
        assert visit(as_mira, two_editions, headers=refusing).status_code == 204
    funnel = told(as_mira, two_editions, by="page")
    assert (funnel["all"]["seen"], funnel["all"]["sent"]) == (1, 1)
    assert [step["reached"] for step in funnel["steps"]] == [1, 1]
    assert [each["value"] for each in funnel["groups"]] == ["https://www.example.org/visit"]


def test_questions_are_steps_where_they_are_asked_one_by_one(as_mira, connection, mira):
    form = desk.import_form(within(connection), who=mira, document=two_pages() | {"presentation": "single"})
    publishing.publish(within(connection), who=mira, form=form, revision=1)
    connection.commit()
    reply = visit(as_mira, form, place="lookover0", field="lookover0", steps={"show": 1, "lookover0": 2})
    assert reply.status_code == 204
    steps = told(as_mira, form)["steps"]
    assert [(each["id"], each["reached"]) for each in steps] == [
        ("show", 1),
        ("people", 0),
        ("school", 0),
        ("mail", 0),
        ("note", 0),
        ("lookover0", 1),
    ]
    assert steps[1]["label"] == "People"
    assert steps[-1]["label"] != "lookover0"


def test_what_a_browser_can_not_have_seen_is_refused(as_mira, two_editions):
    wrong = [
        (1, {"place": "nowhere"}, 404),
        (2, {"steps": {"p2": 1}}, 404),
        (1, {"wrong": ["note", "secret"]}, 404),
        (7, {}, 404),
        (1, {"width": "broad"}, 400),
        (1, {"turn": 0}, 400),
        (1, {"answers": {"mail": "ana@example.org"}}, 400),
        (1, {"wrong": ["note"] * 2_001}, 400),
    ]
    for edition, more, status in wrong:
        assert visit(as_mira, two_editions, edition, **more).status_code == status


def test_another_form_s_visit_is_left_as_it_is_and_other_teams_see_nothing(
    as_mira, connection, two_editions, published
):
    known = str(uuid.uuid4())
    visit(as_mira, two_editions, visit=known, place="p1")
    visit(as_mira, published, visit=known, turn=9, sent=True)
    assert told(as_mira, two_editions)["all"] | {"label": ""} == {
        "value": "paged",
        "label": "",
        "choosable": True,
        "seen": 1,
        "started": 0,
        "sent": 0,
    }
    make_person(connection, team="elsewhere", email="other@example.org")
    connection.commit()
    as_mira.sign_in("other@example.org")
    assert as_mira.get(f"/api/forms/{two_editions}/responses/funnel").status_code == 404


def test_what_is_long_ago_is_told_by_month(as_mira, connection, two_editions):
    watched = list(made_visits(random.Random(9), 40))
    first = datetime.datetime(2026, 2, 1, 12, tzinfo=datetime.UTC)
    for at, one in enumerate(watched):
        keep(connection, two_editions, one | {"at": first + datetime.timedelta(days=at % 50)})
    for _ in range(2):
        # What was counted is told by month the next time.
        visits.count_over(within(connection))
        connection.commit()
    assert_is_of(told(as_mira, two_editions), watched)
    days = by_days(as_mira, two_editions)
    assert set(days) == {"2026-02-01", "2026-03-01"}
    # Noon of the last of February is March in Auckland.
    assert days["2026-02-01"] == sum((first + datetime.timedelta(days=at % 50)).month == 2 for at in range(40)) - 1
    visits.count_over(within(connection))
    connection.commit()
    assert by_days(as_mira, two_editions) == days


def test_of_many_pages_the_most_are_told_apart(as_mira, connection, two_editions):
    one = next(made_visits(random.Random(1), 1)) | {"at": NOW - datetime.timedelta(hours=40)}
    for at in range(120):
        keep(connection, two_editions, one | {"page": f"https://www.example.org/{at or 'visit'}"})
    for _ in range(3):
        keep(connection, two_editions, one | {"page": "https://www.example.org/visit"})
    visits.count_over(within(connection))
    connection.commit()
    pages = connection.execute("SELECT page, seen FROM visit_slice ORDER BY seen DESC").fetchall()
    assert [each["seen"] for each in pages[:2]] == [20, 4]
    assert len(pages) == 101
