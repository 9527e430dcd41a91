// Confirmations made of a figure: one for each range of its numbers, each band or each profile. No gap is possible.
import type { FigureRange, Form } from "../api/generated/wire";
import type { Action, Part } from "./draft";
import { newConfirmation, newFigure, newId, newParagraph } from "./new_block";
import { keyFrom, keysOf } from "./outline";
import { type Confirmation, type Figure, FORM } from "./parts";
import { textLiteral } from "./operands";

/** A range of numbers: from this one on, up to the next; null for everything below that. */
export interface NumberRange {
  from: string | null;
  name: string;
}

/** Where ranges that are about equally wide begin, in whole numbers: the first is open below, the last above. */
export function proposedRanges({ least, greatest }: FigureRange, count: number): NumberRange[] {
  const from = Number(least ?? 0);
  const to = Number(greatest ?? from + 10 * count);
  const step = (to - from) / count;
  const starts = Array.from({ length: count }, (_each, at) =>
    at === 0 ? null : String(step >= 1 ? Math.ceil(from + step * at) : Number((from + step * at).toFixed(2))),
  );
  return starts.map((start, at) => ({ from: start, name: rangeName(start, starts[at + 1] ?? null) }));
}

/** What a range is called as long as nobody calls it otherwise. */
export const rangeName = (from: string | null, next: string | null): string =>
  from === null
    ? next === null
      ? "All"
      : `Below ${next}`
    : next === null
      ? `From ${from}`
      : `From ${from} to below ${next}`;

/** Why ranges can't be taken: each begins above the one before it, and has a name of its own; null where they can. */
export function wrongRanges(ranges: readonly NumberRange[]): string | null {
  for (const [at, { from, name }] of ranges.entries()) {
    if (!name.trim()) return `Range ${at + 1} has no name.`;
    if (ranges.findIndex((each) => each.name.trim() === name.trim()) < at) return `Two ranges are called ${name}.`;
    const before = ranges[at - 1]?.from ?? null;
    if (at > 0 && from === null) return `Say where range ${at + 1} begins.`;
    if (before !== null && from !== null && Number(from) <= Number(before))
      return `Range ${at + 1} begins at ${from}, not above ${before}.`;
  }
  return null;
}

/** What a figure tells apart by itself: its bands by name, its profiles by code. */
export function ownChoices(figure: Figure): { code: string; label: string }[] {
  if (figure.kind === "profile") return figure.profiles.map(({ code, label }) => ({ code, label }));
  if (figure.kind !== "bands") return [];
  return figure.bands.flatMap(({ label }) => (label ? [{ code: label, label }] : []));
}

const chartOf = (figure: Figure) =>
  figure.kind === "score" || figure.kind === "profile" ? [newParagraph({ chart: figure.id })] : [];

const confirmationFor = (figure: Figure, name: string, when: string): Confirmation => ({
  ...newConfirmation(name),
  when,
  title: name,
  paragraphs: chartOf(figure),
});

const INTO = (list: "figures" | "confirmations") => ({ holder: FORM, list });

function adding(form: Form, figure: Figure, confirmations: Confirmation[], figures: Figure[]): Action {
  const add = (parts: readonly Part[], list: "figures" | "confirmations", at: number): Action[] =>
    parts.length > 0 ? [{ do: "add", parts, into: INTO(list), at }] : [];
  // Before the one that always follows.
  const always = form.confirmations.findIndex((each) => each.when.trim() === "");
  const at = always < 0 ? form.confirmations.length : always;
  return {
    do: "together",
    actions: [
      { do: "edit", parts: [figure.id], changes: { shown_to_visitors: true } },
      ...add(figures, "figures", form.figures.length),
      ...add(confirmations, "confirmations", at),
    ],
  };
}

/** Adds one confirmation for each band or profile of a figure. */
export function byChoices(form: Form, figure: Figure): Action {
  const name = figure.kind === "bands" ? `${figure.key}.label` : figure.key;
  const made = ownChoices(figure).map(({ code, label }) =>
    confirmationFor(figure, label, `${name} = ${textLiteral(code)}`),
  );
  return adding(form, figure, made, []);
}

/** Adds a figure of bands over a figure's numbers, and one confirmation for each of them. */
export function byRanges(form: Form, figure: Figure, ranges: readonly NumberRange[]): Action {
  const name = `Result of ${figure.name || figure.key}`;
  const result = {
    ...newFigure(form, "bands", name),
    id: newId(),
    key: keyFrom(name, keysOf(form)),
    formula: figure.key,
    shown_to_visitors: true,
    bands: ranges.map(({ from, name: label }, at) => ({ start: from, value: String(at + 1), label: label.trim() })),
  } as Figure;
  const made = ranges.map(({ name: label }) =>
    confirmationFor(figure, label.trim(), `${result.key}.label = ${textLiteral(label.trim())}`),
  );
  return adding(form, figure, made, [result]);
}
