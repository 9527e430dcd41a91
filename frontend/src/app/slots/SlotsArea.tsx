// The slots of a form: series as sentences on the left, the week in the middle, painted by hand; or all of it as a list.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { Link as RouterLink } from "react-router";
import { api } from "../../api/client";
import type { ShownSlotReply, SlotField } from "../../api/generated/wire";
import { ClockField } from "../../ui/ClockField";
import { useSignedIn } from "../signed_in";
import { useBench } from "../workbench/bench";
import { BookingSheet } from "./BookingSheet";
import { DaysOut } from "./DaysOut";
import { PasteLines } from "./PasteLines";
import { SeriesList } from "./SeriesList";
import { SlotsFromTable } from "./SlotsFromTable";
import { SlotTable } from "./SlotTable";
import { asSingle, copied, type Day, dayAfter, dayTold, weekOf, withoutSlots, withSlots } from "./slots";
import { useSlotPlaces } from "./useSlotPlaces";
import { WeekGrid } from "./WeekGrid";

export function SlotsArea() {
  const { parts, part } = useBench();
  const blocks = [...parts.values()].flatMap((entry) =>
    entry.what === "block" && entry.part.type === "slot" ? [entry.part] : [],
  );
  const [chosen, setChosen] = useState(part);
  const block = blocks.find(({ id }) => id === chosen) ?? blocks[0];
  if (!block) return <NoSlots />;
  return (
    <Box sx={{ height: "100%", display: "grid", gridTemplateColumns: "340px minmax(0,1fr)", minHeight: 0 }}>
      <OneBlock key={block.id} block={block} blocks={blocks} onChoose={setChosen} />
    </Box>
  );
}

type Look = "week" | "list" | "booked";

function NoSlots() {
  const { reply } = useBench();
  return (
    <Box sx={{ p: 4, maxWidth: 560 }}>
      <Typography variant="h1">Slots</Typography>
      <Typography sx={{ mt: 1 }}>
        Appointments with places, which nobody gets twice. Add a block “Slot” in Compose, and make its times here.
      </Typography>
      <Button component={RouterLink} to={`/forms/${reply.id}/compose`} variant="contained" sx={{ mt: 2 }}>
        To Compose
      </Button>
    </Box>
  );
}

interface Props {
  block: SlotField;
  blocks: readonly SlotField[];
  onChoose: (id: string) => void;
}

