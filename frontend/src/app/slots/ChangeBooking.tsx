// Moves a booking to another slot, or cancels it; what visitors are told then is what the form's follow-ups say.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api } from "../../api/client";
import { useBench } from "../workbench/bench";
import type { Day } from "./slots";

interface Props {
  number: number;
  /** From which day on other slots are offered. */
  since: Day;
  onDone: () => void;
}

export function ChangeBooking({ number, since, onDone }: Props) {
  const { reply, form } = useBench();
  const queryClient = useQueryClient();
  const [address, setAddress] = useState("");
  const [code, setCode] = useState("");
  const [because, setBecause] = useState("");
  const [sure, setSure] = useState(false);
  const known = useQuery({
    queryKey: ["booking", reply.id, number, address, since],
    queryFn: () => api.booking(reply.id, number, { address, since }),
  });
  const settled = () => {
    void queryClient.invalidateQueries({ queryKey: ["bookings", reply.id] });
    void queryClient.invalidateQueries({ queryKey: ["booking", reply.id] });
  };
  const move = useMutation({
    mutationFn: () => api.moveBooking(reply.id, number, address, code),
    onSuccess: onDone,
    onSettled: settled,
  });
  const cancel = useMutation({
    mutationFn: () => api.cancelBooking(reply.id, number, because),
    onSuccess: onDone,
    onSettled: settled,
  });
  const slots = known.data?.slots ?? [];
  const first = slots[0]?.address ?? "";
  if (slots.length > 0 && !address) setAddress(first);
  const told = (moment: string) => form.follow_ups.some((each) => each.active && each.on === moment);
  const error = known.error ?? move.error ?? cancel.error;
  return (
    <Box sx={{ display: "grid", gap: 1.5, py: 1, maxWidth: 760 }}>
      {error && <Alert severity="error">{error.message}</Alert>}
      {slots.length > 1 && (
        <TextField select label="Which" value={address} onChange={(event) => setAddress(event.target.value)}>
          {slots.map((each) => (
            <MenuItem key={each.address} value={each.address}>
              {each.told}
            </MenuItem>
          ))}
        </TextField>
      )}
      <Box sx={{ display: "flex", gap: 1, alignItems: "center" }}>
        <TextField
          select
          label="Move to"
          value={code}
          sx={{ flex: 1 }}
          helperText={told("rebooked") ? "The visitor is told by mail." : "No follow-up tells the visitor."}
          onChange={(event) => setCode(event.target.value)}
        >
          {(known.data?.free ?? []).map((each) => (
            <MenuItem key={each.code} value={each.code}>
              {each.told} · {each.left} left
            </MenuItem>
          ))}
        </TextField>
        <Button variant="contained" disabled={!code} loading={move.isPending} onClick={() => move.mutate()}>
          Move
        </Button>
      </Box>
      <Box sx={{ display: "flex", gap: 1, alignItems: "center" }}>
        <TextField
          label="Cancel, because"
          value={because}
          sx={{ flex: 1 }}
          helperText={told("cancelled") ? "The visitor is told by mail." : "No follow-up tells the visitor."}
          onChange={(event) => setBecause(event.target.value.slice(0, 500))}
        />
        <Button color="error" loading={cancel.isPending} onClick={() => (sure ? cancel.mutate() : setSure(true))}>
          {sure ? "Cancel it for good" : "Cancel it"}
        </Button>
      </Box>
    </Box>
  );
}
