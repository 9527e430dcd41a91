// What the browser keeps of somebody's work on a draft: what is not saved yet, for a crash, a closed lid, or a server that
// is away; and the steps that can be undone.
import type { Form } from "../../api/generated/wire";
import type { Delta } from "../../model/kept_steps";
import { inStorage } from "../../ui/in_storage";

export interface KeptDraft {
  /** The revision that the draft was made from. */
  revision: number;
  form: Form;
}

export interface KeptSteps {
  /** The revision from which they lead back. */
  revision: number;
  deltas: readonly Delta[];
}

export interface DraftStore {
  load: () => KeptDraft | null;
  save: (kept: KeptDraft) => void;
  clear: () => void;
  loadSteps: () => KeptSteps | null;
  saveSteps: (kept: KeptSteps) => void;
}

/** A place for a person's work on a form; where the browser has no room, nothing is kept and saving goes on as usual. */
export function draftStore(form: string, person: string, storage: () => Storage = () => localStorage): DraftStore {
  const [draft, steps] = [`codexa-draft-${form}-${person}`, `codexa-steps-${form}-${person}`];
  const load = (name: string) => inStorage(storage, (place) => JSON.parse(place.getItem(name) ?? "null") as unknown);
  const save = (name: string, kept: object) =>
    void inStorage(storage, (place) => place.setItem(name, JSON.stringify(kept)));
  return {
    load: () => load(draft) as KeptDraft | null,
    save: (kept) => save(draft, kept),
    clear: () => void inStorage(storage, (place) => place.removeItem(draft)),
    loadSteps: () => load(steps) as KeptSteps | null,
    saveSteps: (kept) => save(steps, kept),
  };
}
