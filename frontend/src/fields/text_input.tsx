// One line of typed text: what several types of field show.
import type { InputProps } from "./input";

interface TextInputProps extends Omit<InputProps, "block"> {
  placeholder?: string;
  type?: "text" | "email";
  inputMode?: "text" | "email" | "decimal" | "numeric";
  autoComplete?: string;
  unit?: string;
}

export function TextInput({ answer, controlId, describedBy, invalid, onChange, required, ...rest }: TextInputProps) {
  const { placeholder, type = "text", inputMode, autoComplete, unit } = rest;
  const input = (
    <input
      id={controlId}
      className="cx-input"
      type={type}
      inputMode={inputMode}
      autoComplete={autoComplete}
      placeholder={placeholder || undefined}
      value={answer ?? ""}
      aria-invalid={invalid || undefined}
      aria-required={required || undefined}
      aria-describedby={describedBy}
      onChange={(event) => onChange(event.target.value === "" ? null : event.target.value)}
    />
  );
  if (!unit) return input;
  return (
    <span className="cx-with-unit">
      {input}
      <span className="cx-unit">{unit}</span>
    </span>
  );
}
