// @vitest-environment jsdom
// What a record choice shows of the state, what it sends, and how it is searched: newest question first.
import { cleanup } from "@testing-library/react";
import { afterEach, beforeAll, describe, expect, it, vi } from "vitest";
import usual from "../../api/generated/usual_words.json";
import type { FoundOffersReply, RecordsState } from "../../api/generated/wire";
import { drawn, type Given } from "../../testing/one_block";
import { speakAs } from "../../text/visitor";
import type { Sought } from "../input";

beforeAll(() => speakAs(usual));
afterEach(cleanup);

const named = (...names: string[]) => names.map((label, at) => ({ id: String(at + 1), label }));
const JUNIPER_AND_MOSS: RecordsState = { listed: named("Juniper", "Moss") };

const choice = (look: string, { records = JUNIPER_AND_MOSS, ...given }: Given & { records?: RecordsState } = {}) =>
  drawn("record_choice", { ...given, settings: { look, ...given.settings }, facts: { records, ...given.facts } });

describe("records of a table", () => {
  it("are chosen in a list that opens, and taken back", async () => {
    const { user, screen, latest } = choice("dropdown");
    const list = await screen.findByLabelText("Question");
    await user.selectOptions(list, "Moss");
    expect(latest()).toBe("2");
    await user.selectOptions(list, "Choose …");
    expect(latest()).toBeNull();
  });

  it("are chosen in a list in sight, one or several", async () => {
    const one = choice("list");
    await one.user.click(await one.screen.findByRole("radio", { name: "Juniper" }));
    expect(one.latest()).toBe("1");
    one.unmount();
    const several = choice("list", { settings: { several: true } });
    await several.user.click(await several.screen.findByRole("checkbox", { name: "Moss" }));
    await several.user.click(several.screen.getByRole("checkbox", { name: "Juniper" }));
    expect(several.latest()).toEqual(["2", "1"]);
  });

  it("say why there are none, in any look", async () => {
    for (const look of ["dropdown", "list"]) {
      const { screen, unmount } = choice(look, { records: { listed: [], none: "First answer: Site" } });
      expect(await screen.findByRole("status")).toHaveProperty("textContent", "First answer: Site");
      unmount();
    }
  });

  it("that are chosen and not listed are shown all the same", async () => {
    const records = { ...JUNIPER_AND_MOSS, chosen: [{ id: "9", label: "Plover" }] };
    const { screen } = choice("dropdown", { records, answer: "9" });
    expect(await screen.findByLabelText("Question")).toHaveProperty("value", "9");
  });
});

describe("records that are searched by typing", () => {
  it("are those that the server finds, and are called so at once", async () => {
    const offers = vi.fn((_address: string, { words }: Sought) =>
      Promise.resolve({ records: { listed: words === "plo" ? [{ id: "9", label: "Plover" }] : [] } }),
    );
    const { user, screen, latest } = choice("search", { records: { listed: [] }, tools: { offers } });
    const box = await screen.findByRole("combobox");
    await user.type(box, "plo");
    await user.click(await screen.findByRole("option", { name: "Plover" }));
    expect(offers.mock.lastCall).toEqual(["it", { words: "plo" }]);
    expect(latest()).toBe("9");
    expect(box).toHaveProperty("value", "Plover");
  });

  it("are never those of an older question", async () => {
    const answers: Record<string, (found: RecordsState) => void> = {};
    const offers = (_address: string, { words = "" }: Sought) =>
      new Promise<Partial<FoundOffersReply>>((resolve) => {
        answers[words] = (records) => resolve({ records });
      });
    const { user, screen } = choice("search", { tools: { offers } });
    const box = await screen.findByRole("combobox");
    await user.type(box, "mo");
    await vi.waitFor(() => expect(answers.mo).toBeTruthy());
    await user.type(box, "s");
    await vi.waitFor(() => expect(answers.mos).toBeTruthy());
    answers.mos!({ listed: named("Moss") });
    answers.mo!({ listed: named("Moth") });
    expect(await screen.findByRole("option", { name: "Moss" })).toBeTruthy();
    expect(screen.queryByRole("option", { name: "Moth" })).toBeNull();
  });

  it("say that the server can't be reached", async () => {
    const offers = () => Promise.reject(new Error("away"));
    const { user, screen } = choice("search", { tools: { offers } });
    await user.type(await screen.findByRole("combobox"), "mo");
    expect(await screen.findByText(/can't reach the server/)).toBeTruthy();
  });

  it("stand above the box where several are chosen, and go one by one", async () => {
    const records = { listed: [], chosen: named("Juniper", "Moss") };
    const { user, screen, latest } = choice("search", { records, answer: ["1", "2"], settings: { several: true } });
    await user.click(await screen.findByRole("button", { name: "Remove Juniper" }));
    expect(latest()).toEqual(["2"]);
  });
});
