// The lists of what the inspector offers, held against what the core's types have: nothing is missing, nothing is idle.
import { describe, expect, it } from "vitest";
import { BLOCK_TYPES, type BlockKind, typeOf } from "../model/blocks";
import { formulaSetting } from "../app/compose/settings_text";
import { ANY_SHAPE, OPERATOR_WORDS, operandCount, takesSeveral, SHAPES } from "./conditions";
import { SETTINGS } from "./settings";

/** What the inspector offers for every type that has it, and what is edited on the sheet or in the outline. */
const FOR_ALL = [
  ...["id", "type", "key", "label", "help", "width"],
  ...["shown", "required", "locked", "default", "formula", "offered", "fitting", "earliest", "latest", "checks"],
  ...["keep_when_hidden", "default_follows", "personal", "part", "blocks"],
];

/** What the panels offer that are more than rows. */
const BY_PANELS: Partial<Record<BlockKind, readonly string[]>> = {
  single_choice: ["options", "taken_from"],
  dropdown: ["options", "taken_from"],
  several_choices: ["options", "taken_from"],
  grid: ["options", "questions"],
  product: ["options", "picture", "price", "priced_by"],
  quantity: ["product"],
  record_choice: ["table", "shown_as", "ordered_by", "descending", "places", "taking", "left_shown", "picture"],
  slot: ["series", "singles", "left_out", "by", "taking", "left_shown", "waiting", "each"],
  picture: ["source"],
  text: ["text"],
  heading: ["text"],
  repeat: ["kinds"],
};

const rowsOf = (type: BlockKind) => {
  const { content = [], answers = [], checks = [], look = [] } = SETTINGS[type];
  return [...content, ...answers, ...checks, ...look];
};

describe.each(BLOCK_TYPES.map(({ type }) => type))("a %s", (type) => {
  const { blank } = typeOf(type);

  it("has every setting of its type in the inspector", () => {
    const offered = new Set([...FOR_ALL, ...(BY_PANELS[type] ?? []), ...rowsOf(type).map(({ setting }) => setting)]);
    expect(Object.keys(blank).filter((setting) => !offered.has(setting))).toEqual([]);
  });

  it("is offered nothing that its type has not", () => {
    const settings = [...rowsOf(type).map(({ setting }) => setting), ...(BY_PANELS[type] ?? [])];
    expect(settings.filter((setting) => !(setting in blank))).toEqual([]);
    expect(new Set(settings).size).toBe(settings.length);
  });

  it("begins with values that its rows can show", () => {
    for (const row of rowsOf(type)) {
      const value = (blank as unknown as Record<string, unknown>)[row.setting];
      if (row.entry === "choice") expect(Object.keys(row.options)).toContain(value);
      if (row.entry === "several")
        for (const each of value as string[]) expect(Object.keys(row.options)).toContain(each);
      if (row.entry === "switch") expect(typeof value).toBe("boolean");
      if (row.entry === "whole" && value !== null) {
        expect(value).toBeGreaterThanOrEqual(row.least ?? 0);
        expect(value).toBeLessThanOrEqual(row.most ?? Infinity);
      }
      if (row.entry === "decimal") expect(value === null || /^-?\d+(\.\d+)?$/.test(String(value))).toBe(true);
    }
  });

  it("says what each of its formulas is for, with an example", () => {
    const formulas = FOR_ALL.filter((setting) => setting in blank && formulaSetting(setting) !== null);
    expect("shown" in blank).toBe(true);
    for (const setting of formulas) {
      const { title, absent, example, help } = formulaSetting(setting)!;
      for (const words of [title, absent, example, help]) expect(words).not.toBe("");
    }
  });

  it("can be spoken of in conditions by words of its own", () => {
    const { operators, words = {} } = SHAPES[type];
    expect(new Set(operators).size).toBe(operators.length);
    expect(operators).toEqual(expect.arrayContaining(["shown", "not_shown"]));
    expect(operators.includes("blank")).toBe("help" in blank && type !== "group");
    expect(Object.keys(words).filter((operator) => !(operators as readonly string[]).includes(operator))).toEqual([]);
  });
});

describe("operators of conditions", () => {
  it("have words, and take as many values as these leave room for", () => {
    for (const [operator, words] of Object.entries(OPERATOR_WORDS)) {
      expect(words).not.toBe("");
      const wanted = operandCount(operator as keyof typeof OPERATOR_WORDS);
      expect([0, 1, 2]).toContain(wanted);
      if (wanted === 2) expect(words).toContain("…");
      if (wanted === 0) expect(words).not.toContain("…");
    }
  });

  it("take several values where their function does: HAS takes one", () => {
    const several = (Object.keys(OPERATOR_WORDS) as (keyof typeof OPERATOR_WORDS)[]).filter(takesSeveral);
    expect(several).toEqual(["one_of", "mentions", "mentions_not", "contains", "contains_not"]);
  });

  it("of a figure are those of a number, which is on no page", () => {
    const { operators } = SHAPES.number;
    expect(ANY_SHAPE.operators).toEqual(operators.filter((each) => each !== "shown" && each !== "not_shown"));
  });
});

it.each([
  ["checks.0.formula", "must fit"],
  ["next.2.when", "goes on elsewhere when"],
  ["options.3.shown", "option shown when"],
  ["paragraphs.0.shown", "paragraph shown when"],
  ["counts.1.when", "counts when"],
  ["taxes.0.when", "due when"],
  ["plans.1.times", "the number of payments is"],
])("a formula in a list is called by what it does: %s", (path, title) => {
  expect(formulaSetting(path)?.title).toBe(title);
});

it.each(["label", "checks.0.message", "options.1.label", "next.0.to"])("%s is no formula", (path) => {
  expect(formulaSetting(path)).toBeNull();
});
