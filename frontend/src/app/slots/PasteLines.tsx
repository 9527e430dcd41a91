// Slots as lines of text, pasted from wherever they stand; each line that is none is told before anything is added.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { SingleSlot, SlotField } from "../../api/generated/wire";
import { PopoverButton } from "../../ui/PopoverButton";
import { useBench } from "../workbench/bench";
import { pasted, withSlots } from "./slots";
import type { SlotPlace } from "./useSlotPlaces";

const MOST_TOLD = 5;

interface Props {
  block: SlotField;
  usual: SingleSlot;
  places: readonly SlotPlace[];
  edit: (changes: Partial<SlotField>) => void;
}

export function PasteLines({ block, usual, places, edit }: Props) {
  const { mayEdit } = useBench();
  const [text, setText] = useState("");
  const { slots, wrong } = pasted(text, usual, new Map(places.map(({ code, label }) => [code, label])));
  if (!mayEdit) return null;
  return (
    <PopoverButton label="Paste lines" name="Slots as lines" width={420} room={2}>
      {(close) => (
        <Box sx={{ display: "grid", gap: 1.5 }}>
          <Typography>
            One slot in each line: day, time, and if you like minutes, places{places.length > 0 ? " and where" : ""}.
            Cells copied from a table or a spreadsheet are such lines.
          </Typography>
          <TextField
            multiline
            minRows={6}
            maxRows={14}
            label="Lines"
            placeholder={"2026-12-03 18:30 45 2\n3.12.2026 19:15"}
            value={text}
            onChange={(event) => setText(event.target.value)}
          />
          {wrong.length > 0 && (
            <Alert severity="warning">
              {wrong.slice(0, MOST_TOLD).map(({ line, why }) => (
                <div key={line}>
                  Line {line}: {why}
                </div>
              ))}
              {wrong.length > MOST_TOLD && <div>And {wrong.length - MOST_TOLD} more.</div>}
            </Alert>
          )}
          <Button
            variant="contained"
            disabled={slots.length === 0}
            onClick={() => {
              edit({ singles: withSlots(block.singles, slots) });
              setText("");
              close();
            }}
          >
            {slots.length === 1 ? "Add 1 slot" : `Add ${slots.length} slots`}
            {wrong.length > 0 && slots.length > 0 ? ", without the lines above" : ""}
          </Button>
        </Box>
      )}
    </PopoverButton>
  );
}
