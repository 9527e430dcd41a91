// @vitest-environment jsdom
// A visit is told as far as it has come: by steps, with the time at each, what was wrong, and once it was sent.
import { afterEach, beforeEach, expect, test, vi } from "vitest";
import { withRows } from "./prefetch";
import { countVisit, type Send } from "./counting";
import type { FormSession } from "./session";

type Session = Parameters<typeof countVisit>[0];
const page = {
  ...{ form: "f", edition: 3, shown: "", seal: "", entry: "", token: null, received: null },
  came: { way: "script" as const, page: "https://www.example.org/visit", seconds: null },
};

/** A form of two pages, as far as counting looks at it. */
function twoPages(presentation = "paged") {
  const listeners: (() => void)[] = [];
  const blocks = (id: string) => [{ id, type: "short_text", key: id, label: id }];
  const snapshot = {
    phase: "filling",
    page: "p1",
    visited: new Set<string>(),
    tries: 0,
    state: { path: ["p1", "p2"] },
  };
  const session = {
    face: {
      presentation,
      pages: [
        { id: "p1", blocks: blocks("name") },
        { id: "p2", blocks: blocks("note") },
      ],
    },
    ...{ paged: presentation !== "whole", beganAt: Date.now(), isTouched: false, read: () => snapshot },
    subscribe: (listener: () => void) => listeners.push(listener),
    errorOf: (address: string) => (address.startsWith("name") ? { code: "required", message: "Missing" } : null),
  };
  const become = (changes: Partial<typeof snapshot>) => {
    Object.assign(snapshot, changes);
    listeners.forEach((listener) => listener());
  };
  return { session: session as unknown as Session & { isTouched: FormSession["isTouched"] }, become };
}

const seen = vi.fn<Send>();
const last = () => seen.mock.lastCall![1];

beforeEach(() => {
  vi.useFakeTimers({ now: 1_000_000 });
  sessionStorage.clear();
});
afterEach(() => {
  vi.useRealTimers();
  vi.unstubAllGlobals();
  seen.mockReset();
});

test("a visit is told at once, at each step, and when it was sent", () => {
  const { session, become } = twoPages();
  countVisit(session, page, withRows, seen);
  expect(seen.mock.lastCall![0]).toBe("/api/public/f/3/visit");
  expect(last()).toMatchObject({
    turn: 1,
    started: false,
    sent: false,
    place: "p1",
    steps: { p1: 0 },
    came: page.came,
  });
  vi.advanceTimersByTime(7_000);
  Object.assign(session, { isTouched: true });
  become({ page: "p2", visited: new Set(["name", "rows/r1/unknown"]) });
  vi.advanceTimersByTime(2_000);
  expect(last()).toMatchObject({ turn: 2, started: true, place: "p2", steps: { p1: 7, p2: 2 }, wrong: ["name"] });
  vi.advanceTimersByTime(1_000);
  const { visit } = last();
  become({ phase: "received" });
  expect(last()).toMatchObject({ visit, turn: 3, sent: true, steps: { p1: 7, p2: 3 }, seconds: 10 });
  // Another response is another visit.
  become({ phase: "filling", page: "p1", visited: new Set() });
  expect(last()).toMatchObject({ turn: 1, sent: false, wrong: [] });
  expect(last().visit).not.toBe(visit);
});

test("on one page a step is reached where a field of it is, and time counts while it is looked at", () => {
  const { session } = twoPages("whole");
  document.body.innerHTML = '<div data-block="note"><input></div>';
  countVisit(session, page, withRows, seen);
  vi.advanceTimersByTime(3_000);
  document.querySelector("input")!.dispatchEvent(new FocusEvent("focusin", { bubbles: true }));
  vi.advanceTimersByTime(2_000);
  expect(last()).toMatchObject({ field: "note", place: "p2", steps: { p1: 3, p2: 2 } });
  vi.spyOn(document, "visibilityState", "get").mockReturnValue("hidden");
  document.dispatchEvent(new Event("visibilitychange"));
  expect(last().steps).toEqual({ p1: 3, p2: 2 });
  vi.advanceTimersByTime(60_000);
  vi.spyOn(document, "visibilityState", "get").mockReturnValue("visible");
  document.dispatchEvent(new Event("visibilitychange"));
  vi.advanceTimersByTime(1_000);
  dispatchEvent(new Event("pagehide"));
  expect(last().steps).toEqual({ p1: 3, p2: 3 });
});

test("a page that is loaded again goes on with its visit, for less than a day", () => {
  countVisit(twoPages().session, page, withRows, seen);
  const { visit } = last();
  countVisit(twoPages().session, page, withRows, seen);
  dispatchEvent(new Event("pagehide"));
  expect(last()).toMatchObject({ visit, turn: 2 });
  vi.advanceTimersByTime(23 * 3_600_000);
  countVisit(twoPages().session, page, withRows, seen);
  expect(last().visit).not.toBe(visit);
});

test("who does not want to be counted is not", () => {
  for (const wish of [{ doNotTrack: "1" }, { globalPrivacyControl: true }]) {
    vi.stubGlobal("navigator", wish);
    countVisit(twoPages().session, page, withRows, seen);
  }
  expect(seen).not.toHaveBeenCalled();
  expect(sessionStorage.length).toBe(0);
});
