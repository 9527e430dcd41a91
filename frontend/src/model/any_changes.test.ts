// What holds for every form and whatever is done to it: nothing gets lost, everything can be taken back, and two
// people's changes come together.
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { Form } from "../api/generated/wire";
import { actionOf, after, EMPTY, anyDoing, anyDoings, anyForm, type Doing } from "../testing/any_form";
import { differences } from "./differences";
import { apply, isInside } from "./draft";
import { type History, historyReducer, newHistory } from "./history";
import { deltasOf, statesOf } from "./kept_steps";
import { merge } from "./merge";
import { copiesOf, newBlock } from "./new_block";
import { alone, partsOf } from "./parts";
import { same } from "./same";
import { mergedOrder, movedIn } from "./three_way";

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

  it("has every change of both in it, or asks about it", () => {
    fc.assert(
      fc.property(anyForm, anyDoings(6), anyDoings(6), (base, my, their) => {
        const [mine, theirs] = [after(base, my), after(base, their)];
        const { form, clashes } = merge(base, mine, theirs, "mine");
        const [was, now] = [partsOf(base), partsOf(form)];
        const asked = (id: string, setting: string) =>
          clashes.some(({ owner, path }) => owner === id && (path === "" || path === setting));
        for (const made of [mine, theirs])
          for (const { id, part } of partsOf(made).values()) {
            const [before, merged] = [was.get(id), now.get(id)];
            if (!before || !merged) continue;
            const [old, said, kept] = [before.part, part, merged.part].map(alone);
            for (const setting of Object.keys(said!))
              if (!same(old![setting], said![setting]) && !asked(id, setting))
                expect(kept![setting]).toEqual(said![setting]);
          }
      }),
      { numRuns: 300 },
    );
  });

  it("keeps what each of two people moved within one page", () => {
    fc.assert(
      fc.property(fc.integer({ min: 6, max: 30 }), fc.nat(), fc.nat(), fc.nat(), fc.nat(), (count, a, b, c, d) => {
        const ids = Array.from({ length: count }, (_, at) => `b${at}`);
        const moved = (from: number, to: number): string[] => {
          const rest = ids.toSpliced(from % count, 1);
          return rest.toSpliced(to % rest.length, 0, ids[from % count]!);
        };
        const [mine, theirs] = [moved(a, b), moved(c, d)];
        const [mover, other] = [ids[a % count]!, ids[c % count]!];
        // Two neighbours that changed places could both have been moved.
        const isOnly = (made: readonly string[], id: string) => same([...movedIn(ids, made)], [id]);
        fc.pre(mover !== other && isOnly(mine, mover) && isOnly(theirs, other));
        const order = mergedOrder([ids, mine, theirs], new Set(ids), () => "mine");
        expect([...order].sort()).toEqual([...ids].sort());
        const stays = (id: string) => id !== mover && id !== other;
        expect(order.filter(stays)).toEqual(ids.filter(stays));
        const before = (list: readonly string[], id: string) => list.slice(0, list.indexOf(id)).findLast(stays);
        expect(before(order, mover)).toBe(before(mine, mover));
        expect(before(order, other)).toBe(before(theirs, other));
      }),
    );
  });
});

