"""What holds for every form, whatever it asks and however it is ruled."""

import datetime
import json
from dataclasses import replace
from random import Random

from hypothesis import given, settings
from hypothesis import strategies as some

from codexa.core.context import Context
from codexa.core.fields.field_type import Medium
from codexa.core.form.comparing import count_changes, describe_changes
from codexa.core.form.form import read_form
from codexa.core.form.renaming import rename_key
from codexa.core.formula.values import Choice, ChosenRecord, Failed
from codexa.core.look_ups import NO_TABLES
from codexa.core.program.accept import Accepted, accept, numbered
from codexa.core.program.compiling import compile_form
from codexa.core.program.evaluate import evaluate
from codexa.core.program.explain import explain_all
from codexa.core.program.kept import entered_again, entered_as_it_was, state_of_kept
from codexa.core.program.notes import notes
from codexa.core.program.order_names import ORDER
from codexa.core.program.proof import proof
from codexa.core.program.public import confirmation_face, form_face, form_state
from codexa.core.program.record_facts import Offered
from codexa.core.program.samples import sample_answers
from codexa.core.program.trials import holding, outcome_of, run_trials, state_on
from codexa.core.program.untried import answers_for_untried
from core import formulas
from core.any_form import forms
from core.records import tables

CONTEXT = replace(formulas.CONTEXT, tables=tables())
DAY = datetime.date(2026, 11, 23)
FORMS = forms().map(read_form)
SEEDS = some.integers(0, 1000)
a_few = settings(max_examples=40, deadline=None)


def sampled(program, seed):
    return sample_answers(program, Random(seed), CONTEXT)


@a_few
@given(form=FORMS)
def test_its_document_reads_back_as_the_same_form(form):
    document = json.loads(form.model_dump_json())
    assert read_form(document) == form
    assert describe_changes(form, read_form(document)) == []


@settings(max_examples=8, deadline=None)
@given(form=FORMS, seed=SEEDS)
def test_sample_answers_reach_what_they_say_they_do(form, seed):
    program = compile_form(form)
    found = answers_for_untried(program, Random(seed), DAY, tables=tables())
    again = holding(state_on(program, found.answers, found.link, DAY, tables=tables()))
    assert all(again[each.owner, each.setting] is each.holds for each in found.reached)
    assert not set(found.reached) & set(found.missed)


@a_few
@given(form=FORMS)
def test_what_is_found_in_it_has_a_place_and_a_remedy_and_every_formula_a_note(form):
    program = compile_form(form)
    beside = (*form.confirmations, *form.parts)
    parts = {*form.numbers(), *program.figures, *(each.id for each in beside), ORDER, None}
    for finding in proof(program):
        assert finding.block in parts
        assert finding.message[-1] in ".?"
        assert finding.remedy.endswith(".")
    told = {(owner, note.setting) for owner, written in notes(program).items() for note in written}
    assert {(each.owner, each.setting) for each in program.formulas} <= told


@a_few
@given(form=FORMS, seed=SEEDS)
def test_visitors_are_told_nothing_private(form, seed):
    program = compile_form(form)
    shown = form_face(program).model_dump_json() + json.dumps(
        form_state(evaluate(program, sampled(program, seed), CONTEXT))
    )
    assert "zq" not in shown


@a_few
@given(form=FORMS, seed=SEEDS)
def test_what_is_accepted_is_what_was_shown_and_can_be_entered_again(form, seed):
    program = compile_form(form)
    accepted = accept(program, sampled(program, seed), CONTEXT)
    if not isinstance(accepted, Accepted):
        return
    # Of what depends on itself nothing is decided, and such a form can't be published.
    undecided = {owner for circle in program.circles for owner in circle}
    hidden = {place.block.id for place in program.top_places if not accepted.state.shown(place)} - undecided
    assert not hidden & accepted.answers.keys()
    as_it_was = entered_as_it_was(program, accepted.answers, CONTEXT)
    for entered in (entered_again(program, accepted.answers), as_it_was):
        again = accept(program, entered, CONTEXT)
        assert isinstance(again, Accepted)
        assert (again.answers, again.computed, again.path) == (accepted.answers, accepted.computed, accepted.path)


