// @vitest-environment jsdom
// Links with values on the bench: which fields, by which names, sealed or not; and a table that becomes links.
import { cleanup, waitFor } from "@testing-library/react";
import { afterEach, describe, expect, it, vi } from "vitest";
import { api } from "../../api/client";
import type { LinksPlanReply } from "../../api/generated/wire";
import { A_FORM } from "../../testing/a_form";
import { onTheBench } from "../../testing/on_the_bench";
import { FromTable } from "./FromTable";
import { LinkFields } from "./LinkFields";

afterEach(() => {
  cleanup();
  vi.restoreAllMocks();
});

const LINKS = [
  { field: "name", name: "talk", visitor: "open", sealed: false },
  { field: "note", name: "note", visitor: "open", sealed: false },
] as const;
const formWith = (links: readonly (typeof LINKS)[number][]) => ({ ...A_FORM, links: [...links], sealed_only: false });

describe("the fields that links fill in", () => {
  it("are those outside rows, each once, with a name after its key", async () => {
    const view = onTheBench(<LinkFields />, { form: formWith([]) });
    await view.user.click(view.screen.getByRole("combobox", { name: "Add a field" }));
    const offered = view.screen.getAllByRole("option").map(({ textContent }) => textContent);
    expect(offered.some((each) => each?.includes("teacher"))).toBe(true);
    expect(offered.some((each) => each?.includes("amount"))).toBe(false);
    await view.user.click(view.screen.getByRole("option", { name: /adults/ }));
    expect(view.bench().form.links).toEqual([{ field: "adults", name: "adults", visitor: "open", sealed: false }]);
  });

  it("are sealed once visitors can't change them, and free again by hand", async () => {
    const view = onTheBench(<LinkFields />, { form: formWith([LINKS[0]]) });
    await view.user.click(view.screen.getByRole("button", { name: "locked" }));
    expect(view.bench().form.links[0]).toMatchObject({ visitor: "locked", sealed: true });
    await view.user.click(view.screen.getByRole("combobox", { name: /^Seal:/ }));
    await view.user.click(view.screen.getByRole("option", { name: "free" }));
    expect(view.bench().form.links[0]).toMatchObject({ visitor: "locked", sealed: false });
  });

  it("keep their name while another is typed that can't be one, and say why", async () => {
    const view = onTheBench(<LinkFields />, { form: formWith(LINKS) });
    const [name] = view.screen.getAllByRole("textbox", { name: /^Called in the link:/ });
    for (const [typed, why] of [
      ["s", "That is the seal’s own name"],
      ["Über", "Small letters, digits and _"],
      ["note", "Another has this name"],
    ] as const) {
      await view.user.clear(name!);
      await view.user.type(name!, typed);
      expect(view.screen.getByText(why)).toBeTruthy();
      expect(view.bench().form.links[0]!.name).not.toBe(typed);
    }
    await view.user.clear(name!);
    await view.user.type(name!, "lecture");
    expect(view.bench().form.links[0]!.name).toBe("lecture");
  });
});

describe("a table of values", () => {
  const plan = (changes: Partial<LinksPlanReply>): LinksPlanReply => ({
    headers: ["Talk", "No.", "E-mail"],
    lines: 2,
    empty: 1,
    links: 0,
    first: [],
    wrong: [],
    wrong_count: 0,
    ...changes,
  });

  it("is read, its columns are guessed, wrong lines are told, and the good ones become links", async () => {
    const planned = vi.spyOn(api, "planLinks").mockImplementation(async (_form, { columns }) =>
      Object.keys(columns).length === 0
        ? plan({})
        : plan({
            links: 1,
            first: [{ talk: "Dust" }],
            wrong: [{ number: 3, message: "has none of the values" }],
            wrong_count: 1,
          }),
    );
    const made = vi.spyOn(api, "makeLinks").mockResolvedValue({ batch: 4, links: 1 });
    const shown = vi.fn();
    const view = onTheBench(<FromTable show={shown} />, { form: formWith(LINKS) });
    await view.user.click(view.screen.getByRole("textbox", { name: "Rows from a spreadsheet" }));
    await view.user.paste("Talk\tNo.\tE-mail\nDust\t0063\ta@example.org\n");
    await view.user.click(view.screen.getByRole("button", { name: "Read the rows" }));
    expect(await view.screen.findByText(/2 lines, 1 empty one passed over/)).toBeTruthy();
    expect(await view.screen.findByText("line 3 has none of the values")).toBeTruthy();
    expect(planned.mock.lastCall![1]).toMatchObject({ columns: { talk: "Talk" }, email: "E-mail", uses: null });
    await view.user.click(view.screen.getByRole("button", { name: "See the first" }));
    expect(shown).toHaveBeenCalledExactlyOnceWith({ talk: "Dust" });
    await view.user.click(view.screen.getByRole("button", { name: "Make 1 link" }));
    await waitFor(() => expect(made).toHaveBeenCalledOnce());
    expect(made.mock.lastCall![1]).toMatchObject({ name: "Pasted rows", columns: { talk: "Talk" } });
    expect(await view.screen.findByText("1 link made; they stand below.")).toBeTruthy();
  });

  it("that can't be read says why, and another can be taken", async () => {
    vi.spyOn(api, "planLinks").mockRejectedValue(new Error("Two columns are called “A”."));
    const view = onTheBench(<FromTable show={vi.fn()} />, { form: formWith(LINKS) });
    await view.user.click(view.screen.getByRole("textbox", { name: "Rows from a spreadsheet" }));
    await view.user.paste("A\tA\n1\t2\n");
    await view.user.click(view.screen.getByRole("button", { name: "Read the rows" }));
    expect(await view.screen.findByText("Two columns are called “A”.")).toBeTruthy();
  });
});
