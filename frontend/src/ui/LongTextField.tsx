// A text field of several lines, as high as its text. By CSS alone: MUI's own measures every such field on the screen
// again at every letter that is typed anywhere.
import TextField, { type TextFieldProps } from "@mui/material/TextField";
import type { CSSProperties, TextareaHTMLAttributes } from "react";

/** Makes a multiline InputBase as high as its text. */
export const GROWS = { multiline: true, inputComponent: "textarea" } as const;

type Attributes = TextareaHTMLAttributes<HTMLTextAreaElement> & { "data-values"?: string };

interface Props extends Omit<TextFieldProps, "multiline" | "slotProps" | "minRows" | "maxRows"> {
  /** How many lines it shows at least. */
  lines?: number;
  attributes?: Attributes;
}

export function LongTextField({ lines = 1, attributes, ...props }: Props) {
  const style: CSSProperties = { minHeight: `${lines}lh`, maxHeight: "18lh", ...attributes?.style };
  return (
    <TextField {...props} multiline slotProps={{ input: GROWS, htmlInput: { rows: lines, ...attributes, style } }} />
  );
}
