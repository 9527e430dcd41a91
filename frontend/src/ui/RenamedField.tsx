// A name that others use, as a field with its label or as a box in a table.
import TextField, { type TextFieldProps } from "@mui/material/TextField";
import { CellBox } from "./CellBox";
import { type RenamingProps, useRenaming } from "./renaming";

interface BoxProps extends RenamingProps {
  name: string;
  code?: boolean;
  hint?: string;
}

type Props = Omit<TextFieldProps, "value" | "onChange" | "onBlur" | "onKeyDown" | "error"> & RenamingProps;

export function RenamedField({ value, mayBeEmpty, helperText, onRename, ...field }: Props) {
  const { input, problem } = useRenaming({ value, mayBeEmpty, onRename });
  return <TextField {...field} {...input} error={problem !== null} helperText={problem ?? helperText} />;
}

/** The same in a table, where a head stands above and the name of the box is only heard. */
export function RenamedBox({ name, code = false, hint, ...renamed }: BoxProps) {
  const { input, problem } = useRenaming(renamed);
  return <CellBox {...input} name={name} problem={problem} code={code} title={hint} />;
}
