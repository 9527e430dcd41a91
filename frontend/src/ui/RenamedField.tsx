// A name that others use: changed when it is left, with all that uses it, or the reason why it can't be.
import TextField, { type TextFieldProps } from "@mui/material/TextField";
import { useRef, useState } from "react";
import { reasonOf } from "../api/client";

type Props = Omit<TextFieldProps, "value" | "onChange" | "onBlur" | "onKeyDown" | "error"> & {
  value: string;
  /** Whether it may be empty; else what is emptied stays as it was. */
  mayBeEmpty?: boolean;
  onRename: (name: string) => Promise<void> | void;
};

export function RenamedField({ value, mayBeEmpty = false, helperText, onRename, ...field }: Props) {
  const [typed, setTyped] = useState<string | null>(null);
  const [problem, setProblem] = useState<string | null>(null);
  const renaming = useRef(false);
  const forget = () => {
    setTyped(null);
    setProblem(null);
  };
  const keep = async () => {
    const name = typed?.trim();
    // Enter, and leaving the field while the core still renames, are one wish.
    if (renaming.current) return;
    if (name === "" && !mayBeEmpty) {
      setTyped(null);
      return setProblem(`It can’t be empty: “${value}” stays.`);
    }
    if (name === undefined || name === value) return forget();
    renaming.current = true;
    try {
      await onRename(name);
      forget();
    } catch (error) {
      setProblem(reasonOf(error));
    } finally {
      renaming.current = false;
    }
  };
  return (
    <TextField
      {...field}
      value={typed ?? value}
      error={problem !== null}
      helperText={problem ?? helperText}
      onChange={(event) => {
        setTyped(event.target.value);
        setProblem(null);
      }}
      onBlur={() => void keep()}
      onKeyDown={(event) => {
        if (event.key === "Enter") void keep();
        if (event.key === "Escape") forget();
      }}
    />
  );
}
