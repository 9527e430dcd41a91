// What can be done with the slots of a block, as plain data: weeks of days, slots set by hand, lines that were pasted.
import type { ShownSlotReply, SingleSlot } from "../../api/generated/wire";

/** A day as ISO 8601 has it: 2026-12-03. */
export type Day = string;

const DAY_MS = 86_400_000;
const at = (day: Day): Date => new Date(`${day}T00:00:00Z`);

export const dayAfter = (day: Day, days: number): Day =>
  new Date(at(day).getTime() + days * DAY_MS).toISOString().slice(0, 10);

/** The Monday of a day's week. */
export const mondayOf = (day: Day): Day => dayAfter(day, -((at(day).getUTCDay() + 6) % 7));

export const weekOf = (day: Day): Day[] => [0, 1, 2, 3, 4, 5, 6].map((each) => dayAfter(mondayOf(day), each));

export const dayTold = (day: Day, how: Intl.DateTimeFormatOptions): string =>
  new Intl.DateTimeFormat("en-GB", { ...how, timeZone: "UTC" }).format(at(day));

const minuteOf = (time: string): number => Number(time.slice(0, 2)) * 60 + Number(time.slice(3, 5));
const timeOf = (minute: number): string =>
  `${String(Math.floor(minute / 60)).padStart(2, "0")}:${String(minute % 60).padStart(2, "0")}`;

const USUAL_FROM = 9 * 60;
const USUAL_TO = 18 * 60;
const DAY = 24 * 60;
const STEP = 30; // minutes between the rows of an empty week

/** The times of day that a week shows as rows: each at which a slot begins, and every half hour around them, or of the
 *  whole day. */
export function rowsOf(slots: readonly ShownSlotReply[], wholeDay = false): string[] {
  const starts = slots.map(({ starts: start }) => minuteOf(start.slice(11)));
  const none = starts.length === 0;
  const from = wholeDay ? 0 : none ? USUAL_FROM : Math.max(0, Math.floor(Math.min(...starts) / 60 - 1) * 60);
  const to = wholeDay ? DAY : none ? USUAL_TO : Math.min(DAY, Math.ceil(Math.max(...starts) / 60 + 2) * 60);
  const every = Array.from({ length: (to - from) / STEP }, (_, index) => from + index * STEP);
  return [...new Set([...every, ...starts])].sort((a, b) => a - b).map(timeOf);
}

const isSame = (one: SingleSlot, other: SingleSlot): boolean => one.starts === other.starts && one.at === other.at;

/** Slots set by hand with these in the place of any that begin at the same time and place, in order of time. */
export const withSlots = (singles: readonly SingleSlot[], added: readonly SingleSlot[]): SingleSlot[] =>
  [...singles.filter((each) => !added.some((other) => isSame(each, other))), ...added].sort((a, b) =>
    a.starts === b.starts ? a.at.localeCompare(b.at) : a.starts.localeCompare(b.starts),
  );

/** The same without a slot: one of a series stays as one without places, so that the series does not bring it back. */
export function withoutSlots(singles: readonly SingleSlot[], gone: readonly ShownSlotReply[]): SingleSlot[] {
  const out = gone.filter(({ series }) => series).map((slot) => ({ ...asSingle(slot), places: 0 }));
  const byHand = gone.filter(({ series }) => !series).map(asSingle);
  return withSlots(
    singles.filter((each) => !byHand.some((other) => isSame(each, other))),
    out,
  );
}

/** A slot as one that is set by hand. */
export const asSingle = ({ starts, ends, places, at: place }: ShownSlotReply): SingleSlot => ({
  starts,
  minutes: Math.round((Date.parse(`${ends}Z`) - Date.parse(`${starts}Z`)) / 60_000),
  places,
  at: place,
});

/** A day's slots on other days; what those days had at other times stays. */
export const copied = (slots: readonly ShownSlotReply[], days: readonly Day[]): SingleSlot[] =>
  days.flatMap((day) => slots.map((slot) => ({ ...asSingle(slot), starts: `${day}${slot.starts.slice(10)}` })));

export interface Pasted {
  slots: SingleSlot[];
  /** What is wrong, by line, the first of which is 1. */
  wrong: { line: number; why: string }[];
}

const ISO_DAY = /^(\d{4})-(\d\d)-(\d\d)$/;
const WRITTEN_DAY = /^(\d{1,2})\.(\d{1,2})\.(\d{4})$/;
const TIME = /^([01]?\d|2[0-3])[:.]([0-5]\d)$/;

function dayIn(text: string): Day | null {
  const iso = ISO_DAY.exec(text);
  const written = WRITTEN_DAY.exec(text);
  const day = iso
    ? text
    : written
      ? `${written[3]}-${written[2]!.padStart(2, "0")}-${written[1]!.padStart(2, "0")}`
      : "";
  return day && !Number.isNaN(at(day).getTime()) && at(day).toISOString().startsWith(day) ? day : null;
}

/** Slots of lines such as "2026-12-03 18:30 45 2 north": day, time, minutes, places, and where, the last three if any. */
export function pasted(text: string, usual: SingleSlot, places: ReadonlyMap<string, string>): Pasted {
  const found: Pasted = { slots: [], wrong: [] };
  text.split("\n").forEach((line, index) => {
    const [dayText = "", timeText = "", ...rest] = line.trim().split(/[\s,;T]+/);
    if (!line.trim()) return;
    const wrong = (why: string) => found.wrong.push({ line: index + 1, why });
    const [day, time] = [dayIn(dayText), TIME.exec(timeText)];
    if (!day) return wrong(`“${dayText}” is no day; write one such as 2026-12-03.`);
    if (!time) return wrong(`“${timeText}” is no time; write one such as 18:30.`);
    const numbers = rest.slice(0, 2).filter((each) => /^\d+$/.test(each));
    const place = rest.slice(numbers.length).join(" ");
    const code = place ? placeNamed(place, places) : usual.at;
    if (code === null) return wrong(`There is no place “${place}”.`);
    const [minutes = usual.minutes, count = usual.places] = numbers.map(Number);
    if (minutes < 1 || minutes > 10_080) return wrong(`A slot lasts from 1 to 10,080 minutes, not ${minutes}.`);
    if (count > 100_000) return wrong(`A slot has at most 100,000 places, not ${count}.`);
    found.slots.push({ starts: `${day}T${time[1]!.padStart(2, "0")}:${time[2]}`, minutes, places: count, at: code });
  });
  return found;
}

function placeNamed(words: string, places: ReadonlyMap<string, string>): string | null {
  const wanted = words.toLowerCase();
  for (const [code, label] of places) if (wanted === code.toLowerCase() || wanted === label.toLowerCase()) return code;
  return null;
}