describe("names that two people give", () => {
  const into = { holder: "p1", list: "blocks" } as const;
  const field = (id: string, key: string, more: object = {}) => ({ ...newBlock(EMPTY, "number"), id, key, ...more });
  const with_ = (form: Form, ...parts: { id: string }[]): Form => apply(form, { do: "add", parts, into, at: 0 });
  const base = with_(EMPTY, field("a", "people"), field("b", "price"));
  const formulaOf = (form: Form, id: string) => (partsOf(form).get(id)!.part as unknown as { shown: string }).shown;
  const keyOf = (form: Form, id: string) => (partsOf(form).get(id)!.part as unknown as { key: string }).key;
  const edited = (form: Form, id: string, changes: object) =>
    apply(form, { do: "edit", parts: [id], changes: { ...changes } });

  it("are followed by the rules that the other wrote meanwhile, whoever of both saves last", () => {
    const renamed = edited(base, "a", { key: "guests" });
    const ruled = with_(
      base,
      field("c", "note", { shown: 'people > 2 and price <> "people"', label: "{people} in all" }),
    );
    for (const [mine, theirs] of [
      [renamed, ruled],
      [ruled, renamed],
    ] as const) {
      const { form, clashes } = merge(base, mine, theirs, "mine");
      expect(clashes).toEqual([]);
      expect([keyOf(form, "a"), formulaOf(form, "c")]).toEqual(["guests", 'guests > 2 and price <> "people"']);
      expect(partsOf(form).get("c")!.title).toBe("{guests} in all");
    }
  });

  it("are asked about once where both renamed, and then hold in the rules of both", () => {
    const [mine, theirs] = [
      edited(edited(base, "a", { key: "guests" }), "b", { shown: "guests > 1" }),
      with_(edited(base, "a", { key: "visitors" }), field("c", "note", { shown: "visitors > 2" })),
    ];
    const { form, clashes } = merge(base, mine, theirs, "theirs");
    expect(clashes.map(({ owner, path }) => [owner, path])).toEqual([["a", "key"]]);
    expect([keyOf(form, "a"), formulaOf(form, "b"), formulaOf(form, "c")]).toEqual([
      "visitors",
      "visitors > 1",
      "visitors > 2",
    ]);
  });

  it("are made to differ where both came to the same: theirs stays, my rules follow mine", () => {
    const mine = with_(base, field("c", "note"), field("d", "rest", { shown: "note > 1" }));
    const theirs = with_(base, field("e", "note"), field("f", "more", { shown: "note > 2" }));
    const { form, clashes } = merge(base, mine, theirs, "mine");
    expect(clashes).toEqual([]);
    expect(["c", "e"].map((id) => keyOf(form, id))).toEqual(["note_2", "note"]);
    expect(["d", "f"].map((id) => formulaOf(form, id))).toEqual(["note_2 > 1", "note > 2"]);
  });

  it("that are codes of options differ too, and options of both stay, each with its own wording", () => {
    const option = (id: string, code: string, label: string) => ({ id, code, label });
    const choice = {
      ...newBlock(EMPTY, "single_choice"),
      id: "s",
      options: [option("o1", "a", "A"), option("o2", "b", "B")],
    };
    const begun = with_(EMPTY, choice);
    const of = (...options: object[]) => edited(begun, "s", { options });
    const mine = of(option("o1", "a", "Alpha"), option("o2", "b", "B"), option("o3", "new", "Mine"));
    const theirs = of(option("o2", "b", "Beta"), option("o1", "a", "A"), option("o4", "new", "Theirs"));
    const { form, clashes } = merge(begun, mine, theirs, "mine");
    const { options } = partsOf(form).get("s")!.part as unknown as { options: ReturnType<typeof option>[] };
    expect(clashes).toEqual([]);
    expect(options.map(({ code, label }) => `${code} ${label}`).sort()).toEqual([
      "a Alpha",
      "b Beta",
      "new Theirs",
      "new_2 Mine",
    ]);
    expect(options[0]!.label).toBe("Beta");
  });
});

describe("steps that the browser keeps", () => {
  it("lead back through the same states, as far as there is room", () => {
    fc.assert(
      fc.property(anyForm, fc.array(anyDoing, { maxLength: 8 }), (form, doings) => {
        const states = doings.reduce<Form[]>((before, doing) => [...before, after(before.at(-1)!, [doing])], [form]);
        const past = states.slice(0, -1).map((each) => ({ form: each }));
        const now = states.at(-1)!;
        const kept = JSON.parse(JSON.stringify(deltasOf(now, past, Infinity))) as ReturnType<typeof deltasOf>;
        expect(statesOf(now, kept)).toEqual(past.map((each) => each.form));
        expect(deltasOf(now, past, 0)).toEqual([]);
      }),
    );
  });

  it("say what differs: nothing between equal states, and each thing once", () => {
    fc.assert(
      fc.property(anyForm, anyDoings(5), (form, doings) => {
        const now = after(form, doings);
        expect(differences(now, structuredClone(now))).toEqual([]);
        const found = differences(form, now);
        expect(found.length === 0).toBe(same(form, now));
        expect(new Set(found.map((each) => JSON.stringify({ ...each, after: null }))).size).toBe(found.length);
      }),
    );
  });
});
