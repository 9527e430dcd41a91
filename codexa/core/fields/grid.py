"""Grid: several questions that share their options."""

from collections.abc import Callable
from typing import Annotated, Any, Literal

from annotated_types import Len

from codexa.core.definition.figures import Code
from codexa.core.definition.parts import FieldFace, Identifier, Part, Question, VisitorLabel
from codexa.core.errors import AnswerError
from codexa.core.fields.field_type import Facet, Family, FieldType, Medium, Region, Sampling
from codexa.core.fields.options import Option, OptionFace, choice_of, find_option, option_findings
from codexa.core.formula.types import Kind, Type
from codexa.core.formula.values import Choice, GridAnswers
from codexa.core.sentences import Sentence


class GridQuestionFace(Part):
    """What the browser may know of a grid's question."""

    id: Identifier
    label: VisitorLabel


MAX_QUESTIONS, MAX_COLUMNS = 200, 50


class GridQuestion(GridQuestionFace):
    """A question of a grid; formulas name its answer `grid.code`."""

    code: Code


class GridFace(FieldFace):
    """What the browser may know of a grid."""

    type: Literal["grid"] = "grid"
    questions: tuple[GridQuestionFace, ...] = ()
    options: tuple[OptionFace, ...] = ()


class GridField(GridFace, Question):
    """Questions below each other, options side by side; where it is required, every question is."""

    questions: Annotated[tuple[GridQuestion, ...], Len(max_length=MAX_QUESTIONS)] = ()
    options: Annotated[tuple[Option, ...], Len(max_length=MAX_COLUMNS)] = ()


class GridType(FieldType[GridField]):
    """Grid of questions."""

    name = "grid"
    title = "Grid of questions"
    family = Family.OPINIONS
    purpose = "Several questions with the same options, as a table."
    face = GridFace
    block = GridField
    can_be_wrong = True
    linkable = False

    def blank(self) -> GridField:
        """Two questions and three options to write over."""
        questions = tuple(
            GridQuestion(id=each, code=each, label=f"{each.capitalize()} question") for each in ("first", "second")
        )
        options = tuple(
            Option(id=code, code=code, label=code.capitalize()) for code in ("rarely", "sometimes", "often")
        )
        return super().blank().model_copy(update={"questions": questions, "options": options})

    def findings(self, block: GridField) -> list[tuple[str, str, str]]:
        """Missing questions, and what is wrong with options."""
        if not block.questions:
            return [("questions", "The grid asks nothing.", "Add a question, or delete the field.")]
        codes = [question.code.casefold() for question in block.questions]
        if len(set(codes)) < len(codes):
            return [("questions", "Two questions have the same code.", "Give each question a code of its own.")]
        return option_findings(block.options)

    def value_type(self, block: GridField) -> Type:
        """Choices, or blank."""
        return Type(kind=Kind.CHOICES, may_be_blank=True)

    def facets(self, block: GridField) -> dict[str, Facet]:
        """The answer to each question."""
        choice = Type(kind=Kind.CHOICE, may_be_blank=True)
        return {question.code.lower(): Facet(choice, _taking(question.code)) for question in block.questions}

    def parse(self, raw: Any, block: GridField, region: Region) -> GridAnswers | None:
        """Return the answers of an object of question and option, each by id or code."""
        if not isinstance(raw, dict):
            raise AnswerError("not_a_grid", "Choose one option in each row.")
        given = {str(name): answer for name, answer in raw.items() if answer is not None and answer != ""}
        answers: dict[str, Choice] = {}
        for question in block.questions:
            answer = given.pop(question.id, None) or given.pop(question.code, None)
            option = find_option(block.options, answer) if isinstance(answer, str) else None
            if answer is not None and option is None:
                raise AnswerError("not_an_option", "Choose one of the options in each row.")
            if option is not None:
                answers[question.code] = choice_of(option)
        if given:
            raise AnswerError("not_a_question", "Choose one option in each row.")
        return GridAnswers.of(answers) if answers else None

    def complete(self, value: GridAnswers, block: GridField) -> str | None:
        """Return what is missing, for a grid that must be answered."""
        missing = [question for question in block.questions if question.code not in value.by_question]
        return Sentence('Choose an option for "{label}" too.', label=missing[0].label) if missing else None

    def adopt(self, value: Any, block: GridField, region: Region) -> Any:
        """Return nothing: no formula gives a grid's answers."""
        return None

    def present(self, value: GridAnswers, block: GridField, region: Region, medium: Medium) -> str:
        """Question and answer, one after another."""
        if medium is Medium.CSV:
            return "; ".join(f"{code}={choice}" for code, choice in value.by_question.items())
        labels = {question.code: question.label for question in block.questions}
        return "; ".join(f"{labels.get(code, code)}: {choice.label}" for code, choice in value.by_question.items())

    def dump(self, value: GridAnswers) -> dict[str, str]:
        """The codes."""
        return {code: str(choice) for code, choice in value.by_question.items()}

    def load(self, stored: dict[str, str], block: GridField) -> GridAnswers:
        """The answers of these codes."""
        found = {code: find_option(block.options, answer) for code, answer in stored.items()}
        return GridAnswers.of(
            {code: choice_of(option) if option else Choice(stored[code]) for code, option in found.items()}
        )

    def enter(self, value: GridAnswers, block: GridField, region: Region) -> dict[str, str]:
        """The ids of question and option, as a browser sends them."""
        chosen = ((question, value.by_question.get(question.code)) for question in block.questions)
        found = ((question, find_option(block.options, str(choice))) for question, choice in chosen if choice)
        return {question.id: option.id for question, option in found if option}

    def answer_schema(self, block: GridField) -> dict[str, Any]:
        """An object of codes."""
        options = {"enum": [option.code for option in block.options]}
        questions = {question.code: options for question in block.questions}
        return {"type": "object", "properties": questions, "additionalProperties": False}

    def sample(self, block: GridField, how: Sampling) -> dict[str, str] | None:
        """Any option in each row."""
        if not block.options:
            return None
        return {question.id: how.random.choice(block.options).id for question in block.questions} or None


def _taking(code: str) -> Callable[[Any], Any]:
    return lambda value: value.by_question.get(code)