@a_few
@given(form=FORMS, seed=SEEDS, data=some.data())
def test_what_was_left_blank_stays_blank_where_a_default_would_come(form, seed, data):
    program = compile_form(form)
    entered = sampled(program, seed)
    emptied = data.draw(some.sets(some.sampled_from(sorted(entered)))) if entered else set()
    accepted = accept(program, entered | dict.fromkeys(emptied), CONTEXT)
    if not isinstance(accepted, Accepted):
        return
    again = accept(program, entered_as_it_was(program, accepted.answers, CONTEXT), CONTEXT)
    assert isinstance(again, Accepted)
    assert (again.answers, again.computed, again.path) == (accepted.answers, accepted.computed, accepted.path)


@a_few
@given(form=FORMS, seed=SEEDS, number=some.integers(1, 10**6))
def test_what_is_accepted_can_be_worked_out_again_exactly_as_it_was(form, seed, number):
    program = compile_form(form)
    accepted = accept(program, sampled(program, seed), CONTEXT)
    if not isinstance(accepted, Accepted):
        return
    kept = numbered(accepted, number)
    told = json.loads(json.dumps(kept.state.context.as_json()))
    answers = json.loads(json.dumps(kept.answers))
    again = state_of_kept(program, answers, Context.from_json(told, number=number))
    assert again.context == replace(kept.state.context, tables=NO_TABLES)
    assert list(map(comparable, again.values)) == list(map(comparable, kept.state.values))
    assert confirmation_face(again) == confirmation_face(kept.state)
    assert again.errors() == {}


def comparable(value):
    """A value of a state as it compares: a failed fact has its cause, a choice its label too, whatever holds it."""
    if isinstance(value, Failed):
        return ("failed", value.error)
    if isinstance(value, Offered):
        return comparable(value.chosen)  # what is offered beside it is of no moment
    if isinstance(value, ChosenRecord):
        return (str(value), value.number, value.values)
    if isinstance(value, Choice):
        return (str(value), value.label, value.counts)
    return [comparable(each) for each in value] if isinstance(value, list | tuple) else value


@a_few
@given(form=FORMS, seed=SEEDS)
def test_a_trial_kept_of_any_answers_passes(form, seed):
    program = compile_form(form)
    answers = sampled(program, seed)
    expected = outcome_of(state_on(program, answers, {}, DAY)).model_dump(mode="json")
    trial = {"id": "t", "name": "Kept", "day": DAY, "answers": answers, "expected": expected}
    (result,) = run_trials(compile_form(read_form(json.loads(form.model_dump_json()) | {"trials": [trial]}))).results
    assert result.differences == ()


@a_few
@given(form=FORMS, seed=SEEDS)
def test_everything_in_it_can_be_asked_why(form, seed):
    program = compile_form(form)
    state = evaluate(program, sampled(program, seed), CONTEXT)
    for part in (*program.places, *program.figures, *(page.id for page in form.pages)):
        place = program.places.get(part)
        if place is not None and place.kind is not None:
            continue
        for explanation in explain_all(state, part):
            assert explanation.sentence.endswith(".")
            assert explanation.value


@a_few
@given(form=FORMS, seed=SEEDS, data=some.data())
def test_a_key_may_be_renamed_without_changing_what_comes_out(form, seed, data):
    keyed = [each.id for each in (*form.blocks(), *form.figures)]
    owner = data.draw(some.sampled_from(keyed))
    renamed = rename_key(form, owner, "zqrenamed")
    answers = sampled(compile_form(form), seed)
    before, after = (outcome_of(state_on(compile_form(each), answers, {}, DAY)) for each in (form, renamed))
    assert before == after
    old = next(each.key for each in (*form.blocks(), *form.figures) if each.id == owner)
    assert rename_key(renamed, owner, old) == form


@a_few
@given(before=FORMS, after=FORMS)
def test_what_changed_between_two_is_told_where_anything_did(before, after):
    changes = describe_changes(before, after)
    assert bool(changes) is (before != after)
    assert all(change.name and change.words for change in changes)
    assert bool(count_changes(before, after)) is (before != after)


@a_few
@given(form=FORMS, seed=SEEDS)
def test_every_answer_is_written_for_people_and_for_programs(form, seed):
    program = compile_form(form)
    accepted = accept(program, sampled(program, seed), CONTEXT)
    if not isinstance(accepted, Accepted):
        return
    for place in program.top_places:
        if place.field_type is None or place.block.id not in accepted.answers:
            continue
        value = place.field_type.load(accepted.answers[place.block.id], place.block)
        for medium in Medium:
            assert place.field_type.present(value, place.block, form.region, medium)
