"""Parts that only a group changes: what is closed stays as it was, is not asked for, and may be out of sight."""

import json
from dataclasses import replace
from random import Random

import pytest
from hypothesis import given, settings
from hypothesis import strategies as some

from codexa.core.context import EVERYBODY, FILLING_IN, HandedOnFacts
from codexa.core.form.form import read_form
from codexa.core.program.accept import Accepted, Refused, accept, kept_of, numbered
from codexa.core.program.compiling import compile_form
from codexa.core.program.evaluate import evaluate
from codexa.core.program.follow_ups import due
from codexa.core.program.handing_on import part_after, parts_before
from codexa.core.program.kept import entered_as_it_was, state_of_kept
from codexa.core.program.proof import proof
from codexa.core.program.public import form_face, form_state
from codexa.core.program.response_document import response_document
from codexa.core.program.samples import sample_answers
from core.any_form import forms
from core.forms import block, program_of
from core.formulas import CONTEXT
from core.records import tables

REVIEW = {"id": "review", "name": "Review", "groups": ["reviewers"]}
MONEY = {"id": "money", "name": "Treasurer", "groups": ["treasurers"], "only_when": "asked > 100", "seen": False}
KNOWN = replace(CONTEXT, tables=tables())


def grant(**settings):
    lines = {
        "type": "repeat", "id": "lines", "key": "lines", "label": "Lines",
        "kinds": [{"id": "line", "key": "line", "label": "Line", "blocks": [
            block("short_text", "what"), block("number", "granted", part="review")]}],
    }  # fmt: skip
    private = {"type": "group", "id": "group", "key": "group", "part": "money", "blocks": [block("number", "payout")]}
    return program_of(
        block("number", "asked", required="TRUE"),
        block("short_text", "verdict", part="review", required="TRUE"),
        block("calculated", "half", formula="asked / 2"),
        lines,
        private,
        parts=[REVIEW, MONEY],
        **settings,
    )


def at(part, kept, **more):
    return replace(CONTEXT, at_part=part, others=entered_as_it_was(grant(), kept, CONTEXT), **more)


def first(answers):
    accepted = accept(grant(), answers, CONTEXT)
    assert isinstance(accepted, Accepted)
    return accepted


def row(row_id, **values):
    return {"kind": "line", "id": row_id, "values": values}


def test_what_an_applicant_sends_for_a_reviewers_field_is_never_kept_and_never_missed():
    accepted = first(
        {"asked": "300", "verdict": "yes!", "lines": [row("r1", what="Lens", granted="99")], "payout": "5"}
    )
    assert accepted.answers["asked"] == "300"
    assert "verdict" not in accepted.answers
    assert "payout" not in accepted.answers
    assert accepted.answers["lines"][0]["values"] == {"what": "Lens"}


def test_a_reviewer_changes_their_part_alone_in_rows_too_and_must_fill_it_in():
    kept = first({"asked": "300", "lines": [row("r1", what="Lens")]}).answers
    forged = {"asked": "999999", "lines": [row("r1", what="A yacht", granted="20"), row("r2", what="More")]}
    refused = accept(grant(), forged, at("review", kept))
    assert isinstance(refused, Refused)
    assert set(refused.errors) == {"verdict"}
    done = accept(grant(), forged | {"verdict": "fine"}, at("review", kept))
    assert done.answers["asked"] == "300"
    assert done.answers["verdict"] == "fine"
    assert done.answers["lines"] == [row("r1", what="Lens", granted="20")]
    assert done.computed["half"] == "150"
    # Back with the applicant, what the reviewer said stays; with the team everything is open.
    again = accept(grant(), {"asked": "400", "verdict": "mine", "lines": [row("r1", what="Tube", granted="1")]},
                   at(FILLING_IN, done.answers))  # fmt: skip
    assert (again.answers["asked"], again.answers["verdict"]) == ("400", "fine")
    assert again.answers["lines"] == [row("r1", what="Tube", granted="20")]
    assert accept(grant(), {"asked": "5", "verdict": "x"}, at(EVERYBODY, done.answers)).answers["verdict"] == "x"


def test_who_fills_in_and_is_in_the_group_may_answer_both_but_need_not():
    context = replace(CONTEXT, groups=frozenset({"Reviewers"}))
    assert accept(grant(), {"asked": "1", "verdict": "ok"}, context).answers["verdict"] == "ok"
    assert isinstance(accept(grant(), {"asked": "1"}, context), Refused)


