import { describe, expect, it } from "vitest";
import type { Form } from "../api/generated/wire";
import { BLOCK_TYPES } from "./blocks";
import { type Action, apply } from "./draft";
import { type History, historyReducer, newHistory } from "./history";
import { merge } from "./merge";
import { copiesOf, newBlock } from "./new_block";
import { type Into, partsOf } from "./parts";
import { A_FORM, everyBlock } from "../testing/a_form";

const on = (holder: string): Into => ({ holder, list: "blocks" });

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
  return apply(made, { do: "add", parts: [block], into: on("p1"), at: 9 });
}, base);

const order = (draft: Form) => draft.pages.map((page) => page.blocks.map((block) => block.id).join(" "));
const labelled = (draft: Form, block: string, label: string) =>
  apply(draft, { do: "edit", parts: [block], changes: { label } });
const label = (draft: Form, id: string) =>
  (everyBlock(draft).find((block) => block.id === id) as { label: string }).label;

describe("actions", () => {
  it("move blocks within and between pages", () => {
    expect(order(apply(form, { do: "move", parts: ["people"], into: on("p1"), at: 1 }))).toEqual([
      "school people price",
      "",
    ]);
    expect(order(apply(form, { do: "move", parts: ["people"], into: on("p2"), at: 0 }))).toEqual([
      "school price",
      "people",
    ]);
    expect(apply(form, { do: "move", parts: ["nobody"], into: on("p2"), at: 0 })).toBe(form);
    expect(apply(form, { do: "move", parts: ["people"], into: on("nowhere"), at: 0 })).toBe(form);
  });

  it("leave untouched pages as they are, so that nothing is drawn again", () => {
    const edited = labelled(form, "people", "Guests");
    expect(edited.pages[1]).toBe(form.pages[1]);
    expect(edited.pages[0]!.blocks[1]).toBe(form.pages[0]!.blocks[1]);
  });

  it("number blocks by page and place", () => {
    expect(partsOf(form).get("price")?.number).toBe("1.3");
  });
});

describe("undo", () => {
  const act = (history: ReturnType<typeof newHistory>, action: Action, at: number) =>
    historyReducer(history, { type: "act", action, at });

  it("takes typing in one setting as one step", () => {
    let history = newHistory(form);
    for (const [at, text] of ["G", "Gu", "Gue"].entries())
      history = act(history, { do: "edit", parts: ["people"], changes: { label: text } }, at * 100);
    expect(history.past).toHaveLength(1);
    history = act(history, { do: "edit", parts: ["school"], changes: { label: "S" } }, 400);
    expect(history.past).toHaveLength(2);
    history = historyReducer(history, { type: "undo" });
    expect(label(history.form, "people")).toBe("Gue");
    history = historyReducer(historyReducer(history, { type: "undo" }), { type: "redo" });
    expect(label(history.form, "people")).toBe("Gue");
  });

  it("takes a list that grows as a step of its own, and what is typed in it at once as part of it", () => {
    const put = (history: History, labels: string[], at: number) => {
      const options = labels.map((label, place) => ({ id: `o${place}`, code: `c${place}`, label }));
      return act(history, { do: "edit", parts: ["people"], changes: { options } }, at);
    };
    let history = put(newHistory(form), ["A"], 0);
    history = put(history, ["A", ""], 100);
    history = put(history, ["A", "B"], 200);
    expect(history.past).toHaveLength(2);
    history = put(history, ["B"], 300);
    expect(history.past).toHaveLength(3);
  });

  it("keeps a long pause as two steps, and what changes nothing as none", () => {
    let history = act(newHistory(form), { do: "edit", parts: ["people"], changes: { label: "A" } }, 0);
    history = act(history, { do: "edit", parts: ["people"], changes: { label: "B" } }, 5000);
    expect(history.past).toHaveLength(2);
    expect(act(history, { do: "move", parts: ["nobody"], into: on("p1"), at: 0 }, 6000)).toBe(history);
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
    expect(merge(form, mine, theirs, "mine").clashes).toEqual([
      { owner: "people", path: "label", mine: "Mine", theirs: "Theirs" },
    ]);
    expect(label(merge(form, mine, theirs, "mine").form, "people")).toBe("Mine");
    expect(label(merge(form, mine, theirs, "theirs").form, "people")).toBe("Theirs");
  });

  it("sees no clash where both did the same", () => {
    const same = labelled(form, "people", "Guests");
    expect(merge(form, same, labelled(form, "people", "Guests"), "mine").clashes).toEqual([]);
  });

  it("keeps my order and puts what they added behind its neighbour", () => {
    const mine = apply(form, { do: "move", parts: ["price"], into: on("p1"), at: 0 });
    const added = { ...newBlock(form, "number"), id: "added" };
    const theirs = apply(form, { do: "add", parts: [added], into: on("p1"), at: 1 });
    expect(order(merge(form, mine, theirs, "mine").form)).toEqual(["price people added school", ""]);
  });

  it("lets a removal stand unless the other edited the block", () => {
    const removed = apply(form, { do: "remove", parts: ["people"] });
    expect(order(merge(form, form, removed, "mine").form)).toEqual(["school price", ""]);
    const { form: merged, clashes } = merge(form, labelled(form, "people", "Mine"), removed, "mine");
    expect(clashes).toMatchObject([{ owner: "people", path: "", theirs: undefined }]);
    expect(order(merged)).toEqual(["people school price", ""]);
  });

  it("merges settings of the form and titles of pages", () => {
    const mine = apply(form, { do: "edit", parts: ["p2"], changes: { title: "My page" } });
    const theirs = apply(form, { do: "edit_form", changes: { title: "Their title" } });
    const { form: merged, clashes } = merge(form, mine, theirs, "mine");
    expect([merged.title, merged.pages[1]!.title, clashes]).toEqual(["Their title", "My page", []]);
  });
});

describe("a repeat that somebody adds", () => {
  it("to a group that somebody else moves into a row stands at the end: rows hold none", () => {
    const repeat = newBlock(A_FORM, "repeat");
    const mine = apply(A_FORM, { do: "add", parts: [repeat], into: on("school"), at: 0 });
    const theirs = apply(A_FORM, { do: "move", parts: ["school"], into: on("row"), at: 0 });
    const merged = merge(A_FORM, mine, theirs, "mine").form;
    const parts = partsOf(merged);
    expect(parts.get("school")!.into.holder).toBe("row");
    expect(parts.get(repeat.id)).toMatchObject({ kind: null, into: { holder: "p2" } });
  });
});

describe("keys", () => {
  it.each(BLOCK_TYPES.map((type) => type.type))("new and copied blocks have their own: %s", (type) => {
    const block = newBlock(form, type);
    const [copy] = copiesOf(apply(form, { do: "add", parts: [block], into: on("p1"), at: 0 }), [block]) as [
      typeof block,
    ];
    expect(copy.id).not.toBe(block.id);
    expect(copy.key).not.toBe(block.key);
    if ("options" in block && "options" in copy && block.options.length > 0)
      expect(copy.options[0]!.id).not.toBe(block.options[0]!.id);
  });

  it("a quantity that is copied names the product that is copied with it, or the one it named", () => {
    const product = newBlock(form, "product");
    const quantity = { ...newBlock(form, "quantity"), product: product.id };
    const [copied, with_it] = copiesOf(form, [quantity, product]) as [typeof quantity, typeof product];
    expect(copied.product).toBe(with_it.id);
    expect(copiesOf(form, [quantity])[0]).toMatchObject({ product: product.id });
  });
});
