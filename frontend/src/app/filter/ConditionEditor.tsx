// One condition, edited in place: how the field is compared, and with what, by what the field holds.
import Box from "@mui/material/Box";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useState } from "react";
import type { AskedColumnReply, Condition } from "../../api/generated/wire";
import { type How, howInWords, PERIODS, usualValues } from "./conditions";

interface Props {
  column: AskedColumnReply;
  condition: Condition;
  onChange: (condition: Condition) => void;
}

export function ConditionEditor({ column, condition, onChange }: Props) {
  const values = condition.values ?? [];
  const choose = (how: How) => onChange({ ...condition, how, values: usualValues(how, column, values) });
  const give = (given: string[]) => onChange({ ...condition, values: given });
  return (
    <Box sx={{ display: "grid", gap: 1.5 }}>
      <TextField
        select
        label="Comparison"
        value={condition.how}
        onChange={(event) => choose(event.target.value as How)}
      >
        {column.hows.map((how) => (
          <MenuItem key={how} value={how}>
            {howInWords(how, column)}
          </MenuItem>
        ))}
      </TextField>
      <Values column={column} how={condition.how} values={values} onGive={give} />
    </Box>
  );
}

interface ValuesProps {
  column: AskedColumnReply;
  how: How;
  values: readonly string[];
  onGive: (values: string[]) => void;
}

function Values({ column, how, values, onGive }: ValuesProps) {
  if (how === "blank" || how === "answered") return null;
  if (how === "this") return <OneOf label="Period" options={PERIODS} value={values[0] ?? ""} onGive={onGive} />;
  if (column.holds === "yes or no")
    return <OneOf label="Answer" options={["yes", "no"]} value={values[0] ?? ""} onGive={onGive} />;
  if (how.endsWith("_of")) return <Codes column={column} values={values} onGive={onGive} />;
  const kind = kindOf(column, how);
  const labels = how === "between" ? ["From", "To"] : [how === "last_days" ? "Days" : "Value"];
  return (
    <Box sx={{ display: "flex", gap: 1 }}>
      {labels.map((label, at) => (
        <TextField
          key={label}
          autoFocus={at === 0}
          label={label}
          type={kind}
          value={values[at] ?? ""}
          onChange={(event) =>
            onGive(labels.map((_, place) => (place === at ? event.target.value : (values[place] ?? ""))))
          }
          slotProps={{ inputLabel: { shrink: true }, htmlInput: kind === "text" ? { maxLength: 500 } : {} }}
        />
      ))}
    </Box>
  );
}

function kindOf(column: AskedColumnReply, how: How): "date" | "time" | "text" {
  if (how === "last_days") return "text";
  if (column.holds === "date" || column.holds === "date and time") return "date";
  return column.holds === "time" ? "time" : "text";
}

interface OneOfProps {
  label: string;
  options: readonly string[];
  value: string;
  onGive: (values: string[]) => void;
}

const OneOf = ({ label, options, value, onGive }: OneOfProps) => (
  <TextField select label={label} value={value} onChange={(event) => onGive([event.target.value])}>
    {options.map((each) => (
      <MenuItem key={each} value={each}>
        {each}
      </MenuItem>
    ))}
  </TextField>
);

const MANY = 12;

function Codes({ column, values, onGive }: Omit<ValuesProps, "how">) {
  const [search, setSearch] = useState("");
  const wanted = search.trim().toLowerCase();
  const listed = column.options.filter((each) => each.label.toLowerCase().includes(wanted));
  const unknown = values.filter((code) => !column.options.some((each) => each.code === code));
  const options = [...listed, ...unknown.map((code) => ({ code, label: code }))].slice(0, 200);
  const toggle = (code: string) =>
    onGive(values.includes(code) ? values.filter((each) => each !== code) : [...values, code]);
  return (
    <Box>
      {column.options.length > MANY && (
        <TextField label="Find an option" value={search} onChange={(event) => setSearch(event.target.value)} />
      )}
      <Box role="group" aria-label="Options" sx={{ maxHeight: 260, overflow: "auto", display: "grid" }}>
        {options.map(({ code, label }) => (
          <FormControlLabel
            key={code}
            label={label}
            control={<Checkbox size="small" checked={values.includes(code)} onChange={() => toggle(code)} />}
            sx={{ mr: 0 }}
          />
        ))}
        {options.length === 0 && <Box sx={{ color: "text.secondary" }}>Nothing to choose from yet.</Box>}
      </Box>
    </Box>
  );
}
