// A day or a time of day that is always one: what a browser says while somebody is half through typing changes nothing.
import type { SxProps } from "@mui/material/styles";
import TextField from "@mui/material/TextField";

interface Props {
  type: "date" | "time";
  label: string;
  value: string;
  onChange: (value: string) => void;
  sx?: SxProps;
}

export const ClockField = ({ type, label, value, onChange, sx = {} }: Props) => (
  <TextField
    type={type}
    label={label}
    value={value}
    sx={sx}
    slotProps={{ inputLabel: { shrink: true } }}
    onChange={(event) => event.target.value && onChange(event.target.value)}
  />
);
