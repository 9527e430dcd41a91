// Before somebody is taken out of a team, or leaves: what hangs on them, and who takes it over.
import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, reasonOf } from "../../api/client";
import type { TeammateReply, TeamReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { counted } from "../../text/words";
import { useSignedIn } from "../signed_in";
import { Waiting } from "../Waiting";

interface Props {
  person: TeammateReply;
  team: TeamReply;
  onClose: () => void;
}

export function TakeOut({ person, team, onClose }: Props) {
  const who = useSignedIn();
  const queryClient = useQueryClient();
  const isYou = person.id === who.person_id;
  const found = useQuery({ ...queries.hanging(person.id), staleTime: 0 });
  const [successor, setSuccessor] = useState("");
  const takeOut = useMutation({
    mutationFn: () => api.takeOut(person.id, successor || null),
    onSuccess: async () => {
      await queryClient.invalidateQueries({ queryKey: queries.team().queryKey });
      onClose();
      if (isYou) await queryClient.invalidateQueries({ queryKey: queries.session().queryKey });
    },
  });
  const { forms = [], in_hand = 0 } = found.data ?? {};
  const hangs = forms.length > 0 || in_hand > 0;
  return (
    <Dialog open onClose={onClose} aria-labelledby="take-out" fullWidth maxWidth="xs">
      <DialogTitle id="take-out">{isYou ? "Leave the team?" : `Take ${person.name} out?`}</DialogTitle>
      <DialogContent sx={{ display: "grid", gap: 1.5 }}>
        <Typography>
          {isYou ? "You lose" : `${person.name} loses`} every right here at once, in open windows too. What{" "}
          {isYou ? "you" : "they"} did keeps {isYou ? "your" : "their"} name.
        </Typography>
        {found.isPending && <Waiting />}
        {found.isError && <Alert severity="error">{reasonOf(found.error)}</Alert>}
        {hangs && (
          <>
            <Typography>
              {[
                forms.length > 0 && `Mail goes to them from ${forms.map(({ name }) => name).join(", ")}.`,
                in_hand > 0 && `${counted(in_hand, "response")} in their hands.`,
              ]
                .filter(Boolean)
                .join(" ")}
            </Typography>
            <TextField
              select
              label="Who takes that over"
              value={successor}
              slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
              onChange={(event) => setSuccessor(event.target.value)}
            >
              <MenuItem value="">nobody: such mail goes to no one</MenuItem>
              {team.people
                .filter(({ id }) => id !== person.id)
                .map(({ id, name }) => (
                  <MenuItem key={id} value={id}>
                    {name}
                  </MenuItem>
                ))}
            </TextField>
          </>
        )}
        {takeOut.isError && <Alert severity="error">{reasonOf(takeOut.error)}</Alert>}
      </DialogContent>
      <DialogActions>
        <Button color="inherit" onClick={onClose}>
          {isYou ? "Stay" : "Keep them"}
        </Button>
        <Button
          variant="contained"
          color="error"
          disabled={!found.data}
          loading={takeOut.isPending}
          onClick={() => takeOut.mutate()}
        >
          {isYou ? "Leave" : "Take out"}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
