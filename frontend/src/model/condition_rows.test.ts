import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { ConditionRow, ConditionRows } from "../api/generated/wire";
import { idsNamed, withNamesOfToday } from "./condition_rows";
import type { Named } from "./outline";

const named = (id: string, name: string): Named => ({
  id,
  name,
  number: "",
  title: id,
  kind: "Number",
  block: null,
  choices: null,
  figureKind: null,
});
const row = (name: string): ConditionRow => ({ name, operator: "is", operands: [] });
const NAMES = [named("b1", "who"), named("b2", "guests"), named("b3", "day")];

const anyRows: fc.Arbitrary<ConditionRows> = fc.letrec<{ rows: ConditionRows }>((tie) => ({
  rows: fc.record({
    join: fc.constantFrom("all" as const, "any" as const),
    rows: fc.array(fc.oneof(fc.constantFrom("who", "Guests", "day", "", "gone").map(row), tie("rows")), {
      maxLength: 4,
      depthIdentifier: "rows",
    }),
  }),
})).rows;

const namesIn = (rows: ConditionRows): string[] =>
  rows.rows.flatMap((each) => ("rows" in each ? namesIn(each) : [each.name]));

describe("rows that are not complete", () => {
  it("follow a key that is renamed after they named it", () => {
    const rows: ConditionRows = { join: "all", rows: [row("WHO"), { join: "any", rows: [row("guests"), row("")] }] };
    const ids = idsNamed(rows, NAMES);
    const renamed = [named("b1", "host"), named("b2", "people"), named("b3", "who")];
    expect(namesIn(withNamesOfToday(rows, ids, renamed))).toEqual(["host", "people", ""]);
  });

  it("stay as they are while nothing is renamed, or what they named is gone", () => {
    fc.assert(
      fc.property(anyRows, (rows) => {
        const ids = idsNamed(rows, NAMES);
        expect(withNamesOfToday(rows, ids, NAMES)).toEqual(rows);
        expect(withNamesOfToday(rows, ids, [])).toEqual(rows);
      }),
    );
  });

  it("name the same things whatever these are called", () => {
    fc.assert(
      fc.property(anyRows, (rows) => {
        const ids = idsNamed(rows, NAMES);
        const renamed = NAMES.map(({ id }) => named(id, `${id}_new`));
        const today = withNamesOfToday(rows, ids, renamed);
        expect(Object.values(idsNamed(today, renamed)).sort()).toEqual(Object.values(ids).sort());
        expect(namesIn(today)).toHaveLength(namesIn(rows).length);
      }),
    );
  });
});
