// @vitest-environment jsdom
// The outline as it is searched, folded and selected in.
import { cleanup, fireEvent, screen, within } from "@testing-library/react";
import { afterEach, beforeEach, describe, expect, it, vi } from "vitest";
import { apply } from "../../model/draft";
import { A_FORM } from "../../testing/a_form";
import { onTheBench } from "../../testing/on_the_bench";
import { useBench } from "../workbench/bench";
import { Outline } from "./Outline";

const scrolled = vi.fn();
Element.prototype.scrollIntoView = function (this: Element) {
  scrolled(this.textContent);
};

beforeEach(() => scrolled.mockClear());
afterEach(cleanup);

function outlined(given: Parameters<typeof onTheBench>[1] = {}) {
  const onAdd = vi.fn();
  function Opened() {
    const { actions } = useBench();
    return <Outline actions={actions} onAdd={onAdd} />;
  }
  return { ...onTheBench(<Opened />, given), onAdd };
}

const rows = () => within(screen.getByRole("navigation", { name: "Outline" })).queryAllByRole("listitem");
const names = () => rows().map((row) => row.textContent!.replace("▾", ""));
const row = (name: string) => rows().find((each) => each.textContent!.endsWith(name))!;
const press = (name: string, how: object = {}) =>
  fireEvent.click(within(row(name)).getAllByRole("button").at(-1)!, how);

describe("the outline", () => {
  it("has every page, block, row kind and confirmation by its number", () => {
    outlined();
    expect(names()).toEqual([
      ...["1One", "1.1name", "1.2school", "1.2.1teacher", "1.2.2phone", "1.3lines", "1.3.1Row", "1.3.1.1amount"],
      ...["1.4note", "2Two", "2.1adults", "C.1For all"],
    ]);
  });

  it("shows what a search finds, by label, number or key, with the page it stands on", async () => {
    const { user, bench } = outlined();
    const search = screen.getByLabelText("Find a block");
    await user.type(search, "ADU");
    expect(names()).toEqual(["2Two", "2.1adults"]);
    await user.keyboard("{Enter}");
    expect(bench().selected).toEqual(["adults"]);
    await user.clear(search);
    await user.type(search, "1.2.");
    expect(names()).toEqual(["1One", "1.2.1teacher", "1.2.2phone"]);
    await user.clear(search);
    await user.type(search, "nowhere");
    expect(screen.getByText("No block says that.")).toBeTruthy();
    await user.keyboard("{Escape}");
    expect(rows()).toHaveLength(12);
  });

  it("folds what has something in it, with all that stands inside", () => {
    outlined();
    fireEvent.click(screen.getByRole("button", { name: "Fold 1.3 lines" }));
    expect(names()).not.toContain("1.3.1Row");
    fireEvent.click(screen.getByRole("button", { name: "Fold 1 One" }));
    expect(names().slice(0, 2)).toEqual(["▸1One", "2Two"]);
    fireEvent.click(screen.getByRole("button", { name: "Unfold 1 One" }));
    expect(names()).toContain("▸1.3lines");
  });

  it("selects one, one more, or all up to one, and follows what is selected elsewhere", () => {
    const { bench, run } = outlined();
    press("name");
    press("note", { ctrlKey: true });
    expect(bench().selected).toEqual(["name", "note"]);
    press("phone");
    press("adults", { shiftKey: true });
    expect(bench().selected).toEqual(["phone", "lines", "amount", "note", "adults"]);
    run(({ select }) => select("teacher"));
    expect(scrolled.mock.lastCall).toEqual(["1.2.1teacher"]);
  });

  it("takes what is dragged, alone or with all that is selected", () => {
    const { bench, run } = outlined();
    const drag = (from: string, to: string) => {
      fireEvent.dragStart(row(from));
      fireEvent.dragOver(row(to));
      fireEvent.drop(row(to));
    };
    const page = (at: number) => bench().form.pages[at]!.blocks.map(({ id }) => id);
    drag("name", "adults");
    expect(page(1)).toEqual(["name", "adults"]);
    run(({ selectAll }) => selectAll(["lines", "note"]));
    drag("note", "2Two");
    expect(page(1)).toEqual(["lines", "note", "name", "adults"]);
  });

  it("says what it is for while it is empty, and offers nothing to who may only look", async () => {
    const empty = apply(A_FORM, { do: "remove", parts: ["name", "school", "lines", "note", "adults", "c1"] });
    const { user, onAdd } = outlined({ form: empty });
    expect(screen.getByText("Every block you add gets a number here.")).toBeTruthy();
    await user.click(screen.getByRole("button", { name: "Add a block" }));
    expect(onAdd).toHaveBeenCalledOnce();
    cleanup();
    outlined({ mayEdit: false });
    expect(screen.queryByRole("button", { name: /^Add/ })).toBeNull();
  });
});
