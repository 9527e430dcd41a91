// A payment with all that came of it, as a time line: what happened, what was charged and when, and what is to come.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api } from "../../api/client";
import type { MoneyEventReply, PaymentReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { asDate, counted } from "../../text/words";
import { useSignedIn } from "../signed_in";
import { useDayAndTime } from "../workbench/useDayAndTime";
import { PLAN_STATES } from "./states";

interface Props {
  form: string;
  number: number;
}

export function PaymentInFull({ form, number }: Props) {
  const found = useQuery(queries.payment(form, number));
  if (found.isError) return <Alert severity="error">{found.error.message}</Alert>;
  if (!found.data) return null;
  const { payments, to_come, more, events } = found.data;
  const first = payments[0]!;
  const failed = payments.filter(({ state }) => state === "failed");
  return (
    <Box role="group" aria-label={`All of payment ${number}`} sx={{ display: "grid", gap: 1.5, py: 1 }}>
      {first.plan && (
        <Typography>
          {first.plan} · {PLAN_STATES[first.plan_state]}
        </Typography>
      )}
      <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 3, alignItems: "start" }}>
        <Happened events={events} />
        {first.plan && <ToCome to_come={to_come} more={more} />}
      </Box>
      <Hands form={form} number={number} running={first.plan_state === "running"} failed={failed} />
    </Box>
  );
}

const Line = ({ when, children }: React.PropsWithChildren<{ when: string }>) => (
  <Box component="li" sx={{ py: 0.25 }}>
    <Typography variant="body2" component="span" color="text.secondary">
      {when}
    </Typography>{" "}
    <Typography component="span">{children}</Typography>
  </Box>
);

const LINE_LIST = { m: 0, pl: 1.5, borderLeft: 2, borderColor: "note.money", listStyle: "none" } as const;

function Happened({ events }: { events: readonly MoneyEventReply[] }) {
  const dayAndTime = useDayAndTime();
  return (
    <Box component="section" aria-label="What happened">
      <Typography variant="h3" component="p">
        What happened
      </Typography>
      <Box component="ol" sx={LINE_LIST}>
        {events.map((event) => (
          <Line key={`${event.kind} ${event.at} ${event.charge} ${event.amount}`} when={dayAndTime(event.at)}>
            {inWords(event)}
            {event.person && ` · ${event.person}`}
          </Line>
        ))}
      </Box>
    </Box>
  );
}

const HAPPENED: Record<string, string> = {
  "payment asked": "Asked for",
  paid: "Paid",
  "payment failed": "Refused by the bank",
  "payment differs": "The bank speaks of another amount",
  refunded: "Given back",
  expired: "Expired",
  charge: "Charged",
  "charge failed": "Declined",
  "charged again": "Tried again",
  "plan stopped": "The plan was stopped",
  "plan ended": "The plan has ended",
};

/** An event of money in words, with what it says of charge, amount, card and reason. */
const inWords = ({ kind, charge, amount, card, reason }: MoneyEventReply): string =>
  [HAPPENED[kind] ?? kind, charge !== null && `charge ${charge}`, amount, card, reason].filter(Boolean).join(" · ");

function ToCome({ to_come, more }: { to_come: readonly { day: string; amount: string }[]; more: number | null }) {
  return (
    <Box component="section" aria-label="What is to come">
      <Typography variant="h3" component="p">
        What is to come
      </Typography>
      {to_come.length === 0 && <Typography color="text.secondary">Nothing more is charged.</Typography>}
      <Box component="ol" sx={LINE_LIST}>
        {to_come.map(({ day, amount }) => (
          <Line key={day} when={asDate(day)}>
            {amount}
          </Line>
        ))}
        {to_come.length > 0 && more !== 0 && (
          <Line when="">{more === null ? "and so on, until it is stopped" : `and ${counted(more, "time")} more`}</Line>
        )}
      </Box>
    </Box>
  );
}

interface HandsProps extends Props {
  running: boolean;
  failed: readonly PaymentReply[];
}

/** What an owner can do: stop the plan, asked twice; try a charge again that was declined. */
function Hands({ form, number, running, failed }: HandsProps) {
  const who = useSignedIn();
  const queryClient = useQueryClient();
  const [sure, setSure] = useState(false);
  const onSettled = () => void queryClient.invalidateQueries({ queryKey: ["payments"] });
  const stop = useMutation({ mutationFn: () => api.stopPlan(form, number), onSettled });
  const again = useMutation({ mutationFn: (turn: number) => api.chargeAgain(form, number, turn), onSettled });
  const told = stop.data?.told ?? again.data?.told;
  const error = stop.error ?? again.error;
  return (
    <>
      {who.role === "owner" && (
        <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
          {failed.map(({ turn, amount }) => (
            <Button
              key={turn}
              variant="outlined"
              loading={again.isPending && again.variables === turn}
              onClick={() => again.mutate(turn)}
            >
              Charge {amount} again: charge {turn}
            </Button>
          ))}
          {running && !sure && (
            <Button variant="outlined" color="inherit" onClick={() => setSure(true)}>
              Stop the plan …
            </Button>
          )}
          {running && sure && (
            <Button color="error" variant="contained" loading={stop.isPending} onClick={() => stop.mutate()}>
              Yes, charge nothing more
            </Button>
          )}
        </Box>
      )}
      {told && <Alert severity="success">{told}</Alert>}
      {error && <Alert severity="error">{error.message}</Alert>}
    </>
  );
}
