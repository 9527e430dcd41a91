"""Slots: which times a pattern has, which are offered, and what is taken of them."""

import datetime
from zoneinfo import ZoneInfo

import pytest
from hypothesis import given
from hypothesis import strategies as some

from codexa.core.context import Context
from codexa.core.fields.slot_times import SingleSlot, SlotSeries, SlotTimes
from codexa.core.program.accept import Accepted, accept
from codexa.core.program.evaluate import evaluate
from codexa.core.program.kept import state_of_kept
from codexa.core.program.offers import Sought, offered_at
from codexa.core.program.proof import proof
from codexa.core.program.public import form_state
from core.forms import block, program_of

BERLIN = ZoneInfo("Europe/Berlin")
NOW = datetime.datetime(2026, 12, 1, 12, tzinfo=BERLIN)  # a Tuesday
EVENINGS = {
    "id": "s1", "weekdays": [2, 4], "first": "2026-12-01", "last": "2026-12-31", "begins": "17:00", "ends": "21:00",
    "minutes": 45, "breaks": [{"begins": "18:30", "ends": "19:00"}], "places": 2,
}  # fmt: skip


def slot(key="visit", **more):
    return block("slot", key, **{"series": [EVENINGS], **more})


def context(**more):
    return Context(now=NOW, **more)


def facts(program, answers=None, now=NOW, **more):
    return form_state(evaluate(program, answers or {}, Context(now=now, **more)))["blocks"]


def times(**more):
    known = {"series": (), "singles": (), "left_out": (), "time_zone": "Europe/Berlin"} | more
    return SlotTimes(**known)


def series(**more):
    return SlotSeries.model_validate(EVENINGS | more)


def begins(found):
    return [each.code for each in found.all]


class TestTimes:
    def test_follow_the_pattern_and_go_round_its_breaks(self):
        found = begins(times(series=[series(last="2026-12-03")]))
        day = ["17:00", "17:45", "19:00", "19:45"]
        assert found == [f"2026-12-{day_}T{each}" for day_ in ("01", "03") for each in day]

    def test_go_past_midnight_and_over_its_breaks(self):
        night = series(last="2026-12-01", begins="22:00", ends="02:00", minutes=60, breaks=[
            {"begins": "00:00", "ends": "00:30"}
        ])  # fmt: skip
        assert begins(times(series=[night])) == ["2026-12-01T22:00", "2026-12-01T23:00", "2026-12-02T00:30"]

    def test_what_is_set_by_hand_stands_in_the_place_of_a_series(self):
        by_hand = [{"starts": "2026-12-01T17:00", "places": 9}, {"starts": "2026-12-01T17:45", "places": 0}]
        singles = [SingleSlot.model_validate(each) for each in by_hand]
        found = times(series=[series(last="2026-12-01")], singles=singles).all
        assert [(each.code[-5:], each.places) for each in found] == [("17:00", 9), ("19:00", 2), ("19:45", 2)]

    def test_are_those_of_the_clock_on_the_days_on_which_it_changes(self):
        spring = series(weekdays=[0], first="2026-03-29", last="2026-03-29", begins="01:00", ends="05:00", minutes=60,
                        breaks=[])  # fmt: skip
        assert begins(times(series=[spring])) == [f"2026-03-29T0{hour}:00" for hour in (1, 3, 4)]
        autumn = spring.model_copy(update={"first": datetime.date(2026, 10, 25), "last": datetime.date(2026, 10, 25)})
        found = times(series=[autumn]).all
        assert [each.code[-5:] for each in found] == ["01:00", "02:00", "03:00", "04:00"]
        # An hour is an hour, whatever the clock does in it.
        assert {each.end.timestamp() - each.start.timestamp() for each in found} == {3600}

    @given(
        weekdays=some.sets(some.integers(0, 6), max_size=7),
        days=some.integers(0, 40),
        rhythm=some.tuples(some.integers(5, 600), some.integers(0, 90)),
        span=some.tuples(some.integers(0, 1439), some.integers(0, 1439)),
        zone=some.sampled_from(("Europe/Berlin", "Australia/Lord_Howe", "Asia/Kathmandu", "UTC")),
    )
    def test_hold_what_a_series_says(self, weekdays, days, rhythm, span, zone):
        (minutes, pause), (begin, end) = rhythm, span
        first = datetime.date(2026, 3, 20)
        clock = [f"{each // 60:02}:{each % 60:02}" for each in (begin, end)]
        last = first + datetime.timedelta(days=days)
        made = series(weekdays=sorted(weekdays), first=first, last=last, minutes=minutes, every=minutes + pause,
                      begins=clock[0], ends=clock[1], breaks=[])  # fmt: skip
        found = times(series=[made], time_zone=zone).all
        assert list(found) == sorted(found)
        lasts = (end - begin) % 1440 or 1440
        a_day = 0 if minutes > lasts else (lasts - minutes) // (minutes + pause) + 1
        known = {first + datetime.timedelta(days=each) for each in range(days + 1)}
        wanted = a_day * sum(day.isoweekday() % 7 in weekdays for day in known)
        # Only the hour that a clock leaves out takes any away.
        assert len(found) <= wanted
        assert zone not in ("UTC", "Asia/Kathmandu") or len(found) == wanted
        for each in found:
            wall = each.start.hour * 60 + each.start.minute
            assert ((wall - begin) % 1440) % (minutes + pause) == 0
            assert (each.end - each.start.astimezone(datetime.UTC)) == datetime.timedelta(minutes=minutes)


