// @vitest-environment jsdom
// Slots of a table's records: columns found by themselves, what can't be a slot told, the rest added to what was there.
import { cleanup, waitFor } from "@testing-library/react";
import { afterEach, expect, it, vi } from "vitest";
import { api } from "../../api/client";
import type { SlotField, TableReply, TablesReply } from "../../api/generated/wire";
import { onTheBench } from "../../testing/on_the_bench";
import { SlotsFromTable } from "./SlotsFromTable";

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const BLOCK = { id: "visit", type: "slot", singles: [{ starts: "2026-12-03T18:30", minutes: 60, places: 1, at: "" }] };
const DAY = { id: "c1", key: "night", label: "Night", type: "date", numeric: false };
const MADE = [
  { starts: "2026-12-03T18:30", minutes: 45, places: 2, at: "" },
  { starts: "2026-12-04T18:30", minutes: 45, places: 2, at: "" },
];

function opened(columns: readonly object[]) {
  vi.spyOn(api, "tables").mockResolvedValue({ tables: [{ id: "t1", name: "Nights" }] } as TablesReply);
  vi.spyOn(api, "table").mockResolvedValue({ id: "t1", columns } as TableReply);
  const made = vi
    .spyOn(api, "slotsOfTable")
    .mockResolvedValue({ slots: MADE, wrong: [{ number: 7, message: "has no day and time." }], wrong_count: 1 });
  const edit = vi.fn();
  const usual = { minutes: 45, places: 2, at: "" };
  const block = BLOCK as unknown as SlotField;
  return { made, edit, ...onTheBench(<SlotsFromTable block={block} usual={usual} places={[]} edit={edit} />) };
}

async function choose(view: ReturnType<typeof opened>) {
  await view.user.click(view.screen.getByRole("button", { name: "From a table" }));
  await view.user.click(view.screen.getByLabelText("Table"));
  await view.user.click(await view.screen.findByRole("option", { name: "Nights" }));
}

it("are seen before they are added, and take the place of what began at the same time", async () => {
  const view = opened([DAY, { ...DAY, id: "c2", key: "from", label: "From", type: "time" }]);
  await choose(view);
  expect(await view.screen.findByText("Record 7 has no day and time.")).toBeTruthy();
  expect(view.made).toHaveBeenLastCalledWith(
    "visit",
    expect.objectContaining({
      table: "t1",
      columns: { day: "c1", time: "c2", minutes: "", places: "", at: "" },
    }),
  );
  await view.user.click(view.screen.getByRole("button", { name: "Add 2 slots" }));
  expect(view.edit).toHaveBeenCalledWith({ singles: MADE });
});

it("are not asked for while nothing says when they begin", async () => {
  const view = opened([DAY]);
  await choose(view);
  expect(await view.screen.findByText(/These days have no time/)).toBeTruthy();
  await waitFor(() =>
    expect(view.screen.getByRole("button", { name: "Add 0 slots" })).toHaveProperty("disabled", true),
  );
  expect(view.made).not.toHaveBeenCalled();
});
