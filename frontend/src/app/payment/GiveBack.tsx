// Money given back: how much; a second press is what does it.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api } from "../../api/client";
import type { PaymentReply } from "../../api/generated/wire";

interface Props {
  payment: PaymentReply;
  /** What it is called: "payment 7". */
  name: string;
  onDone: () => void;
}

export function GiveBack({ payment, name, onDone }: Props) {
  const queryClient = useQueryClient();
  const [amount, setAmount] = useState(payment.left);
  const [sure, setSure] = useState(false);
  const refund = useMutation({
    mutationFn: () => api.refund(payment.form, payment.number, payment.turn, amount.trim().replace(",", ".")),
    onSettled: () => {
      setSure(false);
      void queryClient.invalidateQueries({ queryKey: ["payments"] });
    },
  });
  return (
    <>
      <Box role="group" aria-label={`Give back of ${name}`} sx={{ display: "flex", gap: 1, alignItems: "start" }}>
        <TextField
          label={`How much, in ${payment.currency}`}
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
            Yes, give {amount} {payment.currency} back to {payment.payer || "the payer"}
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
    </>
  );
}
