// Series of slots, each as its sentence; the one that is open has its settings below it.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import ButtonBase from "@mui/material/ButtonBase";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import TextField from "@mui/material/TextField";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import type { SlotField, SlotSeries } from "../../api/generated/wire";
import { newId } from "../../model/new_block";
import { ClockField } from "../../ui/ClockField";
import { useBench } from "../workbench/bench";
import { type Day, dayAfter } from "./slots";
import type { SlotPlace } from "./useSlotPlaces";

type Weekday = SlotSeries["weekdays"][number];
const WEEKDAYS: readonly [Weekday, string, string][] = [
  [1, "Mon", "Monday"],
  [2, "Tue", "Tuesday"],
  [3, "Wed", "Wednesday"],
  [4, "Thu", "Thursday"],
  [5, "Fri", "Friday"],
  [6, "Sat", "Saturday"],
  [0, "Sun", "Sunday"],
];

interface Props {
  block: SlotField;
  places: readonly SlotPlace[];
  told: Readonly<Record<string, string>>;
  edit: (changes: Partial<SlotField>) => void;
  onDay: (day: Day) => void;
}

export function SeriesList({ block, places, told, edit, onDay }: Props) {
  const { mayEdit } = useBench();
  const [open, setOpen] = useState<string | null>(block.series.length === 1 ? block.series[0]!.id : null);
  const put = (changed: SlotSeries) =>
    edit({ series: block.series.map((each) => (each.id === changed.id ? changed : each)) });
  const add = () => {
    const today = new Date().toISOString().slice(0, 10);
    const made: SlotSeries = {
      id: newId(),
      weekdays: [1, 2, 3, 4, 5],
      first: today,
      last: dayAfter(today, 60),
      begins: "09:00",
      ends: "17:00",
      minutes: 60,
      every: null,
      breaks: [],
      places: 1,
      at: places.map(({ code }) => code),
    };
    edit({ series: [...block.series, made] });
    setOpen(made.id);
  };
  return (
    <Box component="section" aria-label="Series" sx={{ display: "grid", gap: 1 }}>
      {block.series.map((series) => (
        <Box key={series.id} sx={{ border: 1, borderColor: "divider", borderRadius: 1 }}>
          <ButtonBase
            aria-expanded={open === series.id}
            sx={{
              display: "block",
              width: "100%",
              p: 1.25,
              textAlign: "start",
              font: "inherit",
              color: "note.rule",
              fontSize: 14,
            }}
            onClick={() => {
              setOpen(open === series.id ? null : series.id);
              onDay(series.first);
            }}
          >
            {told[series.id] ?? "…"}
          </ButtonBase>
          {open === series.id && (
            <Box component="fieldset" disabled={!mayEdit} sx={{ m: 0, border: 0, minWidth: 0, p: 1.25, pt: 0 }}>
              <OneSeries series={series} places={places} put={put} />
              <Button color="error" onClick={() => edit({ series: block.series.filter(({ id }) => id !== series.id) })}>
                Remove this series
              </Button>
            </Box>
          )}
        </Box>
      ))}
      {mayEdit && (
        <Button variant="outlined" sx={{ justifySelf: "start" }} onClick={add}>
          Add a series
        </Button>
      )}
    </Box>
  );
}

interface OneProps {
  series: SlotSeries;
  places: readonly SlotPlace[];
  put: (series: SlotSeries) => void;
}

function OneSeries({ series, places, put }: OneProps) {
  const { mayEdit } = useBench();
  const set = (changes: Partial<SlotSeries>) => put({ ...series, ...changes });
  const whole = (text: string, least: number, most: number) =>
    Math.min(most, Math.max(least, Math.round(Number(text)) || least));
  const number = (label: string, value: number | null, change: (count: number | null) => void, help = "") => (
    <TextField
      type="number"
      label={label}
      value={value ?? ""}
      helperText={help}
      slotProps={{ inputLabel: { shrink: true }, htmlInput: { min: 0 } }}
      onChange={(event) => change(event.target.value === "" ? null : Number(event.target.value))}
    />
  );
  const clock = (label: string, value: string, change: (time: string) => void) => (
    <ClockField type="time" label={label} value={value} onChange={(time) => change(time.slice(0, 5))} />
  );
  const day = (label: string, value: string, change: (day: string) => void) => (
    <ClockField type="date" label={label} value={value} onChange={change} />
  );
  return (
    <Box sx={{ display: "grid", gap: 1.5 }}>
      <ToggleButtonGroup
        value={series.weekdays}
        disabled={!mayEdit}
        aria-label="On which days"
        size="small"
        onChange={(_event, weekdays: Weekday[]) => set({ weekdays })}
      >
        {WEEKDAYS.map(([value, short, name]) => (
          <ToggleButton key={value} value={value} aria-label={name} sx={{ px: 0.75, flex: 1, textTransform: "none" }}>
            {short}
          </ToggleButton>
        ))}
      </ToggleButtonGroup>
      <Pair>
        {clock("From", series.begins, (begins) => set({ begins }))}
        {clock("To", series.ends, (ends) => set({ ends }))}
      </Pair>
      <Pair>
        {number("Minutes each", series.minutes, (count) => set({ minutes: whole(String(count), 1, 10_080) }))}
        {number(
          "One begins every",
          series.every,
          (count) => set({ every: count === null ? null : whole(String(count), 1, 10_080) }),
          "Minutes; blank: one after the other",
        )}
      </Pair>
      <Pair>
        {number("Places", series.places, (count) => set({ places: whole(String(count), 0, 100_000) }))}
        <span />
      </Pair>
      <Pair>
        {day("First day", series.first, (first) => set({ first }))}
        {day("Last day", series.last, (last) => set({ last }))}
      </Pair>
      {series.breaks.map((each, at) => (
        <Box key={at} sx={{ display: "grid", gridTemplateColumns: "1fr 1fr auto", gap: 1, alignItems: "center" }}>
          {clock("Not from", each.begins, (begins) => set({ breaks: series.breaks.with(at, { ...each, begins }) }))}
          {clock("To", each.ends, (ends) => set({ breaks: series.breaks.with(at, { ...each, ends }) }))}
          <Button
            aria-label={`Remove the break ${each.begins} to ${each.ends}`}
            onClick={() => set({ breaks: series.breaks.toSpliced(at, 1) })}
          >
            ✕
          </Button>
        </Box>
      ))}
      <Button
        sx={{ justifySelf: "start" }}
        onClick={() => set({ breaks: [...series.breaks, { begins: "12:00", ends: "13:00" }] })}
      >
        Add a break
      </Button>
      {places.length > 0 && (
        <Box role="group" aria-label="At">
          <Typography sx={{ fontSize: 13, color: "text.secondary" }}>At, each with places of its own</Typography>
          {places.map(({ code, label }) => (
            <FormControlLabel
              key={code}
              label={label}
              control={
                <Checkbox
                  size="small"
                  checked={series.at.includes(code)}
                  disabled={!mayEdit}
                  onChange={(_event, on) =>
                    set({
                      at: places
                        .map((each) => each.code)
                        .filter((each) => (each === code ? on : series.at.includes(each))),
                    })
                  }
                />
              }
            />
          ))}
        </Box>
      )}
    </Box>
  );
}

const Pair = ({ children }: { children: React.ReactNode }) => (
  <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 1 }}>{children}</Box>
);
