// Undo and redo over drafts. Drafts share what did not change, so keeping many of them costs little.
import type { Form } from "../api/generated/wire";
import { type Action, apply } from "./draft";
import { type Clash, merge, type Prefer } from "./merge";
import { same } from "./same";

const MOST_STEPS = 200;
const SAME_STEP_MS = 1200;
/** How many steps back stay possible once somebody else's changes came in. */
const STEPS_KEPT = 30;

/** Where a step leads to; `left` is what it would have taken from somebody else, who changed it since: that stays. */
export interface Step {
  form: Form;
  left: readonly Clash[];
}

export interface History {
  form: Form;
  past: readonly Step[];
  future: readonly Step[];
  /** What was edited last and when: typing on in the same setting is one step, not one per letter. */
  last: { what: string; at: number } | null;
}

export type HistoryAction =
  | { type: "act"; action: Action; at: number }
  | { type: "undo" }
  | { type: "redo" }
  /** Somebody else's changes came in: no step of one's own, and not taken back by undoing one's own steps. */
  | { type: "merge"; base: Form; theirs: Form; prefer: Prefer };

export const newHistory = (form: Form, past: readonly Step[] = []): History => ({ form, past, future: [], last: null });

const to = (form: Form): Step => ({ form, left: [] });

const whatOf = (action: Action): string | null =>
  action.do === "edit"
    ? `${action.parts.join()} ${settingsOf(action.changes)}`
    : action.do === "edit_form"
      ? settingsOf(action.changes)
      : null;

/** What is changed; that a list grew or shrank is another change than what is typed in it. */
const settingsOf = (changes: object): string =>
  Object.entries(changes)
    .map(([name, value]) => (Array.isArray(value) ? `${name} ${value.length}` : name))
    .join();

export function historyReducer(history: History, event: HistoryAction): History {
  switch (event.type) {
    case "act": {
      const form = apply(history.form, event.action);
      if (form === history.form) return history;
      const what = whatOf(event.action);
      const goesOn = what !== null && history.last?.what === what && event.at - history.last.at < SAME_STEP_MS;
      return {
        form,
        past: goesOn ? history.past : [...history.past.slice(1 - MOST_STEPS), to(history.form)],
        future: [],
        last: what === null ? null : { what, at: event.at },
      };
    }
    case "undo": {
      const step = history.past.at(-1);
      if (!step) return history;
      const future = [to(history.form), ...history.future];
      return { form: step.form, past: history.past.slice(0, -1), future, last: null };
    }
    case "redo": {
      const [step, ...future] = history.future;
      if (!step) return history;
      return { form: step.form, past: [...history.past, to(history.form)], future, last: null };
    }
    case "merge": {
      const { base, theirs, prefer } = event;
      // A step of one's own never takes back what somebody else did.
      const withTheirs = ({ form, left }: Step): Step => {
        const found = merge(base, form, theirs, "theirs");
        return { form: found.form, left: [...left, ...found.clashes] };
      };
      const merged = merge(base, history.form, theirs, prefer).form;
      return {
        // Where nothing of one's own is left to save, the draft is theirs, the very same.
        form: same(merged, theirs) ? theirs : merged,
        past: history.past.slice(-STEPS_KEPT).map(withTheirs),
        future: history.future.slice(0, STEPS_KEPT).map(withTheirs),
        last: null,
      };
    }
  }
}
