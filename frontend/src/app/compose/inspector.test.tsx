// @vitest-environment jsdom
// The inspector: every setting of every kind of block, entered as a person would, changes just that setting.
import { cleanup, fireEvent, waitFor, within } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { api, ApiError } from "../../api/client";
import type { Form } from "../../api/generated/wire";
import { SETTINGS } from "../../fields/settings";
import { BLOCK_TYPES, type BlockKind } from "../../model/blocks";
import { apply } from "../../model/draft";
import { newConfirmation, newFigure, newParagraph } from "../../model/new_block";
import { type Confirmation, FORM } from "../../model/parts";
import { A_FORM, block } from "../../testing/a_form";
import { onTheBench, settingsOf } from "../../testing/on_the_bench";
import type { SettingRow } from "../../ui/SettingRows";
import { useBench } from "../workbench/bench";
import { Inspector } from "./Inspector";

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

type View = ReturnType<typeof onTheBench>;

/** The inspector with these parts selected, beside the label of a selected setting. */
function inspected(selected: readonly string[], given: Parameters<typeof onTheBench>[1] = {}): View {
  function Opened() {
    const { actions, part } = useBench();
    return part && <Inspector actions={actions} />;
  }
  vi.spyOn(api, "triedResponses").mockResolvedValue({ responses: [] });
  const view = onTheBench(<Opened />, given);
  view.run((bench) => bench.selectAll(selected));
  return view;
}

const withBlock = (kind: BlockKind): Form =>
  apply(A_FORM, { do: "add", parts: [block(kind, "it")], into: { holder: "p2", list: "blocks" }, at: 0 });

/** Enters another value for a setting; returns what must stand there then. */
function enter({ screen }: View, row: SettingRow, before: unknown): unknown {
  switch (row.entry) {
    case "text": {
      fireEvent.change(screen.getByLabelText(row.label), { target: { value: "other words" } });
      return "other words";
    }
    case "switch": {
      fireEvent.click(screen.getByLabelText(row.label));
      return before !== true;
    }
    case "decimal": {
      fireEvent.change(screen.getByLabelText(row.label), { target: { value: "7,5" } });
      return "7.5";
    }
    case "whole": {
      const most = Math.min(row.most ?? 7, 7);
      fireEvent.change(screen.getByLabelText(row.label), { target: { value: String(most) } });
      return most;
    }
    default: {
      const names = Object.keys(row.options);
      // Where all are chosen, the first is taken away.
      const other = names.find((name) => name !== before && ![before].flat().includes(name)) ?? names[0]!;
      fireEvent.mouseDown(screen.getByLabelText(row.label));
      // Of another setting the list may still be on its way out.
      const list = screen.getByRole("listbox", { name: row.label });
      fireEvent.click(within(list).getByText(row.options[other]!));
      if (row.entry === "several") fireEvent.keyDown(list, { key: "Escape" });
      if (row.entry === "choice") return other;
      const chosen = before as string[];
      return chosen.includes(other) ? chosen.filter((name) => name !== other) : [...chosen, other];
    }
  }
}

describe.each(BLOCK_TYPES.map(({ type }) => type))("a %s", (kind) => {
  const { content = [], answers = [], checks = [], look = [] } = SETTINGS[kind];
  const tabs = { Content: content, Answers: answers, Checks: checks, Look: look };

  it("changes just the setting that is entered, and an undo takes it back", () => {
    const view = inspected(["it"], { form: withBlock(kind) });
    const now = () => settingsOf<Record<string, unknown>>(view.bench(), "it");
    for (const [tab, rows] of Object.entries(tabs)) {
      if (rows.length > 0) fireEvent.click(view.screen.getByRole("tab", { name: tab }));
      for (const row of rows as readonly SettingRow[]) {
        const start = now();
        if (row.only && !row.only.values.includes(String(start[row.only.setting]))) continue;
        const expected = enter(view, row, start[row.setting]);
        expect(now(), row.setting).toEqual({ ...start, [row.setting]: expected });
        view.run((bench) => bench.undo());
        expect(now()).toEqual(start);
      }
    }
  });
});

