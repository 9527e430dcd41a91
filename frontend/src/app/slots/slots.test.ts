// Slots as plain data: weeks, what is set by hand, what is copied to other days, and lines that were pasted.
import { describe, expect, it } from "vitest";
import { copied, mondayOf, pasted, rowsOf, weekOf, withoutSlots, withSlots } from "./slots";

const slot = (starts: string, more = {}) => ({
  starts,
  ends: `${starts.slice(0, 11)}${String(Number(starts.slice(11, 13)) + 1).padStart(2, "0")}${starts.slice(13)}`,
  places: 2,
  at: "",
  series: "",
  ...more,
});

describe("a week", () => {
  it("begins on Monday, over years and the change of the clock", () => {
    expect(mondayOf("2027-01-03")).toBe("2026-12-28");
    expect(weekOf("2026-10-25").at(0)).toBe("2026-10-19");
    expect(weekOf("2026-10-25").at(-1)).toBe("2026-10-25");
  });

  it("has a row for every time at which a slot begins", () => {
    const rows = rowsOf([slot("2026-12-01T07:45"), slot("2026-12-01T21:10")]);
    expect(rows[0]).toBe("06:00");
    expect(rows).toContain("07:45");
    expect(rows.at(-1)).toBe("23:30");
    expect(rowsOf([])).toHaveLength(18);
    expect(rowsOf([slot("2026-12-01T18:00")], true)).toHaveLength(48);
  });
});

describe("what is set by hand", () => {
  const one = { starts: "2026-12-01T18:00", minutes: 60, places: 2, at: "" };

  it("stands in the place of what begins at the same time and place", () => {
    expect(withSlots([one], [{ ...one, places: 5 }])).toEqual([{ ...one, places: 5 }]);
    expect(withSlots([one], [{ ...one, at: "hill" }])).toHaveLength(2);
  });

  it("goes, and takes a slot of a series out", () => {
    expect(withoutSlots([one], [slot("2026-12-01T18:00")])).toEqual([]);
    expect(withoutSlots([], [slot("2026-12-01T18:00", { series: "s1" })])).toEqual([{ ...one, places: 0 }]);
  });

  it("is copied from a day to others", () => {
    expect(copied([slot("2026-12-01T18:00")], ["2026-12-03", "2027-01-04"]).map(({ starts }) => starts)).toEqual([
      "2026-12-03T18:00",
      "2027-01-04T18:00",
    ]);
  });
});

describe("pasted lines", () => {
  const usual = { starts: "", minutes: 60, places: 1, at: "" };
  const places = new Map([["hill", "Hill Dome"]]);

  it("are slots of day, time, minutes, places and where, as far as they say so", () => {
    const { slots, wrong } = pasted(
      "2026-12-03 18:30\n3.12.2026, 9.15, 45, 2, hill dome\n\n2026-12-04T20:00 30",
      usual,
      places,
    );
    expect(wrong).toEqual([]);
    expect(slots).toEqual([
      { ...usual, starts: "2026-12-03T18:30" },
      { starts: "2026-12-03T09:15", minutes: 45, places: 2, at: "hill" },
      { ...usual, starts: "2026-12-04T20:00", minutes: 30 },
    ]);
  });

  it("that are wrong are told one by one, and the others are kept", () => {
    const { slots, wrong } = pasted(
      "2026-02-30 18:00\n2026-12-03 25:00\n2026-12-03 18:00 60 1 moon\n2026-12-03 19:00",
      usual,
      places,
    );
    expect(wrong.map(({ line }) => line)).toEqual([1, 2, 3]);
    expect(wrong[2]!.why).toBe("There is no place “moon”.");
    expect(slots).toHaveLength(1);
  });
});
