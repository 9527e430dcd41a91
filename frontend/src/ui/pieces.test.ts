import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { inPieces } from "./pieces";

const anyRows = fc
  .uniqueArray(fc.string({ minLength: 6, maxLength: 12 }), {
    minLength: 1,
    maxLength: 200,
  })
  .map((ids) => ids.map((id) => ({ id })));

const byRows = (row: { id: string }): boolean | null => (row.id.startsWith("0") ? false : null);
const told = (rows: { id: string }[]): Set<string> =>
  new Set(inPieces(rows, byRows).map((piece) => piece.rows.map(({ id }) => id).join()));

describe("a long list in pieces", () => {
  it("holds every row once, in order", () => {
    fc.assert(
      fc.property(anyRows, (rows) => {
        expect(inPieces(rows, byRows).flatMap((piece) => piece.rows)).toEqual(rows);
      }),
    );
  });

  it("begins one where it is told to, and nowhere that it is told not to", () => {
    fc.assert(
      fc.property(anyRows, (rows) => {
        expect(inPieces(rows, () => true)).toHaveLength(rows.length);
        expect(inPieces(rows, () => false)).toHaveLength(1);
      }),
    );
  });

  it("changes at most the pieces around a row that comes or goes", () => {
    fc.assert(
      fc.property(anyRows, fc.nat(), (rows, at) => {
        const without = rows.filter((_row, index) => index !== at % rows.length);
        const [before, after] = [told(rows), told(without)];
        expect([...before].filter((piece) => !after.has(piece)).length).toBeLessThanOrEqual(2);
        expect([...after].filter((piece) => !before.has(piece)).length).toBeLessThanOrEqual(2);
      }),
    );
  });
});
