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

const MOST_DAYS = 1_000;
const MOST_HOURS = 8_784;

export function DayEditor({ day, edit }: Props) {
  const fields = useFieldsOf(["date", "date_time", "slot"]);
  const put = (changes: Partial<Day>) => edit({ day: { ...day, ...changes } });
  const inHours = day.hours !== null;
  const given = day.hours ?? day.days;
  const before = given < 0;
  const count = (value: number) => put(inHours ? { hours: value } : { days: value });
  return (
    <Box
      role="group"
      aria-label="The day"
      sx={{ display: "grid", gridTemplateColumns: "80px 96px 100px 1fr 96px", gap: 1 }}
    >
      <TextField
        label="How many"
        type="number"
        value={Math.abs(given)}
        slotProps={{ htmlInput: { min: 0, max: inHours ? MOST_HOURS : MOST_DAYS } }}
        onChange={(event) => {
          const most = inHours ? MOST_HOURS : MOST_DAYS;
          const typed = Math.min(Math.max(Math.trunc(Number(event.target.value)) || 0, 0), most);
          count(before ? -typed : typed);
        }}
      />
      <TextField
        select
        label="Of what"
        value={inHours ? "hours" : "days"}
        onChange={(event) =>
          put(event.target.value === "hours" ? { hours: Math.min(given, MOST_HOURS) } : { hours: null, days: 1 })
        }
      >
        <MenuItem value="days">days</MenuItem>
        <MenuItem value="hours">hours</MenuItem>
      </TextField>
      <TextField
        select
        label="Which way"
        value={before ? "before" : "after"}
        onChange={(event) => count(event.target.value === "before" ? -(Math.abs(given) || 1) : Math.abs(given))}
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
        <MenuItem value="">handing in</MenuItem>
        {fields.map(({ id, words }) => (
          <MenuItem key={id} value={id}>
            {words}
          </MenuItem>
        ))}
        {day.field && !fields.some(({ id }) => id === day.field) && (
          <MenuItem value={day.field}>a field that was removed</MenuItem>
        )}
      </TextField>
      {!inHours && (
        <TextField
          label="At"
          type="time"
          value={day.at}
          slotProps={{ inputLabel: { shrink: true } }}
          onChange={(event) => /^\d\d:\d\d$/.test(event.target.value) && put({ at: event.target.value })}
        />
      )}
    </Box>
  );
}
