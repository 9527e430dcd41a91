// What was said in a conversation, and what is asked next. No session, no React.
import type { FormState } from "../../api/generated/wire";

/** In the order in which it was said: a question, its answer, an answer that was wrong, a sum that has changed. */
export type Entry =
  | { readonly kind: "asked" | "answered"; readonly step: string }
  | { readonly kind: "tried"; readonly step: string; readonly words: string; readonly reason: string }
  | { readonly kind: "sum"; readonly of: string; readonly label: string; readonly text: string };

/** A conversation that goes on at a step: what comes before it counts as asked and answered. */
export function caughtUp(entries: readonly Entry[], path: readonly string[], page: string | null): Entry[] {
  const before = path.slice(0, Math.max(0, path.indexOf(page ?? "")));
  const missing = before.filter((step) => !isAnswered(entries, step));
  const pairs = missing.flatMap((step): Entry[] => [
    { kind: "asked", step },
    { kind: "answered", step },
  ]);
  return [...pairs, ...entries.filter((each) => !missing.some((step) => isOf(each, step)))];
}

export const isAnswered = (entries: readonly Entry[], step: string): boolean =>
  entries.some((each) => each.kind === "answered" && each.step === step);

/** The first step that applies and has no answer, or has one that is wrong by now; null when all is answered. */
export const nextToAsk = (
  path: readonly string[],
  entries: readonly Entry[],
  isWrong: (step: string) => boolean,
): string | null => path.find((step) => !isAnswered(entries, step) || isWrong(step)) ?? null;

const isOf = (entry: Entry, step: string): boolean => entry.kind !== "sum" && entry.step === step;

/** A question is asked at the end: for the first time, or anew. */
export const asked = (entries: readonly Entry[], step: string): Entry[] => [
  ...entries.filter((each) => !isOf(each, step)),
  { kind: "asked", step },
];

/** A sum as it was told: by the block that shows it. */
export interface Sum {
  of: string;
  label: string;
  text: string;
}

/** Adds the sums that are not what was told of them last. */
export function withSums(entries: readonly Entry[], sums: readonly Sum[]): Entry[] {
  const told = new Map(entries.flatMap((each) => (each.kind === "sum" ? [[each.of, each.text] as const] : [])));
  const fresh = sums.filter(({ of, text }) => told.get(of) !== text);
  return [...entries, ...fresh.map((sum) => ({ kind: "sum" as const, ...sum }))];
}

/** What a step was answered with, in words: the text alone where it asks for one thing. */
export function answerIn(state: FormState, step: string): { label: string; text: string }[] {
  const said = state.said?.find(({ page }) => page === step)?.answers ?? [];
  return said.length === 1 ? [{ label: "", text: said[0]!.text }] : said;
}