function OneBlock({ block, blocks, onChoose }: Props) {
  const { actions, mayEdit } = useBench();
  const who = useSignedIn();
  const places = useSlotPlaces(block);
  const [at, setAt] = useState(places[0]?.code ?? "");
  const [day, setDay] = useState<Day>(() => new Date().toISOString().slice(0, 10));
  const [look, setLook] = useState<Look>("week");
  const [brush, setBrush] = useState({ minutes: block.series[0]?.minutes ?? 60, places: block.series[0]?.places ?? 1 });
  const edit = (changes: Partial<SlotField>) => actions.edit(block.id, changes);
  const week = weekOf(day);
  const shown = useShown(block, week[0]!, week[6]!, places);
  const slots = useMemo(() => (shown?.slots ?? []).filter((slot) => slot.at === at), [shown, at]);
  const put = (starts: readonly string[]) =>
    edit({
      singles: withSlots(
        block.singles,
        starts.map((each) => ({ starts: each, ...brush, at })),
      ),
    });
  const take = (gone: readonly ShownSlotReply[]) => edit({ singles: withoutSlots(block.singles, gone) });
  return (
    <>
      <Box
        sx={{
          p: 2,
          overflow: "auto",
          borderRight: 1,
          borderColor: "divider",
          display: "grid",
          gap: 2.5,
          alignContent: "start",
        }}
      >
        <Box sx={{ display: "flex", alignItems: "baseline", gap: 1.5 }}>
          <Typography variant="h1">Slots</Typography>
          <Typography sx={{ color: "text.secondary" }} role="status">
            {shown ? told(shown) : ""}
          </Typography>
        </Box>
        {blocks.length > 1 && (
          <TextField select label="Of the block" value={block.id} onChange={(event) => onChoose(event.target.value)}>
            {blocks.map(({ id, label, key }) => (
              <MenuItem key={id} value={id}>
                {label || key}
              </MenuItem>
            ))}
          </TextField>
        )}
        <SeriesList block={block} places={places} told={shown?.told ?? {}} edit={edit} onDay={setDay} />
        <DaysOut block={block} edit={edit} />
      </Box>
      <Box sx={{ display: "flex", flexDirection: "column", minHeight: 0 }}>
        <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1.5, alignItems: "center", p: 2, pb: 1 }}>
          {look !== "booked" && (
            <>
              <Button aria-label="Week before" sx={{ minWidth: 32 }} onClick={() => setDay(dayAfter(day, -7))}>
                ‹
              </Button>
              <Typography sx={{ fontWeight: 650, minWidth: 170, textAlign: "center" }}>
                {dayTold(week[0]!, { day: "numeric", month: "short" })} to{" "}
                {dayTold(week[6]!, { day: "numeric", month: "short", year: "numeric" })}
              </Typography>
              <Button aria-label="Week after" sx={{ minWidth: 32 }} onClick={() => setDay(dayAfter(day, 7))}>
                ›
              </Button>
              <ClockField type="date" label="Go to" value={day} sx={{ width: 140 }} onChange={setDay} />
              {places.length > 0 && (
                <TextField
                  select
                  label="At"
                  value={at}
                  sx={{ width: 180 }}
                  onChange={(event) => setAt(event.target.value)}
                >
                  {places.map(({ code, label }) => (
                    <MenuItem key={code} value={code}>
                      {label}
                    </MenuItem>
                  ))}
                </TextField>
              )}
            </>
          )}
          <Box sx={{ flex: 1 }} />
          {look !== "booked" && (
            <>
              <SlotsFromTable block={block} usual={{ ...brush, at }} places={places} edit={edit} />
              <PasteLines block={block} usual={{ starts: "", ...brush, at }} places={places} edit={edit} />
            </>
          )}
          <ToggleButtonGroup
            exclusive
            size="small"
            value={look}
            aria-label="Shown as"
            onChange={(_event, next: Look | null) => next && setLook(next)}
          >
            <ToggleButton value="week">Week</ToggleButton>
            <ToggleButton value="list">List</ToggleButton>
            {who.role !== "viewer" && <ToggleButton value="booked">Booked</ToggleButton>}
          </ToggleButtonGroup>
        </Box>
        {look === "booked" && <BookingSheet block={block.id} day={day} onDay={setDay} />}
        {look === "week" && (
          <WeekGrid
            week={week}
            slots={slots}
            leftOut={block.left_out}
            brush={brush}
            mayEdit={mayEdit}
            onBrush={setBrush}
            onPut={put}
            onTake={take}
            onPlaces={(slot, count) =>
              edit({ singles: withSlots(block.singles, [{ ...asSingle(slot), places: count }]) })
            }
            onCopy={(from, days) =>
              edit({
                singles: withSlots(
                  block.singles,
                  copied(
                    slots.filter(({ starts }) => starts.startsWith(from)),
                    days,
                  ),
                ),
              })
            }
            onLeaveOut={(each) => edit({ left_out: [...block.left_out, { first: each, last: each, name: "" }] })}
          />
        )}
        {look === "list" && (
          <SlotTable
            slots={slots}
            mayEdit={mayEdit}
            onChange={(slot) => edit({ singles: withSlots(block.singles, [slot]) })}
            onTake={(slot) => take([slot])}
          />
        )}
      </Box>
    </>
  );
}

/** The block's slots of those days, as the core makes them; while it is asked again, what it said last. */
function useShown(block: SlotField, first: Day, last: Day, places: readonly { code: string; label: string }[]) {
  const { reply, form } = useBench();
  const { series, singles, left_out } = block;
  const labels = Object.fromEntries(places.map(({ code, label }) => [code, label]));
  const asked = { series, singles, left_out, time_zone: form.time_zone, first, last, labels };
  const found = useQuery({
    queryKey: ["slots", reply.id, asked],
    queryFn: () => api.shownSlots(reply.id, asked),
    placeholderData: keepPreviousData,
  });
  return found.data;
}

function told({
  count,
  first_day,
  last_day,
  too_many,
}: {
  count: number;
  first_day: Day | null;
  last_day: Day | null;
  too_many: boolean;
}) {
  if (count === 0) return "none yet";
  const day = (each: Day) => dayTold(each, { day: "numeric", month: "short", year: "numeric" });
  return `${too_many ? "more than " : ""}${count.toLocaleString("en")}, ${day(first_day!)} to ${day(last_day!)}`;
}
