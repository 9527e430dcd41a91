// The arithmetic of Figures, Brand, History and the formulas of Compose.
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import type { StateReply } from "../api/generated/wire";
import { contrast, ENOUGH_CONTRAST } from "../form/colours";
import { dayIn, dayLiteral, numberLiteral, textIn, textLiteral, timeIn, timeLiteral } from "../model/operands";
import { partsOf } from "../model/parts";
import { A_FORM, block } from "../testing/a_form";
import { palettesFrom } from "./brand/palette";
import { formulaSetting } from "./compose/settings_text";
import { inWords, outside, piecesOf, placeOn } from "./figures/bands";
import {
  answersIn,
  type ProfiledQuestion,
  questionsOf,
  withCell,
  withoutProfile,
  withPoints,
  withProfileNamed,
} from "./figures/questions";
import { beforeToday, stepsOf } from "./history/steps";

describe("the other side of a condition", () => {
  it("is read back as it was entered", () => {
    fc.assert(fc.property(fc.string(), (text) => textIn(textLiteral(text)) === text));
    fc.assert(
      fc.property(fc.date({ min: new Date("1900-01-01"), max: new Date("2199-12-31"), noInvalidDate: true }), (at) => {
        const [day, time] = [at.toISOString().slice(0, 10), at.toISOString().slice(11, 16)];
        expect([dayIn(dayLiteral(day)), timeIn(timeLiteral(time))]).toEqual([day, time]);
      }),
    );
  });

  it.each([
    ["12", "12"],
    [" 4,5 ", "4.5"],
    ["-0.25", "-0.25"],
    ["1e3", null],
    ["12 adults", null],
    ["", null],
  ])("as a number: %s", (text, expected) => {
    expect(numberLiteral(text)).toBe(expected);
  });

  it.each(['"a" & "b"', "adults", 'CONCAT("a")', '"a'])("is a formula where it is more than text: %s", (formula) => {
    expect(textIn(formula)).toBeNull();
  });
});

describe("bands", () => {
  const band = (start: string | null, value: string) => ({ id: value, start, value, label: "" });

  it("lie on the line by where they begin, with what is blank before and behind them", () => {
    const { pieces, overlaps } = piecesOf({ bands: [band("10.5", "560"), band("6", "390")], end: "20" });
    expect(pieces.map(inWords)).toEqual(["below the next: blank", "from 6: 390", "from 10.5: 560", "from 20: blank"]);
    expect(pieces.filter(({ band }) => band === null).map(outside)).toEqual(["below 6", "from 20 on"]);
    expect(overlaps).toEqual([]);
  });

  it("that begin at one place are told", () => {
    const { overlaps } = piecesOf({
      bands: [band(null, "a"), band(null, "b"), band("4", "c"), band("4", "d")],
      end: null,
    });
    expect(overlaps).toEqual(["Two bands hold for everything below the next.", "Two bands begin at 4."]);
  });

  it.each([
    ["-20", 0.25 * 0.5],
    ["0", 0.25],
    ["10", 0.375],
    ["20", 0.5],
    ["99.9", 0.75 - 0.25 * (0.1 / 80)],
    ["100", 0.75],
    ["180", 0.875],
  ])("show where %s lies", (number, place) => {
    const bands = [band(null, "a"), band("0", "b"), band("20", "c"), band("100", "d")];
    expect(placeOn(piecesOf({ bands, end: null }).pieces, Number(number))).toBeCloseTo(place, 10);
  });

  it("show greater numbers further right, each within its own piece", () => {
    const numbers = fc.uniqueArray(fc.integer({ min: -1000, max: 1000 }), { minLength: 2, maxLength: 9 });
    fc.assert(
      fc.property(numbers, numbers, fc.option(fc.integer({ min: 1001, max: 2000 })), (starts, looked, end) => {
        const bands = starts.map((start) => band(String(start), ""));
        const { pieces } = piecesOf({ bands, end: end === null ? null : String(end) });
        const places = looked.sort((one, other) => one - other).map((number) => placeOn(pieces, number)!);
        places.slice(1).forEach((place, at) => expect(place).toBeGreaterThan(places[at]!));
        looked.forEach((number, at) => {
          const { from, to } = pieces[Math.floor(places[at]! * pieces.length + 1e-9)]!;
          expect(from === null || from <= number).toBe(true);
          expect(to === null || number < to).toBe(true);
        });
      }),
    );
  });

  it("show nothing where there are none", () => {
    expect(placeOn([], 3)).toBeNull();
  });

  it("cover the whole line without a gap or an overlap between pieces", () => {
    const starts = fc.uniqueArray(fc.integer({ min: -50, max: 50 }), { minLength: 1, maxLength: 8 });
    fc.assert(
      fc.property(starts, fc.boolean(), (numbers, open) => {
        const bands = numbers.map((start) => band(String(start), `v${start}`));
        const { pieces } = piecesOf({ bands: open ? [band(null, "below"), ...bands] : bands, end: "60" });
        expect([pieces[0]!.from, pieces.at(-1)!.to]).toEqual([null, null]);
        pieces.slice(1).forEach((piece, at) => expect(piece.from).toBe(pieces[at]!.to));
      }),
    );
  });
});

