// @vitest-environment jsdom
// The rows of a repeat as a visitor works with them: added, filled in, moved and removed, with the focus where it helps.
import { act, cleanup, render, screen, within } from "@testing-library/react";
import { userEvent } from "@testing-library/user-event";
import { afterEach, describe, expect, it } from "vitest";
import type { BlockState, FormFace, FormState } from "../../api/generated/wire";
import { PublicForm } from "../../form/PublicForm";
import { FormSession } from "../../form/session";
import type { Answers } from "../../form/transport";
import { newRowKind } from "../../model/new_block";
import { A_BRAND, block, factsWith } from "../../testing/a_form";
import type { RowAnswer } from "../input";

afterEach(cleanup);

const kind = (id: string, label: string, more: object = {}) => ({
  ...newRowKind([]),
  id,
  label,
  blocks: [block("number", `${id}count`, { label: `${label} count` })],
  max_rows: null,
  ...more,
});
/** A form that is one repeat of exposures (at most two) and sketches, at most four rows in all. */
function opened(rows: readonly RowAnswer[] = [], more: Partial<BlockState> = {}) {
  const kinds = [kind("shot", "Exposure", { max_rows: 2 }), kind("sketch", "Sketch")];
  const lines = block("repeat", "lines", { label: "What you saw", kinds, max_rows: 4 });
  const face = {
    ...{
      title: "Log",
      lead: "",
      brand: A_BRAND,
      locale: "en",
      languages: [],
      currency: "EUR",
      asks: [],
      welcome: null,
    },
    ...{ presentation: "whole", progress: [], wording: { submit: "Send", messages: {} } },
    pages: [{ id: "p1", title: "", address: "", blocks: [lines] }],
  } as unknown as FormFace;
  const fresh = Object.fromEntries(kinds.map(({ id }) => [id, { [`${id}count`]: factsWith() }]));
  const rowState = ({ id, kind: of }: RowAnswer) => [id, { blocks: fresh[of], error: null }];
  const state = (answers: Answers) => {
    const given = (answers.lines ?? []) as unknown as RowAnswer[];
    const blocks = { lines: factsWith({ rows: Object.fromEntries(given.map(rowState)), ...more }) };
    return { path: ["p1"], blocks, fresh } as unknown as FormState;
  };
  const start = { ...state({ lines: rows as never }), fresh } as FormState;
  const server = {
    state: (answers: Answers) => Promise.resolve(state(answers)),
    submit: () => new Promise<never>(() => undefined),
  };
  const session = new FormSession(face, { state: start }, server);
  if (rows.length > 0) session.change("lines", rows as never);
  render(
    <PublicForm
      session={session}
      form="form"
      upload={null}
      address={null}
      onRedirect={() => undefined}
      onOwnPage={null}
    />,
  );
  const now = () => (session.read().answers.lines ?? []) as unknown as RowAnswer[];
  return { user: userEvent.setup(), now };
}

const frame = () => act(() => new Promise((resolve) => requestAnimationFrame(() => resolve(undefined))));
const rowNames = () => screen.getAllByRole("listitem").map((each) => each.getAttribute("aria-label"));
const button = (name: string) => screen.getByRole("button", { name });
const said = (text: string) => screen.getAllByRole("status").some((each) => each.textContent === text);
const three: RowAnswer[] = ["shot", "sketch", "shot"].map((of, at) => ({
  kind: of,
  id: `r${at}`,
  values: { [`${of}count`]: String(at) },
}));

