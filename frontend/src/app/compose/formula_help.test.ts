import { describe, expect, it } from "vitest";
import { helpAt } from "./formula_help";

/** Returns what is said where the bar stands. */
const titleAt = (marked: string) => helpAt(marked.replace("|", ""), marked.indexOf("|"))?.title ?? null;

describe("helpAt", () => {
  it.each([
    ["SU|M(a, b)", "SUM(numbers, [further], …)"],
    ["|SEARCH(a, b)", "SEARCH(sought, text, [start])"],
    ["ROUND(a, |)", "ROUND(number, [decimals])"],
    ["ROUND(SUM(a, b), |2)", "ROUND(number, [decimals])"],
    ["ROUND((a + b|), 2)", "ROUND(number, [decimals])"],
    ['ROUND("SEARCH(", |2)', "ROUND(number, [decimals])"],
    ["a <|= b", "<="],
    ["a >| b", ">"],
    ["adu|lts * 2", null],
    ["|", null],
  ])("%s", (marked, title) => {
    expect(titleAt(marked)).toBe(title);
  });

  it("says where a spreadsheet does otherwise", () => {
    expect(helpAt("SEARCH(a, b)", 0)?.differs).toContain("wildcards");
    expect(helpAt("a < b", 3)?.differs).toContain("FALSE");
    expect(helpAt("LEN(a)", 1)?.differs).toBe("");
  });
});