describe("points of a score", () => {
  it("are asked of questions outside rows", () => {
    expect(questionsOf(partsOf(A_FORM)).map(({ id }) => id)).toEqual(["name", "teacher", "phone", "note", "adults"]);
    const grid = { ...A_FORM, pages: [{ ...A_FORM.pages[0]!, blocks: [block("grid", "grid")] }] };
    expect(questionsOf(partsOf(grid))).toEqual([]);
  });

  it("that are nothing are left out", () => {
    expect(withPoints({ a: "1" }, "b", "2")).toEqual({ a: "1", b: "2" });
    expect(withPoints({ a: "1", b: "2" }, "b", "0")).toEqual({ a: "1" });
    expect(withPoints({ a: "1" }, "a", null)).toEqual({});
  });

  it.each([
    ["4; five ;", ["4", "five"]],
    [" ; ;", []],
    ["a;b;a", ["a", "b"]],
  ])("may stand on several right answers: %s", (text, expected) => {
    expect(answersIn(text)).toEqual(expected);
  });
});

describe("points of a profile", () => {
  const question: ProfiledQuestion = { field: "f", points: { a: { owl: "2", lark: "1" }, b: { owl: "-1" } } };
  const profiles = [
    { code: "owl", label: "Owl" },
    { code: "lark", label: "Lark" },
  ];

  it("go with the profile, and an option that gives nothing is left out", () => {
    expect(withoutProfile(question, "owl").points).toEqual({ a: { lark: "1" } });
    expect(withCell(question, "b", "owl", "0").points).toEqual({ a: { owl: "2", lark: "1" } });
    expect(withCell(question, "c", "lark", "3").points["c"]).toEqual({ lark: "3" });
  });

  it("follow a code that follows its name", () => {
    const named = withProfileNamed({ profiles, questions: [question] }, 0, "Night owl", false);
    expect(named.profiles[0]).toEqual({ code: "night_owl", label: "Night owl" });
    expect(named.questions[0]!.points).toEqual({ a: { lark: "1", night_owl: "2" }, b: { night_owl: "-1" } });
  });

  it("keep their code where a formula may name it, or somebody chose it", () => {
    const kept = { profiles: [{ code: "owl", label: "Night owl" }, profiles[1]], questions: [question] };
    expect(withProfileNamed({ profiles, questions: [question] }, 0, "Night owl", true)).toEqual(kept);
    const chosen = { profiles: [{ code: "o", label: "Owl" }], questions: [] };
    expect(withProfileNamed(chosen, 0, "Night owl", false).profiles).toEqual([{ code: "o", label: "Night owl" }]);
  });

  it("are the same for any names that are typed in between", () => {
    fc.assert(
      fc.property(fc.array(fc.string({ maxLength: 8 }), { maxLength: 5 }), (typed) => {
        const start = { profiles, questions: [question] };
        const through = typed.reduce((now, label) => withProfileNamed(now, 0, label, false), start);
        const back = withProfileNamed(through, 0, "Owl", false);
        expect(Object.values(back.questions[0]!.points["a"]!).sort()).toEqual(["1", "2"]);
        expect(back.questions[0]!.points["a"]!["lark"]).toBe("1");
        expect(new Set(back.profiles.map(({ code }) => code)).size).toBe(2);
      }),
    );
  });
});

