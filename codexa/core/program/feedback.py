"""Feedback in a quiz: what of an answer was right, told once it is due and never before."""

from collections.abc import Collection, Iterator
from typing import Any

from codexa.core.definition.figures import ScoredQuestion, ScoreFigure
from codexa.core.definition.parts import Field, blocks_within
from codexa.core.errors import AnswerError
from codexa.core.fields.field_type import Medium
from codexa.core.fields.options import Optioned
from codexa.core.formula import convert
from codexa.core.formula.values import Failed, FormulaFailure
from codexa.core.program.evaluate import State
from codexa.core.program.faces import FeedbackFace
from codexa.core.program.figure_kinds import most_picks
from codexa.core.program.figures import best_codes, codes_of, marker
from codexa.core.program.places import Place
from codexa.core.program.program import Program


def told_questions(program: Program) -> dict[str, tuple[ScoreFigure, int]]:
    """Return the fields of which visitors are told whether they were right, with the score and place in it."""
    if program.form.feedback.when == "never":
        return {}
    found: dict[str, tuple[ScoreFigure, int]] = {}
    for figure in program.form.figures:
        for at, question in enumerate(figure.questions if isinstance(figure, ScoreFigure) else ()):
            if question.field in program.questions and _tells_right(program, question):
                assert isinstance(figure, ScoreFigure)
                found.setdefault(question.field, (figure, at))
    return found


def _tells_right(program: Program, question: ScoredQuestion) -> bool:
    return marker(question, most_picks(_field(program, question)))(None).greatest > 0


def _field(program: Program, question: ScoredQuestion) -> Field:
    field = program.places[question.field].block
    assert isinstance(field, Field)
    return field


def feedback_due(state: State, checked: Collection[str]) -> dict[str, FeedbackFace]:
    """Return by id what is told of the answers that the visitor is done with, `checked` by block id.

    Nothing of what is blank or wrong in itself; where feedback waits for the page, nothing while the page can't be
    left.
    """
    told = told_questions(state.program) if checked else {}
    waits = state.program.form.feedback.when == "page"
    held = set(_on_pages_not_done(state)) if waits and told else set()
    return {
        block_id: _feedback(state, state.program.places[block_id], *told[block_id])
        for block_id in checked
        if block_id in told and block_id not in held and _is_answered(state, state.program.places[block_id])
    }


def _on_pages_not_done(state: State) -> Iterator[str]:
    wrong = {address.split("/")[0] for address in state.errors()}
    for page in state.program.form.pages:
        blocks = [block.id for block, _ in blocks_within(page.blocks)]
        if not wrong.isdisjoint(blocks):
            yield from blocks


def _is_answered(state: State, place: Place) -> bool:
    value = state.value(place)
    return value is not None and not isinstance(value, Failed) and state.error(place) is None


def _feedback(state: State, place: Place, figure: ScoreFigure, at: int) -> FeedbackFace:
    question, say = figure.questions[at], state.program.form.say
    answer = state.value(place)
    field = _field(state.program, question)
    marked = marker(question, most_picks(field))(answer)
    own = "when_right" if marked.outcome == "right" else "when_wrong"
    usual = {"right": "answerRight", "partly": "answerPartly", "wrong": "answerWrong"}[marked.outcome]
    written = getattr(question, own)
    words = state.text(figure.id, f"questions.{at}.{own}", written) if written.strip() else say(usual)
    tells_right = marked.outcome != "right" and state.program.form.feedback.shows_right
    right = _right_answer(state, field, question) if tells_right else ""
    return FeedbackFace(
        outcome=marked.outcome,
        words=words,
        notes=list(_said_of(state, figure, at, answer)),
        right=say("rightAnswer").replace("{answer}", right) if right else "",
    )


def _said_of(state: State, figure: ScoreFigure, at: int, answer: Any) -> Iterator[str]:
    given = {code.casefold() for code in codes_of(answer)}
    for index, option in enumerate(figure.questions[at].says):
        if option.code.casefold() in given and option.text.strip():
            yield state.text(figure.id, f"questions.{at}.says.{index}.text", option.text)


def _right_answer(state: State, field: Field, question: ScoredQuestion) -> str:
    right = best_codes(question, most_picks(field))
    if isinstance(field, Optioned):
        folded = {code.casefold() for code in right}
        return ", ".join(option.label for option in field.options if option.code.casefold() in folded)
    place = state.program.places[field.id]
    assert place.field_type is not None
    if not right:
        return ""
    try:
        value = place.field_type.adopt(_typed(right[0]), field, state.program.region)
        return place.field_type.present(value, field, state.program.region, Medium.PAGE)
    except (AnswerError, FormulaFailure):
        return right[0]  # the proof tells that the field can't hold it


def _typed(text: str) -> Any:
    yes_no = {"true": True, "false": False}
    number = convert.plain_number(text.strip())
    return yes_no.get(text.casefold(), text if number is None else number)
