// A text that is never blank: while it is typed nothing may stand there, and what was last written stays.
import TextField, { type TextFieldProps } from "@mui/material/TextField";
import { useState } from "react";

type Props = Omit<TextFieldProps, "value" | "onChange" | "onBlur"> & { value: string; onKeep: (text: string) => void };

export function KeptTextField({ value, onKeep, ...field }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  return (
    <TextField
      {...field}
      value={typed ?? value}
      onChange={(event) => {
        setTyped(event.target.value);
        if (event.target.value.trim()) onKeep(event.target.value);
      }}
      onBlur={() => setTyped(null)}
    />
  );
}
