// Saved states as steps: saves of one person that followed each other closely are one; an edition ends a step.
import type { StateReply } from "../../api/generated/wire";

export interface Step {
  /** The latest state of the step. */
  last: StateReply;
  count: number;
  /** The revision just before the step, or null where there is none. */
  before: number | null;
}

const TOGETHER_MS = 5 * 60_000;

/** The steps of states, newest first. */
export function stepsOf(states: readonly StateReply[]): Step[] {
  const steps: { last: StateReply; first: StateReply; count: number }[] = [];
  for (const state of states) {
    const step = steps.at(-1);
    const close = step && Date.parse(step.first.saved_at) - Date.parse(state.saved_at) < TOGETHER_MS;
    if (step && close && step.first.saved_by === state.saved_by && state.edition === null) {
      step.first = state;
      step.count += 1;
    } else steps.push({ last: state, first: state, count: 1 });
  }
  return steps.map(({ last, first, count }) => ({
    last,
    count,
    before: first.revision > 1 ? first.revision - 1 : null,
  }));
}
