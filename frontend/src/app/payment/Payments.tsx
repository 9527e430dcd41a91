// What was paid for a form: sums, a list that is searched, and money given back, asked for twice.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api } from "../../api/client";
import type { PaymentReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { asDayAndTime, counted } from "../../text/words";
import { useSignedIn } from "../signed_in";
import { useBench } from "../workbench/bench";

const STATES: Record<string, string> = {
  "": "all",
  due: "not paid yet",
  paid: "paid",
  refunded: "with money given back",
  expired: "expired",
};
const IN_WORDS: Record<string, string> = {
  due: "not paid yet",
  paid: "paid",
  expired: "expired",
  "part refunded": "partly given back",
  refunded: "given back",
};

export function Payments() {
  const { reply } = useBench();
  const [state, setState] = useState("");
  const [find, setFind] = useState("");
  const found = useQuery({ ...queries.payments(reply.id, state, find), refetchInterval: 15_000 });
  const { payments = [], sums = [] } = found.data ?? {};
  if (found.isSuccess && payments.length === 0 && state === "" && find === "")
    return (
      <Box component="section" aria-label="Payments">
        <Typography variant="h2">Payments</Typography>
        <Typography color="text.secondary">Nothing was paid yet. What visitors pay is listed here.</Typography>
      </Box>
    );
  return (
    <Box component="section" aria-label="Payments" sx={{ display: "grid", gap: 1 }}>
      <Typography variant="h2">Payments</Typography>
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
          {Object.entries(STATES).map(([name, words]) => (
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
        <Button variant="outlined" color="inherit" href={api.paymentsAddress(reply.id)} download>
          All as CSV
        </Button>
      </Box>
      {found.isError && <Alert severity="error">{found.error.message}</Alert>}
      <Table size="small">
        <TableHead>
          <TableRow>
            <TableCell>Response</TableCell>
            <TableCell>Payer</TableCell>
            <TableCell align="right">Amount</TableCell>
            <TableCell>State</TableCell>
            <TableCell>Asked for</TableCell>
            <TableCell align="right">Money back</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {payments.map((payment) => (
            <OnePayment key={payment.number} payment={payment} />
          ))}
        </TableBody>
      </Table>
    </Box>
  );
}

function OnePayment({ payment }: { payment: PaymentReply }) {
  const { reply } = useBench();
  const who = useSignedIn();
  const [asked, setAsked] = useState(false);
  const { number, state, reason, card } = payment;
  return (
    <>
      <TableRow>
        <TableCell>
          <Link to={`/forms/${reply.id}/responses/${number}`}>{number}</Link>
        </TableCell>
        <TableCell>{payment.payer}</TableCell>
        <TableCell align="right" sx={{ fontVariantNumeric: "tabular-nums" }}>
          {payment.amount}
          {payment.refunded && <> (−{payment.refunded})</>}
        </TableCell>
        <TableCell>
          {IN_WORDS[state]}
          {card && ` · ${card}`}
          {state === "due" && reason && ` · ${reason}`}
        </TableCell>
        <TableCell>{asDayAndTime(payment.created_at)}</TableCell>
        <TableCell align="right">
          {payment.left && who.role === "owner" && (
            <Button
              aria-expanded={asked}
              aria-label={`Give back of payment ${number}`}
              onClick={() => setAsked(!asked)}
            >
              Give back
            </Button>
          )}
        </TableCell>
      </TableRow>
      {asked && <GiveBack payment={payment} onDone={() => setAsked(false)} />}
    </>
  );
}

/** How much is given back; a second press is what does it. */
function GiveBack({ payment, onDone }: { payment: PaymentReply; onDone: () => void }) {
  const { reply, form } = useBench();
  const queryClient = useQueryClient();
  const [amount, setAmount] = useState(payment.left);
  const [sure, setSure] = useState(false);
  const refund = useMutation({
    mutationFn: () => api.refund(reply.id, payment.number, amount.trim().replace(",", ".")),
    onSettled: () => {
      setSure(false);
      void queryClient.invalidateQueries({ queryKey: ["payments", reply.id] });
    },
  });
  return (
    <TableRow>
      <TableCell colSpan={6}>
        <Box
          role="group"
          aria-label={`Give back of payment ${payment.number}`}
          sx={{ display: "flex", gap: 1, alignItems: "start" }}
        >
          <TextField
            label={`How much, in ${form.currency}`}
            value={amount}
            helperText={`At most ${payment.left}`}
            slotProps={{ htmlInput: { inputMode: "decimal" } }}
            onChange={(event) => {
              setAmount(event.target.value);
              setSure(false);
            }}
          />
          {sure ? (
            <Button color="error" variant="contained" loading={refund.isPending} onClick={() => refund.mutate()}>
              Yes, give {amount} {form.currency} back to {payment.payer || "the payer"}
            </Button>
          ) : (
            <Button variant="outlined" onClick={() => setSure(true)}>
              Give it back …
            </Button>
          )}
          <Button color="inherit" onClick={onDone}>
            Close
          </Button>
        </Box>
        {refund.data && <Alert severity="success">{refund.data.told}</Alert>}
        {refund.error && <Alert severity="error">{refund.error.message}</Alert>}
      </TableCell>
    </TableRow>
  );
}
