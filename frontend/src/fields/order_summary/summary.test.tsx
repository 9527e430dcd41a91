// @vitest-environment jsdom
// An order summary as visitors read it: lines, sums and the total; nothing where nothing is ordered.
import { cleanup, render, screen, within } from "@testing-library/react";
import { afterEach, describe, expect, it } from "vitest";
import type { BlockState, OrderFace, OrderSummaryFace } from "../../api/generated/wire";
import { OrderSummaryContent } from "./Input";

afterEach(cleanup);

const ORDER: OrderFace = {
  lines: [
    { label: "Poster", quantity: "3", price: "€12.50", amount: "€37.50" },
    { label: "Blanket", quantity: "1", price: "€24.90", amount: "€24.90" },
  ],
  subtotal: "€62.40",
  discounts: [{ label: "Friends", amount: "-€6.24", included: false }],
  shipping: "€4.90",
  taxes: [
    { label: "VAT 19 %", amount: "€9.75", included: true },
    { label: "Levy 1 %", amount: "€0.61", included: false },
  ],
  total: "€61.67",
};

function summary(order: OrderFace | null) {
  const block = { id: "o", type: "order_summary", label: "Your order", width: "full" } as OrderSummaryFace;
  const plain = { answer: null, required: false, locked: false, invalid: false, describedBy: undefined };
  const facts = { shown: true, order } as BlockState;
  render(<OrderSummaryContent block={block} controlId="c" facts={facts} onChange={() => undefined} {...plain} />);
  return screen.getByRole("region", { name: "Your order" });
}

const rowsOf = (region: HTMLElement) =>
  within(region)
    .getAllByRole("row")
    .map((row) => row.textContent);

describe("an order summary", () => {
  it("has a row for each line and sum; what is in the prices stands below the total", () => {
    const region = summary(ORDER);
    expect(rowsOf(region)).toEqual([
      "3 × Poster €12.50 each€37.50",
      "Blanket€24.90",
      "Subtotal€62.40",
      "Friends-€6.24",
      "Shipping€4.90",
      "Levy 1 %€0.61",
    ]);
    expect(within(region).getByRole("status").textContent).toBe("Total €61.67VAT 19 % included €9.75");
  });

  it("has no sums where nothing is added to the lines", () => {
    const region = summary({ ...ORDER, subtotal: "", discounts: [], shipping: "", taxes: [] });
    expect(rowsOf(region)).toHaveLength(2);
  });

  it.each([null, { ...ORDER, lines: [] }])("says so while nothing is ordered, or it can't be worked out", (order) => {
    expect(summary(order).textContent).toBe("Your orderNothing yet.");
  });
});
