// One's own name, as colleagues read it.
import TextField from "@mui/material/TextField";

interface Props {
  value: string;
  onChange: (name: string) => void;
}

export const NameField = ({ value, onChange }: Props) => (
  <TextField
    label="Your name"
    autoComplete="name"
    required
    value={value}
    onChange={(event) => onChange(event.target.value)}
    slotProps={{ htmlInput: { maxLength: 200 } }}
  />
);
