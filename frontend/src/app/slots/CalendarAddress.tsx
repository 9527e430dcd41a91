// The secret address at which a form's bookings are a calendar: made, changed for another, and taken away.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api } from "../../api/client";
import { CopyField } from "../../ui/CopyField";
import { PopoverButton } from "../../ui/PopoverButton";
import { useBench } from "../workbench/bench";

export function CalendarAddress() {
  return (
    <PopoverButton label="Calendar" name="Bookings as a calendar" width={460} room={2}>
      {() => <Address />}
    </PopoverButton>
  );
}

function Address() {
  const { reply, mayEdit } = useBench();
  const queryClient = useQueryClient();
  const key = ["calendar address", reply.id];
  const found = useQuery({ queryKey: key, queryFn: () => api.calendarAddress(reply.id) });
  const change = useMutation({
    mutationFn: (open: boolean) => api.changeCalendar(reply.id, open),
    onSuccess: (changed) => queryClient.setQueryData(key, changed),
  });
  const address = found.data?.address ?? "";
  const error = found.error ?? change.error;
  return (
    <Box sx={{ display: "grid", gap: 1.5 }}>
      <Typography>
        Any calendar program can subscribe to this address and shows what is booked, without anybody’s name. Whoever has
        it sees that.
      </Typography>
      {error && <Alert severity="error">{error.message}</Alert>}
      {address && <CopyField label="Address" text={address} />}
      {mayEdit && (
        <Box sx={{ display: "flex", gap: 1 }}>
          <Button variant="outlined" loading={change.isPending} onClick={() => change.mutate(true)}>
            {address ? "Another address" : "Make an address"}
          </Button>
          {address && (
            <Button color="error" onClick={() => change.mutate(false)}>
              Take it away
            </Button>
          )}
        </Box>
      )}
    </Box>
  );
}
