// What a column takes of all that its type can hold: limits of numbers, texts, days and choices.
import Box from "@mui/material/Box";
import TextField from "@mui/material/TextField";
import { MONO } from "../../theme/theme";
import type { Column } from "./definition";

interface Props {
  column: Column;
  onChange: (settings: Partial<Column>) => void;
}

type Limit = "most" | "megabytes" | "minimum" | "maximum" | "min_length" | "max_length" | "earliest" | "latest";

interface Pair {
  least: readonly [Limit, string];
  most: readonly [Limit, string];
  whole?: boolean;
  help?: string;
}

const NUMBERS: Pair = { least: ["minimum", "Least"], most: ["maximum", "Most"] };
const LENGTHS: Pair = {
  least: ["min_length", "Least length"],
  most: ["max_length", "Greatest length"],
  whole: true,
};
const DAYS: Pair = {
  least: ["earliest", "Earliest"],
  most: ["latest", "Latest"],
  help: "A formula, such as TODAY() or DATE(2026, 12, 31)",
};
const MOMENTS: Pair = { ...DAYS, help: "A formula, such as NOW()" };
const TIMES: Pair = { ...DAYS, help: "A formula, such as TIME(18, 0, 0)" };
const PICKS: Pair = {
  least: ["minimum", "Least chosen"],
  most: ["maximum", "Most chosen"],
  whole: true,
};
const FILES: Pair = {
  least: ["most", "Most files"],
  most: ["megabytes", "Megabytes each"],
  whole: true,
};
const PAIRS: Readonly<Record<string, Pair>> = {
  number: NUMBERS,
  money: NUMBERS,
  short_text: LENGTHS,
  long_text: LENGTHS,
  date: DAYS,
  date_time: MOMENTS,
  time: TIMES,
  several_choices: PICKS,
  file_upload: FILES,
};
const PATTERNED = new Set(["short_text", "long_text"]);

export function ColumnLimits({ column, onChange }: Props) {
  const pair = column.type === "record_choice" && column.several ? PICKS : PAIRS[column.type];
  if (!pair) return null;
  const text = ([name, label]: readonly [Limit, string]) => (
    <TextField
      label={label}
      type={pair.whole ? "number" : "text"}
      value={column[name] ?? ""}
      onChange={({ target: { value } }) => onChange({ [name]: entered(pair, value) })}
      slotProps={{ htmlInput: pair.help ? { style: { fontFamily: MONO } } : { min: 0 } }}
    />
  );
  return (
    <>
      <Box sx={{ display: "grid", gridTemplateColumns: pair.help ? "1fr" : "1fr 1fr", gap: 1.5 }}>
        {text(pair.least)}
        {text(pair.most)}
      </Box>
      {pair.help && <Box sx={{ fontSize: 12, color: "text.secondary", mt: -1 }}>{pair.help}</Box>}
      {PATTERNED.has(column.type) && (
        <>
          <TextField
            label="Pattern (regular expression)"
            value={column.pattern ?? ""}
            onChange={({ target: { value } }) => onChange({ pattern: value })}
            slotProps={{ htmlInput: { style: { fontFamily: MONO } } }}
          />
          {column.pattern && (
            <TextField
              label="Told where it does not match"
              value={column.pattern_message ?? ""}
              onChange={({ target: { value } }) => onChange({ pattern_message: value })}
            />
          )}
        </>
      )}
    </>
  );
}

function entered(pair: Pair, value: string): string | number | null {
  if (pair.help) return value;
  if (value === "") return null;
  return pair.whole ? Number(value) : value;
}
