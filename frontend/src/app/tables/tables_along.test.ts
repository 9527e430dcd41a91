// Which tables go along with copied parts, and what the other form takes of them.
import { describe, expect, it } from "vitest";
import type { KnownTable } from "../../api/generated/wire";
import { coming, tablesNamedIn } from "./tables_along";

const table = (id: string, names = ""): KnownTable =>
  ({
    id,
    name: id,
    named_by: "c1",
    columns: [{ id: "c1", key: "name", type: "record_choice", table: names }],
  }) as never;

const SITES = table("sites");
const LOOP = table("loop", "loop");
const LOANS = table("loans", "sites");
const TABLES = [SITES, LOOP, LOANS, table("others")];

describe("tables that go along", () => {
  it("are those that parts name at any depth, and those that these name", () => {
    const rows = { type: "repeat", kinds: [{ blocks: [{ type: "record_choice", table: "loans" }] }] };
    expect(tablesNamedIn([rows], TABLES)).toEqual([SITES, LOANS]);
    expect(tablesNamedIn({ steps: [{ table: "loop" }] }, TABLES)).toEqual([LOOP]);
    expect(tablesNamedIn([{ type: "number", table: "gone" }], TABLES)).toEqual([]);
  });

  it("come to a form that does not know them, and no others", () => {
    expect(coming([SITES], [SITES, LOANS])).toEqual({ do: "edit_form", changes: { tables: [SITES, LOANS] } });
    expect(coming([SITES], [SITES])).toBeNull();
    expect(coming([SITES], undefined)).toBeNull();
  });
});
