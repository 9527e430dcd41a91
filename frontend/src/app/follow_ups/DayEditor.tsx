// The day on which a follow-up is done: so many days before or after a date of the response, at an hour.
import Box from "@mui/material/Box";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import type { FollowUp } from "../../model/parts";
import { useFieldsOf } from "./fields_of";

type Day = FollowUp["day"];

interface Props {
  day: Day;
  edit: (changes: { day: Day }) => void;
}

export function DayEditor({ day, edit }: Props) {
  const fields = useFieldsOf(["date", "date_time"]);
  const put = (changes: Partial<Day>) => edit({ day: { ...day, ...changes } });
  const before = day.days < 0;
  return (
    <Box role="group" aria-label="The day" sx={{ display: "grid", gridTemplateColumns: "88px 104px 1fr 96px", gap: 1 }}>
      <TextField
        label="Days"
        type="number"
        value={Math.abs(day.days)}
        slotProps={{ htmlInput: { min: 0, max: 1_000 } }}
        onChange={(event) => {
          const days = Math.min(Math.max(Math.trunc(Number(event.target.value)) || 0, 0), 1_000);
          put({ days: before ? -days : days });
        }}
      />
      <TextField
        select
        label="Which way"
        value={before ? "before" : "after"}
        onChange={(event) =>
          put({ days: event.target.value === "before" ? -(Math.abs(day.days) || 1) : Math.abs(day.days) })
        }
      >
        <MenuItem value="after">after</MenuItem>
        <MenuItem value="before">before</MenuItem>
      </TextField>
      <TextField
        select
        label="Of"
        value={day.field}
        slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
        onChange={(event) => put({ field: event.target.value })}
      >
        <MenuItem value="">the day of handing in</MenuItem>
        {fields.map(({ id, words }) => (
          <MenuItem key={id} value={id}>
            {words}
          </MenuItem>
        ))}
        {day.field && !fields.some(({ id }) => id === day.field) && (
          <MenuItem value={day.field}>a field that was removed</MenuItem>
        )}
      </TextField>
      <TextField
        label="At"
        type="time"
        value={day.at}
        slotProps={{ inputLabel: { shrink: true } }}
        onChange={(event) => /^\d\d:\d\d$/.test(event.target.value) && put({ at: event.target.value })}
      />
    </Box>
  );
}
