import { describe, expect, it, vi } from "vitest";
import { api } from "../../api/client";
import type { Form } from "../../api/generated/wire";
import { apply } from "../../model/draft";
import { type Block, BLOCK_TYPES, typeOf } from "../../model/blocks";
import { copied, newBlock } from "../../model/new_block";
import { retyped, typesInstead } from "../../model/retyping";
import { type Entry, FORM, type Into, partsOf } from "../../model/parts";
import { A_FORM, block } from "../../testing/a_form";
import type { Bench, SelectHow } from "../workbench/bench";
import { selectedAfter } from "../workbench/useSelection";
import { blocksToCopy, readBlocks, written } from "./clipboard";
import { dropTarget, type Side } from "./drop_target";
import { sheetRows } from "./sheet_rows";
import { actionsOn, questionsIn, type Removal, shifted } from "./actions";

/** A workbench without a screen: the draft and the selection. */
function opened(selected: string[], form: Form = A_FORM) {
  const bench = {
    saved: { newestEdition: 0 },
    reply: { id: "visit" },
    form,
    selected,
    analysis: { links: {} as Record<string, { reads: string[]; read_by: string[] }> },
    get part() {
      return this.selected.at(-1) ?? null;
    },
    get parts() {
      return partsOf(this.form);
    },
    act: (action: Parameters<Bench["act"]>[0]) => {
      bench.form = apply(bench.form, action);
    },
    select: (part: string | null, ...[, how = "only"]: [setting?: string | null, how?: SelectHow]) => {
      bench.selected = part === null ? [] : selectedAfter(bench.parts, bench.selected, part, how);
    },
    selectAll: (parts: readonly string[]) => {
      bench.selected = [...parts];
    },
  };
  return { bench, do: actionsOn(() => bench as unknown as Bench) };
}

/** The outline in a line: "p1(name school(teacher phone) lines(row(amount)) note) p2(adults)". */
function outline(form: Form): string {
  const parts = [...partsOf(form).values()];
  const inside = (holder: string): string =>
    parts
      .filter(({ into }) => into.holder === holder)
      .map(({ id }) => (inside(id) ? `${id}(${inside(id)})` : id))
      .join(" ");
  return parts
    .filter(({ what }) => what === "page")
    .map(({ id }) => `${id}(${inside(id)})`)
    .join(" ");
}

const BEGINNING = "p1(name school(teacher phone) lines(row(amount)) note) p2(adults)";

describe("moving what is selected", () => {
  it.each([
    ["down within its page", ["name"], 1, "p1(school(teacher phone) name lines(row(amount)) note) p2(adults)"],
    ["up within its group", ["phone"], -1, "p1(name school(phone teacher) lines(row(amount)) note) p2(adults)"],
    ["over the edge of its page", ["note"], 1, "p1(name school(teacher phone) lines(row(amount))) p2(note adults)"],
    ["back to the end of the page before", ["adults"], -1, `p1(${BEGINNING.slice(3, -12)} adults) p2()`],
    ["several at once", ["school", "lines"], 1, "p1(name note school(teacher phone) lines(row(amount))) p2(adults)"],
    [
      "several to the next page",
      ["lines", "note"],
      1,
      "p1(name school(teacher phone)) p2(lines(row(amount)) note adults)",
    ],
    ["never out of the form", ["name"], -1, BEGINNING],
    ["never out of its group", ["teacher"], -1, BEGINNING],
    ["a page with all that stands on it", ["p2"], -1, `p2(adults) ${BEGINNING.slice(0, -11)}`],
  ])("goes %s", (_how, selected, by, expected) => {
    const { bench, do: actions } = opened(selected);
    // The button says beforehand whether it does anything.
    expect(shifted(bench, by as 1 | -1) !== null).toBe(expected !== BEGINNING);
    actions.shift(by as 1 | -1);
    expect(outline(bench.form)).toBe(expected);
  });

  it("goes into the group before it, into rows after it, and out again", () => {
    const { bench, do: actions } = opened(["name"]);
    actions.nest(true);
    expect(outline(bench.form)).toBe("p1(school(name teacher phone) lines(row(amount)) note) p2(adults)");
    actions.nest(false);
    expect(outline(bench.form)).toBe("p1(school(teacher phone) name lines(row(amount)) note) p2(adults)");
    bench.select("note");
    actions.nest(true);
    expect(outline(bench.form)).toBe("p1(school(teacher phone) name lines(row(amount note))) p2(adults)");
    actions.nest(false);
    expect(outline(bench.form)).toBe("p1(school(teacher phone) name lines(row(amount)) note) p2(adults)");
  });

  it("goes into a group and out with all that is selected beside it", () => {
    const { bench, do: actions } = opened([]);
    bench.selectAll(["lines", "note"]);
    actions.nest(true);
    expect(outline(bench.form)).toBe("p1(name school(teacher phone lines(row(amount)) note)) p2(adults)");
    bench.selectAll(["teacher", "note", "adults"]);
    actions.nest(false);
    // What was selected last says where from; what stands elsewhere stays.
    expect(outline(bench.form)).toBe("p1(name school(teacher phone lines(row(amount)) note)) p2(adults)");
    bench.selectAll(["adults", "teacher", "note"]);
    actions.nest(false);
    expect(outline(bench.form)).toBe("p1(name school(phone lines(row(amount))) teacher note) p2(adults)");
  });

  it("puts several into one group in one step", () => {
    const { bench, do: actions } = opened(["adults", "name"]);
    actions.group();
    const made = bench.selected[0]!;
    expect(outline(bench.form)).toBe(`p1(${made}(name adults) school(teacher phone) lines(row(amount)) note) p2()`);
  });
});