describe("a key", () => {
  const opened = async (rename: () => Promise<{ draft: Form }>) => {
    const view = inspected(["adults"]);
    const renamed = vi.spyOn(api, "rename").mockImplementation(rename);
    return { ...view, renamed, key: await view.screen.findByLabelText<HTMLInputElement>("Key") };
  };

  it("says in words why it can't be so, and forgets that once it is as it was", async () => {
    const problem = { path: "pages.1.blocks.0.number.key", message: '"Ä" can’t be a key' };
    const { user, screen, key } = await opened(() => Promise.reject(new ApiError("no", "long", [problem])));
    await user.clear(key);
    await user.type(key, "Ä{Enter}");
    expect(await screen.findByText('"Ä" can’t be a key.')).toBeTruthy();
    await user.clear(key);
    await user.type(key, "adults{Enter}");
    expect(screen.queryByText('"Ä" can’t be a key.')).toBeNull();
    await user.type(key, "x{Escape}");
    expect(key.value).toBe("adults");
  });

  it("is renamed once, however it is left", async () => {
    const draft = apply(A_FORM, { do: "edit", parts: ["adults"], changes: { key: "guests" } });
    const { user, renamed, key, bench } = await opened(() => Promise.resolve({ draft }));
    await user.clear(key);
    await user.type(key, "guests{Enter}");
    await user.tab();
    await waitFor(() => expect(settingsOf<{ key: string }>(bench(), "adults").key).toBe("guests"));
    expect(renamed).toHaveBeenCalledOnce();
  });
});

describe("a page", () => {
  it("has an address of small letters, digits and hyphens, whatever is typed", async () => {
    const { user, screen, bench } = inspected(["p1"]);
    const address = await screen.findByLabelText<HTMLInputElement>("Address");
    await user.type(address, "Your Visit-now!");
    expect(address.value).toBe("Your Visit-now!");
    await user.tab();
    expect(address.value).toBe("your-visit-now");
    expect(settingsOf<{ address: string }>(bench(), "p1").address).toBe("your-visit-now");
  });

  it("goes on by the first rule that holds; their order can be changed", async () => {
    const next = [
      { when: "adults > 2", to: "p2" },
      { when: "adults > 9", to: "" },
    ];
    const form = apply(A_FORM, { do: "edit", parts: ["p1"], changes: { next } });
    const { user, screen, bench } = inspected(["p1"], { form });
    expect(await screen.findByRole("button", { name: /To 2 Two when/ })).toBeTruthy();
    await user.click(screen.getByRole("button", { name: "Move rule 2 up" }));
    expect(settingsOf<{ next: unknown }>(bench(), "p1").next).toEqual([next[1], next[0]]);
    await user.click(screen.getByRole("button", { name: "Add a rule for the next page" }));
    expect(bench().setting).toBe("next.2.when");
  });
});

describe("a confirmation", () => {
  const texts = ["<p>One</p>", "<p>H<sub>2</sub>O</p>"].map((text) => ({ text, shown: "", chart: "" }));
  const made = { ...newConfirmation("For some"), id: "c0", paragraphs: texts };
  const score = { ...newFigure(A_FORM, "score", "Points"), id: "points" };
  const form = apply(
    apply(A_FORM, { do: "add", parts: [made], into: { holder: FORM, list: "confirmations" }, at: 0 }),
    { do: "add", parts: [score], into: { holder: FORM, list: "figures" }, at: 0 },
  );
  const opened = async () => {
    const view = inspected(["c0"], { form });
    await view.screen.findByLabelText("Heading");
    return { ...view, now: () => settingsOf<Confirmation>(view.bench(), "c0") };
  };

  it("has paragraphs in an order, charts among them, and what the editor can't write as HTML", async () => {
    const { user, screen, now } = await opened();
    const second = () => within(screen.getByRole("group", { name: "Paragraph 2" }));
    expect(second().getByLabelText("Text of paragraph 2 as HTML")).toHaveProperty("value", texts[1]!.text);
    await user.click(screen.getByRole("button", { name: "Move paragraph 2 up" }));
    expect(now().paragraphs).toEqual([texts[1], texts[0]]);
    const first = within(screen.getByRole("group", { name: "Paragraph 1" }));
    expect(first.getByLabelText("Text of paragraph 1 as HTML")).toHaveProperty("value", texts[1]!.text);
    await user.click(screen.getByRole("button", { name: "Add a chart" }));
    expect(now().paragraphs[2]).toEqual(newParagraph({ chart: "points" }));
    expect(screen.getByText("Show this figure to visitors, in Figures.")).toBeTruthy();
    await user.click(first.getByRole("button", { name: "Remove" }));
    expect(now().paragraphs.map(({ text }) => text)).toEqual([texts[0]!.text, ""]);
  });

  it("goes on to an address, whose beginning need not be typed; an undo brings the message back", async () => {
    const { user, screen, now, run } = await opened();
    await user.click(screen.getByRole("button", { name: "Another address" }));
    const address = screen.getByLabelText<HTMLInputElement>("Address to go on to");
    await user.type(address, "alderlight.example.org/thanks");
    expect(screen.getByText("Begin with https:// and leave out spaces")).toBeTruthy();
    expect(now().redirect).toBe("");
    await user.tab();
    expect(now().redirect).toBe("https://alderlight.example.org/thanks");
    await user.click(screen.getByRole("button", { name: "In place" }));
    expect(now().redirect).toBe("");
    run((bench) => bench.undo());
    expect(await screen.findByLabelText("Address to go on to")).toHaveProperty(
      "value",
      "https://alderlight.example.org/thanks",
    );
  });
});

