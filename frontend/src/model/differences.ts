// What differs between two states of a form: which parts came, went or moved, and which settings say something else.
import type { Form } from "../api/generated/wire";
import { counted, oneLine } from "../text/words";
import { alone, FORM, type Parts, partsOf } from "./parts";
import { same } from "./same";
import { movedIn } from "./three_way";

/** `owner` is a part by its id, or the form (""); `setting` is of what was changed. */
export type Difference =
  | { owner: string; what: "changed"; setting: string; after: unknown }
  | { owner: string; what: "added" | "removed" | "moved" };

/** What makes the one state of the other, in the order of the outline. */
export function differences(before: Form, after: Form): Difference[] {
  if (before === after) return [];
  const [old, now] = [partsOf(before), partsOf(after)];
  const moved = movedBetween(old, now);
  const found: Difference[] = changed(FORM, alone(before), alone(after));
  for (const { id, part } of now.values()) {
    const was = old.get(id);
    if (!was) found.push({ owner: id, what: "added" });
    else {
      if (moved.has(id)) found.push({ owner: id, what: "moved" });
      if (was.part !== part) found.push(...changed(id, alone(was.part), alone(part)));
    }
  }
  for (const id of old.keys()) if (!now.has(id)) found.push({ owner: id, what: "removed" });
  return found;
}

const changed = (owner: string, before: Record<string, unknown>, after: Record<string, unknown>): Difference[] =>
  [...new Set([...Object.keys(before), ...Object.keys(after)])]
    .filter((setting) => !same(before[setting], after[setting]))
    .map((setting) => ({ owner, what: "changed", setting, after: after[setting] }));

function movedBetween(old: Parts, now: Parts): ReadonlySet<string> {
  const listOf = (parts: Parts, id: string) => `${parts.get(id)!.into.holder}/${parts.get(id)!.into.list}`;
  const both = [...now.keys()].filter((id) => old.has(id));
  const elsewhere = both.filter((id) => listOf(old, id) !== listOf(now, id));
  const lists = new Map<string, string[]>();
  for (const id of both)
    if (listOf(old, id) === listOf(now, id)) lists.set(listOf(now, id), [...(lists.get(listOf(now, id)) ?? []), id]);
  const within = [...lists.values()].flatMap((ids) => {
    const there = new Set(ids);
    const before = [...old.keys()].filter((id) => there.has(id));
    return [...movedIn(before, ids)];
  });
  return new Set([...elsewhere, ...within]);
}

/** What a part is called, in either state. */
export const partName = (parts: readonly Parts[], owner: string): string => {
  const entry = parts.map((each) => each.get(owner)).find((each) => each !== undefined);
  return entry ? `${entry.number} ${entry.title}`.trim() : "the form";
};

/** What a setting is called: "label", "help", "picture alternative". */
export const settingName = (path: string): string => {
  const [first = "", ...rest] = path.split(".");
  const last = rest.at(-1);
  return (last && !/^[a-z0-9]{8,}$/.test(last) ? `${last} in ${first}` : first).replaceAll("_", " ");
};

const MOST_SHOWN = 40;

/** A value as a few words, or "" where it has none. */
export function shortly(value: unknown): string {
  if (typeof value === "boolean") return value ? "yes" : "no";
  if (typeof value !== "string" && typeof value !== "number") return "";
  const words = oneLine(String(value));
  return words.length > MOST_SHOWN ? `“${words.slice(0, MOST_SHOWN)}…”` : words && `“${words}”`;
}

/** What was just done, in one line: "Undone: label of 1.2 People back to “Guests”". */
export function told(begin: string, before: Form, after: Form, found = differences(before, after)): string {
  if (found.length === 0) return "";
  const parts = [partsOf(after), partsOf(before)];
  const owners = [...new Set(found.map(({ owner }) => owner))];
  const name = partName(parts, owners[0]!);
  if (owners.length > 1) return `${begin}: ${counted(owners.length, "part")}, from ${name} on.`;
  const first = found[0]!;
  if (first.what === "added") return `${begin}: ${name} is there again.`;
  if (first.what === "removed") return `${begin}: ${name} is out again.`;
  if (first.what === "moved") return `${begin}: ${name} stands where it stood.`;
  const settings = found.flatMap((each) => (each.what === "changed" ? [each.setting] : []));
  if (settings.length > 1) return `${begin}: ${settings.map(settingName).slice(0, 3).join(", ")} of ${name}.`;
  const value = first.what === "changed" ? shortly(first.after) : "";
  return `${begin}: ${settingName(settings[0]!)} of ${name}${value ? ` back to ${value}` : ""}.`;
}
