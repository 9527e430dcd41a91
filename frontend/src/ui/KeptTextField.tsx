// A text that is never blank: while it is typed nothing may stand there, and what was last written stays.
import TextField, { type TextFieldProps } from "@mui/material/TextField";
import { useState } from "react";

type Props = Omit<TextFieldProps, "value" | "onChange" | "onBlur"> & { value: string; onKeep: (text: string) => void };

export function KeptTextField({ value, onKeep, helperText, ...field }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const [turnedBack, setTurnedBack] = useState(false);
  return (
    <TextField
      {...field}
      value={typed ?? value}
      helperText={turnedBack ? `It can’t be empty: “${value}” stays.` : helperText}
      onChange={(event) => {
        setTurnedBack(false);
        setTyped(event.target.value);
        if (event.target.value.trim()) onKeep(event.target.value);
      }}
      onBlur={() => {
        setTurnedBack(typed !== null && !typed.trim());
        setTyped(null);
      }}
    />
  );
}
