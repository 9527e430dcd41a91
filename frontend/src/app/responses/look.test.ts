// A look comes back from its address and from its saved view as it was; what stands in an address by hand does no harm.
import { expect, test } from "vitest";
import type { AskedColumnReply, ChartReply } from "../../api/generated/wire";
import { asCsv, cellsOf } from "./chart_kinds";
import { turnedSorts } from "./columns";
import { begun, conditionInWords, isWhole, usualValues } from "../filter/conditions";
import { contentOf, type Look, lookOf, lookOfContent, queryOf } from "./look";
import { codeFor } from "./StatusesEditor";

const LOOK: Look = {
  shown: "charts",
  match: "any",
  conditions: [
    { column: "guests", how: "between", values: ["2", "9"] },
    { column: "note", how: "contains", values: ['50 % "of, it" & more=1'] },
  ],
  words: "dark sky",
  sorts: ["-guests", "note"],
  columns: ["response.number", "guests"],
  fixed: 1,
  widths: { guests: 240 },
  by: "site",
  cards: ["guests"],
  charts: [
    ["liked", "talk"],
    ["guests", ""],
  ],
  apart: "edition",
  window: "narrow",
  presentation: "chat",
  view: "5f0c",
};

test("a look comes back from its address and from a view", () => {
  expect(lookOf(new URLSearchParams(queryOf(LOOK).toString()))).toEqual(LOOK);
  expect(lookOfContent(contentOf(LOOK), "5f0c")).toEqual(LOOK);
  const usual = lookOf(new URLSearchParams());
  expect(queryOf(usual).toString()).toBe("");
});

test("what can’t be read in an address is left out, and a sealed link is a condition", () => {
  expect(lookOf(new URLSearchParams("where=[oops&shown=wall&fixed=x&match=maybe"))).toEqual(
    lookOf(new URLSearchParams()),
  );
  expect(lookOf(new URLSearchParams("link=7")).conditions).toEqual([
    { column: "response.sealed_link", how: "any_of", values: ["7"] },
  ]);
});

const column = (changes: Partial<AskedColumnReply>): AskedColumnReply => ({
  id: "site",
  label: "Site",
  number: "1.2",
  holds: "choice",
  numeric: false,
  calculated: false,
  earlier: false,
  facet: false,
  hows: ["any_of", "blank"],
  options: ["a", "b", "c", "d"].map((code) => ({ code, label: `Dome ${code}` })),
  parts: [],
  ...changes,
});

test("a condition is said in words, and is asked once it is whole", () => {
  const [site, day] = [column({}), column({ holds: "date", hows: ["is", "last_days"] })];
  expect(conditionInWords({ column: "site", how: "any_of", values: ["a", "b"] }, site)).toBe(
    "is any of Dome a, Dome b",
  );
  expect(conditionInWords({ column: "site", how: "any_of", values: ["a", "b", "c", "d"] }, site)).toBe(
    "is any of 4 of 4",
  );
  expect(conditionInWords({ column: "site", how: "is", values: ["2026-12-24"] }, day)).toBe("is on 2026-12-24");
  expect(conditionInWords({ column: "site", how: "last_days", values: ["7"] }, day)).toBe("is in the last 7 days");
  expect(isWhole(begun(site))).toBe(false);
  expect(isWhole({ column: "site", how: "blank", values: [] })).toBe(true);
  expect(isWhole({ column: "site", how: "between", values: ["1", " "] })).toBe(false);
  expect(usualValues("between", day, ["2026-01-01"])).toEqual(["2026-01-01", ""]);
});

test("a press on a heading sorts up, down, not at all; with Shift beside the others", () => {
  expect(turnedSorts([], "a", false)).toEqual(["a"]);
  expect(turnedSorts(["a"], "a", false)).toEqual(["-a"]);
  expect(turnedSorts(["-a"], "a", false)).toEqual([]);
  expect(turnedSorts(["a", "b"], "c", true)).toEqual(["a", "b", "c"]);
  expect(turnedSorts(["a", "b"], "a", true)).toEqual(["-a", "b"]);
  expect(turnedSorts(["-a", "b"], "a", true)).toEqual(["b"]);
  expect(turnedSorts(["a", "b"], "b", false)).toEqual(["-b"]);
});

test("a chart’s numbers are rows of cells, made harmless for spreadsheets", () => {
  const bar = (code: string, label: string, count: number) => ({
    code,
    label,
    count,
    share: "50",
    value: null,
    value_shown: "",
  });
  const chart: ChartReply = {
    column: "site",
    by: "kind",
    kind: "crossed",
    headline: "",
    aside: "",
    all: 3,
    answered: 3,
    bars: [bar("x", "=X()", 3), bar("y", 'say "y"', 0)],
    rows: [bar("a", "Dome a", 3)],
    cells: [{ row: "a", code: "x", count: 3, share: "100" }],
    more: false,
    average: null,
    sum: null,
    least: null,
    greatest: null,
  };
  expect(cellsOf(chart)).toEqual([
    ["", "=X()", 'say "y"', "All"],
    ["Dome a", "3", "0", "3"],
  ]);
  expect(asCsv(cellsOf(chart))).toBe('\uFEFF"","\'=X()","say ""y""","All"\r\n"Dome a","3","0","3"\r\n');
});

test("a status gets a code of its own", () => {
  expect(codeFor("Zu prüfen!", [])).toBe("zu-prufen");
  expect(codeFor("Done", ["done", "done-2"])).toBe("done-3");
  expect(codeFor("待", [])).toBe("status");
});
