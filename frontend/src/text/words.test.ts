import { describe, expect, it } from "vitest";
import type { FormRowReply } from "../api/generated/wire";
import { stateOf, thisWeek } from "../app/desk/state";
import { asDay, counted, NOTE_KINDS } from "./words";

const at = (day: number, hour = 12) => new Date(2026, 10, day, hour);

describe("days", () => {
  it.each([
    [at(23, 0), "today"],
    [at(23, 23), "today"],
    [at(22, 23), "yesterday"],
    [at(22, 0), "yesterday"],
    [at(21, 23), "21 Nov"],
    [at(2), "2 Nov"],
  ])("are said as people say them: %s", (date, words) => {
    expect(asDay(date.toISOString(), at(23, 9))).toBe(words);
  });
});

it("counts in words", () => {
  expect([counted(0, "change"), counted(1, "change"), counted(2, "entry", "entries")]).toEqual([
    "0 changes",
    "1 change",
    "2 entries",
  ]);
});

it("gives every kind of note a sign and a word of its own", () => {
  const kinds = Object.values(NOTE_KINDS);
  expect(new Set(kinds.map((kind) => kind.sign)).size).toBe(kinds.length);
  expect(new Set(kinds.map((kind) => kind.word)).size).toBe(kinds.length);
});

describe("a form on the desk", () => {
  const form = (changes: Partial<FormRowReply>) =>
    ({
      live_edition: 3,
      changed: false,
      unreadable: null,
      days: [1, 1, 1, 1, 1, 1, 1, 2, 2, 2, 2, 2, 2, 2],
      ...changes,
    }) as FormRowReply;

  it.each([
    [{ live_edition: null }, "Draft, never published"],
    [{}, "Edition 3"],
    [{ changed: true }, "Edition 3 · changed since"],
  ])("says its state: %j", (changes, words) => {
    expect(stateOf(form(changes))).toBe(words);
  });

  it("counts the last seven days", () => {
    expect(thisWeek(form({}))).toBe(14);
  });
});
