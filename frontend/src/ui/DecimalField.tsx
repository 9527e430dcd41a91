// A number setting, typed freely and kept as exact text; what is no number is not kept and says so.
import TextField from "@mui/material/TextField";
import { useState } from "react";

interface Props {
  label: string;
  value: string | null;
  onChange: (value: string | null) => void;
  /** Whether it must be a whole number. */
  whole?: boolean;
  hideLabel?: boolean;
  help?: string | undefined;
}

export function DecimalField({ label, value, onChange, whole = false, hideLabel = false, help }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const pattern = whole ? /^\d{1,5}$/ : /^-?\d{1,15}(\.\d{1,10})?$/;
  const change = (text: string) => {
    const plain = text.trim().replace(",", ".");
    setTyped(text);
    if (plain === "") onChange(null);
    else if (pattern.test(plain)) onChange(plain);
  };
  const wrong = typed !== null && typed.trim() !== "" && !pattern.test(typed.trim().replace(",", "."));
  return (
    <TextField
      label={hideLabel ? undefined : label}
      value={typed ?? value ?? ""}
      error={wrong}
      helperText={wrong ? (whole ? "A whole number, or empty" : "A number such as 2.5, or empty") : help}
      onChange={(event) => change(event.target.value)}
      onBlur={() => setTyped(null)}
      slotProps={{
        htmlInput: {
          inputMode: "decimal",
          "aria-label": hideLabel ? label : undefined,
          style: { fontVariantNumeric: "tabular-nums" },
        },
      }}
    />
  );
}
