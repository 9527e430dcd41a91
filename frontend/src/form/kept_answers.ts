// Unfinished answers, kept on the visitor's own device until the form is handed in or a week has passed.
import { inStorage } from "../ui/in_storage";
import type { Answers } from "./transport";

const WEEK_MS = 7 * 24 * 3_600_000;

export interface Kept {
  answers: Answers;
  page: string | null;
  seed: number;
  at: number;
}

export interface AnswerStore {
  load: () => Kept | null;
  save: (kept: Omit<Kept, "at">) => void;
  clear: () => void;
}

/** A store in the browser; where it has none (a private window, a strict frame), nothing is kept and nothing fails. */
export function answerStore(form: string, storage: () => Storage = () => localStorage): AnswerStore {
  const name = `codexa-answers-${form}`;
  return {
    load: () =>
      inStorage(storage, (place) => {
        const kept = JSON.parse(place.getItem(name) ?? "null") as Kept | null;
        return kept && Date.now() - kept.at < WEEK_MS ? kept : null;
      }),
    save: (kept) =>
      void inStorage(storage, (place) => place.setItem(name, JSON.stringify({ ...kept, at: Date.now() }))),
    clear: () => void inStorage(storage, (place) => place.removeItem(name)),
  };
}
