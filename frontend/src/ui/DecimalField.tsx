// A number setting, as a field with its label or as a box in a table.
import TextField from "@mui/material/TextField";
import { CellBox } from "./CellBox";
import { type DecimalLimits, useDecimal } from "./decimal";

interface Props extends DecimalLimits {
  label: string;
  value: string | null;
  onChange: (value: string | null) => void;
  help?: string | undefined;
}

export function DecimalField({ label, value, onChange, help, ...limits }: Props) {
  const { text, problem, change, leave } = useDecimal(value, onChange, limits);
  return (
    <TextField
      label={label}
      value={text}
      error={problem !== null}
      helperText={problem ?? help}
      onChange={(event) => change(event.target.value)}
      onBlur={leave}
      slotProps={{ htmlInput: { inputMode: "decimal", style: { fontVariantNumeric: "tabular-nums" } } }}
    />
  );
}

/** The same in a table, where a head stands above and the label is only heard. */
export function DecimalBox({ label, value, onChange, ...limits }: Omit<Props, "help">) {
  const { text, problem, change, leave } = useDecimal(value, onChange, limits);
  return (
    <CellBox
      name={label}
      value={text}
      problem={problem}
      inputMode="decimal"
      onChange={(event) => change(event.target.value)}
      onBlur={leave}
    />
  );
}