describe("rows", () => {
  it("are added at the end or before another, take the focus, and are told of", async () => {
    const { user, now } = opened();
    await user.click(button("Add Exposure"));
    await frame();
    expect(document.activeElement).toBe(screen.getByRole("listitem", { name: "1: Exposure" }));
    expect(said("Exposure was added.")).toBe(true);
    await user.type(screen.getByLabelText("Exposure count"), "12");
    await user.click(button("Insert Sketch before this row"));
    expect(rowNames()).toEqual(["1: Sketch", "2: Exposure"]);
    expect(now().map(({ kind: of, values }) => [of, values])).toEqual([
      ["sketch", {}],
      ["shot", { shotcount: "12" }],
    ]);
    expect(new Set(now().map(({ id }) => id)).size).toBe(2);
  });

  it("move with what is in them, and the focus moves along", async () => {
    const { user, now } = opened(three);
    const second = within(screen.getByRole("listitem", { name: "2: Sketch" }));
    await user.click(second.getByRole("button", { name: "Move up" }));
    await frame();
    expect(now().map(({ id }) => id)).toEqual(["r1", "r0", "r2"]);
    expect(said("Sketch is now in place 1.")).toBe(true);
    const first = screen.getByRole("listitem", { name: "1: Sketch" });
    expect(document.activeElement).toBe(first);
    expect(within(first).getByLabelText<HTMLInputElement>("Sketch count").value).toBe("1");
    expect(within(first).getByRole("button", { name: "Move up" })).toHaveProperty("disabled", true);
    const last = within(screen.getByRole("listitem", { name: "3: Exposure" }));
    expect(last.getByRole("button", { name: "Move down" })).toHaveProperty("disabled", true);
  });

  it("are removed; the last one leaves nothing answered, and the focus with the repeat", async () => {
    const { user, now } = opened(three.slice(0, 1));
    await user.click(button("Remove Exposure"));
    await frame();
    expect(now()).toEqual([]);
    expect(said("Exposure was removed.")).toBe(true);
    expect(document.activeElement).toBe(screen.getByRole("group", { name: "What you saw" }));
  });

  it("come back as they were, where they were, if they were filled in", async () => {
    const { user, now } = opened(three);
    await user.click(
      within(screen.getByRole("listitem", { name: "2: Sketch" })).getByRole("button", { name: "Remove Sketch" }),
    );
    expect(now().map(({ id }) => id)).toEqual(["r0", "r2"]);
    await user.click(button("Put Sketch back"));
    expect(now()).toEqual(three);
    expect(screen.queryByRole("button", { name: /^Put/ })).toBeNull();
    await user.click(button("Add Sketch"));
    await user.click(screen.getAllByRole("button", { name: "Remove Sketch" })[1]!);
    expect(screen.queryByRole("button", { name: /^Put/ })).toBeNull();
  });

  it("are offered only while there is room for their kind, and for any", async () => {
    const { user } = opened(three);
    expect(screen.queryByRole("button", { name: "Add Exposure" })).toBeNull();
    await user.click(button("Add Sketch"));
    expect(screen.queryByRole("button", { name: /^Add/ })).toBeNull();
    expect(screen.queryByRole("button", { name: /^Insert/ })).toBeNull();
    await user.click(screen.getAllByRole("button", { name: "Remove Exposure" })[0]!);
    expect(button("Add Exposure")).toBeTruthy();
  });

  it("of a kind that is hidden are out of sight and out of offer; what is locked stays", () => {
    opened(three, { kinds: { sketch: { shown: false }, shot: { locked: true } } as never });
    expect(rowNames()).toEqual(["1: Exposure", "3: Exposure"]);
    expect(screen.getAllByRole("button").map((each) => each.textContent)).toEqual(["Send"]);
    cleanup();
    opened(three, { locked: true });
    expect(screen.getAllByRole("button").map((each) => each.textContent)).toEqual(["Send"]);
  });

  it("are told apart where the same field stands in several", async () => {
    const { user, now } = opened(three);
    const boxes = screen.getAllByLabelText<HTMLInputElement>("Exposure count");
    expect(new Set(boxes.map(({ id }) => id)).size).toBe(2);
    await user.clear(boxes[1]!);
    await user.type(boxes[1]!, "9");
    expect(now().map(({ values }) => Object.values(values)[0])).toEqual(["0", "1", "9"]);
  });
});