describe("several blocks", () => {
  it("are required, set in width and moved together", async () => {
    const { user, screen, bench } = inspected(["name", "note", "lines"]);
    expect(await screen.findByRole("heading", { name: "3 selected" })).toBeTruthy();
    await user.click(screen.getByRole("button", { name: "Set all required" }));
    expect(screen.getByText("2 of 2 fields must be answered.")).toBeTruthy();
    fireEvent.mouseDown(screen.getByLabelText("Width"));
    await user.click(screen.getByRole("option", { name: "Half of the line" }));
    fireEvent.mouseDown(screen.getByLabelText("Move all to the end of"));
    await user.click(screen.getByRole("option", { name: "2 Two" }));
    const { blocks } = bench().form.pages[1]!;
    expect(blocks.map(({ id }) => id)).toEqual(["adults", "name", "lines", "note"]);
    expect(blocks.slice(1).map((each) => each.width)).toEqual(["half", "half", "half"]);
    expect(settingsOf<{ required: string }>(bench(), "note").required).toBe("TRUE");
  });

  it("get one rule for all, and what all have alike; where they differ that is said", async () => {
    const ruled = apply(A_FORM, { do: "edit", parts: ["name"], changes: { shown: "adults > 2", max_length: 40 } });
    const { user, screen, bench } = inspected(["name", "note"], { form: ruled });
    const texts = () => ["name", "note"].map((id) => settingsOf<{ shown: string; max_length: number }>(bench(), id));
    const shown = await screen.findByLabelText("Shown");
    expect(shown.textContent).toBe("They differ");
    fireEvent.mouseDown(shown);
    await user.click(screen.getByRole("option", { name: /^as 1\.\d: adults > 2$/ }));
    expect(texts().map((each) => each.shown)).toEqual(["adults > 2", "adults > 2"]);
    const longest = screen.getByLabelText("At most so many characters");
    expect(longest).toHaveProperty("value", "");
    expect(screen.getByText("They differ; what is set here is set in all.")).toBeTruthy();
    fireEvent.change(longest, { target: { value: "60" } });
    expect(texts().map((each) => each.max_length)).toEqual([60, 60]);
    await user.click(screen.getByLabelText("Keep the answer when hidden"));
    expect(
      ["name", "note"].map((id) => settingsOf<{ keep_when_hidden: boolean }>(bench(), id).keep_when_hidden),
    ).toEqual([true, true]);
    // What one of them has not is not there.
    expect(screen.queryByLabelText("Minimum")).toBeNull();
  });
});

it("takes nothing from somebody who may only look", async () => {
  const { screen } = inspected(["adults"], { mayEdit: false });
  expect((await screen.findByLabelText("Label")).matches(":disabled")).toBe(true);
  expect(screen.queryByRole("button", { name: "Remove" })).toBeNull();
});