class TestOffer:
    def test_days_with_what_is_free_and_what_is_left(self):
        found = facts(program_of(slot()), taken={"slot:visit:2026-12-01T17:00:": 2, "slot:visit:2026-12-01T17:45:": 1})
        first = found["visit"]["slots"]["days"][0]
        assert first["day"] == "2026-12-01"
        assert [(each["id"][-5:], each["left"]) for each in first["times"]] == [
            ("17:45", "1 left"), ("19:00", "2 left"), ("19:45", "2 left")
        ]  # fmt: skip
        assert found["visit"]["slots"]["later"] == "2026-12-17"

    def test_from_a_day_on(self):
        state = evaluate(program_of(slot()), {}, context())
        found = offered_at(state, Sought(address="visit", since=datetime.date(2026, 12, 30)))["slots"]
        assert [each["day"] for each in found["days"]] == ["2026-12-31"]
        assert "later" not in found

    def test_not_so_soon_and_not_so_late(self):
        program = program_of(slot(notice=30, ahead=6))
        assert [each["day"] for each in facts(program)["visit"]["slots"]["days"]] == ["2026-12-03"]
        # A day later, the first slots of that day are too soon.
        later = NOW + datetime.timedelta(hours=24)
        first = facts(program, now=later)["visit"]["slots"]["days"][0]
        assert [each["id"][-5:] for each in first["times"]] == ["19:00", "19:45"]

    def test_by_what_another_field_says(self):
        site = block("single_choice", "site", options=[
            {"id": "o1", "code": "hill", "label": "Hill"}, {"id": "o2", "code": "bay", "label": "Bay"}
        ])  # fmt: skip
        program = program_of(site, slot(by="site", series=[EVENINGS | {"at": ["hill"]}]))
        assert facts(program)["visit"]["slots"]["none"] == "First answer: Site"
        assert facts(program, {"site": "o2"})["visit"]["slots"]["none"] == "There is no free time."
        chosen = {"site": "o1", "visit": "2026-12-03T17:00"}
        assert isinstance(accept(program, chosen, context()), Accepted)
        refused = accept(program, chosen | {"site": "o2"}, context())
        assert {each: error.code for each, error in refused.errors.items()} == {"visit": "slot_lost"}

    @pytest.mark.parametrize(
        ("answer", "code"),
        [
            ("2026-11-26T17:00", "slot_lost"),  # over
            ("2026-12-03T17:10", "slot_lost"),  # between two
            ("2026-12-02T17:00", "slot_lost"),  # on another day
            ("2026-12-03T17:00", "slot_gone"),
            ("tomorrow", "not_a_slot"),
            (17, "not_a_slot"),
        ],
    )
    def test_what_is_not_offered_is_refused(self, answer, code):
        taken = {"slot:visit:2026-12-03T17:00:": 2}
        refused = accept(program_of(slot()), {"visit": answer}, context(taken=taken))
        assert refused.errors["visit"].code == code

    def test_what_the_response_has_already_stays(self):
        program, held = (
            program_of(slot(notice=100)),
            {"slot:visit:2026-12-03T17:00:": "2026-12-03T17:00+01:00/2026-12-03T17:45+01:00"},
        )
        assert isinstance(accept(program, {"visit": "2026-12-03T17:00"}, context(held=held)), Accepted)


