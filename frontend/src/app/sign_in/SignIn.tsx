// Signing in; and for who has forgotten the password, asking for a link by mail.
import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api } from "../../api/client";
import type { SignedInReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { PasswordField } from "../../ui/PasswordField";
import { mayUsePasskeys } from "../account/passkeys";
import { Frame } from "./Frame";
import { PasskeyButton } from "./PasskeyButton";
import { SecondStep } from "./SecondStep";

export function SignIn() {
  const [email, setEmail] = useState("");
  const [forgotten, setForgotten] = useState(false);
  return forgotten ? (
    <Forgotten email={email} setEmail={setEmail} onBack={() => setForgotten(false)} />
  ) : (
    <WithPassword email={email} setEmail={setEmail} onForgotten={() => setForgotten(true)} />
  );
}

interface EmailProps {
  email: string;
  setEmail: (email: string) => void;
}

const EmailField = ({ email, setEmail }: EmailProps) => (
  <TextField
    label="E-mail"
    type="email"
    autoComplete="username"
    required
    autoFocus
    value={email}
    onChange={(event) => setEmail(event.target.value)}
  />
);

function WithPassword({ email, setEmail, onForgotten }: EmailProps & { onForgotten: () => void }) {
  const [password, setPassword] = useState("");
  const queryClient = useQueryClient();
  const navigate = useNavigate();
  const [waits, setWaits] = useState(false);
  const enter = async (who: SignedInReply) => {
    queryClient.setQueryData(queries.session().queryKey, who);
    await navigate("/", { replace: true });
  };
  const signIn = useMutation({
    mutationFn: () => api.signIn(email, password),
    onSuccess: (who) => (who ? enter(who) : setWaits(true)),
  });
  if (waits) return <SecondStep onSignedIn={(who) => void enter(who)} onBack={() => setWaits(false)} />;
  return (
    <Frame onSubmit={() => signIn.mutate()}>
      <Typography variant="h1">Sign in to Codexa</Typography>
      {signIn.isError && <Alert severity="error">{signIn.error.message}</Alert>}
      <EmailField email={email} setEmail={setEmail} />
      <PasswordField label="Password" value={password} onChange={setPassword} />
      <Button type="submit" variant="contained" size="medium" loading={signIn.isPending}>
        Sign in
      </Button>
      {mayUsePasskeys() && <PasskeyButton onSignedIn={(who) => void enter(who)} />}
      <Button color="inherit" onClick={onForgotten}>
        I have forgotten my password
      </Button>
    </Frame>
  );
}

function Forgotten({ email, setEmail, onBack }: EmailProps & { onBack: () => void }) {
  const ask = useMutation({ mutationFn: () => api.askForLink(email) });
  return (
    <Frame onSubmit={() => ask.mutate()}>
      <Typography variant="h1">A new password</Typography>
      {ask.isError && <Alert severity="error">{ask.error.message}</Alert>}
      {ask.isSuccess ? (
        <Alert severity="success">
          If somebody signs in as {email}, a link is on its way there. It works once, within an hour.
        </Alert>
      ) : (
        <>
          <Typography color="text.secondary">We send a link to the address that you sign in with.</Typography>
          <EmailField email={email} setEmail={setEmail} />
          <Button type="submit" variant="contained" size="medium" loading={ask.isPending}>
            Send the link
          </Button>
        </>
      )}
      <Button color="inherit" onClick={onBack}>
        Back to signing in
      </Button>
    </Frame>
  );
}
