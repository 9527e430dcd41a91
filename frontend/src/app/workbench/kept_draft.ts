// A draft that is not saved yet, kept in the browser: for a crash, a closed lid, or a server that is away.
import type { Form } from "../../api/generated/wire";
import { inStorage } from "../../ui/in_storage";

export interface KeptDraft {
  /** The revision that the draft was made from. */
  revision: number;
  form: Form;
}

export interface DraftStore {
  load: () => KeptDraft | null;
  save: (kept: KeptDraft) => void;
  clear: () => void;
}

/** A place for a form's unsaved draft; where the browser has no room, nothing is kept and saving goes on as usual. */
export function draftStore(form: string, storage: () => Storage = () => localStorage): DraftStore {
  const name = `codexa-draft-${form}`;
  return {
    load: () => inStorage(storage, (place) => JSON.parse(place.getItem(name) ?? "null") as KeptDraft | null),
    save: (kept) => void inStorage(storage, (place) => place.setItem(name, JSON.stringify(kept))),
    clear: () => void inStorage(storage, (place) => place.removeItem(name)),
  };
}
