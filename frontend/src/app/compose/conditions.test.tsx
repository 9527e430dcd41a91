// @vitest-environment jsdom
// A condition as rows: every change is written as a formula by the core, and what is not complete yet stays.
import { cleanup, fireEvent, screen, waitFor, within } from "@testing-library/react";
import { useState } from "react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { api, ApiError } from "../../api/client";
import type { ConditionRow, ConditionRows, Form } from "../../api/generated/wire";
import { apply } from "../../model/draft";
import { A_FORM, block } from "../../testing/a_form";
import { onTheBench } from "../../testing/on_the_bench";
import { option } from "../../testing/one_block";
import { ConditionEditor } from "./ConditionEditor";

const CHOICE = block("single_choice", "show", {
  label: "Show",
  options: [option("deep", "Deep sky"), option("near", "Planets")],
});
const form: Form = apply(A_FORM, { do: "add", parts: [CHOICE], into: { holder: "p2", list: "blocks" }, at: 0 });

const isRows = (each: ConditionRow | ConditionRows): each is ConditionRows => "rows" in each;

/** The formula that the core would write, near enough to tell rows apart. */
const written = ({ join, rows }: ConditionRows): string =>
  rows
    .flatMap((each) => (isRows(each) ? `(${written(each)})` : each.name && each.operands[0] ? tell(each) : []))
    .join(join === "all" ? " AND " : " OR ");
const tell = ({ name, operator, operands }: ConditionRow) => `${name} ${operator} ${operands.join("..")}`;

const NOTHING: ConditionRows = { join: "all", rows: [] };
const row = (name: string, operator: ConditionRow["operator"], ...operands: string[]): ConditionRow => ({
  name,
  operator,
  operands,
});

function edited(rows: ConditionRows = NOTHING, readOnly = false) {
  const changed: string[] = [];
  function Note() {
    const [text, setText] = useState(() => written(rows));
    const change = (next: string) => {
      changed.push(next);
      setText(next);
    };
    return (
      <ConditionEditor text={text} rows={rows} rowKind={null} readOnly={readOnly} focused={false} onChange={change} />
    );
  }
  const view = onTheBench(<Note />, { form });
  return { ...view, changed };
}

async function choose(label: string, wanted: string, at = 0) {
  fireEvent.mouseDown(screen.getAllByLabelText(label)[at]!);
  fireEvent.click(within(await screen.findByRole("listbox")).getByText(wanted));
}

const type = (label: string, text: string, at = 0) =>
  fireEvent.change(screen.getAllByLabelText(label)[at]!, { target: { value: text } });

beforeEach(() => void vi.spyOn(api, "condition").mockImplementation(async (rows) => ({ formula: written(rows) })));
afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

