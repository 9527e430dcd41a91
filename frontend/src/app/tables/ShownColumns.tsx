// Which columns the worksheet shows; the others stay in the table, and are found and kept as before.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import type { TableColumnReply } from "../../api/generated/wire";
import { PopoverButton } from "../../ui/PopoverButton";

interface Props {
  columns: readonly TableColumnReply[];
  without: readonly string[];
  onChange: (without: readonly string[]) => void;
}

export function ShownColumns({ columns, without, onChange }: Props) {
  const hidden = columns.filter((each) => without.includes(each.id)).length;
  return (
    <PopoverButton
      label={hidden > 0 ? `Columns (${columns.length - hidden} of ${columns.length})` : "Columns"}
      name="Columns that are shown"
      color="inherit"
      width={280}
    >
      {() => (
        <Box sx={{ display: "grid", p: 2, maxHeight: 480, overflow: "auto" }}>
          {columns.map(({ id, label }) => {
            const isShown = !without.includes(id);
            return (
              <FormControlLabel
                key={id}
                label={label}
                control={
                  <Checkbox
                    size="small"
                    checked={isShown}
                    // One has to be left: it is what the cells are walked by.
                    disabled={isShown && columns.length - hidden === 1}
                    onChange={() => onChange(isShown ? [...without, id] : without.filter((each) => each !== id))}
                  />
                }
              />
            );
          })}
          {hidden > 0 && (
            <Button color="inherit" onClick={() => onChange([])} sx={{ justifySelf: "start" }}>
              Show all
            </Button>
          )}
        </Box>
      )}
    </PopoverButton>
  );
}
