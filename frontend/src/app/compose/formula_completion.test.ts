import { describe, expect, it } from "vitest";
import type { Named } from "../../model/outline";
import { block } from "../../testing/a_form";
import { suggestionsAfter } from "./formula_completion";

const named = (name: string, title: string, more: Partial<Named> = {}): Named => ({
  name,
  id: name,
  number: "",
  title,
  kind: "Number",
  block: null,
  choices: null,
  figureKind: null,
  ...more,
});
const CHOICES = [
  { code: "deep_sky", label: "Deep sky" },
  { code: "moon", label: "The Moon" },
];
const NAMES = [
  named("adults", "Adults", { number: "1.2" }),
  named("admission", "What it costs", { number: "1.8" }),
  named("show", "What to see", { number: "1.1", block: block("single_choice", "show"), choices: CHOICES }),
  named("quiz", "Quiz", { figureKind: "score", kind: "Figure" }),
];

const offered = (before: string, asked = false) => {
  const found = suggestionsAfter(before, NAMES, asked);
  return found && { from: found.from, texts: found.options.map(({ text }) => text) };
};

describe("suggestions", () => {
  it("are names by key or by a phrase of what they are called", () => {
    expect(offered("2 * adu")).toEqual({ from: 4, texts: ["adults"] });
    expect(offered("adults + what it c")).toEqual({ from: 9, texts: ["admission"] });
    expect(offered("IF(adults > 2, What to")?.texts).toContain("show");
  });

  it("are parts of a name once its point is written, and last before", () => {
    expect(offered("quiz.p")).toEqual({ from: 0, texts: ["quiz.percent"] });
    expect(offered("show.")?.texts).toEqual(["show.label"]);
    expect(offered("qui")?.texts[0]).toBe("quiz");
  });

  it("are functions by their beginning", () => {
    expect(offered("1 + ROUNDU")).toEqual({ from: 4, texts: ["ROUNDUP()"] });
    expect(offered("")).toBeNull();
    expect(offered("", true)?.texts).toContain("adults");
  });

  it("are codes inside quotation marks beside a name, by their words too", () => {
    expect(offered('show = "')).toEqual({ from: 8, texts: ['deep_sky"', 'moon"'] });
    expect(offered('HAS(show, "moo')).toEqual({ from: 11, texts: ['moon"'] });
    expect(offered('show <> "the m')).toEqual({ from: 9, texts: ['moon"'] });
    expect(offered('"adu')?.texts).toEqual([]);
  });
});
