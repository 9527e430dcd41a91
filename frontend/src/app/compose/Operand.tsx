// The other side of a condition: chosen among options, typed as a number, a day or text; or any formula.
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import type { Entered } from "../../fields/conditions";
import type { Choice } from "../../model/outline";
import { dayIn, dayLiteral, numberLiteral, textIn, textLiteral, timeIn, timeLiteral } from "../../model/operands";
import { MONO } from "../../theme/theme";

interface Props {
  label: string;
  entered: Entered | "formula";
  /** What is chosen among, where it is chosen. */
  choices: readonly Choice[];
  value: string;
  onChange: (formula: string) => void;
}

interface Way {
  /** What stands in the control for a formula, or null where the formula is something else. */
  read: (formula: string) => string | null;
  write: (text: string) => string | null;
  type?: string;
}

const WAYS: Record<Exclude<Entered, "option">, Way> = {
  number: { read: (formula) => (formula === "" ? "" : numberLiteral(formula)), write: numberLiteral },
  text: { read: (formula) => (formula === "" ? "" : textIn(formula)), write: textLiteral },
  day: { read: (formula) => (formula === "" ? "" : dayIn(formula)), write: dayLiteral, type: "date" },
  time: { read: (formula) => (formula === "" ? "" : timeIn(formula)), write: timeLiteral, type: "time" },
};

export function Operand({ label, entered, choices, value, onChange }: Props) {
  if (entered === "option") {
    const code = textIn(value);
    const known = code !== null && choices.some((option) => option.code.toLowerCase() === code.toLowerCase());
    if (value === "" || known)
      return (
        <TextField
          select
          value={known ? choices.find((option) => option.code.toLowerCase() === code.toLowerCase())!.code : ""}
          onChange={(event) => onChange(textLiteral(event.target.value))}
          slotProps={{ htmlInput: { "aria-label": label } }}
        >
          {choices.map((option) => (
            <MenuItem key={option.code} value={option.code} dense>
              {option.label || option.code}
            </MenuItem>
          ))}
        </TextField>
      );
  }
  const way = entered === "option" || entered === "formula" ? null : WAYS[entered];
  return way && way.read(value) !== null ? (
    <Literal label={label} way={way} value={value} onChange={onChange} />
  ) : (
    <FormulaText label={label} value={value} onChange={onChange} />
  );
}

function Literal({ label, way, value, onChange }: Pick<Props, "label" | "value" | "onChange"> & { way: Way }) {
  const [typed, setTyped] = useState<string | null>(null);
  const change = (text: string) => {
    setTyped(text);
    // What is no plain value is taken as a formula: adults + 2, TODAY() + 14.
    onChange(text.trim() === "" ? "" : text.startsWith("=") ? text.slice(1) : (way.write(text) ?? text));
  };
  return (
    <TextField
      type={way.type ?? "text"}
      value={typed ?? way.read(value) ?? ""}
      onChange={(event) => change(event.target.value)}
      onBlur={() => setTyped(null)}
      slotProps={{ htmlInput: { "aria-label": label } }}
    />
  );
}

function FormulaText({ label, value, onChange }: Pick<Props, "label" | "value" | "onChange">) {
  return (
    <TextField
      value={value}
      onChange={(event) => onChange(event.target.value)}
      slotProps={{
        htmlInput: {
          "aria-label": `${label}, as a formula`,
          spellCheck: false,
          style: { fontFamily: MONO, fontSize: 12 },
        },
      }}
    />
  );
}
