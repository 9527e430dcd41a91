// Slots: days with the times that are free, some at a time; further ones are asked for by a press, or from a day on.
import { useContext, useEffect, useRef, useState } from "react";
import type { FreeDayFace, FreeTimeFace, SlotFace, SlotsState } from "../../api/generated/wire";
import { say } from "../../text/visitor";
import { ChoiceFrame, ChooseNone } from "../choice_set";
import { type InputProps, SurroundingsContext, textOf, useTools } from "../input";
import { MomentInput } from "../moments/MomentInput";
import { guessed } from "../moments/written";

const NONE: SlotsState = { days: [], zone: "UTC" };
const TAG = /_/g;

export function SlotInput(props: InputProps<SlotFace>) {
  const { controlId, answer, facts, required, locked, onChange } = props;
  const first = facts.slots ?? NONE;
  const { slots, since, away, look, back } = useDays(props.block.id, first);
  const [from, setFrom] = useState("");
  const { locale } = useTools();
  const chosen = textOf(answer);
  const isListed = slots.days.some(({ times }) => times.some(({ id }) => id === chosen));
  if (locked) return <p id={controlId}>{first.chosen?.label ?? "\u2013"}</p>;
  return (
    <ChoiceFrame {...props} className="cx-slots" role="radiogroup">
      {chosen && !isListed && first.chosen?.id === chosen && (
        <p className="cx-slot-chosen">{say("slotChosen", { time: first.chosen.label })}</p>
      )}
      {slots.days.map((day) => (
        <Day key={day.day} {...{ day, controlId, chosen, zone: slots.zone, onChange }} />
      ))}
      <p className="cx-help" role="status">
        {away ? say("lost") : slots.none}
      </p>
      {(since.length > 0 || slots.later) && (
        <div className="cx-slot-days">
          <button type="button" className="cx-clear" disabled={since.length === 0} onClick={back}>
            {say("slotsEarlier")}
          </button>
          <button
            type="button"
            className="cx-clear"
            disabled={!slots.later}
            onClick={() => slots.later && look(slots.later)}
          >
            {say("slotsLater")}
          </button>
          <label htmlFor={`${controlId}-from`}>{say("slotsFrom")}</label>
          <MomentInput
            {...props}
            kind="date"
            controlId={`${controlId}-from`}
            describedBy={undefined}
            required={false}
            invalid={false}
            facts={{ shown: true }}
            answer={from}
            onChange={(given) => {
              setFrom(textOf(given));
              const { day } = guessed(textOf(given), locale);
              if (day) look(day);
            }}
          />
        </div>
      )}
      <ChooseNone off={!chosen || required} onPress={() => onChange(null)} />
    </ChoiceFrame>
  );
}

/** The days that are looked at: those of the state, or those that were asked for since; asked anew with each state. */
function useDays(block: string, first: SlotsState) {
  const { offers } = useTools();
  const prefix = useContext(SurroundingsContext)?.prefix ?? "";
  const [since, setSince] = useState<readonly string[]>([]);
  const [found, setFound] = useState<SlotsState | null>(null);
  const [away, setAway] = useState(false);
  const ask = useRef(offers);
  useEffect(() => {
    ask.current = offers;
  });
  const day = since.at(-1);
  useEffect(() => {
    if (!day || !ask.current) return setFound(null);
    let late = false;
    ask.current(prefix + block, { since: day }).then(
      (reply) => {
        if (late) return;
        setFound(reply.slots ?? null);
        setAway(false);
      },
      () => late || setAway(true),
    );
    return () => {
      late = true;
    };
  }, [day, first, prefix, block]);
  return {
    slots: day && found ? found : first,
    since,
    away,
    look: (next: string) => setSince([...since, next]),
    back: () => setSince(since.slice(0, -1)),
  };
}

interface DayProps {
  day: FreeDayFace;
  controlId: string;
  chosen: string;
  zone: string;
  onChange: (id: string) => void;
}

function Day({ day, controlId, chosen, zone, onChange }: DayProps) {
  const { locale } = useTools();
  const labelId = `${controlId}-${day.day}`;
  return (
    <div role="group" aria-labelledby={labelId} className="cx-slot-day">
      <span id={labelId} className="cx-slot-name">
        {day.label}
      </span>
      <div className="cx-slot-times">
        {day.times.map((time) => {
          const elsewhere = timeElsewhere(time, zone, locale);
          return (
            <label key={time.id} className="cx-option cx-slot" data-chosen={chosen === time.id || undefined}>
              <input
                type="radio"
                name={controlId}
                value={time.id}
                checked={chosen === time.id}
                onChange={() => onChange(time.id)}
              />
              <span>
                {time.label}
                {time.left && <small>{time.left}</small>}
                {elsewhere && <small>{say("slotElsewhere", { time: elsewhere })}</small>}
              </span>
            </label>
          );
        })}
      </div>
    </div>
  );
}

/** When a time begins by the visitor's own clock, with the weekday where that is another; "" where it is the same. */
export function timeElsewhere({ start }: FreeTimeFace, zone: string, locale: string, own?: string): string {
  const at = new Date(start);
  const tag = locale.replace(TAG, "-");
  const clock = { hour: "numeric", minute: "2-digit" } as const;
  const told = (timeZone: string | undefined, more = {}) =>
    new Intl.DateTimeFormat(tag, { ...clock, ...more, timeZone }).format(at);
  const weekday = { weekday: "short" };
  if (told(zone, weekday) === told(own, weekday)) return "";
  const sameDay =
    new Intl.DateTimeFormat(tag, { dateStyle: "short", timeZone: zone }).format(at) ===
    new Intl.DateTimeFormat(tag, { dateStyle: "short", timeZone: own }).format(at);
  return told(own, sameDay ? {} : weekday);
}
