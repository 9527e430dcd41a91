// The other side of a condition: chosen among options, typed as a number, a day or text; or any formula.
import Autocomplete from "@mui/material/Autocomplete";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import type { Entered } from "../../fields/conditions";
import type { Choice, Named } from "../../model/outline";
import { dayIn, dayLiteral, numberLiteral, textIn, textLiteral, timeIn, timeLiteral } from "../../model/operands";
import { MONO } from "../../theme/theme";

interface Props {
  label: string;
  entered: Entered | "formula";
  /** What is chosen among, where it is chosen. */
  choices: readonly Choice[];
  /** The answers that it may be compared with, where that is usual. */
  answers: readonly Named[];
  value: string;
  onChange: (formula: string) => void;
}

interface Way {
  /** What stands in the control for a formula, or null where the formula is something else. */
  read: (formula: string) => string | null;
  write: (text: string) => string | null;
  type?: string;
}

export const WAYS: Record<Exclude<Entered, "option" | "answer">, Way> = {
  number: { read: (formula) => (formula === "" ? "" : numberLiteral(formula)), write: numberLiteral },
  text: { read: (formula) => (formula === "" ? "" : textIn(formula)), write: textLiteral },
  day: { read: (formula) => (formula === "" ? "" : dayIn(formula)), write: dayLiteral, type: "date" },
  time: { read: (formula) => (formula === "" ? "" : timeIn(formula)), write: timeLiteral, type: "time" },
};

export function Operand({ label, entered, choices, answers, value, onChange }: Props) {
  if (answers.length > 0)
    return (
      <AnswerOrValue
        label={label}
        way={entered in WAYS ? WAYS[entered as keyof typeof WAYS] : WAYS.text}
        choices={choices}
        answers={answers}
        value={value}
        onChange={onChange}
      />
    );
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
          {choices.length === 0 && <MenuItem disabled>There is nothing to choose yet</MenuItem>}
          {choices.map((option) => (
            <MenuItem key={option.code} value={option.code} dense>
              {option.label || option.code}
            </MenuItem>
          ))}
        </TextField>
      );
  }
  const way = entered === "option" || entered === "answer" || entered === "formula" ? null : WAYS[entered];
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

/** Another answer, found by what people call it, or a value that is typed. */
export function AnswerOrValue({
  label,
  way,
  choices,
  answers,
  value,
  onChange,
}: Pick<Props, "label" | "choices" | "answers" | "value" | "onChange"> & { way: Way }) {
  const options = [
    ...answers.map((each) => ({ group: "Answers", text: each.name, words: `${each.number} ${each.title}`.trim() })),
    ...choices.map((each) => ({ group: "Values", text: textLiteral(each.code), words: each.label || each.code })),
  ];
  const known = options.find(({ text }) => text.toLowerCase() === value.toLowerCase());
  const [typed, setTyped] = useState<string | null>(null);
  const shown = typed ?? known?.words ?? way.read(value) ?? value;
  return (
    <Autocomplete
      freeSolo
      options={options}
      groupBy={({ group }) => group}
      getOptionLabel={(option) => (typeof option === "string" ? option : option.words)}
      inputValue={shown}
      value={known ?? null}
      slotProps={{ popper: { style: { width: 320 }, placement: "bottom-end" } }}
      filterOptions={(all) =>
        typed === null ? all : all.filter(({ words }) => words.toLowerCase().includes(typed.trim().toLowerCase()))
      }
      onInputChange={(_event, text, reason) => {
        if (reason !== "input" && reason !== "clear") return;
        setTyped(text);
        onChange(text.trim() === "" ? "" : text.startsWith("=") ? text.slice(1) : (way.write(text) ?? text));
      }}
      onChange={(_event, next) => {
        setTyped(null);
        if (next && typeof next !== "string") onChange(next.text);
      }}
      onBlur={() => setTyped(null)}
      renderInput={(params) => (
        <TextField
          {...params}
          placeholder="An answer or a value"
          slotProps={{ ...params.slotProps, htmlInput: { ...params.slotProps?.htmlInput, "aria-label": label } }}
        />
      )}
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
