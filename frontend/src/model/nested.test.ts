import { describe, expect, it } from "vitest";
import type { Form, FormState } from "../api/generated/wire";
import { stillSurroundings } from "../app/compose/still";
import { BLOCK_TYPES, type Block, isQuestion, titleOf, titleSetting, typeOf } from "./blocks";
import { copiesOf, duplicatesOf, newBlock, newPage } from "./new_block";
import { isKeyRead, keysOf, namedIn } from "./outline";
import { partsOf } from "./parts";

const field = (kind: Block["type"], id: string, more: object = {}): Block =>
  ({
    ...typeOf(kind).blank,
    id,
    key: id,
    ...("label" in typeOf(kind).blank ? { label: id.toUpperCase() } : {}),
    ...more,
  }) as Block;

const repeat = field("repeat", "lines", {
  kinds: [
    {
      ...(typeOf("repeat").blank as Extract<Block, { type: "repeat" }>).kinds[0]!,
      id: "pair",
      key: "pair",
      label: "Pair",
      blocks: [field("number", "amount"), field("calculated", "half", { formula: "amount / 2" })],
    },
  ],
});
const form = {
  name: "Test",
  figures: [{ id: "f1", key: "total", name: "Total", kind: "formula", formula: "SUM(lines.amount) * rate" }],
  pages: [
    {
      ...newPage("One"),
      id: "p1",
      blocks: [
        field("group", "school", { blocks: [field("short_text", "teacher"), field("number", "rate")] }),
        repeat,
        field("text", "words", { text: "<p>Dear {teacher}, not rated</p>" }),
      ],
    },
  ],
} as unknown as Form;

describe("what stands inside groups and rows", () => {
  it("has numbers and names", () => {
    const names = Object.fromEntries([...partsOf(form)].map(([id, { number, title }]) => [id, `${number} ${title}`]));
    expect(names).toMatchObject({
      p1: "1 One",
      school: "1.1 SCHOOL",
      rate: "1.1.2 RATE",
      pair: "1.2.1 Pair",
      half: "1.2.1.2 HALF",
      f1: " Total",
    });
  });

  it("can be named in formulas: fields of groups, columns of row kinds, figures", () => {
    const named = namedIn(form).map((each) => each.name);
    expect(named).toEqual(["teacher", "rate", "lines", "lines.pair.amount", "lines.pair.half", "total"]);
  });

  it("takes keys that others may not have, but for those of rows", () => {
    expect(keysOf(form)).toEqual(["school", "teacher", "rate", "lines", "words", "total"]);
    expect(newBlock(form, "number").key).toBe("number");
  });

  it("is known to be read by figures, by rows and by texts, and not by what merely says the word", () => {
    expect(["rate", "amount", "teacher"].map((key) => isKeyRead(form, key))).toEqual([true, true, true]);
    expect(["rated", "dear", "one"].map((key) => isKeyRead(form, key))).toEqual([false, false, false]);
  });

  it("gets ids and keys of its own in a copy", () => {
    const copy = duplicatesOf(form, [form.pages[0]!.blocks[0]!])[0] as Extract<Block, { type: "group" }>;
    expect(copy.label).toBe("SCHOOL (copy)");
    expect([copy.key, ...copy.blocks.map((block) => block.key)]).toEqual(["school_2", "teacher_2", "rate_2"]);
    expect(new Set([copy.id, ...copy.blocks.map((block) => block.id), "school", "teacher", "rate"]).size).toBe(6);
    const rows = copiesOf(form, [repeat])[0] as Extract<Block, { type: "repeat" }>;
    expect(rows.kinds[0]!.id).not.toBe("pair");
    expect(rows.kinds[0]!.blocks.map((block) => block.key)).toEqual(["amount", "half"]);
  });

  it("is shown on the sheet as it is in a new row, hidden or not", () => {
    const state = {
      path: [],
      blocks: { school: { shown: false }, words: { shown: true, required: true } },
      fresh: { pair: { amount: { shown: true, required: true }, half: { shown: false } } },
    } as unknown as FormState;
    const around = stillSurroundings(state, null);
    expect([around.factsOf("school"), around.factsOf("words")]).toEqual([
      { shown: true },
      { shown: true, required: true },
    ]);
    const row = stillSurroundings(state, "pair");
    expect([row.prefix, row.factsOf("amount"), row.factsOf("half")]).toEqual([
      "pair/",
      { shown: true, required: true },
      { shown: true },
    ]);
  });
});

describe("block types", () => {
  it("each have a title, by their label, their text without tags, or their type", () => {
    expect(titleOf(field("text", "t", { text: "<p>Some <b>words</b></p>" }))).toMatch(/^Some +words/);
    expect(titleOf(field("divider", "d"))).toBe("Divider");
    for (const { blank } of BLOCK_TYPES) expect(titleOf(blank)).not.toBe("");
  });

  it("tell which setting their title is typed into", () => {
    const settings = Object.fromEntries(BLOCK_TYPES.map(({ type, blank }) => [type, titleSetting(blank)]));
    expect(settings).toMatchObject({ number: "label", group: "label", heading: "text", divider: null, picture: null });
  });

  it("are questions where they have a default", () => {
    const kinds = BLOCK_TYPES.filter(({ blank }) => isQuestion(blank)).map(({ type }) => type);
    expect(kinds).toEqual(BLOCK_TYPES.filter(({ blank }) => "default" in blank).map(({ type }) => type));
    expect(kinds).toContain("number");
    expect(kinds).not.toContain("calculated");
  });
});
