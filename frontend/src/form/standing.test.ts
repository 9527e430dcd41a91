// How blocks stand on a page, and what a page knows of them: lines, brands, facts. No session, no React.
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { BlockState, FormState } from "../api/generated/wire";
import { type Answer, rowsIn } from "../fields/input";
import { optionsOf } from "../fields/shown_options";
import type { Face } from "../model/blocks";
import { A_BRAND } from "../testing/a_form";
import { brandClasses, brandStyle, groundStyle } from "./brand";
import PALETTES from "../../../tests/cases/palettes.json";
import { contrast, ENOUGH_CONTRAST, paletteOf, textOn } from "./colours";
import { blocksWithin, labelOf, withErrors, withFills } from "./facts";

describe("shuffled options", () => {
  const block = (ids: readonly string[]) => ({
    id: "way",
    shuffled: true,
    options: ids.map((id) => ({ id, label: id })),
  });
  const order = (ids: readonly string[], seed: number) =>
    optionsOf(block(ids) as never, { shown: true }, seed).map(({ id }) => id);
  const anyIds = fc.uniqueArray(fc.stringMatching(/^[a-z0-9]{1,6}$/), { minLength: 1, maxLength: 12 });

  it("are all there, in one order for one visitor, whatever order they were written in", () => {
    fc.assert(
      fc.property(anyIds, fc.nat(), (ids, seed) => {
        expect([...order(ids, seed)].sort()).toEqual([...ids].sort());
        expect(order(ids, seed)).toEqual(order(ids, seed));
      }),
    );
  });

  it("stay in place among each other when one comes or goes", () => {
    fc.assert(
      fc.property(anyIds, fc.nat(), fc.nat(), (ids, seed, which) => {
        const gone = ids[which % ids.length];
        const rest = ids.filter((id) => id !== gone);
        expect(order(rest, seed)).toEqual(order(ids, seed).filter((id) => id !== gone));
      }),
    );
  });
});

describe("a brand as styles", () => {
  it("takes the accent for the banner where there is none, and text that reads on it", () => {
    const style = brandStyle(A_BRAND) as Record<string, string>;
    expect([style["--cx-banner"], style["--cx-on-banner"], style["--cx-corner"]]).toEqual([
      "#1B4D3E",
      "#FFFFFF",
      "14px",
    ]);
    expect((brandStyle({ ...A_BRAND, banner: "#FFE08A" }) as Record<string, string>)["--cx-on-banner"]).toBe("#16202B");
  });

  it("keeps a picture's address inside its quotation marks", () => {
    expect(groundStyle(A_BRAND)).toEqual({ backgroundColor: "#EDF0F7", backgroundImage: 'url("/pictures/a%22b")' });
    expect((brandStyle(A_BRAND) as Record<string, string>)["--cx-header-picture"]).toBe("none");
  });

  it("is told to fields and buttons by classes", () => {
    expect(brandClasses({ ...A_BRAND, button_size: "large" })).toBe(
      "codexa-form cx-fields-outlined cx-button-pill cx-button-full cx-button-large",
    );
  });

  it.each(PALETTES)("draws with the colours that the core measures: $accent on $paper", ({ drawn, ...brand }) => {
    expect(paletteOf(brand)).toEqual(drawn);
  });

  it("has on any ground text that reads well", () => {
    const colour = fc.integer({ min: 0, max: 0xffffff }).map((number) => `#${number.toString(16).padStart(6, "0")}`);
    fc.assert(
      fc.property(colour, colour, colour, (ground, ink, paper) => {
        expect(contrast(textOn(ground, { ink, paper }), ground)).toBeGreaterThanOrEqual(ENOUGH_CONTRAST);
        expect(contrast(ground, ground)).toBeCloseTo(1);
      }),
    );
  });
});

const NOTHING_FOLLOWS: ReadonlySet<string> = new Set();

describe("answers with what a state brings", () => {
  const state = (blocks: Record<string, Partial<BlockState>>) => ({ blocks }) as unknown as FormState;

  it("take defaults where nothing was answered, and locked values always", () => {
    const given = { mail: "a@example.org", note: null, code: "typed" };
    const filled = withFills(
      given,
      state({ mail: { fill: "b@example.org" }, day: { fill: "2026-06-01" }, code: { fill: "A-1", locked: true } }),
      NOTHING_FOLLOWS,
    );
    expect(filled).toEqual({ mail: "a@example.org", note: null, code: "A-1", day: "2026-06-01" });
    expect(given).not.toHaveProperty("day");
  });

  it("take the defaults of fresh rows, and leave rows as they are where there are none", () => {
    const rows = [
      { kind: "k", id: "r1", values: { what: "Moon" } },
      { kind: "k", id: "r2", values: {} },
    ] as unknown as Answer;
    const rowStates = { r1: { blocks: { what: { fill: "M 31" } } }, r2: { blocks: { what: { fill: "M 31" } } } };
    const filled = withFills({ lines: rows }, state({ lines: { rows: rowStates as never } }), NOTHING_FOLLOWS);
    expect(rowsIn(filled.lines!).map(({ values }) => values.what)).toEqual(["Moon", "M 31"]);
    expect(rowsIn(filled.lines!)[0]).toBe(rowsIn(rows)[0]);
  });
});

describe("what a refusal says is wrong", () => {
  const error = (message: string) => ({ code: "x", message }) as never;
  const facts = {
    shown: true,
    error: error("old"),
    rows: { r1: { error: null, blocks: { what: { shown: true, error: error("old") } } } },
  } as unknown as BlockState;

  it("stands at the block, the row and the field in the row that it names, and nothing else does", () => {
    const wrong = { lines: error("Too few."), "lines/r1": error("Twice."), "lines/r1/what": error("Missing.") };
    const told = withErrors("lines", facts, wrong);
    expect([told.error, told.rows!.r1!.error, told.rows!.r1!.blocks.what!.error]).toEqual([
      wrong.lines,
      wrong["lines/r1"],
      wrong["lines/r1/what"],
    ]);
    const cleared = withErrors("lines", facts, {});
    expect([cleared.error, cleared.rows!.r1!.error, cleared.rows!.r1!.blocks.what!.error]).toEqual([null, null, null]);
  });
});

it("finds blocks in groups, and what they are called now", () => {
  const inner = { id: "inner", type: "number", label: "Adults", width: "full" };
  const group = { id: "group", type: "group", label: "Guests", width: "full", blocks: [inner] };
  const line = { id: "line", type: "divider", width: "full" };
  const blocks = [group, line] as unknown as Face[];
  expect(blocksWithin(blocks).map(({ id }) => id)).toEqual(["group", "inner", "line"]);
  expect(labelOf(blocks[0]!, { shown: true, texts: { label: "Guests of Mira" } })).toBe("Guests of Mira");
  expect([labelOf(blocks[0]!, undefined), labelOf(blocks[1]!, undefined)]).toEqual(["Guests", ""]);
});
