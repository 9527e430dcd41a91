// The calendar and the list of times, in the form's look and language.
import { useEffect, useRef } from "react";
import { DayPicker } from "react-day-picker";
import { say } from "../../text/visitor";
import { useTools } from "../input";
import "./picker.css";
import { type MomentKind, times, written } from "./written";

interface Props {
  kind: MomentKind;
  /** The day and the time that are given so far, in ISO 8601. */
  given: { day: string; time: string };
  /** From when to when it may lie, in ISO 8601; "" for no limit. */
  earliest: string;
  latest: string;
  /** Hears what was picked in ISO 8601, and whether that is all. */
  onPick: (iso: string, done: boolean) => void;
}

/** Noon of a day, where this browser is: no change of clocks makes another day of it. */
const dateOf = (iso: string): Date | undefined => (iso ? new Date(`${iso.slice(0, 10)}T12:00`) : undefined);

const isoOf = (date: Date): string =>
  [
    String(date.getFullYear()).padStart(4, "0"),
    String(date.getMonth() + 1).padStart(2, "0"),
    String(date.getDate()).padStart(2, "0"),
  ].join("-");

export default function Picker({ kind, given, earliest, latest, onPick }: Props) {
  const { day, time } = given;
  return (
    <div className="cx-picker" role="group" aria-label={say(kind === "time" ? "openTimes" : "openDays")}>
      {kind !== "time" && (
        <Days
          day={day}
          earliest={earliest}
          latest={latest}
          onDay={(iso) => (kind === "date" ? onPick(iso, true) : onPick(time ? `${iso}T${time}` : iso, false))}
        />
      )}
      {kind !== "date" && (
        <Times
          time={time}
          all={kind === "time" ? times(earliest, latest) : timesOn(day, earliest, latest)}
          focused={kind === "time"}
          // A time alone is meant for today, until a day is picked.
          onTime={(iso) => onPick(kind === "time" ? iso : `${day || isoOf(new Date())}T${iso}`, true)}
        />
      )}
    </div>
  );
}

/** The times that a day has between two moments. */
const timesOn = (day: string, earliest: string, latest: string): string[] =>
  times(
    day && earliest.startsWith(day) ? earliest.slice(11) : "",
    day && latest.startsWith(day) ? latest.slice(11) : "",
  );

interface DaysProps {
  day: string;
  earliest: string;
  latest: string;
  onDay: (iso: string) => void;
}

function Days({ day, earliest, latest, onDay }: DaysProps) {
  const { locale, firstWeekday } = useTools();
  const tag = `${locale.replace("_", "-")}-u-ca-gregory`;
  const shown = (date: Date, how: Intl.DateTimeFormatOptions) => new Intl.DateTimeFormat(tag, how).format(date);
  const [from, to, now] = [dateOf(earliest), dateOf(latest), new Date()];
  const years = (by: number) => new Date(now.getFullYear() + by, now.getMonth());
  return (
    <DayPicker
      mode="single"
      required
      autoFocus
      showOutsideDays
      fixedWeeks
      captionLayout="dropdown"
      dir={document.documentElement.dir}
      weekStartsOn={firstWeekday}
      selected={dateOf(day)}
      defaultMonth={dateOf(day) ?? (from && from > now ? from : to && to < now ? to : now)}
      startMonth={from ?? years(-110)}
      endMonth={to ?? years(20)}
      disabled={[...(from ? [{ before: from }] : []), ...(to ? [{ after: to }] : [])]}
      onSelect={(date) => onDay(isoOf(date))}
      formatters={{
        formatMonthDropdown: (date) => shown(date, { month: "long" }),
        formatYearDropdown: (date) => shown(date, { year: "numeric" }),
        formatWeekdayName: (date) => shown(date, { weekday: "short" }),
        formatDay: (date) => String(date.getDate()),
      }}
      labels={{
        labelDayButton: (date) => shown(date, { dateStyle: "full" }),
        labelGrid: (date) => shown(date, { month: "long", year: "numeric" }),
        labelWeekday: (date) => shown(date, { weekday: "long" }),
        labelMonthDropdown: () => new Intl.DisplayNames(tag, { type: "dateTimeField" }).of("month")!,
        labelYearDropdown: () => new Intl.DisplayNames(tag, { type: "dateTimeField" }).of("year")!,
        labelPrevious: () => say("monthBefore"),
        labelNext: () => say("monthAfter"),
        labelNav: () => "",
      }}
    />
  );
}

interface TimesProps {
  time: string;
  all: readonly string[];
  focused: boolean;
  onTime: (iso: string) => void;
}

function Times({ time, all, focused, onTime }: TimesProps) {
  const { locale } = useTools();
  const list = useRef<HTMLDivElement>(null);
  const near = all.find((each) => each >= (time || "12:00")) ?? all[0];
  useEffect(() => {
    const button = list.current?.querySelector<HTMLElement>("[tabindex='0']");
    if (focused) button?.focus({ preventScroll: true });
    if (button) list.current!.scrollTop = button.offsetTop - list.current!.clientHeight / 2;
  }, [focused]);
  return (
    <div
      ref={list}
      className="cx-times"
      role="listbox"
      aria-label={say("openTimes")}
      onKeyDown={(event) => {
        const by = { ArrowDown: 1, ArrowUp: -1 }[event.key];
        if (!by) return;
        event.preventDefault();
        const next = by > 0 ? "nextElementSibling" : "previousElementSibling";
        ((event.target as HTMLElement)[next] as HTMLElement | null)?.focus();
      }}
    >
      {all.map((each) => (
        <button
          key={each}
          type="button"
          role="option"
          aria-selected={each === time}
          tabIndex={each === near ? 0 : -1}
          onClick={() => onTime(each)}
        >
          {written(each, locale)}
        </button>
      ))}
    </div>
  );
}
