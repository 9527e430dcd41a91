// Days on which no series has slots: holidays, a week of repairs.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import type { DaysLeftOut, SlotField } from "../../api/generated/wire";
import { ClockField } from "../../ui/ClockField";
import { useBench } from "../workbench/bench";

export function DaysOut({ block, edit }: { block: SlotField; edit: (changes: Partial<SlotField>) => void }) {
  const { mayEdit } = useBench();
  const put = (at: number, changes: Partial<DaysLeftOut>) =>
    edit({ left_out: block.left_out.with(at, { ...block.left_out[at]!, ...changes }) });
  const add = () => {
    const today = new Date().toISOString().slice(0, 10);
    edit({ left_out: [...block.left_out, { first: today, last: today, name: "" }] });
  };
  const day = (label: string, value: string, change: (day: string) => void) => (
    <ClockField type="date" label={label} value={value} onChange={change} />
  );
  return (
    <Box
      component="fieldset"
      disabled={!mayEdit}
      aria-label="Days left out"
      sx={{ m: 0, p: 0, border: 0, minWidth: 0, display: "grid", gap: 1 }}
    >
      <Typography variant="h2">Days left out</Typography>
      {block.left_out.map((each, at) => (
        <Box key={at} sx={{ display: "grid", gridTemplateColumns: "1fr 1fr auto", gap: 1, alignItems: "center" }}>
          {day("From", each.first, (first) => put(at, { first, last: first > each.last ? first : each.last }))}
          {day("To", each.last, (last) => put(at, { last, first: last < each.first ? last : each.first }))}
          <Button
            sx={{ minWidth: 32 }}
            aria-label={`Remove the days left out from ${each.first}`}
            onClick={() => edit({ left_out: block.left_out.toSpliced(at, 1) })}
          >
            ✕
          </Button>
          <TextField
            sx={{ gridColumn: "1 / 3" }}
            label="Why"
            value={each.name}
            onChange={(event) => put(at, { name: event.target.value.slice(0, 100) })}
          />
        </Box>
      ))}
      <Button variant="outlined" sx={{ justifySelf: "start" }} onClick={add}>
        Leave days out
      </Button>
    </Box>
  );
}
