// A password that is typed: the one that somebody has, or a new one, so that browsers and their stores know which.
import TextField from "@mui/material/TextField";

interface Props {
  label: string;
  value: string;
  onChange: (password: string) => void;
  /** Whether it is a new one, which must be long enough. */
  fresh?: boolean;
}

export const PasswordField = ({ label, value, onChange, fresh = false }: Props) => (
  <TextField
    label={label}
    type="password"
    autoComplete={fresh ? "new-password" : "current-password"}
    required
    helperText={fresh ? "At least 12 characters" : undefined}
    value={value}
    onChange={(event) => onChange(event.target.value)}
  />
);
