// How many there are of each record, for all forms together, and how many each response takes.
import Box from "@mui/material/Box";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import Switch from "@mui/material/Switch";
import TextField from "@mui/material/TextField";
import type { RecordChoiceField } from "../../api/generated/wire";
import { type Column, wordsOf } from "../tables/known";
import { useBench } from "../workbench/bench";
import { FormulaButton } from "./FormulaButton";

interface Props {
  block: RecordChoiceField;
  columns: readonly Column[];
  edit: (changes: Partial<RecordChoiceField>) => void;
}

const isNumber = ({ type, format }: Column): boolean =>
  type === "number" || (type === "calculated" && (format ?? "number") === "number");

export function RecordPlaces({ block, columns, edit }: Props) {
  const { mayEdit } = useBench();
  const own = columns.find(({ id }) => id === block.places);
  return (
    <Box role="group" aria-label="Places" sx={{ display: "grid", gap: 1.5 }}>
      <TextField
        select
        label="There are so many of each"
        value={block.places}
        disabled={!mayEdit}
        slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
        helperText={block.places ? "What all forms of this table take is counted; what is gone is not offered." : ""}
        onChange={(event) => edit({ places: event.target.value })}
      >
        <MenuItem value="">any number</MenuItem>
        {columns.filter(isNumber).map((column) => (
          <MenuItem key={column.id} value={column.id}>
            as {wordsOf(column)} says
          </MenuItem>
        ))}
        {block.places && !(own && isNumber(own)) && (
          <MenuItem value={block.places} disabled>
            as a column that is not there any more says
          </MenuItem>
        )}
      </TextField>
      {block.places && (
        <>
          <FormulaButton
            part={block.id}
            title="Each response takes"
            setting="taking"
            text={block.taking}
            absent="One of each; work out how many"
          />
          <FormControlLabel
            sx={{ ml: 0, justifyContent: "space-between" }}
            labelPlacement="start"
            label="Show how many are left"
            control={
              <Switch
                checked={block.left_shown}
                disabled={!mayEdit}
                onChange={(_event, left_shown) => edit({ left_shown })}
              />
            }
          />
        </>
      )}
    </Box>
  );
}
