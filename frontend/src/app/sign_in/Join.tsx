// What an invitation in a mail leads to: somebody new makes an account, who is known joins with what they have.
import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useLocation, useNavigate } from "react-router";
import { api, reasonOf } from "../../api/client";
import { queries } from "../../api/queries";
import { NameField } from "../../ui/NameField";
import { PasswordField } from "../../ui/PasswordField";
import { Waiting } from "../Waiting";
import { Frame } from "./Frame";

export function Join() {
  const token = useLocation().hash.slice(1);
  const queryClient = useQueryClient();
  const navigate = useNavigate();
  const invitation = useQuery({
    queryKey: ["invitation", token],
    queryFn: () => api.lookAtInvitation(token),
    retry: false,
    staleTime: Infinity,
  });
  const [name, setName] = useState("");
  const [password, setPassword] = useState("");
  const join = useMutation({
    mutationFn: () => api.join(token, name.trim(), password),
    onSuccess: async (who) => {
      queryClient.setQueryData(queries.session().queryKey, who);
      queryClient.removeQueries({ predicate: (query) => query.queryKey[0] !== "session" });
      await navigate("/");
    },
  });
  const found = invitation.data;
  const isNew = found !== undefined && !found.known;
  return (
    <Frame onSubmit={() => join.mutate()}>
      <Typography variant="h1">{found ? `Join ${found.team_name}` : "An invitation"}</Typography>
      {invitation.isPending && <Waiting />}
      {invitation.isError && <Alert severity="error">{reasonOf(invitation.error)}</Alert>}
      {found && (
        <>
          <Typography>
            {found.invited_by ?? "Somebody"} invites you to work with its forms as <b>{found.role}</b>. You sign in as{" "}
            <b>{found.email}</b>.
          </Typography>
          {join.isError && <Alert severity="error">{reasonOf(join.error)}</Alert>}
          {isNew && <NameField value={name} onChange={setName} />}
          {!found.signed_in && (
            <PasswordField
              fresh={isNew}
              label={isNew ? "Choose a password" : "Your password"}
              value={password}
              onChange={setPassword}
            />
          )}
          <Button type="submit" variant="contained" size="medium" loading={join.isPending}>
            Join the team
          </Button>
        </>
      )}
      <Button component={Link} to="/sign-in" color="inherit">
        To signing in
      </Button>
    </Frame>
  );
}
