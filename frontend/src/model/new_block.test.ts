import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { A_FORM, block, everyBlock } from "../testing/a_form";
import { anyForm } from "../testing/any_form";
import { type Block, BLOCK_TYPES, titleOf } from "./blocks";
import { apply } from "./draft";
import { copied, copiesOf, duplicatesOf, newBlock, newFigure, newPage, newRowKind } from "./new_block";
import { keysOf } from "./outline";
import { partsOf } from "./parts";

const idsIn = (value: unknown): string[] =>
  [...JSON.stringify(value).matchAll(/"id":"([^"]*)"/g)].map((match) => match[1]!);
const keysIn = (blocks: readonly Block[]): string[] =>
  blocks.flatMap((each) => [each.key, ...(each.type === "group" ? keysIn(each.blocks) : [])]);

describe("a new block", () => {
  it.each(BLOCK_TYPES.map(({ type }) => type))("has ids of its own and a key that is free: %s", (type) => {
    const [one, other] = [newBlock(A_FORM, type), newBlock(A_FORM, type)];
    expect(one.type).toBe(type);
    expect(idsIn(one).filter((id) => idsIn(other).includes(id))).toEqual([]);
    expect(keysOf(A_FORM)).not.toContain(one.key);
    expect(titleOf(one)).not.toBe("");
  });

  it("may have in a row the key of something outside", () => {
    const amount = newBlock(A_FORM, "number");
    expect(newBlock(apply(A_FORM, { do: "edit", parts: ["adults"], changes: { key: amount.key } }), "number").key).toBe(
      `${amount.key}_2`,
    );
    const taken = apply(A_FORM, { do: "edit", parts: ["adults"], changes: { key: amount.key } });
    expect(newBlock(taken, "number", "row").key).toBe(amount.key);
  });
});

it("new pages, row kinds and figures stand by themselves", () => {
  expect(newPage("Way here")).toMatchObject({ title: "Way here", blocks: [], next: [] });
  const first = newRowKind([]);
  const second = newRowKind([first]);
  expect([first.key, second.key, newRowKind([first, second]).key]).toEqual([
    "row",
    "another_kind_of_row",
    "another_kind_of_row_2",
  ]);
  expect(newFigure(A_FORM, "formula", "Adults").key).toBe("adults_2");
  expect(newFigure(A_FORM, "counter", "Strikes")).toMatchObject({ kind: "counter", start: "0", counts: [] });
});

describe("copies of blocks", () => {
  it("share no id with what they were made of, and no key with anything, in any form", () => {
    fc.assert(
      fc.property(anyForm, (form) => {
        const blocks = form.pages.flatMap((page) => page.blocks);
        const copies = copiesOf(form, blocks);
        expect(idsIn(copies).filter((id) => idsIn(form).includes(id))).toEqual([]);
        const keys = keysIn(copies);
        expect(new Set(keys).size).toBe(keys.length);
        expect(keys.filter((key) => keysOf(form).includes(key))).toEqual([]);
      }),
    );
  });

  it("are the same but for ids and keys: pasted into an empty form, they keep their keys too", () => {
    const empty = { ...A_FORM, pages: [newPage("One")], figures: [] };
    const blocks = A_FORM.pages[0]!.blocks;
    const plain = (value: unknown) => JSON.stringify(value).replaceAll(/"id":"[^"]*"/g, "");
    expect(plain(copiesOf(empty, blocks))).toBe(plain(blocks));
  });

  const READER = {
    shown: 'adults > 12 AND "adults" <> note',
    formula: "SUM(lines.amount) + adults * adults_fee(1) + adults.counts_as",
    label: "For {adults} adults",
    placeholder: "adults",
  };
  const [, reader] = copiesOf(A_FORM, [block("number", "adults"), block("calculated", "told", READER)]) as unknown as [
    Block,
    typeof READER,
  ];

  it.each([
    ["shown", 'adults_2 > 12 AND "adults" <> note'],
    ["formula", "SUM(lines.amount) + adults_2 * adults_fee(1) + adults_2.counts_as"],
    ["label", "For {adults_2} adults"],
    ["placeholder", "adults"],
  ] as const)("read one another where they are copied together: %s", (setting, expected) => {
    expect(reader[setting]).toBe(expected);
  });

  it("go on reading what was not copied with them", () => {
    const [alone] = copiesOf(A_FORM, [block("number", "children", { shown: "adults > 2" })]);
    expect(alone).toMatchObject({ key: "children", shown: "adults > 2" });
  });

  it("say beside the original that they are copies", () => {
    const [copy, divider] = duplicatesOf(A_FORM, [block("number", "adults"), block("divider", "line")]);
    expect(copy).toMatchObject({ label: "adults (copy)", key: "adults_2" });
    expect(["Adults", "Adults (copy)", "Adults (copy 2)"].map(copied)).toEqual([
      "Adults (copy)",
      "Adults (copy 2)",
      "Adults (copy 3)",
    ]);
    expect(divider).not.toHaveProperty("label");
  });

  it("of a group copy what stands in it", () => {
    const group = partsOf(A_FORM).get("school")!.part as Block;
    const [copy] = duplicatesOf(A_FORM, [group]);
    const inside = everyBlock({ ...A_FORM, pages: [{ ...newPage(""), blocks: [copy!] }] });
    expect(inside.map(({ key }) => key)).toEqual(["school_2", "teacher_2", "phone_2"]);
  });
});
