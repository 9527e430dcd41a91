// Lists of options as lines, and lines as options.
import { describe, expect, it } from "vitest";
import { asLines, fromLines } from "./list_lines";

const NORWAY = { label: "Norway", code: "no", counts_as: "0", belongs_to: "" };
const FINLAND = { label: "Finland", code: "fi", counts_as: "2.5", belongs_to: "east" };

describe("the lines of a list", () => {
  it("say what is set, and give it again", () => {
    expect(asLines([NORWAY, FINLAND])).toBe("Norway\tno\nFinland\tfi\t2.5\teast");
    expect(fromLines(asLines([NORWAY, FINLAND]), [])).toEqual([NORWAY, FINLAND]);
  });

  it("keep the code of a label that was there, and make one for a new label", () => {
    const [norway, again, sweden] = fromLines("Norway\n\n Norway \nSweden\t\t3,5", [NORWAY]);
    expect(norway).toEqual(NORWAY);
    expect(again!.code).not.toBe("no");
    expect(sweden).toMatchObject({ code: "sweden", counts_as: "3.5" });
  });

  it("leave no code twice where a later line has it", () => {
    const codes = fromLines("no\nNorway\tno", []).map(({ code }) => code);
    expect(new Set(codes).size).toBe(2);
    expect(codes[1]).toBe("no");
  });
});
