import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { A_FIGURE, A_FORM, everyBlock } from "../testing/a_form";
import { anyForm } from "../testing/any_form";
import { typeOf } from "./blocks";
import { apply } from "./draft";
import { alone, changeAt, FORM, LISTS, listsOf, partsOf, rebuilt, settingAt } from "./parts";

const parts = partsOf(apply(A_FORM, { do: "add", parts: [A_FIGURE], into: { holder: FORM, list: "figures" }, at: 0 }));

describe("the parts of a form", () => {
  it("stand in the order of the outline, each with its number and where it stands", () => {
    const told = [...parts.values()].map(
      ({ id, number, what, depth, page, kind }) => `${number} ${id} ${what} ${depth} ${page} ${kind}`,
    );
    expect(told).toEqual([
      "1 p1 page 0 p1 null",
      "1.1 name block 1 p1 null",
      "1.2 school block 1 p1 null",
      "1.2.1 teacher block 2 p1 null",
      "1.2.2 phone block 2 p1 null",
      "1.3 lines block 1 p1 null",
      "1.3.1 row kind 2 p1 null",
      "1.3.1.1 amount block 3 p1 row",
      "1.4 note block 1 p1 null",
      "2 p2 page 0 p2 null",
      "2.1 adults block 1 p2 null",
      "C.1 c1 confirmation 0 null null",
      " total figure 0 null null",
    ]);
  });

  it("are called by what people see of them", () => {
    const changed = apply(A_FORM, {
      do: "together",
      actions: [
        { do: "edit", parts: ["p1"], changes: { title: "" } },
        { do: "edit", parts: ["name"], changes: { label: "" } },
        { do: "edit", parts: ["c1"], changes: { name: "", title: "" } },
        { do: "edit", parts: ["row"], changes: { label: "" } },
      ],
    });
    const titles = partsOf(changed);
    expect(["p1", "name", "c1", "row"].map((id) => titles.get(id)!.title)).toEqual([
      "Untitled page",
      typeOf("short_text").title,
      "Confirmation",
      "row",
    ]);
  });

  it("have each their own id, and their numbers in order, in any form", () => {
    fc.assert(
      fc.property(anyForm, (form) => {
        const entries = [...partsOf(form).values()];
        const numbered = entries.filter(({ number }) => number !== "").map(({ number }) => number);
        expect(new Set(numbered).size).toBe(numbered.length);
        for (const { index, into, part } of entries) {
          const holder = into.holder === FORM ? form : partsOf(form).get(into.holder)!.part;
          expect((holder as unknown as Record<string, unknown[]>)[into.list]![index]).toBe(part);
        }
        expect(everyBlock(form)).toEqual(entries.filter(({ what }) => what === "block").map(({ part }) => part));
      }),
    );
  });

  it("take the kinds of files of an upload for no row kinds", () => {
    expect(listsOf(typeOf("file_upload").blank)).toEqual([]);
    expect(listsOf(typeOf("repeat").blank)).toEqual(["kinds"]);
  });
});

describe("a form rebuilt", () => {
  it("is the very same where nothing changes, in any form", () => {
    fc.assert(fc.property(anyForm, (form) => rebuilt(form, (items) => items) === form));
  });

  it("keeps every page that the change does not reach", () => {
    const changed = rebuilt(A_FORM, (items, into) => (into.holder === "p1" ? items.slice(1) : items));
    expect(changed.pages[1]).toBe(A_FORM.pages[1]);
    expect(changed.pages[0]!.blocks.map(({ id }) => id)).toEqual(["school", "lines", "note"]);
  });

  it("is nothing but its own settings once its parts are left out", () => {
    const own = Object.keys(A_FORM).filter((name) => !(LISTS as readonly string[]).includes(name));
    expect(Object.keys(alone(A_FORM))).toEqual(own);
    expect(alone(parts.get("school")!.part)).not.toHaveProperty("blocks");
  });
});

describe("a setting by its path", () => {
  const holder = { shown: "", checks: [{ formula: "a", message: "b" }], look: { tone: { depth: "1" } } };

  it.each([
    ["shown", ""],
    ["checks.0.formula", "a"],
    ["look.tone.depth", "1"],
    ["checks.4.formula", undefined],
    ["nothing.at.all", undefined],
  ])("is found: %s", (path, value) => {
    expect(settingAt(holder, path)).toBe(value);
  });

  it("says what it was given, and leaves everything else as it was", () => {
    const path = fc.constantFrom("shown", "checks.0.formula", "checks.0.message", "look.tone.depth");
    fc.assert(
      fc.property(path, path, fc.string(), (changed, other, value) => {
        const after = { ...holder, ...changeAt(holder, changed, value) };
        expect(settingAt(after, changed)).toBe(value);
        if (other !== changed) expect(settingAt(after, other)).toBe(settingAt(holder, other));
      }),
    );
  });
});
