// A week of days as columns, its slots as numbers of places: painted by dragging, or by keys. Arrows lead from cell to cell,
// Enter or the space bar puts a slot or takes it out, digits say how many places it has.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { type KeyboardEvent, useEffect, useRef, useState } from "react";
import type { DaysLeftOut, ShownSlotReply } from "../../api/generated/wire";
import { PopoverButton } from "../../ui/PopoverButton";
import { type Day, dayAfter, dayTold, rowsOf } from "./slots";
import "./slots.css";

export interface Brush {
  minutes: number;
  places: number;
}

interface Props {
  week: readonly Day[];
  slots: readonly ShownSlotReply[];
  leftOut: readonly DaysLeftOut[];
  /** What a painted slot is like. */
  brush: Brush;
  mayEdit: boolean;
  onBrush: (brush: Brush) => void;
  onPut: (starts: readonly string[]) => void;
  onTake: (slots: readonly ShownSlotReply[]) => void;
  onPlaces: (slot: ShownSlotReply, places: number) => void;
  onCopy: (from: Day, to: readonly Day[]) => void;
  onLeaveOut: (day: Day) => void;
}

export function WeekGrid(props: Props) {
  const { week, slots, leftOut, brush, mayEdit, onBrush, onPut, onTake, onPlaces } = props;
  const [wholeDay, setWholeDay] = useState(false);
  const rows = rowsOf(slots, wholeDay);
  const byStart = new Map(slots.map((slot) => [slot.starts, slot]));
  const [painting, setPainting] = useState<{ adds: boolean; cells: readonly string[] } | null>(null);
  const [focus, setFocus] = useState<[number, number]>([0, 0]);
  const grid = useRef<HTMLTableElement>(null);
  const finish = () => {
    if (!painting) return;
    if (painting.adds) onPut(painting.cells);
    else onTake(painting.cells.flatMap((cell) => byStart.get(cell) ?? []));
    setPainting(null);
  };
  const finished = useRef(finish);
  useEffect(() => {
    finished.current = finish;
  });
  useEffect(() => {
    const end = () => finished.current();
    addEventListener("pointerup", end);
    return () => removeEventListener("pointerup", end);
  }, []);
  const onKey = (event: KeyboardEvent, row: number, column: number) => {
    const steps: Record<string, [number, number]> = {
      ArrowUp: [-1, 0],
      ArrowDown: [1, 0],
      ArrowLeft: [0, -1],
      ArrowRight: [0, 1],
    };
    const step = steps[event.key];
    if (step) {
      const next: [number, number] = [
        Math.min(rows.length - 1, Math.max(0, row + step[0])),
        Math.min(6, Math.max(0, column + step[1])),
      ];
      event.preventDefault();
      setFocus(next);
      grid.current?.querySelector<HTMLElement>(`[data-cell="${next.join(" ")}"]`)?.focus();
    }
    const slot = byStart.get(`${week[column]!}T${rows[row]!}`);
    if (mayEdit && slot && /^[1-9]$/.test(event.key)) onPlaces(slot, Number(event.key));
  };
  const isOut = (day: Day) => leftOut.some(({ first, last }) => first <= day && day <= last);
  const covered = (start: string) => slots.some((slot) => slot.starts < start && start < slot.ends);
  return (
    <>
      {mayEdit && (
        <Box sx={{ display: "flex", gap: 1.5, alignItems: "center", px: 2, pb: 1 }}>
          <Typography sx={{ color: "text.secondary" }}>Paint slots of</Typography>
          <Count
            label="Minutes"
            value={brush.minutes}
            least={1}
            most={10_080}
            onChange={(minutes) => onBrush({ ...brush, minutes })}
          />
          <Count
            label="Places"
            value={brush.places}
            least={1}
            most={100_000}
            onChange={(places) => onBrush({ ...brush, places })}
          />
          <Typography sx={{ color: "text.secondary", fontSize: 13 }}>
            Drag over free times to put slots there; begin on a slot to take them out.
          </Typography>
          <Box sx={{ flex: 1 }} />
          <Button aria-pressed={wholeDay} onClick={() => setWholeDay(!wholeDay)}>
            {wholeDay ? "Fewer hours" : "All hours"}
          </Button>
        </Box>
      )}
      <Box sx={{ overflow: "auto", flex: 1, px: 2, pb: 2 }}>
        <table ref={grid} className="sl-week" role="grid" aria-label="Slots of the week">
          <thead>
            <tr>
              <td />
              {week.map((day) => (
                <th key={day} scope="col" data-out={isOut(day) || undefined}>
                  <DayHead {...props} day={day} out={isOut(day)} />
                </th>
              ))}
            </tr>
          </thead>
          <tbody>
            {rows.map((time, row) => (
              <tr key={time}>
                <th scope="row">{time}</th>
                {week.map((day, column) => {
                  const start = `${day}T${time}`;
                  const slot = byStart.get(start);
                  const painted = painting?.cells.includes(start);
                  const here = painted ? painting!.adds : Boolean(slot);
                  return (
                    <td key={day} role="gridcell">
                      <button
                        type="button"
                        data-cell={`${row} ${column}`}
                        className="sl-cell"
                        data-slot={here || undefined}
                        data-by-hand={(here && slot && !slot.series) || undefined}
                        data-covered={(!here && covered(start)) || undefined}
                        tabIndex={focus[0] === row && focus[1] === column ? 0 : -1}
                        disabled={!mayEdit}
                        aria-label={`${dayTold(day, { weekday: "long", day: "numeric", month: "long" })} ${time}: ${
                          slot ? `${slot.places} places until ${slot.ends.slice(11)}` : "no slot"
                        }`}
                        onFocus={() => setFocus([row, column])}
                        onKeyDown={(event) => onKey(event, row, column)}
                        onPointerDown={(event) => {
                          event.currentTarget.releasePointerCapture(event.pointerId);
                          setPainting({ adds: !slot, cells: [start] });
                        }}
                        onPointerEnter={() =>
                          painting &&
                          painting.adds === !slot &&
                          !painted &&
                          setPainting({ ...painting, cells: [...painting.cells, start] })
                        }
                        onClick={(event) => {
                          // A press by keyboard; one by hand was painting.
                          if (event.detail > 0) return;
                          if (slot) onTake([slot]);
                          else onPut([start]);
                        }}
                      >
                        {slot && here ? slot.places : painted && here ? brush.places : ""}
                      </button>
                    </td>
                  );
                })}
              </tr>
            ))}
          </tbody>
        </table>
      </Box>
    </>
  );
}

