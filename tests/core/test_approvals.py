"""Approvals, tasks and calendar entries: whom and what a response comes to, and what the proof misses."""

import datetime
from dataclasses import replace
from zoneinfo import ZoneInfo

from codexa.core.context import Context, DecisionFacts
from codexa.core.program.accept import accept, numbered
from codexa.core.program.follow_ups import as_if, due
from codexa.core.program.proof import proof
from core.forms import block, options, program_of
from core.test_slots import EVENINGS

NOW = datetime.datetime(2026, 12, 1, 12, tzinfo=ZoneInfo("Europe/Berlin"))
KAI = "11111111-1111-4111-8111-111111111111"
FIELDS = [
    block("single_choice", "site", options=options("hill", "bay")),
    block("number", "amount"),
    block("email", "keeper"),
    block("slot", "visit", series=[EVENINGS]),
]
ANSWERS = {"site": "ohill", "amount": "900", "keeper": "lea@example.org", "visit": "2026-12-03T17:00"}


def approval(*steps, **more):
    made = [{"id": f"s{at}", **each} for at, each in enumerate(steps)]
    return {"id": "u1", "kind": "approval", "subject": "{site}: {amount}", "steps": made, **more}


def form(*follow_ups):
    return program_of(*FIELDS, follow_ups=list(follow_ups))


def contents(program, answers=ANSWERS, moment="complete"):
    accepted = numbered(accept(program, answers, Context(now=NOW)), 7)
    return [each.content for each in due(accepted.state, moment)]


def codes(program, **known):
    return [each.code for each in proof(program, **known)]


class TestApproval:
    def test_asks_who_is_meant_by_the_answers_in_the_steps_that_apply(self):
        first = {"deciders": [{"group": "keepers", "when": 'site = "hill"'}, {"person": KAI, "when": 'site = "bay"'}]}
        second = {"deciders": [{"address": "keeper"}], "only_when": "amount > 1000", "name": "Board"}
        program = form(approval(first, second))
        (small,) = contents(program)
        assert small["subject"] == "Hill: 900"
        assert [each["deciders"] for each in small["steps"]] == [[{"group": "keepers"}]]
        (large,) = contents(program, ANSWERS | {"site": "obay", "amount": "1500"})
        assert [each["deciders"] for each in large["steps"]] == [[{"person": KAI}], [{"address": "lea@example.org"}]]
        assert large["steps"][1]["name"] == "Board"

    def test_is_not_asked_for_where_no_step_applies(self):
        assert contents(form(approval({"deciders": [{"person": KAI}], "only_when": "amount > 1000"}))) == []

    def test_lacks_what_the_proof_names(self):
        assert codes(form(approval())) == ["no_step"]
        assert codes(form(approval({"deciders": [{}]}))) == ["no_decider"]
        odd = {"deciders": [{"person": KAI}], "remind": 5, "stand_in": {"person": KAI}}
        assert codes(form(approval(odd))) == ["no_reminder", "no_stand_in"]
        assert codes(form(approval({"deciders": [{"address": "amount"}]}))) == ["wrong_type"]
        somebody = form(approval({"deciders": [{"person": KAI}, {"group": "gone"}]}))
        assert codes(somebody, people={}, groups=["keepers"]) == ["no_such_person", "no_such_group"]
        mail = {"id": "u2", "kind": "email", "on": "approved", "subject": "Yes", "recipients": [{"field": "keeper"}]}
        assert "no_approval" in codes(form(mail))

    def test_what_was_decided_stands_in_mails(self):
        mail = {"id": "u2", "kind": "email", "on": "approved", "recipients": [{"field": "keeper"}]}
        program = form(
            approval({"deciders": [{"person": KAI}]}), mail | {"subject": "{decision.by}: {decision.remark}"}
        )
        state = numbered(accept(program, ANSWERS, Context(now=NOW)), 7).state
        decided = DecisionFacts(state="approved", remark="Welcome", by="Kai")
        known = replace(state, context=replace(state.context, decision=decided))
        assert [each.content["subject"] for each in due(known, "approved")] == ["Kai: Welcome"]
        assert as_if(state, "denied").context.decision.state == "denied"


def test_a_task_is_for_somebody_and_says_what():
    task = {"id": "u1", "kind": "task", "words": "Heat for {amount}", "who": {"address": "keeper"}, "days": 2}
    assert contents(form(task)) == [{"words": "Heat for 900", "who": {"address": "lea@example.org"}, "days": 2}]
    assert contents(form(task), ANSWERS | {"keeper": None}) == []
    assert codes(form({"id": "u1", "kind": "task"})) == ["nobody", "no_words"]


def test_a_calendar_entry_goes_along_with_a_mail():
    mail = {"id": "u1", "kind": "email", "subject": "Soon", "recipients": [{"field": "keeper"}], "entry": "visit"}
    program = form(mail | {"entry_place": "{site.label}"})
    (content,) = contents(program)
    assert content["entry"] == {
        "field": "visit",
        "starts": "2026-12-03T17:00:00+01:00",
        "ends": "2026-12-03T17:45:00+01:00",
        "title": program.form.title,
        "place": "Hill",
        "cancelled": False,
    }
    assert contents(program, ANSWERS | {"visit": None})[0]["entry"] is None
    assert "no_day" in codes(form(mail | {"entry": "amount"}))


class TestCalendar:
    SUMMIT, BAY = "00000000-0000-4000-8000-0000000000c1", "00000000-0000-4000-8000-0000000000c2"

    def entry(self, **more):
        chosen = [{"calendar": self.SUMMIT, "when": 'site = "hill"'}, {"calendar": self.BAY, "when": "amount > 1000"}]
        known = {"id": "u1", "kind": "calendar", "entry": "visit", "entry_title": "{site}", "guest": "keeper"}
        return known | {"calendars": chosen, **more}

    def test_stands_in_the_first_calendar_that_is_meant_or_in_none(self):
        (found,) = contents(form(self.entry()))
        assert (found["calendar"], found["guest"], found["only_change"]) == (self.SUMMIT, "lea@example.org", False)
        assert (found["entry"]["title"], found["entry"]["cancelled"]) == ("Hill", False)
        assert found["entry"]["starts"].startswith("2026-12-03T17:00")
        assert contents(form(self.entry()), ANSWERS | {"site": "obay"}) == []
        (found,) = contents(form(self.entry()), ANSWERS | {"site": "obay", "amount": "2000"})
        assert found["calendar"] == self.BAY
        assert contents(form(self.entry()), {key: each for key, each in ANSWERS.items() if key != "visit"}) == []

    def test_is_changed_and_taken_out_whenever_it_was_made_and_made_at_its_moment_alone(self):
        program = form(self.entry(on="approved"))
        told = {moment: contents(program, moment=moment) for moment in ("complete", "approved", "rebooked", "denied")}
        assert [len(each) for each in told.values()] == [0, 1, 1, 1]
        assert [each[0]["only_change"] for each in told.values() if each] == [False, True, True]
        assert [each[0]["entry"]["cancelled"] for each in told.values() if each] == [False, False, True]
        assert contents(form(self.entry(active=False)), moment="rebooked") == []

    def test_lacks_what_the_proof_names(self):
        assert set(codes(form(self.entry(calendars=[], entry="", guest="gone")))) == {
            "no_calendar",
            "no_day",
            "no_field",
        }
        assert codes(form(self.entry(entry="amount"))) == ["no_day"]
