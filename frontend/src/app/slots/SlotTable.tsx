// The slots of a week as a list: when, how long, how many places; for who would rather type than paint.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import InputBase from "@mui/material/InputBase";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import type { ShownSlotReply, SingleSlot } from "../../api/generated/wire";
import { asSingle, dayTold } from "./slots";

interface Props {
  slots: readonly ShownSlotReply[];
  mayEdit: boolean;
  onChange: (slot: SingleSlot) => void;
  onTake: (slot: ShownSlotReply) => void;
}

export function SlotTable({ slots, mayEdit, onChange, onTake }: Props) {
  if (slots.length === 0) return <Box sx={{ p: 2, color: "text.secondary" }}>This week has no slots here.</Box>;
  return (
    <Box sx={{ overflow: "auto", px: 2 }}>
      <Table size="small" sx={{ maxWidth: 720 }}>
        <TableHead>
          <TableRow>
            {["Day", "From", "Minutes", "Places", "Made by", ""].map((each) => (
              <TableCell key={each}>{each}</TableCell>
            ))}
          </TableRow>
        </TableHead>
        <TableBody>
          {slots.map((slot) => {
            const single = asSingle(slot);
            const number = (
              label: string,
              value: number,
              least: number,
              most: number,
              put: (count: number) => void,
            ) => (
              <InputBase
                type="number"
                defaultValue={value}
                key={value}
                disabled={!mayEdit}
                inputProps={{ "aria-label": `${label}, ${slot.starts.replace("T", " ")}`, min: least, max: most }}
                sx={{ width: 80 }}
                onBlur={(event) => {
                  const count = Math.round(Number(event.target.value));
                  if (count !== value && count >= least && count <= most) put(count);
                }}
              />
            );
            return (
              <TableRow key={slot.starts}>
                <TableCell>
                  {dayTold(slot.starts.slice(0, 10), { weekday: "short", day: "numeric", month: "short" })}
                </TableCell>
                <TableCell>{slot.starts.slice(11)}</TableCell>
                <TableCell>
                  {number("Minutes", single.minutes, 1, 10_080, (minutes) => onChange({ ...single, minutes }))}
                </TableCell>
                <TableCell>
                  {number("Places", slot.places, 0, 100_000, (places) => onChange({ ...single, places }))}
                </TableCell>
                <TableCell>{slot.series ? "series" : "hand"}</TableCell>
                <TableCell>
                  {mayEdit && (
                    <Button aria-label={`Take out ${slot.starts.replace("T", " ")}`} onClick={() => onTake(slot)}>
                      Take out
                    </Button>
                  )}
                </TableCell>
              </TableRow>
            );
          })}
        </TableBody>
      </Table>
    </Box>
  );
}
