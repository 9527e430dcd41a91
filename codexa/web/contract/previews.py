"""Trying a draft: samples, outcomes, explanations, trials."""

from datetime import date
from typing import Annotated, Any

from annotated_types import Interval
from pydantic import Field, StringConstraints

from codexa.core.definition.trials import Expected, TrialVisitor
from codexa.core.form.comparing import Change
from codexa.core.program.faces import BarFace, FormState
from codexa.core.program.trials import RuleCoverage, TrialResult
from codexa.web.contract.history import StateReply
from codexa.web.contract.message import Message
from codexa.web.contract.public import LinkValues


class ExplainRequest(Message):
    """Answers to a draft, what came with the address, and the part to explain: "OWNER" or "REPEAT/ROW/BLOCK".

    A block, page or figure is named by id or key, what holds for the whole form as "form".
    `visitor` is who fills in.
    """

    answers: dict[str, Any]
    link: LinkValues = Field({})
    visitor: TrialVisitor = TrialVisitor()
    part: Annotated[str, StringConstraints(min_length=1, max_length=200)]


class ExplanationReply(Message):
    """One fact in words, and what it hangs on."""

    owner: str
    name: str
    fact: str
    value: str
    sentence: str
    formula: str
    because: "list[ExplanationReply]"


class ExplanationsReply(Message):
    """All facts of one part, in the order in which people ask."""

    facts: list[ExplanationReply]


class SampleRequest(Message):
    """Which of the samples: the same number gives the same answers."""

    seed: Annotated[int, Interval(ge=0, le=1_000_000)]


class SampleReply(Message):
    """Plausible answers, by block id."""

    answers: dict[str, Any]


class AimReply(Message):
    """A condition, by owner and setting, and whether it holds."""

    owner: str
    setting: str
    holds: bool


class UntriedReply(Message):
    """Answers for a new trial, with what a link brings, and what comes out of them.

    `reached` is what no trial had tried and these do, `missed` what no answers were found for.
    """

    answers: dict[str, Any]
    link: dict[str, str]
    outcome: Expected
    reached: list[AimReply]
    missed: list[AimReply]


class OutcomeRequest(Message):
    """Answers to a draft, what came with the address, who fills in, and the day on which they do, or now."""

    answers: dict[str, Any]
    link: LinkValues = Field({})
    visitor: TrialVisitor = TrialVisitor()
    day: date | None = None


class TriedChargeReply(Message):
    """A later charge: on which day, and how much, as visitors read it."""

    day: date
    amount: str


class TriedPlanReply(Message):
    """What is paid now and later in `words`; the first later charges, how many follow (None for no end) and the last.

    `whole` is all that is ever paid, "" where there is no end to it.
    """

    words: str
    charges: list[TriedChargeReply]
    more: int | None
    last_day: date | None
    whole: str


class OutcomeReply(Message):
    """What comes out of answers: what a trial would look at; which conditions hold, by owner and setting.

    `values` are the texts of fields and figures by id; `charts` the bars of charts by confirmation and
    paragraph ("ID.2"); `looked_at` the numbers that
    figures of bands look at, as plain text; `to_pay` what is due at once, as visitors read it, and `plan` what
    is due later; `state` what they would see.
    """

    outcome: Expected
    holding: dict[str, dict[str, bool]]
    values: dict[str, str]
    charts: dict[str, list[BarFace]]
    looked_at: dict[str, str]
    to_pay: str
    plan: TriedPlanReply | None
    state: FormState


class TrialsReply(Message):
    """How the trials of a saved draft ended."""

    results: list[TrialResult]
    coverage: list[RuleCoverage]


class BrokenReply(Message):
    """Since when a trial fails: the newest state in which it passes, the one that broke it, and what leads there.

    `fails` says whether it does now; the states are None where it passes in none of those that were looked at.
    """

    fails: bool
    passed: StateReply | None
    failed: StateReply | None
    changes: list[Change]


class TriedResponseReply(Message):
    """A response as the draft would see it: its answers as entered, and the draft's figures as text, by id.

    Of one that is asked for by its number the fields are among them, as text too.
    """

    number: int
    answers: dict[str, Any]
    figures: dict[str, str]


class TriedResponsesReply(Message):
    """The newest responses as the draft would see them."""

    responses: list[TriedResponseReply]
