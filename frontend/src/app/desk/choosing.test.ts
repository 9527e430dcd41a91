// Which forms the desk shows, in which order, whatever there is; and which were open lately.
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { FormRowReply } from "../../api/generated/wire";
import { ALL, chosen, inState, labelsOf, ownersOf, sorted } from "./choosing";
import { noteOpened, openedLately } from "./opened_lately";
import { somethingHangsOn } from "./useDesk";

const anyRow: fc.Arbitrary<FormRowReply> = fc.record({
  id: fc.uuid(),
  name: fc.constantFrom("Plan a visit", "Night watch", "night walk", "Ähre", "Shop"),
  slug: fc.constantFrom("visit", "night"),
  live_edition: fc.option(fc.integer({ min: 1, max: 9 })),
  changed: fc.boolean(),
  changed_at: fc.constantFrom("2026-11-01T10:00:00Z", "2026-11-20T10:00:00Z"),
  responses: fc.nat(9),
  days: fc.array(fc.nat(5), { minLength: 14, maxLength: 14 }),
  seen: fc.nat(9),
  sent: fc.nat(9),
  deciding: fc.nat(3),
  failed: fc.nat(3),
  labels: fc.uniqueArray(fc.constantFrom("School", "2027")),
  owner: fc.constant("Mira"),
  owner_id: fc.constantFrom("m", "j"),
}) as fc.Arbitrary<FormRowReply>;
const anyRows = fc.uniqueArray(anyRow, { selector: ({ id }) => id, maxLength: 20 });

describe("the desk", () => {
  it("shows what has all words, labels and the owner that are asked for, and nothing else", () => {
    fc.assert(
      fc.property(anyRows, fc.constantFrom("", "night", "WATCH night", "mira 2027"), (rows, words) => {
        const found = chosen(rows, { ...ALL, words, labels: ["School"], owner: "m" });
        for (const each of rows) {
          const said = `${each.name} ${each.slug} ${each.owner} ${each.labels.join(" ")}`.toLowerCase();
          const fits = words
            .toLowerCase()
            .split(" ")
            .every((word) => said.includes(word));
          expect(found.includes(each)).toBe(fits && each.labels.includes("School") && each.owner_id === "m");
        }
        expect(inState(rows, "live").length + inState(rows, "draft").length).toBe(rows.length);
      }),
    );
  });

  it("sorts by any column, both ways, and loses nothing", () => {
    fc.assert(
      fc.property(anyRows, fc.constantFrom("name", "week", "responses", "sent", "open", "changed"), (rows, column) => {
        const [up, down] = [sorted(rows, column, []), sorted(rows, `-${column}`, [])];
        expect(new Set(up)).toEqual(new Set(rows));
        expect(new Set(down)).toEqual(new Set(rows));
        if (column !== "responses" && column !== "open") return;
        const countOf = ({ responses, deciding, failed }: FormRowReply) =>
          column === "open" ? deciding + failed : responses;
        const counts = up.map(countOf);
        expect(counts).toEqual([...counts].sort((one, other) => one - other));
        expect(down.map(countOf)).toEqual(counts.toReversed());
      }),
    );
    const [one, other, third] = fc.sample(anyRow, 3) as [FormRowReply, FormRowReply, FormRowReply];
    const lately = sorted([one, other, third], "opened", [third.id, one.id]);
    expect(lately).toEqual([third, one, other]);
    expect(sorted([one, other], "no such column", [])).toEqual([one, other]);
  });

  it("knows which labels and owners there are, and what hangs on a form", () => {
    const row = { ...fc.sample(anyRow, 1)[0]!, labels: ["b", "a"], owner: "Mira", owner_id: "m" };
    expect(labelsOf([row, { ...row, labels: ["a"] }])).toEqual(["a", "b"]);
    expect([...ownersOf([row, { ...row, owner: null, owner_id: null }])]).toEqual([["m", "Mira"]]);
    const draft = { ...row, live_edition: null, responses: 0 };
    expect([draft, { ...draft, responses: 1 }, { ...draft, live_edition: 1 }].map(somethingHangsOn)).toEqual([
      false,
      true,
      true,
    ]);
  });

  it("remembers what was open lately, each form once, and forgives what it can't read", () => {
    const place = new Map<string, string>();
    const storage = () =>
      ({
        getItem: (name: string) => place.get(name) ?? null,
        setItem: (name: string, text: string) => void place.set(name, text),
      }) as unknown as Storage;
    for (const form of ["a", "b", "a"]) noteOpened("mira", form, storage);
    expect(openedLately("mira", storage)).toEqual(["a", "b"]);
    expect(openedLately("jonas", storage)).toEqual([]);
    place.set("codexa-opened-mira", "{");
    expect(openedLately("mira", storage)).toEqual([]);
  });
});
