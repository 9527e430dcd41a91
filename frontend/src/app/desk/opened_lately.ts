// Which forms somebody had open lately in this browser, the last one first.
import { inStorage } from "../../ui/in_storage";

const MOST = 30;
const nameFor = (person: string): string => `codexa-opened-${person}`;

export function openedLately(person: string, storage: () => Storage = () => localStorage): readonly string[] {
  const kept = inStorage(storage, (place) => JSON.parse(place.getItem(nameFor(person)) ?? "[]") as unknown);
  return Array.isArray(kept) ? kept.filter((each) => typeof each === "string") : [];
}

export function noteOpened(person: string, form: string, storage: () => Storage = () => localStorage): void {
  const before = openedLately(person, storage).filter((each) => each !== form);
  inStorage(storage, (place) => place.setItem(nameFor(person), JSON.stringify([form, ...before].slice(0, MOST))));
}
