// What parts were called that are gone by now: whoever still means one reads what it was, not "a deleted field".
import { FORM as WHOLE_FORM } from "../../form/snapshot";
import { ORDER, type Parts, PAYMENT } from "../../model/parts";
import { inStorage } from "../../ui/in_storage";
import { useBench } from "./bench";

const PLACE = "codexa-names";
const MOST = 5_000;
// By form and id: imported forms may use the same ids.
let seen: Map<string, string> | null = null;

const read = (): Map<string, string> => {
  const kept = inStorage(
    () => sessionStorage,
    (place) => JSON.parse(place.getItem(PLACE) ?? "[]") as [string, string][],
  );
  return new Map(kept ?? []);
};

/** Remembers what the parts of a form are called. */
export function rememberNames(form: string, parts: Parts): void {
  seen ??= read();
  for (const { id, number, title } of parts.values()) seen.set(`${form}/${id}`, `${number} ${title}`.trim());
  const newest = [...seen].slice(-MOST);
  inStorage(
    () => sessionStorage,
    (place) => place.setItem(PLACE, JSON.stringify(newest)),
  );
}

/** Says what a part of the open form is called, or was before it was removed. */
const OF_THE_FORM: Readonly<Record<string, string>> = {
  [ORDER]: "The order",
  [PAYMENT]: "The payment",
  [WHOLE_FORM]: "The form",
};

export function useNameOf(): (id: string, otherwise: string) => string {
  const { parts, reply } = useBench();
  return (id, otherwise) => {
    const entry = parts.get(id);
    if (id in OF_THE_FORM) return OF_THE_FORM[id]!;
    if (entry) return `${entry.number} ${entry.title}`.trim();
    const was = (seen ??= read()).get(`${reply.id}/${id}`);
    return was ? `${was} (removed)` : otherwise;
  };
}