class TestTaken:
    PROGRAM = program_of(
        block("number", "people"),
        block("email", "address"),
        slot(taking="people", each="address", most_each=3),
        block("calculated", "ends", formula="MINUTE(visit.end)", format="number"),
    )
    ANSWERS = {"people": "2", "visit": "2026-12-03T17:00", "address": " Io@alderlight.example"}

    def test_as_many_as_are_asked_for_and_those_of_a_person(self):
        taken = accept(self.PROGRAM, self.ANSWERS, context()).state.claims
        assert [(each.name.rpartition(":")[0], each.quantity, each.capacity) for each in taken] == [
            ("slot:visit:2026-12-03T17:00", 2, 2),
            ("slots-of:visit", 2, 3),
        ]
        again = accept(self.PROGRAM, self.ANSWERS | {"address": "io@ALDERLIGHT.example"}, context()).state.claims
        assert again == taken

    def test_more_than_is_left_is_told(self):
        refused = accept(self.PROGRAM, self.ANSWERS, context(taken={"slot:visit:2026-12-03T17:00:": 1}))
        assert refused.errors["visit"].message == "There are only 1 left."

    def test_what_was_taken_is_read_back_as_it_was(self):
        accepted = accept(self.PROGRAM, self.ANSWERS, context())
        kept = "2026-12-03T17:00+01:00/2026-12-03T17:45+01:00"
        assert accepted.answers["visit"] == kept
        later = state_of_kept(self.PROGRAM, accepted.answers, context())
        assert later.value(self.PROGRAM.places["ends"]) == 45
        assert (
            later.presented(self.PROGRAM.places["visit"])
            == "Thursday, December 3, 2026, 5:00\u202fPM\u20135:45\u202fPM"
        )
        assert later.claims == accepted.state.claims

    def test_slots_of_rows_are_taken_together(self):
        rows = block("repeat", "rows", label="Visits", kinds=[
            {"id": "kind", "key": "kind", "label": "Visit", "blocks": [slot()]}
        ])  # fmt: skip
        program = program_of(rows)
        given_ = [{"kind": "kind", "id": f"r{at}", "values": {"visit": "2026-12-03T17:00"}} for at in range(3)]
        refused = accept(program, {"rows": given_}, context())
        assert {error.code for error in refused.errors.values()} == {"only_left"}
        taken = accept(program, {"rows": given_[:2]}, context()).state.claims
        assert [(each.name, each.quantity) for each in taken] == [("slot:visit:2026-12-03T17:00:", 2)]


def test_the_proof_tells_what_a_slot_block_lacks():
    def codes(**more):
        return [(each.setting, each.message) for each in proof(program_of(slot(**more))) if each.block == "visit"]

    assert codes() == []
    assert codes(series=[])[0][1] == "There is no slot to choose."
    assert codes(series=[EVENINGS, EVENINGS | {"id": "s2"}])[0][1].startswith("Two series have a slot on 1 December")
    assert codes(most_each=2)[0][0] == "each"
    many = EVENINGS | {"weekdays": [0, 1, 2, 3, 4, 5, 6], "last": "2036-12-01", "minutes": 5}
    assert codes(series=[many])[0][1].startswith("These are more than 10,000 slots")
    assert codes(singles=[{"starts": "2026-02-30T10:00"}])[0][1] == "There is no such day: 2026-02-30T10:00."
    site = block("single_choice", "site", options=[{"id": "o1", "code": "hill", "label": "Hill"}])

    def beside(**more):
        return [each.code for each in proof(program_of(site, slot(**more))) if each.block == "visit"]

    assert beside(by="site", series=[EVENINGS | {"at": ["hill"]}]) == []
    assert beside(by="site", series=[EVENINGS | {"at": ["bay"]}]) == ["no_such_option", "no_slots_there"]
    assert beside(by="site") == ["no_place"]
    assert beside(by="gone") == ["not_a_choice"]
    assert beside(series=[EVENINGS | {"at": ["hill"]}]) == ["no_places_asked"]
    assert beside(each="gone", most_each=2) == ["no_such_field"]