def test_an_unseen_part_is_in_no_page_state_or_document_of_who_fills_in():
    kept = first({"asked": "300"}).answers
    given_out = accept(grant(), {"payout": "250"}, at("money", kept)).answers
    state = evaluate(grant(), {}, CONTEXT)
    assert "payout" not in json.dumps([form_face(grant(), state.unseen).model_dump(mode="json"), form_state(state)])
    assert "verdict" in form_state(state)["blocks"]
    assert "Payout" in json.dumps(form_face(grant(), evaluate(grant(), {}, at("review", kept)).unseen).model_dump())
    own = numbered(accept(grant(), {"asked": "300"}, at(FILLING_IN, given_out)), 7).state
    assert "250" not in json.dumps(response_document(own))
    team = state_of_kept(grant(), given_out, replace(CONTEXT, number=7, at_part=EVERYBODY))
    assert "250" in json.dumps(response_document(team))


@pytest.mark.parametrize(("asked", "way"), [("50", ["review", None]), ("300", ["review", "money", None])])
def test_a_response_goes_to_each_part_that_applies_and_back_to_earlier_ones(asked, way):
    state = first({"asked": asked}).state
    gone, here = [], FILLING_IN
    while here is not None:
        to = part_after(state, here)
        gone.append(to and to.id)
        here = to and to.id
    assert gone == way
    assert [each.id for each in parts_before(state, "money")] == ["review"]


def test_follow_ups_know_where_it_went_and_mails_to_visitors_tell_no_unseen_part():
    mail = {"kind": "email", "subject": "{part.name}: {part.remark} ({part.by})", "all_answers": True}
    told = {"id": "u1", "on": "handed back", "recipients": [{"address": "lab@example.org"}], **mail}
    program = grant(follow_ups=[told, told | {"id": "u2", "recipients": [{"field": "mail"}]}])
    kept = accept(grant(), {"asked": "300"}, CONTEXT).answers | {"payout": "250"}
    facts = HandedOnFacts(name="Review", remark="Which lens?", by="Kai")
    state = state_of_kept(program, kept, replace(CONTEXT, number=7, handed_on=facts))
    (team, *_) = due(state, "handed back")
    assert team.content["subject"] == "Review: Which lens? (Kai)"
    assert "250" in json.dumps(team.content)


def test_the_proof_names_parts_that_wait_for_nobody_or_hold_nothing():
    program = program_of(block("number", "asked"), parts=[{"id": "p", "name": "Empty"}, REVIEW])
    assert {(each.code, each.block) for each in proof(program, groups=["other"])} >= {
        ("no_group", "p"), ("empty_part", "p"), ("no_such_group", "review"), ("empty_part", "review")}  # fmt: skip


def test_what_belongs_to_a_part_that_is_gone_is_closed_to_all_and_said_so():
    program = program_of(block("number", "asked", part="gone"), block("number", "more"))
    assert next(each.code for each in proof(program)) == "no_such_part"
    assert accept(program, {"asked": "1", "more": "2"}, CONTEXT).answers == {"more": "2"}


@settings(max_examples=60, deadline=None)
@given(form=forms().map(read_form), seeds=some.tuples(some.integers(0, 999), some.integers(0, 999)))
def test_whatever_is_sent_only_what_is_open_changes(form, seeds):
    program = compile_form(form)
    filled, forged = (sample_answers(program, Random(seed), KNOWN) for seed in seeds)
    before = state_of_kept(program, accepted_anyway(program, filled), KNOWN)
    others = entered_as_it_was(program, accepted_anyway(program, filled), KNOWN)
    after = evaluate(program, forged, replace(KNOWN, at_part="review", others=others))
    for place in program.top_places:
        if place.answered and place.block.part == "" and before.shown(place) and after.shown(place):
            if place.block.id in before.dropped | after.dropped | set(after.misread):
                continue
            assert after.locked(place)
            assert not after.required(place)
            assert after.value(place) == before.value(place), place.block.id


def accepted_anyway(program, answers):
    """What would be kept of answers, whatever is wrong with them."""
    return kept_of(evaluate(program, answers, KNOWN))