describe("a palette of one colour", () => {
  it("reads well whatever the colour", () => {
    const channel = fc.integer({ min: 0, max: 255 }).map((value) => value.toString(16).padStart(2, "0"));
    const colour = fc.tuple(channel, channel, channel).map((parts) => `#${parts.join("")}`);
    fc.assert(
      fc.property(colour, (chosen) => {
        for (const { palette } of palettesFrom(chosen)) {
          expect(contrast(palette.ink, palette.paper)).toBeGreaterThanOrEqual(ENOUGH_CONTRAST);
          expect(contrast(palette.accent, palette.paper)).toBeGreaterThanOrEqual(ENOUGH_CONTRAST);
        }
      }),
    );
  });

  it("is measured as the standard measures it", () => {
    expect(contrast("#000000", "#FFFFFF")).toBeCloseTo(21, 10);
    expect(contrast("#777777", "#FFFFFF")).toBeCloseTo(4.48, 2);
  });
});

describe("history in steps", () => {
  const state = (revision: number, minute: number, by = "Mira", edition: number | null = null): StateReply => ({
    revision,
    saved_at: `2026-06-01T12:${String(minute).padStart(2, "0")}:00Z`,
    saved_by: by,
    edition,
    name: revision === 9 ? "As agreed" : "",
    changes: 1,
  });

  it("takes one person's saves close together as one; others, pauses, names and editions part them", () => {
    const steps = stepsOf([
      state(10, 32),
      state(9, 31),
      state(8, 30),
      state(7, 30),
      state(6, 29),
      state(5, 28, "Tomas"),
      state(4, 20),
      state(3, 11, "Mira", 1),
      state(2, 10),
      state(1, 9),
    ]);
    const told = steps.map(({ last, states, before }) => `${last.revision} ×${states.length} after ${before}`);
    const expected = ["10 ×1 after 9", "9 ×4 after 5", "5 ×1 after 4", "4 ×1 after 3", "3 ×3 after null"];
    expect(told).toEqual(expected);
  });

  it("never takes many saves, or much that was changed, as one", () => {
    const saves = (changes: number) => Array.from({ length: 30 }, (_, at) => ({ ...state(40 - at, 30), changes }));
    expect(stepsOf(saves(1)).map(({ states }) => states.length)).toEqual([12, 12, 6]);
    expect(stepsOf(saves(9)).every(({ states }) => states.length === 2)).toBe(true);
  });

  it("tells what was there before today", () => {
    const saved = (revision: number, at: string) => ({ ...state(revision, 0), saved_at: at });
    const states = [saved(3, "2026-06-02T09:00:00"), saved(2, "2026-06-02T00:00:00"), saved(1, "2026-06-01T23:59:59")];
    expect(beforeToday(states, new Date("2026-06-02T12:00:00"))).toBe(1);
    expect(beforeToday(states.slice(0, 2), new Date("2026-06-02T12:00:00"))).toBeNull();
  });
});

describe("formulas of settings", () => {
  it.each([
    ["shown", "shown when", true],
    ["formula", "= is worked out by", false],
    ["checks.2.formula", "must fit", true],
    ["options.0.shown", "option shown when", true],
    ["next.1.when", "goes on elsewhere when", true],
    ["label", undefined, undefined],
    ["checks.0.message", undefined, undefined],
  ])("are known by their path: %s", (path, title, condition) => {
    const found = formulaSetting(path);
    expect([found?.title, found?.condition]).toEqual([title, condition]);
  });
});
