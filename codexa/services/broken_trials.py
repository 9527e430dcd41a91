"""Since when a trial fails: the saved state that broke it, who saved that, and what in it leads to the difference."""

from collections.abc import Mapping, Sequence
from dataclasses import dataclass
from uuid import UUID

from codexa.core.definition.trials import Trial
from codexa.core.form.comparing import Change
from codexa.core.look_ups import Tables
from codexa.core.program.broken_trials import changes_behind
from codexa.core.program.compiling import compile_form
from codexa.core.program.program import Program
from codexa.core.program.trials import TrialResult, run_trials
from codexa.services.errors import NotFoundError
from codexa.services.history import find_state, list_states
from codexa.services.people import written_to
from codexa.services.tables.looking_up import tables_for
from codexa.store.database import Connect
from codexa.store.history import SavedState
from codexa.store.sessions import SignedIn

_NEWEST = 2**31 - 1  # above every revision


@dataclass(frozen=True, kw_only=True, slots=True)
class Broken:
    """The newest states of which the trial passes in one and fails in the next, and the changes that lead there.

    None in place of the states where it passes in none that was looked at: the newest two hundred are.
    """

    passed: SavedState | None
    failed: SavedState | None
    changes: list[Change]


def what_broke(connect: Connect, *, who: SignedIn, form: UUID, trial: str) -> Broken | None:
    """Find out what broke a trial, as it is in the draft, by running it in earlier states; None where it passes.

    States are tried in growing steps, then halved between one that passes and one that fails: at most sixteen.
    Raises NotFoundError.
    """
    with connect() as connection:
        states = list_states(connection, who=who, form=form, before=_NEWEST)
    newest = find_state(connect, who=who, form=form, revision=states[0].revision)
    wanted = next((each for each in newest.trials if each.id == trial), None)
    if wanted is None:
        raise NotFoundError("This trial was removed.")
    people = written_to(connect, newest, form)
    with tables_for(connect, form) as tables:
        search = _Search(connect=connect, who=who, form=form, trial=wanted, people=people, tables=tables)
        return search.among(states)


@dataclass(frozen=True, kw_only=True, slots=True)
class _Search:
    """Runs one trial in saved states of a form."""

    connect: Connect
    who: SignedIn
    form: UUID
    trial: Trial
    people: Mapping[str, str]
    tables: Tables

    def among(self, states: Sequence[SavedState]) -> Broken | None:
        """Return what broke the trial in such states, newest first."""
        failing, step = 0, 1
        broken = self._run(states[0])
        if broken[1].passed:
            return None
        while (passing := min(failing + step, len(states) - 1)) > failing:
            sound = self._run(states[passing])
            if sound[1].passed:
                break
            failing, broken, step = passing, sound, step * 2
        else:
            return Broken(passed=None, failed=None, changes=[])
        while passing - failing > 1:
            middle = (passing + failing) // 2
            tried = self._run(states[middle])
            if tried[1].passed:
                passing, sound = middle, tried
            else:
                failing, broken = middle, tried
        changes = changes_behind(sound[0], broken[0], self.trial, broken[1])
        return Broken(passed=states[passing], failed=states[failing], changes=changes)

    def _run(self, state: SavedState) -> tuple[Program, TrialResult]:
        form = find_state(self.connect, who=self.who, form=self.form, revision=state.revision)
        program = compile_form(form.model_copy(update={"trials": (self.trial,)}))
        (result,) = run_trials(program, self.people, self.tables).results
        return program, result
