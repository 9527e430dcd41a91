// Days and times as people of a language write them, from and to ISO 8601. What was typed is understood by the core; here
// it is only guessed, so that the calendar opens where it was typed.

export type MomentKind = "date" | "time" | "date_time";

const ISO_DAY = /^\d{4}-\d\d-\d\d$/;
const ISO_TIME = /^\d\d:\d\d(:\d\d)?$/;
/** Signs of direction that nobody types. */
const UNSEEN = /[\u200e\u200f]/g;

const tagOf = (locale: string): string => `${locale.replace("_", "-")}-u-nu-latn-ca-gregory`;

const dayFormat = (locale: string): Intl.DateTimeFormat =>
  new Intl.DateTimeFormat(tagOf(locale), { year: "numeric", month: "2-digit", day: "2-digit", timeZone: "UTC" });

/** A day in numbers, in the order of the language ("24.12.2026"). */
function writtenDay(iso: string, locale: string): string {
  return dayFormat(locale)
    .format(new Date(`${iso}T00:00Z`))
    .replace(UNSEEN, "");
}

/** A time; with halves of the day only in English, where the core reads them. */
function writtenTime(iso: string, locale: string): string {
  const hourCycle = locale.startsWith("en") ? undefined : "h23";
  const format = new Intl.DateTimeFormat(tagOf(locale), {
    hour: "2-digit",
    minute: "2-digit",
    hourCycle,
    timeZone: "UTC",
  });
  return format.format(new Date(`2000-01-01T${iso}Z`)).replace(UNSEEN, "");
}

/** An answer as it is shown: what is in ISO 8601 as the language writes it, all else as it was typed. */
export function written(answer: string, locale: string): string {
  const [day = "", time = ""] = answer.split("T");
  if (ISO_DAY.test(day) && !Number.isNaN(Date.parse(day)))
    return ISO_TIME.test(time)
      ? `${writtenDay(day, locale)} ${writtenTime(time, locale)}`
      : time
        ? answer
        : writtenDay(day, locale);
  return ISO_TIME.test(answer) ? writtenTime(answer, locale) : answer;
}

/** In which order a day is written. */
const orderOf = (locale: string): string[] =>
  dayFormat(locale)
    .formatToParts(new Date("2026-12-24T00:00Z"))
    .map(({ type }) => type)
    .filter((type) => type !== "literal");

/** The day and time that an answer most likely means, in ISO 8601, each "" where there is none. */
export function guessed(answer: string, locale: string): { day: string; time: string } {
  const [start = "", rest = ""] = answer.split("T");
  if (ISO_DAY.test(start)) return { day: start, time: ISO_TIME.test(rest) ? rest.slice(0, 5) : "" };
  if (ISO_TIME.test(answer)) return { day: "", time: answer.slice(0, 5) };
  const numbers = answer.match(/\d+/g) ?? [];
  const given = Object.fromEntries(orderOf(locale).map((part, at) => [part, numbers[at] ?? ""]));
  const { year = "", month = "", day = "" } = given;
  const iso = `${year.padStart(4, "0")}-${month.padStart(2, "0")}-${day.padStart(2, "0")}`;
  const isDay = year.length === 4 && !Number.isNaN(Date.parse(iso));
  return { day: isDay ? iso : "", time: "" };
}

/** What shows how it is written: the last day of this year, a time. */
export function example(kind: MomentKind, locale: string): string {
  const day = `${new Date().getFullYear()}-12-31`;
  return written({ date: day, time: "18:30", date_time: `${day}T18:30` }[kind], locale);
}

/** Times of a day from one to another, both in it, a quarter of an hour apart. */
export function times(earliest: string, latest: string): string[] {
  const all = Array.from({ length: 96 }, (_each, at) => {
    const [hour, minute] = [Math.floor(at / 4), (at % 4) * 15];
    return `${String(hour).padStart(2, "0")}:${String(minute).padStart(2, "0")}`;
  });
  return all.filter((each) => (!earliest || each >= earliest.slice(0, 5)) && (!latest || each <= latest.slice(0, 5)));
}
