// Words on the screen that several places share.
import LANGUAGES from "../api/generated/languages.json";
import type { NoteKind } from "../api/generated/wire";

/** Each kind of note has a sign and a word, so that colour is never the only difference. */
export const NOTE_KINDS: Record<NoteKind, { sign: string; word: string }> = {
  rule: { sign: "◇", word: "Rule" },
  calculation: { sign: "ƒ", word: "Calculation" },
  check: { sign: "!", word: "Check" },
  money: { sign: "#", word: "Counts as" },
  data: { sign: "→", word: "Data" },
};

export const REQUIRED_SIGN = "*";

const dayAndTimeIn = (timeZone?: string) =>
  new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "short", hour: "2-digit", minute: "2-digit", timeZone });
const inZones = new Map<string | undefined, Intl.DateTimeFormat>();
const day = new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "short" });
const time = new Intl.DateTimeFormat("en-GB", { hour: "2-digit", minute: "2-digit" });

export const asTime = (iso: string): string => time.format(new Date(iso));

/** Day and time in a time zone; in the reader's own where none is named. */
export function asDayAndTime(iso: string, timeZone?: string): string {
  const format = inZones.get(timeZone) ?? dayAndTimeIn(timeZone);
  inZones.set(timeZone, format);
  return format.format(new Date(iso));
}

/** "today", "yesterday" or the day. */
export function asDay(iso: string, now = new Date()): string {
  const midnight = new Date(now.getFullYear(), now.getMonth(), now.getDate()).getTime();
  const days = Math.ceil((midnight - new Date(iso).getTime()) / 86_400_000);
  return days <= 0 ? "today" : days === 1 ? "yesterday" : day.format(new Date(iso));
}

const date = new Intl.DateTimeFormat("en-GB", { day: "numeric", month: "short", year: "numeric", timeZone: "UTC" });

/** A day of the calendar ("2026-12-23"), with its year. */
export const asDate = (iso: string): string => date.format(new Date(iso));

export const counted = (count: number, one: string, many = `${one}s`): string => `${count} ${count === 1 ? one : many}`;

/** What is pasted into a title, as the one line that a title is. */
export const oneLine = (text: string): string => text.replace(/\s*\n\s*/g, " ");

/** What a language calls itself. */
export const languageName = (locale: string): string => (LANGUAGES as Record<string, string>)[locale] ?? locale;
