// Slots of a table's records: which table, which of its columns say when and where, and what they make before it is added.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, reasonOf } from "../../api/client";
import type { SingleSlot, SlotField, SlotsOfTableReply, TableColumnReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { counted } from "../../text/words";
import { OneOfField } from "../../ui/OneOfField";
import { PopoverButton } from "../../ui/PopoverButton";
import { useBench } from "../workbench/bench";
import { dayTold, withSlots } from "./slots";
import type { SlotPlace } from "./useSlotPlaces";

interface Props {
  block: SlotField;
  usual: Omit<SingleSlot, "starts">;
  places: readonly SlotPlace[];
  edit: (changes: Partial<SlotField>) => void;
}

const NO_COLUMNS = { day: "", time: "", minutes: "", places: "", at: "" };
type Columns = typeof NO_COLUMNS;

const ofTypes = (columns: readonly TableColumnReply[], types: readonly string[]) =>
  columns.filter(({ type }) => types.includes(type));
const asChoices = (columns: readonly TableColumnReply[]) =>
  columns.map(({ id, label, key }) => ({ value: id, label: label || key }));

/** The columns that say when a slot begins, where a table has one alone. */
function likely(columns: readonly TableColumnReply[]): Columns {
  const days = ofTypes(columns, ["date", "date_time"]);
  const times = ofTypes(columns, ["time"]);
  return { ...NO_COLUMNS, day: days[0]?.id ?? "", time: days[0]?.type === "date" ? (times[0]?.id ?? "") : "" };
}

export function SlotsFromTable(props: Props) {
  const { mayEdit } = useBench();
  if (!mayEdit) return null;
  return (
    <PopoverButton label="From a table" name="Slots from a table" width={460} room={2}>
      {(close) => <FromOneTable {...props} onDone={close} />}
    </PopoverButton>
  );
}

function FromOneTable({ block, usual, places, edit, onDone }: Props & { onDone: () => void }) {
  const { reply, form } = useBench();
  const tables = useQuery(queries.tables()).data?.tables ?? [];
  const [table, setTable] = useState("");
  const [picked, setPicked] = useState<Columns | null>(null);
  const known = useQuery({ ...queries.table(table), enabled: table !== "" }).data;
  const all = known?.columns ?? [];
  const columns = picked ?? likely(all);
  const pick = (changes: Partial<Columns>) => setPicked({ ...columns, ...changes });
  const day = all.find(({ id }) => id === columns.day);
  const says = day !== undefined && (day.type === "date_time" || columns.time !== "");
  const { minutes, places: count, at } = usual;
  const asked = {
    table,
    columns,
    usual: { minutes, places: count, at },
    time_zone: form.time_zone,
    labels: Object.fromEntries(places.map(({ code, label }) => [code, label])),
  };
  const found = useQuery({
    queryKey: ["slots of a table", reply.id, asked],
    queryFn: () => api.slotsOfTable(reply.id, asked),
    enabled: says,
    retry: false,
    gcTime: 0,
    placeholderData: keepPreviousData,
  });
  const slots = (says && found.data?.slots) || [];
  return (
    <Box sx={{ display: "grid", gap: 1.5 }}>
      <Typography>
        Each record that says when makes a slot. What is there at the same time and place is replaced.
      </Typography>
      <OneOfField
        label="Table"
        value={table}
        none={tables.length > 0 ? "Choose a table" : "There is no table yet"}
        choices={tables.map(({ id, name }) => ({ value: id, label: name }))}
        onPick={(next) => {
          setTable(next);
          setPicked(null);
        }}
      />
      {known && (
        <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 1.5 }}>
          <OneOfField
            label="Day, or day and time"
            value={columns.day}
            none="none"
            choices={asChoices(ofTypes(all, ["date", "date_time"]))}
            onPick={(next) => pick({ day: next })}
          />
          {day?.type === "date" && (
            <OneOfField
              label="Time"
              value={columns.time}
              none="none"
              choices={asChoices(ofTypes(all, ["time"]))}
              onPick={(time) => pick({ time })}
            />
          )}
          {(["minutes", "places"] as const).map((setting) => (
            <OneOfField
              key={setting}
              label={setting === "minutes" ? "Minutes" : "Places"}
              value={columns[setting]}
              none={`${usual[setting]} each`}
              choices={asChoices(all.filter(({ numeric }) => numeric))}
              onPick={(column) => pick({ [setting]: column })}
            />
          ))}
          {places.length > 0 && (
            <OneOfField
              label="Where"
              value={columns.at}
              none={places.find(({ code }) => code === at)?.label ?? "nowhere"}
              choices={asChoices(all.filter(({ files }) => !files))}
              onPick={(next) => pick({ at: next })}
            />
          )}
        </Box>
      )}
      {known && !says && (
        <Alert severity="info">
          {day
            ? "These days have no time. Choose the column that says it, or one of days with their time."
            : "No column with a day is chosen. Where the table has none, add one, or choose another table."}
        </Alert>
      )}
      {says && found.isError && <Alert severity="error">{reasonOf(found.error)}</Alert>}
      {says && found.data && <Told found={found.data} />}
      <Button
        variant="contained"
        disabled={slots.length === 0 || found.isPlaceholderData}
        onClick={() => {
          edit({ singles: withSlots(block.singles, slots) });
          onDone();
        }}
      >
        Add {counted(slots.length, "slot")}
      </Button>
    </Box>
  );
}

function Told({ found }: { found: SlotsOfTableReply }) {
  const days = found.slots.map(({ starts }) => starts.slice(0, 10)).sort();
  const told = (each: string) => dayTold(each, { day: "numeric", month: "short", year: "numeric" });
  return (
    <>
      {days.length > 0 && (
        <Typography role="status">
          {counted(days.length, "slot")}, {told(days[0]!)} to {told(days.at(-1)!)}.
        </Typography>
      )}
      {found.wrong_count > 0 && (
        <Alert severity="warning">
          {found.wrong.map(({ number, message }) => (
            <div key={number}>
              Record {number} {message}
            </div>
          ))}
          {found.wrong_count > found.wrong.length && <div>And {found.wrong_count - found.wrong.length} more.</div>}
        </Alert>
      )}
    </>
  );
}
