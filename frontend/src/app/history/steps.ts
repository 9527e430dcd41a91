// Saved states as steps: what one person saved without a longer pause, as long as it is not much; a name or an edition ends
// a step.
import type { StateReply } from "../../api/generated/wire";

export interface Step {
  /** The latest state of the step. */
  last: StateReply;
  /** All of it, newest first. */
  states: readonly StateReply[];
  /** The revision just before the step, or null where there is none. */
  before: number | null;
}

const PAUSE_MS = 3 * 60_000;
const MOST_STATES = 12;
const MOST_CHANGES = 20;

/** The steps of states, newest first. */
export function stepsOf(states: readonly StateReply[]): Step[] {
  const steps: StateReply[][] = [];
  for (const state of states) {
    const step = steps.at(-1);
    if (step && goesOn(step, state)) step.push(state);
    else steps.push([state]);
  }
  return steps.map((each) => {
    const first = each.at(-1)!;
    return { last: each[0]!, states: each, before: first.revision > 1 ? first.revision - 1 : null };
  });
}

function goesOn(step: readonly StateReply[], older: StateReply): boolean {
  const newer = step.at(-1)!;
  const changes = step.reduce((sum, each) => sum + each.changes, older.changes);
  return (
    newer.saved_by === older.saved_by &&
    older.edition === null &&
    older.name === "" &&
    Date.parse(newer.saved_at) - Date.parse(older.saved_at) < PAUSE_MS &&
    step.length < MOST_STATES &&
    changes <= MOST_CHANGES
  );
}

/** The newest state from before today, or null where there is none among these. */
export function beforeToday(states: readonly StateReply[], now = new Date()): number | null {
  const midnight = new Date(now).setHours(0, 0, 0, 0);
  return states.find((each) => Date.parse(each.saved_at) < midnight)?.revision ?? null;
}
