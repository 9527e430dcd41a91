// Undo and redo over drafts. Drafts share what did not change, so keeping many of them costs little.
import type { Form } from "../api/generated/wire";
import { type Action, apply } from "./draft";

const MOST_STEPS = 200;
const SAME_STEP_MS = 1200;

export interface History {
  form: Form;
  past: Form[];
  future: Form[];
  /** What was edited last and when: typing on in the same setting is one step, not one per letter. */
  last: { what: string; at: number } | null;
}

export type HistoryAction =
  | { type: "act"; action: Action; at: number }
  | { type: "undo" }
  | { type: "redo" }
  /** The saved draft was brought up to date with somebody else's; not a step of one's own. */
  | { type: "merge"; form: Form };

export const newHistory = (form: Form): History => ({ form, past: [], future: [], last: null });

const whatOf = (action: Action): string | null =>
  action.do === "edit_block"
    ? `${action.block} ${Object.keys(action.changes).join()}`
    : action.do === "edit_page"
      ? action.page
      : action.do === "edit_form"
        ? Object.keys(action.changes).join()
        : null;

export function historyReducer(history: History, event: HistoryAction): History {
  switch (event.type) {
    case "act": {
      const form = apply(history.form, event.action);
      if (form === history.form) return history;
      const what = whatOf(event.action);
      const goesOn = what !== null && history.last?.what === what && event.at - history.last.at < SAME_STEP_MS;
      return {
        form,
        past: goesOn ? history.past : [...history.past.slice(1 - MOST_STEPS), history.form],
        future: [],
        last: what === null ? null : { what, at: event.at },
      };
    }
    case "undo": {
      const form = history.past.at(-1);
      if (!form) return history;
      return { form, past: history.past.slice(0, -1), future: [history.form, ...history.future], last: null };
    }
    case "redo": {
      const [form, ...future] = history.future;
      if (!form) return history;
      return { form, past: [...history.past, history.form], future, last: null };
    }
    case "merge":
      return { form: event.form, past: [], future: [], last: null };
  }
}
