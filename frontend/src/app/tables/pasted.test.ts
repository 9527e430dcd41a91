import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { optionsOf } from "./definition";
import { asCopied, cellsOf } from "./pasted";

describe("a block of cells", () => {
  it("is read as it was copied", () => {
    const cell = fc.string({ unit: fc.constantFrom("a", '"', "\t", "\n", " ", "ä") });
    const rows = fc
      .integer({ min: 1, max: 4 })
      .chain((width) => fc.array(fc.array(cell, { minLength: width, maxLength: width }), { minLength: 1 }));
    fc.assert(
      fc.property(rows, (block) => {
        // A last line that is empty is none: spreadsheets end each with a line break.
        fc.pre(block.at(-1)!.join("") !== "");
        expect(cellsOf(asCopied(block))).toEqual(block);
      }),
    );
  });

  it("may end its lines as any system does, and has quotes inside of cells", () => {
    expect(cellsOf('a\tb\r\n5" lens\tc\r\n')).toEqual([
      ["a", "b"],
      ['5" lens', "c"],
    ]);
  });
});

describe("options by lines", () => {
  it("keep the code and id of a label that was there, and are each there once", () => {
    const before = optionsOf("Deck\nDome", []);
    const after = optionsOf("Dome\n\n Tower \nDome\nDeck", before);
    expect(after.map((each) => each.label)).toEqual(["Dome", "Tower", "Deck"]);
    expect(after[0]).toEqual(before[1]);
    expect(after[2]).toEqual(before[0]);
    expect(new Set(after.flatMap((each) => [each.id, each.code])).size).toBe(6);
  });
});
