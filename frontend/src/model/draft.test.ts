import { describe, expect, it } from "vitest";
import type { Form } from "../api/generated/wire";
import { BLOCK_TYPES } from "./blocks";
import { type Action, apply } from "./draft";
import { historyReducer, newHistory } from "./history";
import { merge } from "./merge";
import { copyOf, newBlock } from "./new_block";
import { blocksOf, isKeyRead, keyFrom, placesOf } from "./outline";

const base = {
  name: "Visit",
  title: "Visit",
  figures: [],
  pages: [
    { id: "p1", title: "One", blocks: [] },
    { id: "p2", title: "Two", blocks: [] },
  ],
} as unknown as Form;

const form = ["people", "school", "price"].reduce((made, label) => {
  const block = { ...newBlock(made, "short_text"), id: label, key: label, label };
  return apply(made, { do: "add_block", block, page: "p1", at: 9 } as Action);
}, base);

const order = (draft: Form) => draft.pages.map((page) => page.blocks.map((block) => block.id).join(" "));
const labelled = (draft: Form, block: string, label: string) =>
  apply(draft, { do: "edit_block", block, changes: { label } });
const label = (draft: Form, id: string) =>
  (blocksOf(draft).find((block) => block.id === id) as { label: string }).label;

describe("actions", () => {
  it("move blocks within and between pages", () => {
    expect(order(apply(form, { do: "move_block", block: "people", page: "p1", at: 1 }))).toEqual([
      "school people price",
      "",
    ]);
    expect(order(apply(form, { do: "move_block", block: "people", page: "p2", at: 0 }))).toEqual([
      "school price",
      "people",
    ]);
    expect(apply(form, { do: "move_block", block: "nobody", page: "p2", at: 0 })).toBe(form);
    expect(apply(form, { do: "move_block", block: "people", page: "nowhere", at: 0 })).toBe(form);
  });

  it("leave untouched pages as they are, so that nothing is drawn again", () => {
    const edited = labelled(form, "people", "Guests");
    expect(edited.pages[1]).toBe(form.pages[1]);
    expect(edited.pages[0]!.blocks[1]).toBe(form.pages[0]!.blocks[1]);
  });

  it("number blocks by page and place", () => {
    expect(placesOf(form).get("price")?.number).toBe("1.3");
  });
});

describe("undo", () => {
  const act = (history: ReturnType<typeof newHistory>, action: Action, at: number) =>
    historyReducer(history, { type: "act", action, at });

  it("takes typing in one setting as one step", () => {
    let history = newHistory(form);
    for (const [at, text] of ["G", "Gu", "Gue"].entries())
      history = act(history, { do: "edit_block", block: "people", changes: { label: text } }, at * 100);
    expect(history.past).toHaveLength(1);
    history = act(history, { do: "edit_block", block: "school", changes: { label: "S" } }, 400);
    expect(history.past).toHaveLength(2);
    history = historyReducer(history, { type: "undo" });
    expect(label(history.form, "people")).toBe("Gue");
    history = historyReducer(historyReducer(history, { type: "undo" }), { type: "redo" });
    expect(label(history.form, "people")).toBe("Gue");
  });

  it("keeps a long pause as two steps, and what changes nothing as none", () => {
    let history = act(newHistory(form), { do: "edit_block", block: "people", changes: { label: "A" } }, 0);
    history = act(history, { do: "edit_block", block: "people", changes: { label: "B" } }, 5000);
    expect(history.past).toHaveLength(2);
    expect(act(history, { do: "move_block", block: "nobody", page: "p1", at: 0 }, 6000)).toBe(history);
  });

  it("has nothing to undo at the start", () => {
    const history = newHistory(form);
    expect(historyReducer(history, { type: "undo" })).toBe(history);
    expect(historyReducer(history, { type: "redo" })).toBe(history);
  });
});

describe("merging two people's changes", () => {
  it("keeps changes to different blocks of both", () => {
    const { form: merged, clashes } = merge(
      form,
      labelled(form, "people", "Mine"),
      labelled(form, "school", "Theirs"),
      "mine",
    );
    expect(clashes).toEqual([]);
    expect([label(merged, "people"), label(merged, "school")]).toEqual(["Mine", "Theirs"]);
  });

  it("asks about the same block, and takes what is preferred", () => {
    const [mine, theirs] = [labelled(form, "people", "Mine"), labelled(form, "people", "Theirs")];
    expect(merge(form, mine, theirs, "mine").clashes).toEqual(["people"]);
    expect(label(merge(form, mine, theirs, "mine").form, "people")).toBe("Mine");
    expect(label(merge(form, mine, theirs, "theirs").form, "people")).toBe("Theirs");
  });

  it("sees no clash where both did the same", () => {
    const same = labelled(form, "people", "Guests");
    expect(merge(form, same, labelled(form, "people", "Guests"), "mine").clashes).toEqual([]);
  });

  it("keeps my order and puts what they added behind its neighbour", () => {
    const mine = apply(form, { do: "move_block", block: "price", page: "p1", at: 0 });
    const added = { ...newBlock(form, "number"), id: "added" };
    const theirs = apply(form, { do: "add_block", block: added, page: "p1", at: 1 });
    expect(order(merge(form, mine, theirs, "mine").form)).toEqual(["price people added school", ""]);
  });

  it("lets a removal stand unless the other edited the block", () => {
    const removed = apply(form, { do: "remove_block", block: "people" });
    expect(order(merge(form, form, removed, "mine").form)).toEqual(["school price", ""]);
    const { form: merged, clashes } = merge(form, labelled(form, "people", "Mine"), removed, "mine");
    expect(clashes).toEqual(["people"]);
    expect(order(merged)).toEqual(["people school price", ""]);
  });

  it("merges settings of the form and titles of pages", () => {
    const mine = apply(form, { do: "edit_page", page: "p2", changes: { title: "My page" } });
    const theirs = apply(form, { do: "edit_form", changes: { title: "Their title" } });
    const { form: merged, clashes } = merge(form, mine, theirs, "mine");
    expect([merged.title, merged.pages[1]!.title, clashes]).toEqual(["Their title", "My page", []]);
  });
});

describe("keys", () => {
  it.each([
    ["Group size", "group_size"],
    ["Größe (cm)", "gro_e_cm"],
    ["2nd choice", "nd_choice"],
    ["東京", "field"],
    ["", "field"],
  ])("are made of labels: %s", (text, key) => {
    expect(keyFrom(text, [])).toBe(key);
  });

  it("are never given twice", () => {
    expect(keyFrom("Name", ["name", "name_2"])).toBe("name_3");
  });

  it("are known to be read by whole words in formulas", () => {
    const read = apply(form, { do: "edit_block", block: "school", changes: { shown: "People > 3" } });
    expect([isKeyRead(read, "people"), isKeyRead(read, "peo"), isKeyRead(form, "people")]).toEqual([
      true,
      false,
      false,
    ]);
  });

  it.each(BLOCK_TYPES.map((type) => type.type))("new and copied blocks have their own: %s", (type) => {
    const block = newBlock(form, type);
    const copy = copyOf(apply(form, { do: "add_block", block, page: "p1", at: 0 }), block);
    expect(copy.id).not.toBe(block.id);
    expect(copy.key).not.toBe(block.key);
    if ("options" in block && "options" in copy) expect(copy.options[0]!.id).not.toBe(block.options[0]!.id);
  });
});
