// Before somebody is taken out of a team, or leaves: what hangs on them, and who takes it over.
import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import FormControlLabel from "@mui/material/FormControlLabel";
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
  const [bring, setBring] = useState(true);
  const [stayed, setStayed] = useState<readonly string[]>([]);
  const takeOut = useMutation({
    mutationFn: () => api.takeOut(person.id, successor || null, bring),
    onSuccess: async ({ stayed: kept }) => {
      await queryClient.invalidateQueries({ queryKey: queries.team().queryKey });
      if (kept.length > 0) return setStayed(kept);
      onClose();
      if (isYou) await queryClient.invalidateQueries({ queryKey: queries.session().queryKey });
    },
  });
  const { forms = [], in_hand = 0, waiting = 0, desk = [] } = found.data ?? {};
  const hangs = forms.length > 0 || in_hand > 0 || waiting > 0;
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
                waiting > 0 && `${counted(waiting, "decision or task", "decisions and tasks")} that wait for them.`,
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
        {!isYou && desk.length > 0 && stayed.length === 0 && (
          <FormControlLabel
            control={<Checkbox checked={bring} onChange={(_event, on) => setBring(on)} />}
            label={`Bring the forms of their own desk to the team: ${desk.map(({ name }) => name).join(", ")}`}
          />
        )}
        {stayed.length > 0 && (
          <Alert severity="warning" role="status">
            {person.name} is out. Not brought, since they need something of that desk: {stayed.join(", ")}.
          </Alert>
        )}
        {takeOut.isError && <Alert severity="error">{reasonOf(takeOut.error)}</Alert>}
      </DialogContent>
      <DialogActions>
        <Button color="inherit" onClick={onClose}>
          {stayed.length > 0 ? "Close" : isYou ? "Stay" : "Keep them"}
        </Button>
        <Button
          variant="contained"
          color="error"
          disabled={!found.data || stayed.length > 0}
          loading={takeOut.isPending}
          onClick={() => takeOut.mutate()}
        >
          {isYou ? "Leave" : "Take out"}
        </Button>
      </DialogActions>
    </Dialog>
  );
}
