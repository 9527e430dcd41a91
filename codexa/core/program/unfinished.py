"""What was begun and left: empty pages and groups, checks without words, options that belong to nothing."""

from collections import Counter
from collections.abc import Iterator, Sequence
from typing import Any

from codexa.core.definition.figures import ProfileFigure, ScoreFigure
from codexa.core.definition.parts import Check, Group, Question, Repeat
from codexa.core.fields.options import OTHER, Optioned
from codexa.core.formula import tree
from codexa.core.program.feedback import told_questions
from codexa.core.program.findings import Finding, doubt, error
from codexa.core.program.names import name_of
from codexa.core.program.places import Place
from codexa.core.program.program import Program


def unfinished(program: Program) -> Iterator[Finding]:
    """Yield what is not wrong in itself, and surely not all that was meant."""
    form = program.form
    if any(place.answered for place in program.places.values()):
        for page in form.pages:
            if not page.blocks:
                yield doubt("empty_page", "There is nothing on this page.", "Add a block, or remove the page.", page.id)
    yield from _checks(None, form.checks)
    for place in program.places.values():
        yield from _of_block(program, place)
    if form.feedback.when != "never" and not told_questions(program):
        message = "Visitors are to be told what was right, and no score says what is."
        yield doubt("no_feedback", message, "Add a score in Figures, or turn it off.", setting="feedback.when")
    for figure in form.figures:
        if isinstance(figure, ProfileFigure):
            yield from _of_profiles(figure)
        if isinstance(figure, ScoreFigure):
            yield from _without_points(program, figure)


def _of_block(program: Program, place: Place) -> Iterator[Finding]:
    block = place.block
    if isinstance(block, Group) and not block.blocks:
        message = "There is nothing in this group."
        yield doubt("empty_group", message, "Move blocks into it, or remove it.", block.id)
    if isinstance(block, Group | Question | Repeat):
        yield from _checks(block.id, block.checks)
    if isinstance(block, Repeat):
        for kind in block.kinds:
            yield from _checks(kind.id, kind.checks)
    if isinstance(block, Question) and block.default_follows and not block.default.strip():
        message = "The field is to follow its default, and has none."
        yield doubt("follows_nothing", message, "Write a default, or turn it off.", block.id, "default_follows")
    if isinstance(block, Optioned):
        yield from _same_labels(block)
        yield from _belongs_to_nothing(program, block)


def _checks(owner: str | None, checks: Sequence[Check]) -> Iterator[Finding]:
    for at, check in enumerate(checks):
        if check.formula.strip() and not check.message.strip():
            message = "Where this check does not hold, visitors are stopped without a word."
            yield error("no_message", message, "Write what they are told.", owner, f"checks.{at}.message")


def _same_labels(block: Optioned) -> Iterator[Finding]:
    labels = Counter(option.label.strip().casefold() for option in block.options if option.label.strip())
    twice = next((option.label for option in block.options if labels[option.label.strip().casefold()] > 1), None)
    if twice is not None:
        message = f"Two options read “{twice}”; visitors can't tell them apart."
        yield doubt("same_label", message, "Let them read differently.", block.id, "options")


def _belongs_to_nothing(program: Program, block: Optioned) -> Iterator[Finding]:
    """Yield options that a filter by what they belong to can never offer."""
    owner = filtered_by(program, block)
    if owner is None:
        return
    codes = {option.code.casefold() for option in owner.options} | ({OTHER} if owner.other else set())
    for at, option in enumerate(block.options):
        if option.belongs_to.casefold() not in codes:
            to = f"“{option.belongs_to}”, which is no code there" if option.belongs_to else "nothing"
            message = f"“{option.label}” belongs to {to}: it is never offered."
            yield doubt("belongs_to_nothing", message, "Choose what it belongs to.", block.id, f"options.{at}")


def filtered_by(program: Program, block: Optioned) -> Optioned | None:
    """Return the choice that `offered` compares `option.belongs_to` with; None where it says something else."""
    formula = program.formula(block.id, "offered")
    node = None if formula is None or formula.compiled.typed is None else formula.compiled.typed.node
    if formula is None or not isinstance(node, tree.Binary) or node.operator != "=":
        return None
    sides = [each.parts for each in (node.left, node.right) if isinstance(each, tree.Name)]
    if ("option", "belongs_to") not in sides or len(sides) < 2:
        return None
    entry = formula.scope.entry(next(each for each in sides if each[0] != "option"))
    owner: Any = program.places[entry.owner].block if entry is not None and entry.owner in program.places else None
    return owner if isinstance(owner, Optioned) else None


def _without_points(program: Program, figure: ScoreFigure) -> Iterator[Finding]:
    for at, question in enumerate(figure.questions):
        points = [question.worth] if question.right else list(question.points.values())
        if question.field in program.questions and not any(points):
            message = f"No answer to {name_of(program, question.field)} gives any points."
            remedy = "Say what is right or what it is worth, or take the field out."
            yield doubt("no_points", message, remedy, figure.id, f"questions.{at}")


def _of_profiles(figure: ProfileFigure) -> Iterator[Finding]:
    given = {
        code.casefold()
        for question in figure.questions
        for points in question.points.values()
        for code, value in points.items()
        if value > 0
    }
    for at, profile in enumerate(figure.profiles):
        if figure.questions and profile.code.casefold() not in given:
            message = f"No answer speaks for {profile.label or profile.code}: it is never the result."
            yield doubt("never_wins", message, "Give it points, or remove it.", figure.id, f"profiles.{at}.label")
