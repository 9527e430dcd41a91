// Moving a form to another of one's teams: where to, and what keeps it here, told before.
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
import { queries } from "../../api/queries";
import { useSignedIn } from "../signed_in";

const MAKERS: readonly string[] = ["owner", "editor"];

interface Props {
  form: { id: string; name: string };
  onClose: () => void;
}

export function MoveForm({ form, onClose }: Props) {
  const who = useSignedIn();
  const queryClient = useQueryClient();
  const teams = useQuery(queries.teams()).data?.teams ?? [];
  const others = teams.filter(({ id, role }) => id !== who.team_id && MAKERS.includes(role));
  const [chosen, setChosen] = useState("");
  const team = chosen || (others.length === 1 ? others[0]!.id : "");
  const found = useQuery({ ...queries.hindrances(form.id, team), enabled: team !== "", staleTime: 0 });
  const move = useMutation({
    mutationFn: () => api.moveForm(form.id, team),
    onSuccess: async () => {
      await queryClient.invalidateQueries({ queryKey: queries.forms().queryKey });
      onClose();
    },
  });
  const hindrances = found.data?.hindrances ?? [];
  return (
    <Dialog open onClose={onClose} aria-labelledby="move-form" fullWidth maxWidth="xs">
      <DialogTitle id="move-form">Move {form.name}</DialogTitle>
      <DialogContent sx={{ display: "grid", gap: 1.5 }}>
        <Typography>
          Its link and embeds lead to it as before; its responses, mails and statistics go along. Who works with it is
          who is in the other team.
        </Typography>
        {others.length === 0 && <Typography>There is no other team in which you make forms.</Typography>}
        {others.length > 0 && (
          <TextField select label="To" value={team} sx={{ mt: 1 }} onChange={(event) => setChosen(event.target.value)}>
            {others.map(({ id, name }) => (
              <MenuItem key={id} value={id}>
                {name}
              </MenuItem>
            ))}
          </TextField>
        )}
        {hindrances.map((each) => (
          <Alert key={each} severity="warning">
            {each}
          </Alert>
        ))}
        {(found.error ?? move.error) && <Alert severity="error">{reasonOf((found.error ?? move.error)!)}</Alert>}
      </DialogContent>
      <DialogActions>
        <Button color="inherit" onClick={onClose}>
          Leave it here
        </Button>
        <Button
          variant="contained"
          disabled={!found.data || hindrances.length > 0}
          loading={move.isPending}
          onClick={() => move.mutate()}
        >
          Move it
        </Button>
      </DialogActions>
    </Dialog>
  );
}
