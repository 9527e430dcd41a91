// @vitest-environment jsdom
// How long a text is, as people count, and what is too much of it.
import { cleanup, render, screen } from "@testing-library/react";
import { afterEach, expect, it } from "vitest";
import { characters, LengthTold } from "./LengthTold";

afterEach(cleanup);

it("counts what people see as one character once", () => {
  expect(["", "Ørsted", "e\u0301", "🇳🇴", "👩‍🔬"].map(characters)).toEqual([0, 6, 1, 1, 1]);
});

it.each([
  ["abc", null, null],
  ["abc", 10, null],
  ["abcdefghi", 10, "9 / 10"],
  ["abcdefghijkl", 10, "12 / 10 · 2 too many"],
  ["🇳🇴🇳🇴", 2, "2 / 2"],
])("tells of %s, where %s are taken: %s", (text, most, told) => {
  const { container } = render(<LengthTold text={text} most={most} />);
  expect(container.textContent).toBe(told ?? "");
  expect(screen.queryByText(/too many/) !== null).toBe(told?.includes("too many") ?? false);
});
