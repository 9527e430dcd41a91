// @vitest-environment jsdom
// Trials in the workbench: what is expected of a figure, since when one fails, and what sample answers reach.
import { cleanup } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { api } from "../../api/client";
import type { Expected, TrialResult } from "../../api/generated/wire";
import { apply } from "../../model/draft";
import { newFigure } from "../../model/new_block";
import { FORM, type Trial } from "../../model/parts";
import { A_FORM } from "../../testing/a_form";
import { onTheBench } from "../../testing/on_the_bench";
import { useBench } from "../workbench/bench";
import { Reached } from "./Reached";
import { TrialDetail } from "./TrialDetail";

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const NOTHING: Expected = {
  shown: [],
  hidden: [],
  figures: {},
  exact: {},
  wrong: null,
  path: null,
  confirmation: null,
  follow_ups: null,
};
const each = { ...newFigure(A_FORM, "formula", "Each"), id: "each", name: "Each" };
const trial = {
  id: "t1",
  name: "Ten",
  answers: { adults: "10" },
  link: {},
  day: "2026-11-23",
  visitor: { email: "", name: "", groups: [] },
  expected: { ...NOTHING, figures: { each: "1" }, exact: { each: "1.25" } },
} as unknown as Trial;
const form = apply(apply(A_FORM, { do: "add", parts: [each], into: { holder: FORM, list: "figures" }, at: 0 }), {
  do: "add",
  parts: [trial],
  into: { holder: FORM, list: "trials" },
  at: 0,
});

function shown(result: Partial<TrialResult>) {
  vi.spyOn(api, "outcome").mockRejectedValue(new Error("not asked"));
  const outcome = { ...NOTHING, figures: { each: "1" }, exact: { each: "1.26" } };
  function Detail() {
    const { form } = useBench();
    const result_ = { trial: "t1", passed: true, differences: [], outcome, ...result };
    return <TrialDetail trial={form.trials[0]!} result={result_} />;
  }
  return onTheBench(<Detail />, { form });
}

it("compares a number exactly until its author wants it as it is read, and exactly again as it comes then", async () => {
  const { user, screen, bench } = shown({});
  const expected = () => bench().form.trials[0]!.expected;
  await user.click(screen.getByRole("button", { name: /^exactly 1\.25: .*Each$/ }));
  expect([expected().figures, expected().exact]).toEqual([{ each: "1" }, {}]);
  await user.click(screen.getByRole("button", { name: /^as read: .*Each$/ }));
  expect(expected().exact).toEqual({ each: "1.26" });
  const figure = screen.getByRole("checkbox", { name: /Each/ });
  await user.click(figure);
  expect([expected().figures, expected().exact]).toEqual([{}, {}]);
  await user.click(figure);
  expect([expected().figures, expected().exact]).toEqual([{ each: "1" }, { each: "1.26" }]);
});

it("says which saved state broke it, who saved that, and which formula of it leads there", async () => {
  const state = { saved_at: "2026-11-28T12:00:00Z", edition: null, name: "", changes: 1 };
  vi.spyOn(api, "whatBroke").mockResolvedValue({
    fails: true,
    passed: { ...state, revision: 41, saved_by: "Mira Okafor" },
    failed: { ...state, revision: 42, saved_by: "Jonas Lindqvist" },
    changes: [{ part: "each", name: "Each", words: "formula was adults / 8, is adults / 8 + 0.01" }],
  });
  const differences = [{ part: "each", name: "Each", expected: "exactly 1.25", came: "exactly 1.26" }];
  const { screen } = shown({ passed: false, differences });
  const broken = await screen.findByRole("region", { name: "What broke it" });
  expect(broken.textContent).toContain("It passed until state 41. Jonas Lindqvist saved state 42");
  expect(broken.textContent).toContain("formula was adults / 8, is adults / 8 + 0.01");
});

it("tells what sample answers reach, and what none were found for", () => {
  const aim = { owner: "name", setting: "shown", holds: true };
  const found = { answers: {}, link: {}, outcome: NOTHING, reached: [aim], missed: [{ ...aim, holds: false }] };
  const { screen } = onTheBench(<Reached found={found} onClose={() => undefined} />, { form });
  expect(screen.getByText(/1 condition for the first time does this/)).toBeTruthy();
  expect(screen.getByRole("listitem").textContent).toMatch(/^holds: \d\.\d /);
  expect(screen.getByText(/1 case is left/)).toBeTruthy();
});
