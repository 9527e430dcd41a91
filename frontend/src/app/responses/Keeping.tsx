// How long a form's responses are kept, and what becomes of them then.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, reasonOf } from "../../api/client";
import type { Retention } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { counted } from "../../text/words";
import { PopoverButton } from "../../ui/PopoverButton";
import { mayEdit, useSignedIn } from "../signed_in";

const FOR_EVER: Retention = { days: null, does: "anonymise" };

export function Keeping({ formId }: { formId: string }) {
  const who = useSignedIn();
  const found = useQuery(queries.retention(formId));
  if (!mayEdit(who) || !found.data) return null;
  const { days } = found.data;
  return (
    <PopoverButton
      variant="outlined"
      color="inherit"
      label={days ? `Kept ${counted(days, "day")} …` : "Kept for ever …"}
      name="How long responses are kept"
      width={340}
      room={2}
    >
      {(close) => <Choice formId={formId} now={found.data} onDone={close} />}
    </PopoverButton>
  );
}

interface Props {
  formId: string;
  now: Retention;
  onDone: () => void;
}

function Choice({ formId, now, onDone }: Props) {
  const [days, setDays] = useState(now.days ? String(now.days) : "");
  const [does, setDoes] = useState(now.does ?? "anonymise");
  const queryClient = useQueryClient();
  const save = useMutation({
    mutationFn: () => api.setRetention(formId, days.trim() ? { days: Number(days), does } : FOR_EVER),
    onSuccess: async () => {
      await queryClient.invalidateQueries({ queryKey: queries.retention(formId).queryKey });
      onDone();
    },
  });
  const wrong = days.trim() !== "" && !(/^\d+$/.test(days.trim()) && Number(days) >= 1 && Number(days) <= 36_500);
  return (
    <Box
      component="form"
      sx={{ display: "grid", gap: 1.5 }}
      onSubmit={(event) => {
        event.preventDefault();
        if (!wrong) save.mutate();
      }}
    >
      <TextField
        autoFocus
        label="Days that a response is kept"
        placeholder="For as long as you want"
        value={days}
        error={wrong}
        helperText={wrong ? "Type a whole number of days up to 36500, or nothing." : "Nothing typed: for ever."}
        onChange={(event) => setDays(event.target.value)}
      />
      <TextField
        select
        label="Then it is"
        value={does}
        onChange={(event) => setDoes(event.target.value as NonNullable<Retention["does"]>)}
      >
        <MenuItem value="anonymise">Anonymised: what is counted stays</MenuItem>
        <MenuItem value="remove">Removed, and 30 days later gone for ever</MenuItem>
      </TextField>
      <Typography variant="body2" color="text.secondary">
        Each night. What waits for money, or is paid by a plan that runs, stays.
      </Typography>
      <Box sx={{ display: "flex", gap: 1 }}>
        <Button type="submit" variant="contained" loading={save.isPending} disabled={wrong}>
          Keep them so
        </Button>
        <Button color="inherit" onClick={onDone}>
          Leave it
        </Button>
      </Box>
      {save.isError && <Box role="alert">{reasonOf(save.error)}</Box>}
    </Box>
  );
}
