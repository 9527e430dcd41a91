// How many of something: typed, or one more and one less by a press.
import { say } from "../text/visitor";
import type { InputProps } from "./input";

interface Props extends Pick<InputProps, "controlId" | "describedBy" | "invalid" | "required" | "locked"> {
  /** What is counted, for the names of the buttons. */
  name: string;
  /** Ids of what names the box, where no label element does. */
  labelledBy?: string;
  answer: string;
  placeholder?: string;
  /** Nothing is left: what was ordered can only be taken back. */
  gone?: boolean;
  onChange: (pieces: string | null) => void;
}

export function Stepper({
  controlId,
  name,
  labelledBy,
  answer,
  placeholder,
  gone = false,
  locked,
  onChange,
  ...rest
}: Props) {
  const pieces = /^\d{1,9}$/.test(answer.trim()) ? Number(answer) : 0;
  const step = (by: 1 | -1) => onChange(pieces + by > 0 ? String(pieces + by) : null);
  const off = gone && pieces === 0;
  return (
    <span className="cx-stepper" data-off={off || undefined}>
      {!locked && (
        <button
          type="button"
          aria-label={say("fewer", { label: name })}
          disabled={pieces === 0}
          onClick={() => step(-1)}
        >
          −
        </button>
      )}
      <input
        id={controlId}
        className="cx-input"
        inputMode="numeric"
        autoComplete="off"
        placeholder={placeholder || "0"}
        aria-labelledby={labelledBy}
        aria-describedby={rest.describedBy}
        aria-invalid={rest.invalid || undefined}
        aria-required={rest.required || undefined}
        readOnly={locked || off}
        value={answer}
        onChange={(event) => onChange(event.target.value === "" ? null : event.target.value)}
      />
      {!locked && (
        <button type="button" aria-label={say("more", { label: name })} disabled={gone} onClick={() => step(1)}>
          +
        </button>
      )}
    </span>
  );
}
