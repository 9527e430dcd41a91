import { describe, expect, it } from "vitest";
import type { ExplanationReply } from "../../api/generated/wire";
import { partsOf } from "../../model/parts";
import { A_FORM } from "../../testing/a_form";
import { askable, factTitle, weighed } from "./asked";

describe("what can be asked about", () => {
  const asked = (answers = {}, form = A_FORM) => [...askable(partsOf(form), form, answers).keys()];

  it("is every page, block and figure, and a block in a row only for the rows of its kind", () => {
    const rows = [
      { id: "r1", kind: "row", values: {} },
      { id: "r2", kind: "other", values: {} },
    ];
    expect(asked()).not.toContain("amount");
    expect(asked({ lines: rows })).toEqual(expect.arrayContaining(["p1", "name", "lines", "lines/r1/amount"]));
    expect(asked({ lines: rows })).not.toContain("lines/r2/amount");
    const labels = askable(partsOf(A_FORM), A_FORM, { lines: rows });
    expect(labels.get("lines/r1/amount")).toBe("1.3.1.1 amount, row 1");
  });

  it("is the form as a whole where anything holds for it", () => {
    expect(asked().includes("form")).toBe(A_FORM.confirmations.length > 0);
    expect(asked({}, { ...A_FORM, confirmations: [], checks: [] })).not.toContain("form");
  });
});

describe("facts", () => {
  const fact = (name: string, formula = "", because: ExplanationReply[] = []): ExplanationReply => ({
    owner: "people",
    name: "1.1 People",
    fact: name,
    value: `says ${name}`,
    sentence: "",
    formula,
    because,
  });

  it("are told one by one where something decided them, else in a line", () => {
    const facts = [fact("shown"), fact("value"), fact("required", "people > 1"), fact("locked", "", [fact("shown")])];
    const { told, plain } = weighed(facts);
    expect(told.map((each) => each.fact)).toEqual(["value", "required", "locked"]);
    expect(plain.map((each) => each.fact)).toEqual(["shown"]);
  });

  it("have names, also those that later cores may tell", () => {
    expect(factTitle("check.1")).toEqual({ kind: "check", title: "Check 2" });
    expect(factTitle("shown").title).toBe("Shown");
    expect(factTitle("colour")).toEqual({ kind: "data", title: "colour" });
  });
});
