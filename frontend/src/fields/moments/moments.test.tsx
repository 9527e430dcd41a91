// @vitest-environment jsdom
// Days and times: typed, shown as the language writes them, and picked.
import { cleanup, waitFor } from "@testing-library/react";
import { afterEach, describe, expect, it } from "vitest";
import LANGUAGES from "../../api/generated/languages.json";
import WRITTEN from "../../../../tests/cases/written_moments.json";
import { drawn } from "../../testing/one_block";
import { example, guessed, times, written } from "./written";

afterEach(cleanup);

describe("a day", () => {
  it.each([
    ["de", "24.12.2026"],
    ["en", "12/24/2026"],
    ["en_GB", "24/12/2026"],
    ["nl", "24-12-2026"],
    ["ja", "2026/12/24"],
    ["ar", "24/12/2026"],
  ])("is written in the order of %s, and read back", (locale, words) => {
    expect(written("2026-12-24", locale)).toBe(words);
    expect(guessed(words, locale).day).toBe("2026-12-24");
  });

  it.each(Object.keys(LANGUAGES))("is guessed from what is written in %s, with plain digits", (locale) => {
    const words = written("2026-03-25", locale);
    expect(words).toMatch(/^[\d./\- ]+$/);
    expect(guessed(words, locale).day).toBe("2026-03-25");
    expect(written("18:30", locale)).toMatch(/^\d\d[:.]\d\d( PM)?$/u);
  });

  it.each(["abc", "2026-13-45", "31.2", "T", "2026-12-24Tnoon", ""])(
    "that is none stays as it was typed: %s",
    (text) => {
      expect(written(text, "de")).toBe(text);
      expect(guessed(text, "de").time).toBe("");
    },
  );

  it.each(Object.entries(WRITTEN))("and a time are written in %s as the core reads them", (locale, moments) => {
    // The same file holds for the core (`tests/core/test_fields.py`).
    for (const [iso, words] of Object.entries(moments)) expect(written(iso, locale)).toBe(words);
  });

  it("with a time has both", () => {
    expect(written("2026-12-24T18:30", "de")).toBe("24.12.2026 18:30");
    expect(guessed("2026-12-24T18:30", "de")).toEqual({ day: "2026-12-24", time: "18:30" });
    expect(example("time", "de")).toBe("18:30");
  });

  it("has quarters of an hour, from one to another", () => {
    expect(times("", "")).toHaveLength(96);
    expect(times("18:10", "19:00")).toEqual(["18:15", "18:30", "18:45", "19:00"]);
  });
});

describe("a date field", () => {
  const tools = { locale: "de" };

  it("keeps what is typed to the letter, and says how it was understood", async () => {
    const { user, screen, latest } = drawn("date", {
      tools,
      facts: { moment: { told: "24. Dezember 2026" } as never },
    });
    await user.type(screen.getByRole("textbox"), "24.12.2026");
    expect(latest()).toBe("24.12.2026");
    expect(screen.queryByText("24. Dezember 2026")).toBeNull();
    await user.tab();
    expect(screen.getByText("24. Dezember 2026")).toBeTruthy();
  });

  it("moves nothing under a press that leaves it", async () => {
    const facts = { moment: { told: "24. Dezember 2026" } as never };
    const { user, screen } = drawn("date", { tools, facts });
    await user.type(screen.getByRole("textbox"), "24.12.2026");
    const pressed = screen.getByRole("button", { name: "Choose a day" });
    await user.pointer({ keys: "[MouseLeft>]", target: pressed });
    expect(document.activeElement).toBe(pressed);
    expect(screen.queryByText("24. Dezember 2026")).toBeNull();
    await user.pointer({ keys: "[/MouseLeft]", target: pressed });
    expect(screen.getByText("24. Dezember 2026")).toBeTruthy();
    expect(pressed.getAttribute("aria-expanded")).toBe("true");
  });

  it("is picked from a calendar within its limits, by keyboard, and gives the focus back", async () => {
    const moment = { told: null, first: "2026-12-10", last: "2026-12-24" };
    const { user, screen, latest } = drawn("date", { tools, answer: "12.12.2026", facts: { moment } });
    screen.getByRole("textbox").focus();
    await user.keyboard("{Alt>}{ArrowDown}{/Alt}");
    const day = await screen.findByRole("button", { name: "Samstag, 12. Dezember 2026" });
    await waitFor(() => expect(document.activeElement).toBe(day));
    const early = screen.getByRole("button", { name: "Mittwoch, 9. Dezember 2026" });
    expect(early.hasAttribute("disabled")).toBe(true);
    await user.keyboard("{ArrowRight}{Enter}");
    expect(latest()).toBe("2026-12-13");
    expect(document.activeElement).toBe(screen.getByRole("textbox"));
    expect(screen.getByRole<HTMLInputElement>("textbox").value).toBe("13.12.2026");
    expect(screen.queryByRole("grid")).toBeNull();
  });

  it("is left by Escape as it was, and is not opened while it is locked", async () => {
    const { user, screen, entered } = drawn("date", { tools, answer: "2026-12-12" });
    await user.click(screen.getByRole("button", { name: "Choose a day" }));
    await screen.findByRole("grid");
    await user.keyboard("{Escape}");
    expect([screen.queryByRole("grid"), entered]).toEqual([null, []]);
    const locked = drawn("date", { facts: { locked: true }, answer: "2026-12-12" });
    expect(locked.container.querySelector("button")).toBeNull();
  });
});

it("a time is picked from a list, by arrows", async () => {
  const { user, screen, latest } = drawn("time", { tools: { locale: "de" }, answer: "18:00" });
  await user.click(screen.getByRole("button", { name: "Choose a time" }));
  await waitFor(() => expect(document.activeElement?.textContent).toBe("18:00"));
  await user.keyboard("{ArrowDown}{ArrowDown}{Enter}");
  expect(latest()).toBe("18:30");
});

it("a day with a time is whole once both are picked", async () => {
  const { user, screen, entered } = drawn("date_time", { tools: { locale: "de" }, answer: "2026-12-12T18:00" });
  await user.click(screen.getByRole("button", { name: "Choose a day" }));
  await user.click(await screen.findByRole("button", { name: "Montag, 14. Dezember 2026" }));
  await user.click(screen.getByRole("option", { name: "20:15" }));
  expect(entered).toEqual(["2026-12-14T18:00", "2026-12-14T20:15"]);
});
