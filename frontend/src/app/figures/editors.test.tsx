// @vitest-environment jsdom
// Scores and profiles as they are filled in on the worksheet.
import { cleanup } from "@testing-library/react";
import { afterEach, describe, expect, it } from "vitest";
import type { Form } from "../../api/generated/wire";
import { apply } from "../../model/draft";
import { newFigure, newScored } from "../../model/new_block";
import { type Figure, FORM } from "../../model/parts";
import { A_FORM, block } from "../../testing/a_form";
import { onTheBench, settingsOf } from "../../testing/on_the_bench";
import { option } from "../../testing/one_block";
import { useBench } from "../workbench/bench";
import type { EditorProps } from "./editor_props";
import { ProfileEditor } from "./ProfileEditor";
import type { ProfileFigure } from "./questions";
import { ScoreEditor } from "./ScoreEditor";

afterEach(cleanup);

const CHOICE = block("single_choice", "show", {
  label: "Show",
  options: [option("deep", "Deep sky"), option("near", "Planets")],
});
const asked: Form = apply(A_FORM, { do: "add", parts: [CHOICE], into: { holder: "p2", list: "blocks" }, at: 0 });

/** The editor of a new figure of that kind, on a form with a choice (2.1 Show). */
function edited<Edited extends Figure>(
  kind: "score" | "profile",
  Editor: (props: EditorProps<Edited>) => React.ReactNode,
) {
  const figure = { ...newFigure(asked, kind, "Points"), id: "it" };
  const form = apply(asked, { do: "add", parts: [figure], into: { holder: FORM, list: "figures" }, at: 0 });
  function Opened() {
    const { parts, act } = useBench();
    const now = parts.get("it")!.part as unknown as Edited;
    return <Editor figure={now} edit={(changes) => act({ do: "edit", parts: ["it"], changes })} />;
  }
  const view = onTheBench(<Opened />, { form });
  return { ...view, now: () => settingsOf<Edited>(view.bench(), "it") };
}

const add = async ({ user, screen }: Pick<ReturnType<typeof onTheBench>, "user" | "screen">, field: string) => {
  await user.click(screen.getByLabelText("Add a field that counts"));
  await user.click(screen.getByRole("option", { name: field }));
};

describe("a score", () => {
  type Score = Parameters<typeof ScoreEditor>[0]["figure"];

  it("counts right answers, ticked or typed, or points for each option; an undo shows what was entered", async () => {
    const view = edited<Score>("score", ScoreEditor);
    const { user, screen, now, run } = view;
    await add(view, "2.1 Show");
    await user.click(screen.getByRole("checkbox", { name: "Planets" }));
    expect(now().questions).toEqual([{ ...newScored("show"), right: ["near"] }]);
    await user.click(screen.getByRole("button", { name: "points each" }));
    await user.type(screen.getByLabelText("Deep sky"), "2,5");
    expect(now().questions[0]).toMatchObject({ right: [], points: { deep: "2.5" } });
    for (let steps = 0; steps < 3; steps += 1) run((bench) => bench.undo());
    expect(await screen.findByRole("checkbox", { name: "Planets" })).toHaveProperty("checked", true);
  });

  it("takes answers as text where there are no options, a ; at its end too", async () => {
    const view = edited<Score>("score", ScoreEditor);
    const { user, screen, now } = view;
    await add(view, "1.1 name");
    const right = screen.getByLabelText<HTMLInputElement>("Right answers");
    await user.type(right, "Vega; Deneb;");
    expect(right.value).toBe("Vega; Deneb;");
    expect(now().questions[0]!.right).toEqual(["Vega", "Deneb"]);
    await user.click(screen.getByLabelText("Remove this field"));
    expect(now().questions).toEqual([]);
  });
});

describe("a profile", () => {
  it("has a column for each, whose points stay with it when it gets its name, and go with it", async () => {
    const view = edited<ProfileFigure>("profile", ProfileEditor);
    const { user, screen, now } = view;
    for (const { label } of now().profiles) await user.click(screen.getByLabelText(`Remove the profile ${label}`));
    await user.click(screen.getByRole("button", { name: "+ profile" }));
    await user.click(screen.getByRole("button", { name: "+ profile" }));
    await add(view, "2.1 Show");
    await user.type(screen.getByLabelText("Planets speaks for Profile 1"), "3");
    await user.clear(screen.getByLabelText("Name of profile 1"));
    await user.type(screen.getByLabelText("Name of profile 1"), "Explorer{Enter}");
    expect(now().profiles.map(({ code, label }) => `${code} ${label}`)).toEqual([
      "explorer Explorer",
      "profile_2 Profile 2",
    ]);
    expect(now().questions[0]!.points).toEqual({ near: { explorer: "3" } });
    await user.type(screen.getByLabelText("Planets speaks for Profile 2"), "1");
    await user.click(screen.getByLabelText("Remove the profile Explorer"));
    expect(now().questions[0]!.points).toEqual({ near: { profile_2: "1" } });
  });

  it("offers only fields with options, each once", async () => {
    const view = edited<ProfileFigure>("profile", ProfileEditor);
    await add(view, "2.1 Show");
    expect(view.screen.getByLabelText("Add a field that counts").getAttribute("aria-disabled")).toBe("true");
  });
});
