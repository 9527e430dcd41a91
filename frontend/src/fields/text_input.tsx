// One line of typed text: what several types of field show.
import { type InputProps, textOf } from "./input";

interface TextInputProps extends Omit<InputProps, "block" | "facts"> {
  placeholder?: string;
  type?: "text" | "email" | "date" | "time" | "datetime-local" | "tel" | "url";
  inputMode?: "text" | "email" | "decimal" | "numeric" | "tel" | "url";
  autoComplete?: string;
  unit?: string;
  before?: string;
}

export function TextInput({
  answer,
  controlId,
  describedBy,
  invalid,
  locked,
  onChange,
  required,
  ...rest
}: TextInputProps) {
  const { placeholder, type = "text", inputMode, autoComplete, unit, before } = rest;
  const input = (
    <input
      id={controlId}
      className="cx-input"
      type={type}
      inputMode={inputMode}
      autoComplete={autoComplete}
      placeholder={placeholder || undefined}
      readOnly={locked}
      value={textOf(answer)}
      aria-invalid={invalid || undefined}
      aria-required={required || undefined}
      aria-describedby={describedBy}
      onChange={(event) => onChange(event.target.value === "" ? null : event.target.value)}
    />
  );
  if (!unit && !before) return input;
  return (
    <span className="cx-with-unit">
      {before && <span className="cx-unit">{before}</span>}
      {input}
      {unit && <span className="cx-unit">{unit}</span>}
    </span>
  );
}
