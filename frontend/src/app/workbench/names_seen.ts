// What parts were called that are gone by now: whoever still means one reads what it was, not "a deleted field".
import type { Parts } from "../../model/parts";
import { inStorage } from "../../ui/in_storage";

const PLACE = "codexa-names";
const MOST = 5_000;
// Ids mean one thing in all forms, so one list serves them all.
let seen: Map<string, string> | null = null;

const read = (): Map<string, string> => {
  const kept = inStorage(
    () => sessionStorage,
    (place) => JSON.parse(place.getItem(PLACE) ?? "[]") as [string, string][],
  );
  return new Map(kept ?? []);
};

/** Remembers what the parts are called. */
export function rememberNames(parts: Parts): void {
  seen ??= read();
  for (const { id, number, title } of parts.values()) seen.set(id, `${number} ${title}`.trim());
  const newest = [...seen].slice(-MOST);
  inStorage(
    () => sessionStorage,
    (place) => place.setItem(PLACE, JSON.stringify(newest)),
  );
}

/** What a part is called, or was before it was removed. */
export function nameOf(parts: Parts, id: string, otherwise: string): string {
  const entry = parts.get(id);
  if (entry) return `${entry.number} ${entry.title}`.trim();
  const was = (seen ??= read()).get(id);
  return was ? `${was} (removed)` : otherwise;
}
