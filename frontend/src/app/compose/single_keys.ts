// Shortcuts that are one letter or sign (A, / and ?) can be turned off: who speaks to the computer would set them off
// by every word (WCAG 2.2, 2.1.4).
import { inStorage } from "../../ui/in_storage";

const NAME = "codexa-single-keys";

/** Whether they work in this browser; where it keeps nothing, they do. */
export const singleKeysWork = (storage: () => Storage = () => localStorage): boolean =>
  inStorage(storage, (place) => place.getItem(NAME)) !== "off";

export const setSingleKeys = (work: boolean, storage: () => Storage = () => localStorage): void =>
  void inStorage(storage, (place) => place.setItem(NAME, work ? "on" : "off"));

/** Whether a key is one sign by itself, and such keys are turned off. */
export const isTurnedOff = (
  event: Pick<KeyboardEvent, "key" | "ctrlKey" | "metaKey" | "altKey">,
  storage?: () => Storage,
): boolean => event.key.length === 1 && !event.ctrlKey && !event.metaKey && !event.altKey && !singleKeysWork(storage);