describe("selecting by keyboard", () => {
  it("reaches from where it began to where it is now, over pages, and of blocks alone", () => {
    const { bench, do: actions } = opened(["lines"]);
    const after = (...steps: (1 | -1)[]) => {
      steps.forEach((by) => actions.step(by, true));
      return bench.selected;
    };
    expect(after(1, 1, 1)).toEqual(["lines", "amount", "note", "adults"]);
    expect(after(-1)).toEqual(["lines", "amount", "note"]);
    expect(after(-1, -1)).toEqual(["lines"]);
    expect(after(-1)).toEqual(["lines", "phone"]);
    actions.step(1, false);
    expect(bench.selected).toEqual(["lines"]);
    actions.step(1, false);
    expect(bench.selected).toEqual(["row"]);
  });

  it("takes one more, or one less, by itself", () => {
    const parts = partsOf(A_FORM);
    expect(selectedAfter(parts, ["name"], "note", "also")).toEqual(["name", "note"]);
    expect(selectedAfter(parts, ["name", "note"], "name", "also")).toEqual(["note"]);
    expect(selectedAfter(parts, [], "note", "through")).toEqual(["note"]);
  });
});

describe("adding, copying and removing", () => {
  it("adds after the selection: in the group, at the end of the rows, at the start of a page", () => {
    const places = ["teacher", "row", "p2", "c1"].map((part) => opened([part]).do.afterSelection());
    const at = ({ into, at }: { into: Into; at: number }) => `${into.holder} ${at}`;
    expect(places.map(at)).toEqual(["school 1", "row 1", "p2 0", "p2 1"]);
  });

  it("selects what is next once something is removed, and keeps the last page", () => {
    const { bench, do: actions } = opened(["name"]);
    actions.remove();
    expect(bench.selected).toEqual(["school"]);
    bench.selectAll(["adults", "c1"]);
    actions.remove();
    expect(bench.selected).toEqual(["p2"]);
    actions.remove(["p1", "p2"]);
    expect(bench.form.pages.map(({ id }) => id)).toEqual(["p1"]);
    actions.remove(["p1"]);
    expect(bench.form.pages.map(({ id }) => id)).toEqual(["p1"]);
  });

  it("duplicates behind the last of what is selected", () => {
    const { bench, do: actions } = opened(["teacher", "phone"]);
    actions.duplicate();
    const copies = bench.selected.map((id) => partsOf(bench.form).get(id)!);
    expect(copies.map(({ number, title }) => `${number} ${title}`)).toEqual([
      "1.2.3 teacher (copy)",
      "1.2.4 phone (copy)",
    ]);
  });

  it("puts copies of row kinds beside them, into another repeat, or into a new one", () => {
    const { bench, do: actions } = opened(["row"]);
    const kindsOf = (id: string) => {
      const { part } = bench.parts.get(id) as Extract<Entry, { what: "block" }>;
      return part.type === "repeat" ? part.kinds : [];
    };
    const [row] = kindsOf("lines");
    actions.duplicate();
    const [, copy] = kindsOf("lines");
    expect(bench.selected).toEqual([copy!.id]);
    expect(copy).toMatchObject({ key: `${row!.key}_2`, label: copied(row!.label) });
    expect(copy!.blocks.map(({ key }) => key)).toEqual(row!.blocks.map(({ key }) => key));
    expect(copy!.blocks.map(({ id }) => id)).not.toEqual(row!.blocks.map(({ id }) => id));
    bench.selected = ["note"];
    actions.addRowKinds([row!]);
    expect(kindsOf(bench.selected[0]!)).toMatchObject([{ key: row!.key, label: row!.label }]);
    const before = bench.form;
    bench.selected = [row!.blocks[0]!.id];
    actions.addRowKinds([row!]);
    expect(bench.form).toBe(before);
  });

  it("puts a new confirmation before the one that always follows", () => {
    const { bench, do: actions } = opened([]);
    actions.addConfirmation();
    expect(bench.form.confirmations.map(({ id }) => id)).toEqual([bench.selected[0], "c1"]);
  });

  it("changes of several only those that have the setting", () => {
    const { bench, do: actions } = opened(["name", "school", "adults"]);
    actions.editSelected({ required: "TRUE", placeholder: "here" });
    const changed = [...bench.parts.values()].filter(
      ({ part }) => "placeholder" in part && part.placeholder === "here",
    );
    expect(changed.map(({ id }) => id)).toEqual(["name", "adults"]);
    expect(questionsIn(bench.parts, bench.selected).map(({ id }) => id)).toEqual(["name", "adults"]);
  });

  it("changes a key with its label until something reads the key", () => {
    const labelled = apply(A_FORM, { do: "edit", parts: ["adults"], changes: { label: "Adults" } });
    const { bench, do: actions } = opened(["adults"], labelled);
    const key = () => (bench.parts.get("adults")!.part as { key: string }).key;
    actions.editLabel("adults", "Grown-ups");
    expect(key()).toBe("grown_ups");
    actions.edit("note", { shown: "grown_ups > 3" });
    actions.editLabel("adults", "Guests");
    expect(key()).toBe("grown_ups");
  });

  it("keeps a key once visitors have had the form", () => {
    const { bench, do: actions } = opened(["teacher"]);
    bench.saved.newestEdition = 1;
    actions.editLabel("teacher", "Who comes");
    expect(bench.parts.get("teacher")!.part).toMatchObject({ key: "teacher", label: "Who comes" });
  });

  it("copies a page with what stands on it, under keys of its own, and puts it behind the page it is of", () => {
    const { bench, do: actions } = opened(["p1"]);
    actions.duplicate();
    const { pages } = bench.form;
    expect(pages.map(({ id }) => id)).toEqual(["p1", bench.selected[0], ...A_FORM.pages.slice(1).map(({ id }) => id)]);
    expect(pages[1]!.title).toBe(`${A_FORM.pages[0]!.title || "Page"} (copy)`);
    expect(pages[1]!.blocks.map(({ type }) => type)).toEqual(A_FORM.pages[0]!.blocks.map(({ type }) => type));
    const all = [...bench.parts.values()].flatMap(({ what, part, kind }) =>
      what === "block" && !kind ? [part.key] : [],
    );
    expect(new Set(all).size).toBe(all.length);
  });

  it("makes a field another type where it stands, with all that both have", () => {
    const { bench, do: actions } = opened(["teacher"]);
    const before = bench.parts.get("teacher")!;
    actions.retype("teacher", "long_text");
    const after = bench.parts.get("teacher")!;
    expect([after.number, after.part.id]).toEqual([before.number, "teacher"]);
    expect(after.part).toMatchObject({
      type: "long_text",
      key: "teacher",
      label: (before.part as Block & { label: string }).label,
    });
    for (const { type } of BLOCK_TYPES)
      for (const other of typesInstead(type)) {
        const { block, lost } = retyped(newBlock(A_FORM, type), other);
        expect(Object.keys(block).sort()).toEqual(Object.keys(typeOf(other).blank).sort());
        expect(lost).toEqual([]);
      }
  });
});

