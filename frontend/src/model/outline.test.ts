import fc from "fast-check";
import { describe, expect, it } from "vitest";
import cases from "../../../tests/cases/keys.json";
import reservedKeys from "../api/generated/reserved_keys.json";
import { A_FIGURE, A_FORM, block } from "../testing/a_form";
import { apply } from "./draft";
import { codeFrom, isKeyRead, keyFrom, keysOf, namedIn } from "./outline";
import { FORM } from "./parts";

const form = apply(A_FORM, {
  do: "together",
  actions: [
    { do: "add", parts: [A_FIGURE], into: { holder: FORM, list: "figures" }, at: 0 },
    { do: "add", parts: [block("heading", "welcome")], into: { holder: "p1", list: "blocks" }, at: 0 },
  ],
});

describe("what a formula can name", () => {
  it("is every field and figure; a column of rows by its repeat and kind", () => {
    expect(namedIn(form).map(({ name, number }) => `${number} ${name}`.trim())).toEqual([
      "1.2 name",
      "1.3.1 teacher",
      "1.3.2 phone",
      "1.4 lines",
      "1.4.1.1 lines.row.amount",
      "1.5 note",
      "2.1 adults",
      A_FIGURE.key,
    ]);
  });

  it("is this row's own fields first, by their bare keys, where it stands in a row", () => {
    const names = namedIn(form, "row").map(({ name }) => name);
    expect(names[0]).toBe("amount");
    expect(names).not.toContain("lines.row.amount");
  });

  it("tells figures from fields, and gives the field itself", () => {
    const named = new Map(namedIn(form).map((each) => [each.name, each]));
    expect(named.get(A_FIGURE.key)).toMatchObject({ kind: "Figure", block: null });
    expect(named.get("adults")).toMatchObject({ kind: "Number", block: { id: "adults" } });
  });
});

describe("keys", () => {
  it("of rows and of the form are apart", () => {
    expect(keysOf(form)).not.toContain("amount");
    expect(keysOf(form)).toContain(A_FIGURE.key);
    expect(keysOf(form, "row")).toEqual(["amount"]);
  });

  it.each(cases)("are made of labels as the core makes them: $label", ({ label, taken, key, code }) => {
    expect([keyFrom(label, taken), codeFrom(label, taken)]).toEqual([key, code]);
  });

  it("are names that formulas can read and that nothing has, whatever the label", () => {
    fc.assert(
      fc.property(fc.string({ unit: "grapheme" }), fc.array(fc.stringMatching(/^[a-z_]{1,6}$/)), (label, taken) => {
        const key = keyFrom(label, taken);
        expect(key).toMatch(/^[a-z][a-z0-9_]{0,59}$/);
        expect([...taken, ...reservedKeys]).not.toContain(key);
      }),
    );
  });
});

describe("a key is read", () => {
  const reads = (changes: Record<string, unknown>) => apply(form, { do: "edit", parts: ["note"], changes });

  it.each([
    [{ shown: "adults > 12" }, true],
    [{ shown: "ADULTS>12" }, true],
    [{ checks: [{ formula: "note <> adults", message: "" }] }, true],
    [{ help: "For {adults} adults" }, true],
    [{ help: "For adults" }, false],
    [{ shown: "young_adults > 12" }, false],
    [{ shown: "adults_2 > 12" }, false],
    [{ shown: "lines.adults > 12" }, false],
    [{ placeholder: "adults" }, false],
  ])("or is not, by what stands where formulas stand: %j", (changes, expected) => {
    const without = apply(reads(changes), { do: "remove", parts: ["total"] });
    expect(isKeyRead(without, "adults")).toBe(expected);
  });

  it("by figures and options too", () => {
    expect(isKeyRead(form, "adults")).toBe(true);
    const options = [{ id: "o", code: "a", label: "A", counts_as: "0", shown: "phone = 1" }];
    const choice = block("single_choice", "choice", { options });
    const more = apply(form, { do: "add", parts: [choice], into: { holder: "p1", list: "blocks" }, at: 0 });
    expect([isKeyRead(form, "phone"), isKeyRead(more, "phone")]).toEqual([false, true]);
  });
});