function DayHead({ day, out, slots, mayEdit, onCopy, onTake, onLeaveOut }: Props & { day: Day; out: boolean }) {
  const own = slots.filter(({ starts }) => starts.startsWith(day));
  const name = dayTold(day, { weekday: "short", day: "numeric", month: "short" });
  if (!mayEdit) return <>{name}</>;
  return (
    <PopoverButton
      label={
        <span>
          {name}
          {out && <small> left out</small>}
        </span>
      }
      name={`What to do with ${name}`}
      width={300}
      room={2}
    >
      {(close) => (
        <Box sx={{ display: "grid", gap: 1 }}>
          <CopyDay day={day} count={own.length} onCopy={(days) => (onCopy(day, days), close())} />
          {own.length > 0 && <Button onClick={() => (onTake(own), close())}>Take out its {own.length} slots</Button>}
          {!out && <Button onClick={() => (onLeaveOut(day), close())}>Leave the day out of series</Button>}
        </Box>
      )}
    </PopoverButton>
  );
}

function CopyDay({ day, count, onCopy }: { day: Day; count: number; onCopy: (days: readonly Day[]) => void }) {
  const [chosen, setChosen] = useState<readonly Day[]>([]);
  const [weeks, setWeeks] = useState(1);
  if (count === 0) return <Typography>There is no slot on this day to copy.</Typography>;
  const others = [1, 2, 3, 4, 5, 6, 7].map((days) => dayAfter(day, days));
  const all = chosen.flatMap((each) => Array.from({ length: weeks }, (_, week) => dayAfter(each, 7 * week)));
  return (
    <Box role="group" aria-label="Copy to">
      <Typography sx={{ fontWeight: 650 }}>Copy its {count} slots to</Typography>
      {others.map((each) => (
        <FormControlLabel
          key={each}
          sx={{ display: "flex" }}
          label={dayTold(each, { weekday: "long", day: "numeric", month: "short" })}
          control={
            <Checkbox
              size="small"
              checked={chosen.includes(each)}
              onChange={(_event, on) => setChosen(on ? [...chosen, each] : chosen.filter((other) => other !== each))}
            />
          }
        />
      ))}
      <Box sx={{ display: "flex", gap: 1, alignItems: "center", mt: 1 }}>
        <Count label="Weeks" value={weeks} least={1} most={52} onChange={setWeeks} />
        <Button variant="contained" disabled={all.length === 0} onClick={() => onCopy(all)}>
          {all.length === 1 ? "Copy to 1 day" : `Copy to ${all.length} days`}
        </Button>
      </Box>
    </Box>
  );
}

interface CountProps {
  label: string;
  value: number;
  least: number;
  most: number;
  onChange: (count: number) => void;
}

function Count({ label, value, least, most, onChange }: CountProps) {
  return (
    <TextField
      type="number"
      label={label}
      value={value}
      sx={{ width: 90 }}
      slotProps={{ inputLabel: { shrink: true }, htmlInput: { min: least, max: most } }}
      onChange={(event) => onChange(Math.min(most, Math.max(least, Math.round(Number(event.target.value)) || least)))}
    />
  );
}
