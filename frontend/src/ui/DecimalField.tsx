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
  /** The least and the greatest that is taken. */
  least?: number | undefined;
  most?: number | undefined;
  /** Whether it may be empty. */
  blank?: boolean;
}

type Limits = Pick<Props, "least" | "most" | "blank">;

export function DecimalField({ label, value, onChange, whole = false, hideLabel = false, help, ...limits }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  // What was left standing though it could not be taken: it turns back, and says so.
  const [refused, setRefused] = useState<string | null>(null);
  const why = typed === null ? null : wrongWith(typed, whole, limits);
  const change = (text: string) => {
    setTyped(text);
    setRefused(null);
    const plain = text.trim().replace(",", ".");
    if (wrongWith(text, whole, limits) === null) onChange(plain === "" ? null : plain);
  };
  const leave = () => {
    setRefused(why && `“${typed}” was not taken: ${why}. ${value ?? "Empty"} stays.`);
    setTyped(null);
  };
  return (
    <TextField
      label={hideLabel ? undefined : label}
      value={typed ?? value ?? ""}
      error={why !== null || refused !== null}
      helperText={why ?? refused ?? help}
      onChange={(event) => change(event.target.value)}
      onBlur={leave}
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

/** Why a text can't be taken, or null. */
function wrongWith(text: string, whole: boolean, { least, most, blank = true }: Limits): string | null {
  const plain = text.trim().replace(",", ".");
  if (plain === "") return blank ? null : "a number is wanted here";
  const orEmpty = blank ? ", or nothing" : "";
  if (!(whole ? /^\d{1,5}$/ : /^-?\d{1,15}(\.\d{1,10})?$/).test(plain))
    return whole ? `a whole number is wanted${orEmpty}` : `a number such as 2.5 is wanted${orEmpty}`;
  if (least !== undefined && Number(plain) < least) return `${least} is the least`;
  return most !== undefined && Number(plain) > most ? `${most} is the most` : null;
}
