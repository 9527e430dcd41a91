// Signing in with a passkey: alone, or after the password.
import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import { useMutation } from "@tanstack/react-query";
import { api, reasonOf } from "../../api/client";
import type { SignedInReply } from "../../api/generated/wire";
import { showPasskey } from "../account/passkeys";

export function PasskeyButton({ onSignedIn }: { onSignedIn: (who: SignedInReply) => void }) {
  const go = useMutation({
    mutationFn: async () => {
      const { options } = await api.askPasskey();
      return api.signInByPasskey(await showPasskey(options));
    },
    onSuccess: onSignedIn,
  });
  return (
    <>
      {go.isError && (
        <Alert severity="error">
          {go.error instanceof DOMException ? "The browser has shown none. Try another way." : reasonOf(go.error)}
        </Alert>
      )}
      <Button variant="outlined" loading={go.isPending} onClick={() => go.mutate()}>
        Use a passkey
      </Button>
    </>
  );
}
