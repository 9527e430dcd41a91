"""What broke a trial: of all that changed in a form, what leads to what came out otherwise."""

from codexa.core.definition.trials import Trial
from codexa.core.form.comparing import Change, changes_of
from codexa.core.program.leading import leading_to
from codexa.core.program.order_names import ORDER, PAYMENT
from codexa.core.program.program import Program
from codexa.core.program.trials import TrialResult

# What is set for the whole form and may change what comes out of answers.
_OF_THE_FORM = ("locale", "currency", "time_zone", "links", "tables", "checks")


def changes_behind(before: Program, after: Program, trial: Trial, result: TrialResult) -> list[Change]:
    """Return what changed between two states of a form that the differences of a trial can come from, in words.

    `result` is the trial's in the second state. What is set for the form as a whole counts as leading anywhere.
    """
    roots = _roots(after, trial, result)
    parts = {*_OF_THE_FORM, *leading_to(before, (), roots).parts, *leading_to(after, (), roots).parts}
    parts |= {setting for owner, setting in ((ORDER, "order"), (PAYMENT, "payment")) if owner in parts}
    return changes_of(before.form, after.form, parts)


def _roots(program: Program, trial: Trial, result: TrialResult) -> set[str]:
    """Return the ids of what came out otherwise; of the path, the confirmation and follow-ups, of all that decide."""
    form, wanted, came = program.form, trial.expected, result.outcome
    roots = {each.part for each in result.differences if each.part is not None}
    if wanted.path is not None and wanted.path != came.path:
        roots |= {page.id for page in form.pages}
    if wanted.confirmation is not None and wanted.confirmation != came.confirmation:
        roots |= {each.id for each in form.confirmations}
    if wanted.follow_ups is not None and wanted.follow_ups != came.follow_ups:
        expected, done = wanted.follow_ups, came.follow_ups or {}
        roots |= {each for each in expected.keys() | done.keys() if expected.get(each) != done.get(each)}
    return roots
