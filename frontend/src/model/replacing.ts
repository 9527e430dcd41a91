// Words looked for in all that a form says, and replaced.
import type { Form } from "../api/generated/wire";
import { alone, type Entry, type Parts, partsOf, rebuilt } from "./parts";
import { FORMULAS } from "./renaming";

/** Settings that people read; of formulas and names others take care. */
const TEXTS = new Set([
  "label", "help", "title", "lead", "text", "placeholder", "placeholder_last", "caption", "alternative", "message",
  "pattern_message", "statement", "unit", "button", "next_label", "back_label", "add_label", "yes", "no", "other_label",
  "least_label", "most_label", "sold_out", "name", "subject", "words", "entry_title", "entry_place", "from_name",
  "when_right", "when_wrong", "submit", "next", "back", "confirmation_title", "confirmation_text",
]); // prettier-ignore

/** Every text in the settings of something, with the name of its setting; formulas too. */
export function textsIn(value: unknown, setting = ""): { setting: string; text: string }[] {
  if (typeof value === "string") return TEXTS.has(setting) || FORMULAS.has(setting) ? [{ setting, text: value }] : [];
  if (Array.isArray(value)) return value.flatMap((each: unknown) => textsIn(each, setting));
  if (value === null || typeof value !== "object") return [];
  return Object.entries(value).flatMap(([name, each]) => textsIn(each, name));
}

/** Whether a part has these words, in small letters, in any of its texts, options or formulas. */
export const says = ({ part }: Entry, words: string): boolean =>
  textsIn(alone(part)).some(({ text }) => text.toLowerCase().includes(words));

export interface Replacing {
  find: string;
  by: string;
  /** Whether capitals count. */
  exact: boolean;
}

const escaped = (words: string): string => words.replaceAll(/[.*+?^${}()|[\]\\]/g, "\\$&");

/** The form with words replaced in all that people read, and in how many texts of which parts that was. */
export function replaced(form: Form, { find, by, exact }: Replacing): { form: Form; parts: string[]; texts: number } {
  if (!find) return { form, parts: [], texts: 0 };
  const pattern = new RegExp(escaped(find), exact ? "gu" : "giu");
  let texts = 0;
  const within = (value: unknown, setting: string): unknown => {
    if (typeof value === "string") {
      if (!TEXTS.has(setting)) return value;
      // What stands in braces is a value's name, and in angle brackets a mark.
      const now = value.replaceAll(/\{[^{}]*\}|<[^<>]*>|[^{<]+|[{<]/gu, (piece) =>
        /^[{<].*[}>]$/su.test(piece) ? piece : piece.replaceAll(pattern, () => by),
      );
      if (now !== value) texts += 1;
      return now;
    }
    if (Array.isArray(value)) {
      const items = value.map((each: unknown) => within(each, setting));
      return items.every((each, at) => each === value[at]) ? value : items;
    }
    if (value === null || typeof value !== "object") return value;
    const entries = Object.entries(value).map(([name, each]) => [name, within(each, name)] as const);
    return entries.every(([name, each]) => each === (value as Record<string, unknown>)[name])
      ? value
      : Object.fromEntries(entries);
  };
  const before: Parts = partsOf(form);
  const parts: string[] = [];
  const made = rebuilt(form, (items) => {
    const now = items.map((part) => {
      const own = alone(part);
      const settings = within(own, "") as Record<string, unknown>;
      if (settings === own) return part;
      parts.push(part.id);
      return { ...part, ...settings };
    });
    return now.every((part, at) => part === items[at]) ? items : now;
  });
  return { form: made, parts: [...before.keys()].filter((id) => parts.includes(id)), texts };
}
