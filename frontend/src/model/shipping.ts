// Beginnings for what sending costs: one price, bands of what is ordered, or what a choice counts as. No React.
import type { Form } from "../api/generated/wire";
import type { Action } from "./draft";
import { newFigure } from "./new_block";
import { type Figure, FORM } from "./parts";

/** What the bands are of, by the order's own names, and where the second begins in a new one. */
export const MEASURES = {
  subtotal: { words: "bands of the amount", from: "50" },
  weight: { words: "bands of the weight", from: "2" },
  count: { words: "bands of the number of pieces", from: "10" },
} as const;

export type Measure = keyof typeof MEASURES;

const priced = (form: Form, shipping: string): Action => ({
  do: "edit_form",
  changes: { order: { ...form.order, shipping } },
});

/** Sending costs the same, whatever is ordered. */
export const flat = (form: Form): Action => priced(form, "6.50");

/** Sending costs what an option of that field counts as: a country, say. */
export const byChoice = (form: Form, key: string): Action => priced(form, key);

/** Sending costs what a new figure's band says; its bands are drawn and changed in Figures. */
export function byBands(form: Form, measure: Measure): Action {
  const { from } = MEASURES[measure];
  const bands = [
    { start: null, value: "6.50", label: "below" },
    { start: from, value: measure === "subtotal" ? "0" : "12", label: "from there on" },
  ];
  const figure = { ...newFigure(form, "bands", "Shipping"), formula: `order.${measure}`, bands } as Figure;
  const add: Action = { do: "add", parts: [figure], into: { holder: FORM, list: "figures" }, at: form.figures.length };
  return { do: "together", actions: [add, priced(form, figure.key)] };
}
