import { expect, it } from "vitest";
import { rounded } from "./rounded";

it.each([
  [[], ""],
  [
    [
      { x: 0, y: 0 },
      { x: 0, y: 50 },
    ],
    "M 0 0 L 0 50",
  ],
  [
    [
      { x: 0, y: 0 },
      { x: 0, y: 50 },
      { x: 40, y: 50 },
    ],
    "M 0 0 L 0 44 Q 0 50 6 50 L 40 50",
  ],
])("draws right angles with round corners: %j", (points, path) => {
  expect(rounded(points)).toBe(path);
});

it("rounds a corner no further than the middle of a short piece", () => {
  const short = [
    { x: 0, y: 0 },
    { x: 0, y: 50 },
    { x: 4, y: 50 },
    { x: 4, y: 90 },
  ];
  expect(rounded(short)).toBe("M 0 0 L 0 44 Q 0 50 2 50 L 2 50 Q 4 50 4 56 L 4 90");
});
