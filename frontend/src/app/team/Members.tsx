// The members of the team: those who fill in and have an account; what is known of them is a table.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link, useNavigate } from "react-router";
import { api, reasonOf } from "../../api/client";
import { queries } from "../../api/queries";
import { counted } from "../../text/words";
import { CopyField } from "../../ui/CopyField";
import { Single } from "../Single";
import { mayEdit, useSignedIn } from "../signed_in";
import { Waiting } from "../Waiting";
import { TeamPlaces } from "./TeamPlaces";

export function Members() {
  const who = useSignedIn();
  const found = useQuery(queries.roll());
  const queryClient = useQueryClient();
  const navigate = useNavigate();
  const begin = useMutation({
    mutationFn: api.beginRoll,
    onSuccess: async ({ table }) => {
      await queryClient.invalidateQueries({ queryKey: queries.roll().queryKey });
      await navigate(`/tables/${table}`);
    },
  });
  const roll = found.data;
  return (
    <Single title={`Members of ${who.team_name}`}>
      <TeamPlaces />
      <Typography color="text.secondary" sx={{ maxWidth: 720 }}>
        Members fill in forms and have an account: an e-mail, a name, groups, and whatever else you know of them. They
        sign in with a password or by a mail, on a page of their own, and can do nothing here.
      </Typography>
      {found.isPending && <Waiting />}
      {(found.isError || begin.isError) && <Alert severity="error">{reasonOf((found.error ?? begin.error)!)}</Alert>}
      {roll?.table && (
        <Box sx={{ mt: 3, display: "grid", gap: 2, maxWidth: 720 }}>
          <Typography>
            <b>{counted(roll.members, "member")}</b>, of whom {roll.confirmed} have signed in by their mail
            {roll.invited > 0 && ` and ${roll.invited} are invited`}.
          </Typography>
          <Box sx={{ display: "flex", gap: 1 }}>
            <Button component={Link} to={`/tables/${roll.table}`} variant="contained">
              Open the table
            </Button>
          </Box>
          <Typography color="text.secondary">
            There they are typed, brought in from CSV, given further columns, and invited by mail.
          </Typography>
          <CopyField label="the page where they sign in" text={roll.page} />
        </Box>
      )}
      {roll && !roll.table && (
        <Box sx={{ mt: 3, display: "grid", gap: 2, justifyItems: "start" }}>
          <Typography>There are no members yet.</Typography>
          {mayEdit(who) && (
            <Button variant="contained" loading={begin.isPending} onClick={() => begin.mutate()}>
              Begin with members
            </Button>
          )}
        </Box>
      )}
    </Single>
  );
}
