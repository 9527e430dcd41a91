// The booking sheet of a day: who has which slot; slots are closed, bookings moved and cancelled; for print and as CSV.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink } from "react-router";
import { api } from "../../api/client";
import type { SheetReply, SheetSlotReply, TakerReply } from "../../api/generated/wire";
import { counted } from "../../text/words";
import { mayMark, useSignedIn } from "../signed_in";
import { ClockField } from "../../ui/ClockField";
import { useBench } from "../workbench/bench";
import { CalendarAddress } from "./CalendarAddress";
import { ChangeBooking } from "./ChangeBooking";
import { type Day, dayTold } from "./slots";

interface Props {
  block: string;
  day: Day;
  onDay: (day: Day) => void;
}

export function BookingSheet({ block, day, onDay }: Props) {
  const { reply } = useBench();
  const found = useQuery({
    queryKey: ["bookings", reply.id, block, day],
    queryFn: () => api.bookingSheet(reply.id, { block, day }),
    placeholderData: keepPreviousData,
  });
  if (found.isError) return <Alert severity="info">{found.error.message}</Alert>;
  const sheet = found.data;
  if (!sheet) return null;
  return (
    <Box className="sl-sheet" sx={{ overflow: "auto", p: 2, pt: 1 }}>
      <Box sx={{ display: "flex", gap: 1.5, alignItems: "center", pb: 1.5 }} className="sl-tools">
        <Button disabled={!sheet.before} aria-label="Day before" onClick={() => sheet.before && onDay(sheet.before)}>
          ‹
        </Button>
        <ClockField type="date" label="Day" value={day} sx={{ width: 150 }} onChange={onDay} />
        <Button disabled={!sheet.after} aria-label="Day after" onClick={() => sheet.after && onDay(sheet.after)}>
          ›
        </Button>
        <Box sx={{ flex: 1 }} />
        <CalendarAddress />
        <Button onClick={() => print()}>Print</Button>
        <Button href={`/api/forms/${reply.id}/bookings/sheet.csv?${new URLSearchParams({ block, day })}`}>CSV</Button>
      </Box>
      <Typography variant="h2">
        {dayTold(day, { weekday: "long", day: "numeric", month: "long", year: "numeric" })}
      </Typography>
      {sheet.slots.length === 0 && (
        <Typography sx={{ color: "text.secondary" }}>The live edition has no slots on this day.</Typography>
      )}
      {sheet.slots.map((slot) => (
        <OneSlot key={slot.name} slot={slot} sheet={sheet} />
      ))}
    </Box>
  );
}

function OneSlot({ slot, sheet }: { slot: SheetSlotReply; sheet: SheetReply }) {
  const { reply } = useBench();
  const who = useSignedIn();
  const queryClient = useQueryClient();
  const close = useMutation({
    mutationFn: (closed: boolean) => api.closeSlot(reply.id, slot.name, closed),
    onSettled: () => void queryClient.invalidateQueries({ queryKey: ["bookings", reply.id] }),
  });
  const name = `${slot.starts.slice(11)}${slot.ends && ` to ${slot.ends.slice(11)}`}`;
  return (
    <Box component="section" aria-label={`${name} ${slot.at_label}`} sx={{ mt: 2 }}>
      <Box sx={{ display: "flex", gap: 2, alignItems: "baseline", borderBottom: 1, borderColor: "divider", pb: 0.5 }}>
        <Typography sx={{ fontWeight: 650, fontVariantNumeric: "tabular-nums" }}>{name}</Typography>
        <Typography>{slot.at_label}</Typography>
        <Typography sx={{ color: "text.secondary" }}>
          {slot.places === 0
            ? `${counted(slot.taken, "place")} taken; the live edition has this slot no more`
            : `${slot.taken} of ${counted(slot.places, "place")} taken`}
          {slot.closed && ", closed"}
        </Typography>
        <Box sx={{ flex: 1 }} />
        {mayMark(who) && slot.places > 0 && (
          <Button
            className="sl-tools"
            loading={close.isPending}
            aria-label={`${slot.closed ? "Open it again" : "Close it"}: ${name} ${slot.at_label}`}
            onClick={() => close.mutate(!slot.closed)}
          >
            {slot.closed ? "Open it again" : "Close it"}
          </Button>
        )}
      </Box>
      {close.error && <Alert severity="error">{close.error.message}</Alert>}
      {slot.takers.length > 0 && (
        <Table size="small">
          <TableHead>
            <TableRow>
              <TableCell>No.</TableCell>
              <TableCell>Places</TableCell>
              {sheet.columns.map(({ id, label }) => (
                <TableCell key={id}>{label}</TableCell>
              ))}
              <TableCell component="td" />
            </TableRow>
          </TableHead>
          <TableBody>
            {slot.takers.map((taker) => (
              <OneTaker key={`${taker.number} ${taker.waiting}`} taker={taker} sheet={sheet} />
            ))}
          </TableBody>
        </Table>
      )}
    </Box>
  );
}

function OneTaker({ taker, sheet }: { taker: TakerReply; sheet: SheetReply }) {
  const { reply } = useBench();
  const who = useSignedIn();
  const [changing, setChanging] = useState(false);
  return (
    <>
      <TableRow>
        <TableCell>
          <Link component={RouterLink} to={`/forms/${reply.id}/responses/${taker.number}`}>
            {taker.number}
          </Link>
        </TableCell>
        <TableCell>
          {taker.pieces}
          {taker.waiting && ", waits"}
        </TableCell>
        {sheet.columns.map(({ id }) => (
          <TableCell key={id}>{taker.cells[id] ?? ""}</TableCell>
        ))}
        <TableCell sx={{ textAlign: "end" }}>
          {mayMark(who) && (
            <Button
              className="sl-tools"
              aria-expanded={changing}
              aria-label={`Change booking ${taker.number}`}
              onClick={() => setChanging(!changing)}
            >
              Change
            </Button>
          )}
        </TableCell>
      </TableRow>
      {changing && (
        <TableRow>
          <TableCell colSpan={sheet.columns.length + 3}>
            <ChangeBooking number={taker.number} since={sheet.day} onDone={() => setChanging(false)} />
          </TableCell>
        </TableRow>
      )}
    </>
  );
}
