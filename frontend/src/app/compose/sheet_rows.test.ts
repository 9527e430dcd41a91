import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Form } from "../../api/generated/wire";
import { apply } from "../../model/draft";
import { newBlock } from "../../model/new_block";
import { partsOf } from "../../model/parts";
import { A_FORM, block, everyBlock } from "../../testing/a_form";
import { anyForm } from "../../testing/any_form";
import { type SheetRow, sheetRows } from "./sheet_rows";

const rowsOf = (form: Form): SheetRow[] => sheetRows(form, partsOf(form));
const told = (row: SheetRow): string => {
  const set = "  ".repeat(row.inside);
  if (row.is === "insert") return `${set}+ ${row.label}${row.empty ? ", empty" : ""}`;
  if (row.is === "line") return `${set}${row.entries.map(({ id }) => id).join(" | ")}`;
  return `${set}${row.is} ${row.id}`;
};

describe("the sheet as rows", () => {
  it("has what stands in groups and rows set in, and a place to insert around each", () => {
    const halves = ["left", "right"].map((id) => block("number", id, { width: "half" }));
    const form = apply(A_FORM, { do: "add", parts: halves, into: { holder: "p2", list: "blocks" }, at: 0 });
    expect(rowsOf(form).map(told)).toEqual([
      "page p1",
      "+ Insert at the start of page 1",
      "name",
      "+ Insert after 1.1",
      "holder school",
      "  + Insert at the start of 1.2",
      "  teacher",
      "  + Insert after 1.2.1",
      "  phone",
      "  + Insert after 1.2.2",
      "+ Insert after 1.2",
      "holder lines",
      "  kind row",
      "    + Insert at the start of 1.3.1",
      "    amount",
      "    + Insert after 1.3.1.1",
      "+ Insert after 1.3",
      "note",
      "+ Insert after 1.4",
      "page p2",
      "+ Insert at the start of page 2",
      "left | right",
      "+ Insert after 2.2",
      "adults",
      "+ Insert after 2.3",
      "confirmation c1",
    ]);
  });

  it("gives a group a line of its own, whatever its width", () => {
    const narrow = [
      block("number", "left", { width: "half" }),
      block("group", "inner", { width: "half", blocks: [] }),
      block("number", "right", { width: "half" }),
    ];
    const form = apply(A_FORM, { do: "add", parts: narrow, into: { holder: "p2", list: "blocks" }, at: 0 });
    expect(rowsOf(form).map(told).slice(-11, -3)).toEqual([
      "+ Insert at the start of page 2",
      "left",
      "+ Insert after 2.1",
      "holder inner",
      "  + Insert at the start of 2.2, empty",
      "+ Insert after 2.2",
      "right",
      "+ Insert after 2.3",
    ]);
  });

  it("shows every part once, in the order of the outline, in any form", () => {
    fc.assert(
      fc.property(anyForm, (form) => {
        const shown = rowsOf(form).flatMap((row) =>
          row.is === "line" ? row.entries.map(({ id }) => id) : row.is === "insert" ? [] : [row.id],
        );
        expect(shown).toEqual([...partsOf(form).keys()]);
      }),
    );
  });

  it("inserts a block just where it says, in any form", () => {
    fc.assert(
      fc.property(anyForm, fc.nat(), (form, which) => {
        const places = rowsOf(form).flatMap((row) => (row.is === "insert" ? [row] : []));
        const place = places[which % places.length]!;
        const added = newBlock(form, "number");
        const after = apply(form, { do: "add", parts: [added], ...place.target });
        const entry = partsOf(after).get(added.id)!;
        expect([entry.into, entry.index]).toEqual([place.target.into, place.target.at]);
        expect(everyBlock(after)).toHaveLength(everyBlock(form).length + 1);
        const before = /after (.*)/.exec(place.label)?.[1];
        if (before) expect(entry.number).toBe(before.replace(/\d+$/, (last) => String(Number(last) + 1)));
      }),
    );
  });
});
