// What holds for every form and whatever is done to it: nothing gets lost, everything can be taken back, and two
// people's changes come together.
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Form } from "../api/generated/wire";
import { actionOf, after, EMPTY, anyDoing, anyDoings, anyForm, type Doing } from "../testing/any_form";
import { apply, isInside } from "./draft";
import { type History, historyReducer, newHistory } from "./history";
import { merge } from "./merge";
import { copiesOf, newBlock } from "./new_block";
import { alone, partsOf } from "./parts";

const idsOf = (form: Form): string[] => [...partsOf(form).keys()].sort();

/** Every id as often as it is written: a part that stands in two places is seen twice. */
const idsWritten = (form: Form): string[] => {
  const lists = [form.pages, form.confirmations, form.figures, form.trials] as unknown as { id: string }[][];
  const within = (part: object): string[] =>
    ["blocks", "kinds"].flatMap((list) =>
      ((part as Record<string, ({ id: string } | string)[] | undefined>)[list] ?? []).flatMap((each) =>
        typeof each === "string" ? [] : [each.id, ...within(each)],
      ),
    );
  return lists.flat().flatMap((part) => [part.id, ...within(part)]);
};

const isSound = (form: Form): boolean => {
  const written = idsWritten(form);
  const parts = partsOf(form);
  const rows = [...parts.values()].filter(({ what, part }) => what === "block" && part.type === "repeat");
  return new Set(written).size === written.length && rows.every(({ kind }) => kind === null);
};

describe("any action", () => {
  it("keeps the form sound: each part once, no repeat in a row", () => {
    fc.assert(fc.property(anyForm, anyDoing, (form, doing) => isSound(after(form, [doing]))));
  });

  it("moves parts without losing or changing one", () => {
    fc.assert(
      fc.property(anyForm, anyDoing, (form, doing) => {
        const moved = after(form, [{ ...doing, what: "move" }]);
        expect(idsOf(moved)).toEqual(idsOf(form));
        for (const [id, { part }] of partsOf(moved)) expect(alone(part)).toEqual(alone(partsOf(form).get(id)!.part));
      }),
    );
  });

  it("leaves the form the very same object where it moves nothing", () => {
    fc.assert(
      fc.property(anyForm, (form) => {
        for (const { id, into, index } of partsOf(form).values())
          expect(apply(form, { do: "move", parts: [id], into, at: index })).toBe(form);
      }),
    );
  });

  it("removes a part with all that stands in it and nothing else", () => {
    fc.assert(
      fc.property(anyForm, fc.nat(40), (form, which) => {
        const parts = partsOf(form);
        const blocks = [...parts.values()].filter(({ what }) => what === "block");
        fc.pre(blocks.length > 0);
        const { id } = blocks[which % blocks.length]!;
        const kept = idsOf(form).filter((each) => each !== id && !isInside(parts, each, new Set([id])));
        expect(idsOf(apply(form, { do: "remove", parts: [id] }))).toEqual(kept);
      }),
    );
  });

  /** How many keys outside rows are there once more than they should: what was moved out of a row may bring its own. */
  const keysTooMany = (form: Form): number => {
    const blocks = [...partsOf(form).values()].filter((entry) => entry.what === "block" && entry.kind === null);
    const keys = blocks.map(({ part }) => (part as { key: string }).key);
    return keys.length - new Set(keys).size;
  };

  it("copies blocks so that no id is there twice, and no further key outside rows", () => {
    fc.assert(
      fc.property(anyForm, (form) => {
        const page = form.pages[0]!;
        const copied = copiesOf(form, page.blocks);
        const into = { holder: page.id, list: "blocks" } as const;
        const both = apply(form, { do: "add", parts: copied, into, at: page.blocks.length });
        expect(isSound(both)).toBe(true);
        expect(keysTooMany(both)).toBe(keysTooMany(form));
      }),
    );
  });
});

describe("undo and redo", () => {
  const done = (form: Form, doings: readonly Doing[]): History =>
    doings.reduce((history, doing, at) => {
      const action = actionOf(history.form, doing);
      return action ? historyReducer(history, { type: "act", action, at: at * 10_000 }) : history;
    }, newHistory(form));
  const repeated = (history: History, type: "undo" | "redo", times: number): History =>
    Array.from({ length: times }).reduce<History>((now) => historyReducer(now, { type }), history);

  it("lead back to where one began, and forth again", () => {
    fc.assert(
      fc.property(anyForm, anyDoings(), (form, doings) => {
        const history = done(form, doings);
        const steps = history.past.length;
        const back = repeated(history, "undo", steps);
        expect(back.form).toBe(form);
        expect(repeated(back, "redo", steps).form).toBe(history.form);
      }),
    );
  });

  it("take back one's own steps and leave the other's change", () => {
    fc.assert(
      fc.property(anyForm, anyDoings(5), (form, doings) => {
        const mine = done(form, doings);
        const theirs: Form = { ...form, title: "Theirs" };
        const history = historyReducer(mine, { type: "merge", base: form, theirs, prefer: "mine" });
        expect(history.form).toEqual(merge(form, mine.form, theirs, "mine").form);
        const back = repeated(history, "undo", history.past.length);
        expect(back.form).toEqual(theirs);
      }),
    );
  });
});

describe("merging", () => {
  it("keeps settings that are called like lists of parts", () => {
    const upload = { ...newBlock(EMPTY, "file_upload"), kinds: ["table"] };
    const form = apply(EMPTY, { do: "add", parts: [upload], into: { holder: "p1", list: "blocks" }, at: 0 });
    const mine = apply(form, { do: "edit", parts: [upload.id], changes: { kinds: ["image"] } });
    expect([...partsOf(form).keys()]).toEqual(["p1", upload.id]);
    expect(merge(form, mine, { ...form, title: "Theirs" }, "mine").form).toEqual({ ...mine, title: "Theirs" });
  });

  it("with somebody who did nothing gives what the other made", () => {
    fc.assert(
      fc.property(anyForm, anyDoings(), (base, doings) => {
        const changed = after(base, doings);
        for (const prefer of ["mine", "theirs"] as const) {
          expect(merge(base, changed, base, prefer)).toEqual({ form: changed, clashes: [] });
          expect(merge(base, base, changed, prefer)).toEqual({ form: changed, clashes: [] });
        }
      }),
    );
  });

  it("where both did the same is no clash", () => {
    fc.assert(
      fc.property(anyForm, anyDoings(), (base, doings) => {
        const changed = after(base, doings);
        expect(merge(base, changed, structuredClone(changed), "mine")).toEqual({ form: changed, clashes: [] });
      }),
    );
  });

  it("keeps every block that neither removed, and each once", () => {
    fc.assert(
      fc.property(anyForm, anyDoings(6), anyDoings(6), (base, my, their) => {
        const [mine, theirs] = [after(base, my), after(base, their)];
        const { form } = merge(base, mine, theirs, "mine");
        const [before, inMine, inTheirs] = [base, mine, theirs].map((each) => new Set(idsOf(each)));
        const expected = [...new Set([...inMine!, ...inTheirs!])].filter(
          (id) => (inMine!.has(id) && inTheirs!.has(id)) || !before!.has(id),
        );
        const kept = new Set(idsOf(form));
        expect(isSound(form)).toBe(true);
        expect(expected.filter((id) => !kept.has(id))).toEqual([]);
      }),
      { numRuns: 300 },
    );
  });
});
