// A date, a time, or both: typed as people write it, or picked from a calendar and a list that come when they are opened.
import { type ComponentProps, useRef, useState } from "react";
import { say } from "../../text/visitor";
import { type InputProps, textOf, useTools } from "../input";
import { late } from "../late";
import { onceReleased } from "../press";
import { TextInput } from "../text_input";
import { example, guessed, type MomentKind, written } from "./written";

const Picker = late<ComponentProps<typeof import("./Picker").default>>(() => import("./Picker"));

const CALENDAR = "M3 5h14v12H3zM3 9h14M7 3v4M13 3v4";
const CLOCK = "M10 3a7 7 0 1 0 0 14a7 7 0 1 0 0-14M10 6v4l3 2";

export function MomentInput({ kind, ...props }: InputProps & { kind: MomentKind }) {
  const { answer, facts, locked, controlId, onChange } = props;
  const { locale } = useTools();
  const [typed, setTyped] = useState<string | null>(null);
  const [open, setOpen] = useState(false);
  const around = useRef<HTMLDivElement>(null);
  const told = kind !== "time" && typed === null ? facts.moment?.told : null;
  const close = () => {
    setOpen(false);
    document.getElementById(controlId)?.focus();
  };
  return (
    <div
      ref={around}
      className="cx-moment"
      onBlur={({ relatedTarget }) =>
        onceReleased(() => {
          setTyped(null);
          if (relatedTarget && !around.current?.contains(relatedTarget)) setOpen(false);
        })
      }
      onKeyDown={(event) => {
        if (event.key === "Escape" && open) {
          // What is around, such as a window on a website, stays open.
          event.preventDefault();
          event.stopPropagation();
          close();
        }
        if (event.key === "ArrowDown" && event.altKey && !open && !locked) {
          event.preventDefault();
          setOpen(true);
        }
      }}
    >
      <span className="cx-moment-line">
        <TextInput
          {...props}
          autoComplete="off"
          placeholder={locked ? undefined : example(kind, locale)}
          answer={typed ?? written(textOf(answer), locale)}
          onChange={(text) => {
            setTyped(textOf(text));
            onChange(text);
          }}
        />
        {!locked && (
          <button
            type="button"
            className="cx-moment-open"
            aria-expanded={open}
            aria-label={say(kind === "time" ? "openTimes" : "openDays")}
            onClick={() => setOpen(!open)}
          >
            <svg viewBox="0 0 20 20" aria-hidden="true">
              <path d={kind === "time" ? CLOCK : CALENDAR} />
            </svg>
          </button>
        )}
      </span>
      {told && <span className="cx-moment-told">{told}</span>}
      {open && (
        <Picker
          kind={kind}
          given={guessed(textOf(answer), locale)}
          earliest={facts.moment?.first ?? ""}
          latest={facts.moment?.last ?? ""}
          onPick={(iso, done) => {
            setTyped(null);
            onChange(iso);
            if (done) close();
          }}
        />
      )}
    </div>
  );
}
