// Choosing a further field that gives points.
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useBench } from "../workbench/bench";
import { type QuestionEntry, optionsIn, questionsOf } from "./questions";

interface Props {
  taken: readonly string[];
  /** Whether only fields with options will do. */
  optioned: boolean;
  onAdd: (entry: QuestionEntry) => void;
}

export function AddQuestion({ taken, optioned, onAdd }: Props) {
  const { parts } = useBench();
  const free = questionsOf(parts).filter(
    ({ id, part }) => !taken.includes(id) && (!optioned || optionsIn(part).length > 0),
  );
  return (
    <TextField
      select
      label="Add a field that counts"
      value=""
      disabled={free.length === 0}
      onChange={(event) => onAdd(free.find(({ id }) => id === event.target.value)!)}
      sx={{ maxWidth: 340, mt: 1 }}
    >
      {free.map(({ id, number, title }) => (
        <MenuItem key={id} value={id}>
          {number} {title}
        </MenuItem>
      ))}
    </TextField>
  );
}
