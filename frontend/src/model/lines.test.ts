import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Face } from "./blocks";
import { linesOf } from "./lines";

const anyWidths = fc.array(fc.constantFrom<Face["width"]>("full", "half", "third", "quarter"));
const SHARE = { full: 12, half: 6, third: 4, quarter: 3 };

describe("lines of blocks", () => {
  const lines = (...widths: Face["width"][]) => linesOf(widths.map((width) => ({ width }))).map((line) => line.length);

  it.each([
    [["half", "half", "full"] as const, [2, 1]],
    [["third", "third", "third", "third"] as const, [3, 1]],
    [["half", "third", "half"] as const, [2, 1]],
    [["half", "full", "half"] as const, [1, 1, 1]],
  ])("hold what fits side by side: %j", (widths, expected) => {
    expect(lines(...widths)).toEqual(expected);
  });

  it("hold every block once, in order, and never more than fits", () => {
    fc.assert(
      fc.property(anyWidths, (widths) => {
        const blocks = widths.map((width, at) => ({ width, at }));
        const made = linesOf(blocks);
        expect(made.flat()).toEqual(blocks);
        for (const line of made) {
          expect(line.reduce((sum, { width }) => sum + SHARE[width], 0)).toBeLessThanOrEqual(12);
          expect(line.length).toBeGreaterThan(0);
        }
      }),
    );
  });
});
