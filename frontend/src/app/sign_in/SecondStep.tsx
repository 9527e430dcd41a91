// After the password: the code of an app, one for recovery, or a passkey.
import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, reasonOf } from "../../api/client";
import type { SignedInReply } from "../../api/generated/wire";
import { mayUsePasskeys } from "../account/passkeys";
import { Frame } from "./Frame";
import { PasskeyButton } from "./PasskeyButton";

interface Props {
  onSignedIn: (who: SignedInReply) => void;
  onBack: () => void;
}

export function SecondStep({ onSignedIn, onBack }: Props) {
  const [code, setCode] = useState("");
  const go = useMutation({ mutationFn: () => api.signInByCode(code), onSuccess: onSignedIn });
  return (
    <Frame onSubmit={() => go.mutate()}>
      <Typography variant="h1">One thing more</Typography>
      <Typography color="text.secondary">
        Type the code that your app shows, or one of your codes for recovery.
      </Typography>
      {go.isError && <Alert severity="error">{reasonOf(go.error)}</Alert>}
      <TextField
        label="Code"
        required
        autoFocus
        autoComplete="one-time-code"
        value={code}
        onChange={(event) => setCode(event.target.value)}
        slotProps={{ htmlInput: { maxLength: 40 } }}
      />
      <Button type="submit" variant="contained" size="medium" loading={go.isPending}>
        Sign in
      </Button>
      {mayUsePasskeys() && <PasskeyButton onSignedIn={onSignedIn} />}
      <Button color="inherit" onClick={onBack}>
        Back to signing in
      </Button>
    </Frame>
  );
}
