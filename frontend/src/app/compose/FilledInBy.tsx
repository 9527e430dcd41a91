// Who fills in a page, a group or a field: whoever fills in the form, or a part that a group changes.
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import type { Entry } from "../../model/parts";
import { useBench } from "../workbench/bench";

interface Props {
  entry: Extract<Entry, { what: "block" | "page" }>;
  edit: (changes: Record<string, unknown>) => void;
}

const NEW = "new part";

export function FilledInBy({ entry, edit }: Props) {
  const { form, actions } = useBench();
  const { part } = entry.part;
  const isGone = part !== "" && !form.parts.some(({ id }) => id === part);
  return (
    <TextField
      select
      label="Filled in by"
      value={part}
      slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
      onChange={({ target }) => (target.value === NEW ? actions.addFormPart(entry.id) : edit({ part: target.value }))}
    >
      <MenuItem value="">{entry.what === "page" ? "whoever fills in the form" : "as what it stands in"}</MenuItem>
      {form.parts.map(({ id, name }) => (
        <MenuItem key={id} value={id}>
          {name || "Untitled part"}
        </MenuItem>
      ))}
      {isGone && <MenuItem value={part}>a part that is gone</MenuItem>}
      <MenuItem value={NEW}>a new part for a group …</MenuItem>
    </TextField>
  );
}