describe("a key renamed by the core", () => {
  it("keeps what was changed meanwhile", async () => {
    const { bench, do: actions } = opened(["adults"]);
    const rename = (form: Form) => apply(form, { do: "edit", parts: ["adults"], changes: { key: "guests" } });
    vi.spyOn(api, "rename").mockImplementation((_id, form) => Promise.resolve({ draft: rename(form) }));
    const waiting = actions.rename("adults", "key", "guests");
    actions.edit("adults", { help: "Typed while waiting" });
    await waiting;
    expect(bench.parts.get("adults")!.part).toMatchObject({ key: "guests", help: "Typed while waiting" });
  });
});

describe("removing what others read", () => {
  it("is asked about, naming those outside that read it or what is in it", () => {
    const { bench } = opened(["p1"]);
    const asked: Removal[] = [];
    const on = actionsOn(
      () => bench as unknown as Bench,
      (removal) => asked.push(removal),
    );
    const link = (...read_by: string[]) => ({ reads: [], read_by });
    bench.analysis = { links: { name: link("c1", "note"), adults: link(), note: link() } };
    on.remove(["adults"]);
    expect(asked).toEqual([]);
    const before = bench.form;
    on.remove(["p1"]);
    expect(asked.map(({ parts, readers }) => [parts, readers])).toEqual([[["p1"], ["c1"]]]);
    expect(bench.form).toBe(before);
    asked[0]!.go();
    expect(bench.parts.has("name")).toBe(false);
  });
});

