// What was paid for a form, or for all: sums, a list that is searched, and each payment with all that came of it.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import MenuItem from "@mui/material/MenuItem";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink } from "react-router";
import { api } from "../../api/client";
import type { PaymentReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { asDate, counted } from "../../text/words";
import { useSignedIn } from "../signed_in";
import { useDayAndTime } from "../workbench/useDayAndTime";
import { GiveBack } from "./GiveBack";
import { PaymentInFull } from "./PaymentInFull";
import { PLAN_STATES, STATES } from "./states";

const SHOWN: Record<string, string> = {
  "": "all",
  due: "not paid yet",
  paid: "paid",
  failed: "charges that failed",
  refunded: "with money given back",
  running: "plans that run",
  expired: "expired",
};
const COLUMNS = 7;

/** Of a form, or of all for null. */
export function Payments({ form }: { form: string | null }) {
  const [state, setState] = useState("");
  const [find, setFind] = useState("");
  const found = useQuery({ ...queries.payments(form, state, find), refetchInterval: 15_000 });
  const { payments = [], sums = [] } = found.data ?? {};
  if (found.isSuccess && payments.length === 0 && state === "" && find === "")
    return (
      <Box component="section" aria-label="Payments">
        {form !== null && <Typography variant="h2">Payments</Typography>}
        <Typography color="text.secondary">Nothing was paid yet. What visitors pay is listed here.</Typography>
      </Box>
    );
  return (
    <Box component="section" aria-label="Payments" sx={{ display: "grid", gap: 1 }}>
      {form !== null && <Typography variant="h2">Payments</Typography>}
      {sums.map(({ test, count, paid, refunded, due }) => (
        <Typography key={`${test} ${paid}`}>
          {test ? "For practice: " : ""}
          {paid} from {counted(count, "payment")}, {refunded} given back, {due} not paid yet
        </Typography>
      ))}
      <Box sx={{ display: "flex", gap: 1 }}>
        <TextField
          select
          label="Show"
          value={state}
          slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
          sx={{ width: 200 }}
          onChange={(event) => setState(event.target.value)}
        >
          {Object.entries(SHOWN).map(([name, words]) => (
            <MenuItem key={name} value={name}>
              {words}
            </MenuItem>
          ))}
        </TextField>
        <TextField
          label="Find a payer, a card or a number"
          value={find}
          sx={{ flex: 1 }}
          onChange={(event) => setFind(event.target.value)}
        />
        <Button variant="outlined" color="inherit" href={api.paymentsAddress(form)} download>
          All as CSV
        </Button>
      </Box>
      {found.isError && <Alert severity="error">{found.error.message}</Alert>}
      {found.isSuccess && payments.length === 0 && <Typography>Nothing of that kind is found.</Typography>}
      <Table size="small">
        <TableHead>
          <TableRow>
            <TableCell>{form === null ? "Form, response" : "Response"}</TableCell>
            <TableCell>Payer</TableCell>
            <TableCell align="right">Amount</TableCell>
            <TableCell>State</TableCell>
            <TableCell align="right">Receipt</TableCell>
            <TableCell>Asked for</TableCell>
            <TableCell align="right">By hand</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {payments.map((payment) => (
            <OnePayment
              key={`${payment.form} ${payment.number} ${payment.turn}`}
              payment={payment}
              withForm={form === null}
            />
          ))}
        </TableBody>
      </Table>
    </Box>
  );
}

function OnePayment({ payment, withForm }: { payment: PaymentReply; withForm: boolean }) {
  const dayAndTime = useDayAndTime();
  const who = useSignedIn();
  const [opened, setOpened] = useState<"back" | "full" | null>(null);
  const { number, turn, state, reason, card, plan_state } = payment;
  const name = turn === 0 ? `payment ${number}` : `charge ${turn} of payment ${number}`;
  const press = (what: "back" | "full") => setOpened(opened === what ? null : what);
  return (
    <>
      <TableRow>
        <TableCell>
          {withForm && (
            <>
              <Link component={RouterLink} to={`/forms/${payment.form}/payment`}>
                {payment.form_name}
              </Link>
              ,{" "}
            </>
          )}
          <Link component={RouterLink} to={`/forms/${payment.form}/responses/${number}`}>
            {number}
          </Link>
          {turn > 0 && `, charge ${turn}`}
        </TableCell>
        <TableCell sx={{ overflowWrap: "anywhere" }}>{payment.payer}</TableCell>
        <TableCell align="right" sx={{ fontVariantNumeric: "tabular-nums", whiteSpace: "nowrap" }}>
          {payment.amount}
          {payment.refunded && <> (−{payment.refunded})</>}
        </TableCell>
        <TableCell>
          {STATES[state]}
          {card && ` · ${card}`}
          {(state === "due" || state === "failed") && reason && ` · ${reason}`}
          {plan_state && ` · ${PLAN_STATES[plan_state]}`}
        </TableCell>
        <TableCell align="right">{payment.test ? "practice" : (payment.receipt ?? "")}</TableCell>
        <TableCell sx={{ whiteSpace: "nowrap" }}>
          {payment.day ? asDate(payment.day) : dayAndTime(payment.created_at)}
        </TableCell>
        <TableCell align="right" sx={{ whiteSpace: "nowrap" }}>
          {payment.left && who.role === "owner" && (
            <Button aria-expanded={opened === "back"} aria-label={`Give back of ${name}`} onClick={() => press("back")}>
              Give back
            </Button>
          )}
          <Button
            color="inherit"
            aria-expanded={opened === "full"}
            aria-label={`${opened === "full" ? "Close" : "Open"} ${name}`}
            onClick={() => press("full")}
          >
            {opened === "full" ? "Close" : "Open"}
          </Button>
        </TableCell>
      </TableRow>
      {opened && (
        <TableRow>
          <TableCell colSpan={COLUMNS}>
            {opened === "back" && <GiveBack payment={payment} name={name} onDone={() => setOpened(null)} />}
            {opened === "full" && <PaymentInFull form={payment.form} number={number} />}
          </TableCell>
        </TableRow>
      )}
    </>
  );
}
