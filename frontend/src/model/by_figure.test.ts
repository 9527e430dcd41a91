// Confirmations made of a figure: ranges without a gap, one for each band or profile, in one step.
import fc from "fast-check";
import { describe, expect, it } from "vitest";
import { A_FORM } from "../testing/a_form";
import { byChoices, byRanges, proposedRanges, rangeName, wrongRanges } from "./by_figure";
import { apply } from "./draft";
import { newFigure } from "./new_block";

const withFigure = (kind: "score" | "bands" | "profile", more: object) => {
  const figure = { ...newFigure(A_FORM, kind, "Quiz"), id: "quiz", ...more };
  return { figure, form: { ...A_FORM, figures: [figure] } };
};

describe("proposed ranges", () => {
  it("go from the least to the greatest, the first open below", () => {
    expect(proposedRanges({ least: "0", greatest: "13" }, 3).map(({ from }) => from)).toEqual([null, "5", "9"]);
    expect(proposedRanges({ least: null, greatest: null }, 2).map(({ name }) => name)).toEqual(["Below 10", "From 10"]);
  });

  it("can always be taken as they are", () => {
    fc.assert(
      fc.property(
        fc.integer({ min: -50, max: 50 }),
        fc.integer({ min: 1, max: 500 }),
        fc.integer({ min: 2, max: 6 }),
        (least, width, count) => {
          const ranges = proposedRanges({ least: String(least), greatest: String(least + width) }, count);
          expect(ranges).toHaveLength(count);
          expect(wrongRanges(ranges)).toBeNull();
        },
      ),
    );
  });

  it.each([
    [
      [
        { from: null, name: "A" },
        { from: "5", name: "A" },
      ],
      "Two ranges are called A.",
    ],
    [
      [
        { from: null, name: "A" },
        { from: null, name: "B" },
      ],
      "Say where range 2 begins.",
    ],
    [
      [
        { from: null, name: "A" },
        { from: "5", name: "B" },
        { from: "5", name: "C" },
      ],
      "Range 3 begins at 5, not above 5.",
    ],
    [[{ from: null, name: " " }], "Range 1 has no name."],
  ])("say what is wrong with them: %#", (ranges, said) => {
    expect(wrongRanges(ranges)).toBe(said);
  });

  it("have names that say where they lie", () => {
    expect([rangeName(null, null), rangeName("2", "5")]).toEqual(["All", "From 2 to below 5"]);
  });
});

describe("confirmations by a result", () => {
  it("come with bands of their own for a score, before the one that always follows", () => {
    const { form, figure } = withFigure("score", {});
    const made = apply(
      form,
      byRanges(form, figure, [
        { from: null, name: "Guest" },
        { from: "4", name: "Keeper" },
      ]),
    );
    const [, result] = made.figures;
    expect(made.figures[0]!.shown_to_visitors).toBe(true);
    expect(result).toMatchObject({
      key: "result_of_quiz",
      formula: "quiz",
      bands: [
        { start: null, value: "1", label: "Guest" },
        { start: "4", value: "2", label: "Keeper" },
      ],
    });
    expect(made.confirmations.map(({ when }) => when)).toEqual([
      'result_of_quiz.label = "Guest"',
      'result_of_quiz.label = "Keeper"',
      "",
    ]);
    expect(made.confirmations[0]!.paragraphs[0]!.chart).toBe("quiz");
  });

  it("are one for each named band, or profile", () => {
    const bands = withFigure("bands", {
      bands: [
        { start: null, value: "1", label: 'a "b"' },
        { start: "3", value: "2", label: "" },
      ],
    });
    expect(apply(bands.form, byChoices(bands.form, bands.figure)).confirmations[0]!.when).toBe(
      'quiz.label = "a ""b"""',
    );
    const profile = withFigure("profile", { profiles: [{ code: "owl", label: "The owl" }] });
    const [made] = apply(profile.form, byChoices(profile.form, profile.figure)).confirmations;
    expect(made).toMatchObject({ name: "The owl", title: "The owl", when: 'quiz = "owl"' });
  });
});