describe("copied blocks", () => {
  it("come back as they were, in the order of the outline, once each", () => {
    const blocks = blocksToCopy(partsOf(A_FORM), ["note", "phone", "school"]);
    expect(blocks.map(({ id }) => id)).toEqual(["school", "note"]);
    expect(readBlocks(written(blocks))).toEqual(blocks);
  });

  it.each(["", "Name*", "[1]", "null", '{"codexa blocks 1": 3}'])("are not what other text says: %s", (text) => {
    expect(readBlocks(text)).toBeNull();
  });

  it("read their own copies in another form", () => {
    const asked = block("number", "guests");
    const told = block("calculated", "price", { shown: "guests > 2", formula: 'guests * 9 & "guests"' });
    const there = apply(A_FORM, { do: "add", parts: [asked, told], into: { holder: "p2", list: "blocks" }, at: 0 });
    const { bench, do: actions } = opened(["adults"], there);
    actions.addBlocks([asked, told], actions.afterSelection());
    const [, copy] = bench.selected.map((id) => bench.parts.get(id)!.part);
    expect(copy).toMatchObject({ key: "price_2", shown: "guests_2 > 2", formula: 'guests_2 * 9 & "guests"' });
  });
});

describe("dragging in the outline", () => {
  const lands = (dragged: string, over: string, half: Side = "before") => {
    const target = dropTarget(partsOf(A_FORM), dragged, over, half);
    return target && `${target.into.holder || "form"} ${target.into.list} ${target.at}`;
  };

  it.each(["before", "after"] as const)("lands %s what it is dropped on, upwards and downwards", (half) => {
    const order = (dragged: string, over: string) => {
      const target = dropTarget(partsOf(A_FORM), dragged, over, half)!;
      const form = apply(A_FORM, { do: "move", parts: [dragged], into: target.into, at: target.at });
      return form.pages[0]!.blocks.map(({ id }) => id).join(" ");
    };
    expect(order("name", "lines")).toBe(half === "before" ? "school name lines note" : "school lines name note");
    expect(order("note", "school")).toBe(half === "before" ? "name note school lines" : "name school note lines");
  });

  it.each([
    ["name", "note", "p1 blocks 2"],
    ["adults", "teacher", "school blocks 0"],
    ["note", "p2", "p2 blocks 0"],
    ["note", "row", "row blocks 0"],
    ["name", "c1", "p2 blocks 1"],
    ["p2", "p1", "form pages 0"],
    ["p2", "name", null],
    ["c1", "name", null],
    ["name", "name", null],
  ])("%s onto %s lands at %s", (dragged, over, expected) => {
    expect(lands(dragged, over)).toBe(expected);
  });
});

describe("the rows of the sheet", () => {
  const told = (form: Form) =>
    sheetRows(form, partsOf(form)).map((row) =>
      row.is === "insert"
        ? `${"·".repeat(row.inside)}+${row.label}${row.empty ? " (empty)" : ""}`
        : row.is === "line"
          ? `${"·".repeat(row.inside)}${row.entries.map(({ id }: Entry) => id).join(" | ")}`
          : `${"·".repeat(row.inside)}${row.is} ${row.id}`,
    );

  it("set in what stands in groups and rows, with a place to insert around each", () => {
    expect(told(A_FORM)).toEqual([
      "page p1",
      "+Insert at the start of page 1",
      "name",
      "+Insert after 1.1",
      "holder school",
      "·+Insert at the start of 1.2",
      "·teacher",
      "·+Insert after 1.2.1",
      "·phone",
      "·+Insert after 1.2.2",
      "+Insert after 1.2",
      "holder lines",
      "·kind row",
      "··+Insert at the start of 1.3.1",
      "··amount",
      "··+Insert after 1.3.1.1",
      "+Insert after 1.3",
      "note",
      "+Insert after 1.4",
      "page p2",
      "+Insert at the start of page 2",
      "adults",
      "+Insert after 2.1",
      "confirmation c1",
    ]);
  });

  it("hold side by side what is half or a third as wide", () => {
    const narrow = apply(A_FORM, { do: "edit", parts: ["teacher", "phone"], changes: { width: "half" } });
    expect(told(narrow)).toContain("·teacher | phone");
    expect(told(apply(A_FORM, { do: "remove", parts: ["adults"] }))).toContain(
      "+Insert at the start of page 2 (empty)",
    );
  });
});

describe("the form's own lists", () => {
  it("are where new pages go", () => {
    const { bench, do: actions } = opened([]);
    actions.addPage();
    expect(bench.parts.get(bench.selected[0]!)!.into).toEqual({ holder: FORM, list: "pages" });
  });
});
