// @vitest-environment jsdom
// What a slot block shows of the state, what it sends, and how later days are asked for.
import { cleanup } from "@testing-library/react";
import { afterEach, beforeAll, describe, expect, it, vi } from "vitest";
import usual from "../../api/generated/usual_words.json";
import type { SlotsState } from "../../api/generated/wire";
import { drawn, type Given } from "../../testing/one_block";
import { speakAs } from "../../text/visitor";
import type { Sought } from "../input";
import { timeElsewhere } from "./Input";

beforeAll(() => speakAs(usual));
afterEach(cleanup);

const day = (date: string, ...times: string[]) => ({
  day: date,
  label: `Day ${date}`,
  times: times.map((time) => ({ id: `${date}T${time}`, label: time, start: `${date}T${time}+00:00` })),
});
const FIRST: SlotsState = { days: [day("2026-12-03", "17:00", "18:00")], zone: "UTC", later: "2026-12-05" };

const slots = (given: Given & { slots?: SlotsState } = {}) =>
  drawn("slot", { ...given, facts: { slots: given.slots ?? FIRST, ...given.facts } });

describe("slots", () => {
  it("are chosen among the free times of a day, and taken back", async () => {
    const { user, screen, latest } = slots();
    await user.click(await screen.findByRole("radio", { name: /^18:00/ }));
    expect(latest()).toBe("2026-12-03T18:00");
    await user.click(screen.getByRole("button", { name: "Choose none" }));
    expect(latest()).toBeNull();
  });

  it("of later days are asked for, and earlier ones come back", async () => {
    const offers = vi.fn((_address: string, { since = "" }: Sought) =>
      Promise.resolve({ slots: { days: [day(since, "20:00")], zone: "UTC" } }),
    );
    const { user, screen } = slots({ tools: { offers } });
    await user.click(await screen.findByRole("button", { name: "Later days" }));
    expect(await screen.findByRole("radio", { name: /^20:00/ })).toBeTruthy();
    expect(offers.mock.lastCall).toEqual(["it", { since: "2026-12-05" }]);
    expect(screen.getByRole("button", { name: "Later days" })).toHaveProperty("disabled", true);
    await user.click(screen.getByRole("button", { name: "Earlier days" }));
    expect(await screen.findByRole("radio", { name: /^17:00/ })).toBeTruthy();
  });

  it("that can't be asked for are told, and what is shown stays", async () => {
    const offers = () => Promise.reject(new Error("away"));
    const { user, screen } = slots({ tools: { offers } });
    await user.click(await screen.findByRole("button", { name: "Later days" }));
    expect(await screen.findByText(/can't reach the server/)).toBeTruthy();
    expect(screen.getByRole("radio", { name: /^17:00/ })).toBeTruthy();
  });

  it("say which was chosen where it is not in sight, and why there are none", async () => {
    const chosen = { id: "2026-12-24T17:00", label: "Christmas Eve" };
    const { screen } = slots({ slots: { ...FIRST, days: [], chosen, none: "First answer: Site" }, answer: chosen.id });
    expect(await screen.findByText("Chosen: Christmas Eve")).toBeTruthy();
    expect(screen.getByRole("status").textContent).toBe("First answer: Site");
  });
});

it("a time is told by the visitor's own clock only where that is another, with the day where it differs", () => {
  const at = (start: string, zone: string, own: string) =>
    timeElsewhere({ id: "", label: "", start }, zone, "en_GB", own);
  expect(at("2026-12-03T17:00+00:00", "Europe/Berlin", "Europe/Rome")).toBe("");
  expect(at("2026-12-03T17:00+00:00", "Europe/Berlin", "Asia/Kathmandu")).toBe("22:45");
  expect(at("2026-12-03T17:00+00:00", "Europe/Berlin", "Pacific/Auckland")).toBe("Fri 06:00");
});
