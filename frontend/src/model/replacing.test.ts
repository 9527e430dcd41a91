// Words replaced in what people read: nothing else changes, and what is told is what is done.
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Form } from "../api/generated/wire";
import { A_FORM } from "../testing/a_form";
import { anyForm } from "../testing/any_form";
import { differences } from "./differences";
import { apply } from "./draft";
import { alone, partsOf } from "./parts";
import { replaced, says } from "./replacing";

const edited = (form: Form, part: string, changes: object): Form =>
  apply(form, { do: "edit", parts: [part], changes: { ...changes } });

describe("replacing words", () => {
  it("changes labels, options and messages; keys, formulas, values and marks stay", () => {
    const form = edited(A_FORM, "adults", {
      label: "Adults of {adults}, adults",
      shown: 'note = "adults"',
      help: '<strong class="adults">Adults</strong>',
      checks: [{ formula: "adults > 1", message: "More adults" }],
    });
    const { form: now, parts, texts } = replaced(form, { find: "ADULTS", by: "people", exact: false });
    const { part } = partsOf(now).get("adults")!;
    expect(part).toMatchObject({
      key: "adults",
      label: "people of {adults}, people",
      shown: 'note = "adults"',
      help: '<strong class="adults">people</strong>',
      checks: [{ formula: "adults > 1", message: "More people" }],
    });
    expect([parts, texts]).toEqual([["adults"], 3]);
    expect(replaced(form, { find: "ADULTS", by: "x", exact: true }).form).toBe(form);
    expect(replaced(form, { find: "", by: "x", exact: true })).toEqual({ form, parts: [], texts: 0 });
  });

  it("takes signs of patterns for themselves", () => {
    const form = edited(A_FORM, "adults", { label: "Cost (in $) + 10%?" });
    const { form: now } = replaced(form, { find: "(in $) +", by: "$&", exact: true });
    expect(partsOf(now).get("adults")!.title).toBe("Cost $& 10%?");
  });

  it("tells each part that it changes, and changes no other", () => {
    fc.assert(
      fc.property(anyForm, fc.constantFrom("Help", "Number", "e", "zz"), (form, find) => {
        const { form: now, parts } = replaced(form, { find, by: "—", exact: false });
        expect([...new Set(differences(form, now).map(({ owner }) => owner))].sort()).toEqual([...parts].sort());
        for (const [id, { part }] of partsOf(now)) {
          const { type, key } = alone(part);
          expect([type, key]).toEqual([
            alone(partsOf(form).get(id)!.part).type,
            alone(partsOf(form).get(id)!.part).key,
          ]);
        }
        if (parts.length === 0) expect(now).toBe(form);
        else expect(parts.every((id) => says(partsOf(form).get(id)!, find.toLowerCase()))).toBe(true);
      }),
    );
  });
});
