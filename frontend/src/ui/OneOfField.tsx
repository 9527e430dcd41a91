// One of several, or none of them, in a menu.
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";

interface Props {
  label: string;
  value: string;
  /** What the choice is called that chooses none, which is "". */
  none: string;
  choices: readonly { value: string; label: string }[];
  /** What is said where the value is of none of them any more. */
  gone?: string;
  onPick: (value: string) => void;
}

export function OneOfField({ label, value, none, choices, gone, onPick }: Props) {
  return (
    <TextField
      select
      label={label}
      value={value}
      slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
      onChange={(event) => onPick(event.target.value)}
    >
      <MenuItem value="">{none}</MenuItem>
      {choices.map((each) => (
        <MenuItem key={each.value} value={each.value}>
          {each.label}
        </MenuItem>
      ))}
      {gone && value !== "" && !choices.some((each) => each.value === value) && (
        <MenuItem value={value}>{gone}</MenuItem>
      )}
    </TextField>
  );
}