describe("a condition as rows", () => {
  it("begins with a field that is picked by its number or label, and says of it what its type allows", async () => {
    const { user, changed } = edited();
    await user.type(screen.getByLabelText("Field or figure"), "adul");
    await user.click(screen.getByRole("option", { name: "2.2 adults" }));
    await choose("What is said of it", "is from … to");
    type("From", "2,5");
    type("Up to", "9");
    await waitFor(() => expect(changed.at(-1)).toBe("adults from_to 2.5..9"));
    fireEvent.mouseDown(screen.getByLabelText("What is said of it"));
    const words = within(screen.getByRole("listbox")).getAllByRole("option");
    expect(words.map((each) => each.textContent)).toContain("is more than");
    expect(words.map((each) => each.textContent)).not.toContain("mentions any of the words");
  });

  it("offers the options of a choice by their labels, and forgets them for another field", async () => {
    const { user, changed } = edited({ join: "all", rows: [row("show", "is", '"deep"')] });
    expect(screen.getByLabelText("Value").parentElement!.textContent).toContain("Deep sky");
    await choose("Value", "Planets");
    await waitFor(() => expect(changed.at(-1)).toBe('show is "near"'));
    await user.clear(screen.getByLabelText("Field or figure"));
    await user.type(screen.getByLabelText("Field or figure"), "name");
    await user.click(screen.getByRole("option", { name: "1.1 name" }));
    expect(screen.getByLabelText<HTMLInputElement>("Value").value).toBe("");
  });

  it("takes anything that is no plain value as a formula", async () => {
    const { changed } = edited({ join: "all", rows: [row("adults", "more", "3")] });
    type("Value", "teacher + 2");
    await waitFor(() => expect(changed.at(-1)).toBe("adults more teacher + 2"));
    expect(screen.getByLabelText("Value, as a formula")).toBeTruthy();
  });

  it("is joined by all or any, nested, and loses rows one by one", async () => {
    const rows = [row("adults", "more", "3"), row("name", "is", '"Vega"')];
    const { user, changed } = edited({ join: "all", rows });
    await choose("How many of the rows must hold", "any of these holds");
    await waitFor(() => expect(changed.at(-1)).toBe('adults more 3 OR name is "Vega"'));
    await user.click(screen.getByRole("button", { name: "+ rows within" }));
    const within2 = screen.getAllByLabelText("How many of the rows must hold")[1]!;
    expect(within2.parentElement!.textContent).toContain("all of these hold");
    expect(screen.getAllByLabelText("Remove this row")).toHaveLength(4);
    for (let left = 4; left > 2; left -= 1) await user.click(screen.getAllByLabelText("Remove this row")[left - 1]!);
    await user.click(screen.getAllByLabelText("Remove this row")[0]!);
    await waitFor(() => expect(changed.at(-1)).toBe('name is "Vega"'));
    expect(screen.queryByLabelText("How many of the rows must hold")).toBeNull();
  });

  it("keeps a row that is not complete yet while others are written", async () => {
    const { user, changed } = edited({ join: "all", rows: [row("adults", "more", "3")] });
    await user.click(screen.getByRole("button", { name: "+ row" }));
    expect(screen.getAllByLabelText("Field or figure")).toHaveLength(2);
    type("Value", "4");
    await waitFor(() => expect(changed.at(-1)).toBe("adults more 4"));
    expect(screen.getAllByLabelText("Field or figure")).toHaveLength(2);
  });

  it("marks a row that lacks something, and takes its values away one by one", async () => {
    const { user, changed } = edited({ join: "all", rows: [row("name", "mentions", '"fog"', '"rain"')] });
    expect(screen.queryByText(/^Not complete yet/)).toBeNull();
    await user.click(screen.getByRole("button", { name: "+ value" }));
    expect(screen.getByText(/^Not complete yet: a value is empty/)).toBeTruthy();
    await user.click(screen.getByRole("button", { name: "Remove value 3" }));
    await user.click(screen.getByRole("button", { name: "Remove value 1" }));
    await waitFor(() => expect(changed.at(-1)).toBe('name mentions "rain"'));
    expect(screen.queryByRole("button", { name: /^Remove value/ })).toBeNull();
  });

  it("is what was changed last, whatever order the replies come in, and says what the core can't write", async () => {
    const replies: ((formula: string | Error) => void)[] = [];
    vi.spyOn(api, "condition").mockImplementation(
      () =>
        new Promise((resolve, reject) =>
          replies.push((reply) => (reply instanceof Error ? reject(reply) : resolve({ formula: reply }))),
        ),
    );
    const { changed } = edited({ join: "all", rows: [row("adults", "more", "3")] });
    type("Value", "4");
    type("Value", "45");
    replies[1]!("adults > 45");
    await waitFor(() => expect(changed).toEqual(["adults > 45"]));
    replies[0]!("adults > 4");
    type("Value", "46");
    replies[2]!(new ApiError("no", "“46” can’t be read."));
    expect(await screen.findByRole("alert")).toHaveProperty("textContent", "“46” can’t be read.");
    expect(changed).toEqual(["adults > 45"]);
  });

  it("asks in which of the team's groups is who is signed in, or whether anybody is", async () => {
    const group = { code: "keepers", name: "Dome keepers", people: [] };
    vi.spyOn(api, "groups").mockResolvedValue({ groups: [group] });
    const { user, changed } = edited();
    await user.type(screen.getByLabelText("Field or figure"), "signed");
    await user.click(screen.getByRole("option", { name: "Who is signed in" }));
    expect(screen.getByLabelText("What is said of it").parentElement!.textContent).toContain("is in the group");
    await choose("Value", "Dome keepers");
    await waitFor(() => expect(changed.at(-1)).toBe('visitor in_group "keepers"'));
    await user.clear(screen.getByLabelText("Field or figure"));
    await user.type(screen.getByLabelText("Field or figure"), "their first");
    await user.click(screen.getByRole("option", { name: "Their first name" }));
    fireEvent.mouseDown(screen.getByLabelText("What is said of it"));
    const words = within(screen.getByRole("listbox")).getAllByRole("option");
    expect(words.map((each) => each.textContent)).toContain("is not known");
    expect(words.map((each) => each.textContent)).not.toContain("is hidden");
  });

  it("is only to be read for who may only look", () => {
    edited({ join: "all", rows: [row("adults", "more", "3")] }, true);
    expect(screen.getByLabelText("Value").matches(":disabled")).toBe(true);
  });
});
