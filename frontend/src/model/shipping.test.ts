// Beginnings for what sending costs, each one step that can be undone.
import { describe, expect, it } from "vitest";
import { A_FORM } from "../testing/a_form";
import { apply } from "./draft";
import { byBands, byChoice, flat, type Measure, MEASURES } from "./shipping";

describe("what sending costs", () => {
  it("begins as one price, or as what a choice counts as", () => {
    expect(apply(A_FORM, flat(A_FORM)).order.shipping).toBe("6.50");
    expect(apply(A_FORM, byChoice(A_FORM, "country")).order.shipping).toBe("country");
  });

  it.each(Object.keys(MEASURES) as Measure[])("begins as a figure of bands of the order's %s", (measure) => {
    const made = apply(A_FORM, byBands(A_FORM, measure));
    const figure = made.figures.at(-1)!;
    expect(figure).toMatchObject({ kind: "bands", formula: `order.${measure}`, bands: [{ start: null }, {}] });
    expect(made.order.shipping).toBe(figure.key);
    const again = apply(made, byBands(made, measure));
    expect(new Set(again.figures.map(({ key }) => key)).size).toBe(again.figures.length);
  });
});
