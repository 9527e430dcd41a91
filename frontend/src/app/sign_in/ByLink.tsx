// What links in mails lead to: choosing a new password, and confirming a new address. The link's secret stands behind
// the # of the address, so that no server and no log gets it with the page.
import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { Link, useLocation } from "react-router";
import { api } from "../../api/client";
import { PasswordField } from "../../ui/PasswordField";
import { Frame } from "./Frame";

const useToken = (): string => useLocation().hash.slice(1);

const ToSignIn = () => (
  <Button component={Link} to="/sign-in" color="inherit">
    To signing in
  </Button>
);

export function NewPassword() {
  const token = useToken();
  const [password, setPassword] = useState("");
  const set = useMutation({ mutationFn: () => api.setPasswordByLink(token, password) });
  return (
    <Frame onSubmit={() => set.mutate()}>
      <Typography variant="h1">Choose a new password</Typography>
      {set.isError && <Alert severity="error">{set.error.message}</Alert>}
      {set.isSuccess ? (
        <Alert severity="success">Your password was changed. Sign in with the new one.</Alert>
      ) : (
        <>
          <PasswordField fresh label="New password" value={password} onChange={setPassword} />
          <Button type="submit" variant="contained" size="medium" loading={set.isPending}>
            Set the password
          </Button>
        </>
      )}
      <ToSignIn />
    </Frame>
  );
}

export function NewAddress() {
  const token = useToken();
  const confirm = useMutation({ mutationFn: () => api.confirmAddress(token) });
  return (
    <Frame onSubmit={() => confirm.mutate()}>
      <Typography variant="h1">Confirm a new address</Typography>
      {confirm.isError && <Alert severity="error">{confirm.error.message}</Alert>}
      {confirm.data ? (
        <Alert severity="success">
          {confirm.data.changed
            ? `Done: you sign in as ${confirm.data.email} from now on.`
            : `Confirmed here. Now confirm it at ${confirm.data.waits_for} too; then it is changed.`}
        </Alert>
      ) : (
        <Button type="submit" variant="contained" size="medium" loading={confirm.isPending}>
          Confirm
        </Button>
      )}
      <ToSignIn />
    </Frame>
  );
}
