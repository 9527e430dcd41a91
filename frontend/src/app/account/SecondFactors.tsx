// What is shown beside the password: an app's codes, passkeys, and the codes for recovery.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, reasonOf } from "../../api/client";
import type { BegunCodesReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { asDayAndTime } from "../../text/words";
import { MONO } from "../../theme/theme";
import { CopyField } from "../../ui/CopyField";
import { PasswordField } from "../../ui/PasswordField";
import { makePasskey, mayUsePasskeys } from "./passkeys";

const KINDS = { codes: "codes of an app", passkey: "a passkey" } as const;

type Wanted = { does: "codes" | "passkey" | "recovery" } | { does: "away"; factor: string; name: string };

export function SecondFactors() {
  const queryClient = useQueryClient();
  const found = useQuery(queries.factors());
  const [wanted, setWanted] = useState<Wanted | null>(null);
  const [begun, setBegun] = useState<BegunCodesReply | null>(null);
  const [recovery, setRecovery] = useState<readonly string[] | null>(null);
  const refresh = () => queryClient.invalidateQueries({ queryKey: queries.factors().queryKey });
  const done = async (codes: readonly string[] | null) => {
    setWanted(null);
    setBegun(null);
    if (codes) setRecovery(codes);
    await refresh();
  };
  const factors = found.data?.factors ?? [];
  return (
    <Box component="section" aria-labelledby="second-factors" sx={{ maxWidth: 480, display: "grid", gap: 1.5 }}>
      <Typography variant="h2" id="second-factors">
        Second factor
      </Typography>
      {found.isError && <Alert severity="error">{reasonOf(found.error)}</Alert>}
      {found.data && factors.length === 0 && (
        <Typography color="text.secondary">
          You sign in with your password alone. With a second factor it is not enough that somebody knows it.
        </Typography>
      )}
      <Box component="ul" sx={{ m: 0, p: 0, listStyle: "none" }}>
        {factors.map(({ id, kind, name, made_at }) => (
          <Box
            component="li"
            key={id}
            sx={{ display: "flex", gap: 2, alignItems: "center", py: 1, borderBottom: 1, borderColor: "divider" }}
          >
            <Box sx={{ flex: 1 }}>
              <Typography sx={{ fontWeight: 600 }}>{name}</Typography>
              <Typography variant="body2" color="text.secondary">
                {KINDS[kind]}, since {asDayAndTime(made_at)}
              </Typography>
            </Box>
            <Button
              color="inherit"
              aria-label={`Take away: ${name}`}
              onClick={() => setWanted({ does: "away", factor: id, name })}
            >
              Take away …
            </Button>
          </Box>
        ))}
      </Box>
      {recovery && <Recovery codes={recovery} onDone={() => setRecovery(null)} />}
      {begun && <Confirm begun={begun} onDone={(codes) => void done(codes)} />}
      {wanted && (
        <WithPassword
          key={JSON.stringify(wanted)}
          wanted={wanted}
          onBegun={setBegun}
          onDone={(codes) => void done(codes)}
          onClose={() => setWanted(null)}
        />
      )}
      {!wanted && !begun && (
        <Box sx={{ display: "flex", flexWrap: "wrap", gap: 1 }}>
          <Button variant="outlined" onClick={() => setWanted({ does: "codes" })}>
            Add an app’s codes
          </Button>
          <Button
            variant="outlined"
            disabled={!mayUsePasskeys()}
            title={mayUsePasskeys() ? "" : "This browser, or an address of numbers, can have no passkeys"}
            onClick={() => setWanted({ does: "passkey" })}
          >
            Add a passkey
          </Button>
          {factors.length > 0 && (
            <Button color="inherit" onClick={() => setWanted({ does: "recovery" })}>
              New codes for recovery ({found.data!.codes_left} left)
            </Button>
          )}
        </Box>
      )}
    </Box>
  );
}

const TITLES = {
  codes: "Add an app’s codes",
  passkey: "Add a passkey",
  recovery: "Make new codes for recovery",
  away: "Take it away",
} as const;
const LEADS = {
  codes: "Any app that makes codes by time will do.",
  passkey: "It is kept by this device, or by a key that you plug in.",
  recovery: "Those that you have work no more then.",
  away: "With the last one your password alone is enough again.",
} as const;

interface WithPasswordProps {
  wanted: Wanted;
  onBegun: (begun: BegunCodesReply) => void;
  onDone: (codes: readonly string[] | null) => void;
  onClose: () => void;
}

function WithPassword({ wanted, onBegun, onDone, onClose }: WithPasswordProps) {
  const [password, setPassword] = useState("");
  const [name, setName] = useState("");
  const isNamed = wanted.does === "codes" || wanted.does === "passkey";
  const go = useMutation({
    mutationFn: async () => {
      if (wanted.does === "codes") return onBegun(await api.beginCodes(password, name));
      if (wanted.does === "recovery") return onDone((await api.newRecoveryCodes(password)).codes);
      if (wanted.does === "away") {
        await api.takeFactorAway(wanted.factor, password);
        return onDone(null);
      }
      const { options } = await api.beginPasskey(password);
      return onDone((await api.keepPasskey(await makePasskey(options), name)).codes);
    },
    onSuccess: () => (wanted.does === "codes" ? onClose() : undefined),
  });
  return (
    <Box
      component="form"
      aria-label={TITLES[wanted.does]}
      onSubmit={(event) => {
        event.preventDefault();
        go.mutate();
      }}
      sx={{ display: "grid", gap: 1.5, p: 2, border: 1, borderColor: "divider", bgcolor: "background.paper" }}
    >
      <Typography color="text.secondary">
        {wanted.does === "away" ? `${wanted.name}: ${LEADS.away.toLowerCase()}` : LEADS[wanted.does]}
      </Typography>
      {go.isError && (
        <Alert severity="error">
          {go.error instanceof DOMException ? "The browser made none. Try it again." : reasonOf(go.error)}
        </Alert>
      )}
      {isNamed && (
        <TextField
          label="What you call it"
          placeholder={wanted.does === "codes" ? "Phone" : "Laptop"}
          value={name}
          onChange={(event) => setName(event.target.value)}
          slotProps={{ htmlInput: { maxLength: 60 } }}
        />
      )}
      <PasswordField label="Your password" value={password} onChange={setPassword} />
      <Box sx={{ display: "flex", gap: 1 }}>
        <Button type="submit" variant="contained" disabled={!password} loading={go.isPending}>
          {TITLES[wanted.does]}
        </Button>
        <Button color="inherit" onClick={onClose}>
          Leave it
        </Button>
      </Box>
    </Box>
  );
}

function Confirm({ begun, onDone }: { begun: BegunCodesReply; onDone: (codes: readonly string[] | null) => void }) {
  const [code, setCode] = useState("");
  const confirm = useMutation({
    mutationFn: () => api.confirmCodes(begun.id, code),
    onSuccess: ({ codes }) => onDone(codes),
  });
  return (
    <Box
      component="form"
      aria-label="Confirm the codes"
      onSubmit={(event) => {
        event.preventDefault();
        confirm.mutate();
      }}
      sx={{ display: "grid", gap: 1.5, p: 2, border: 1, borderColor: "divider", bgcolor: "background.paper" }}
    >
      <Typography>Have the app read this picture, or type the secret; then type the code that it shows.</Typography>
      <Box component="img" src={begun.picture} alt="The secret as a QR code" sx={{ width: 180, bgcolor: "#fff" }} />
      <CopyField label="the secret" text={begun.secret} />
      {confirm.isError && <Alert severity="error">{reasonOf(confirm.error)}</Alert>}
      <TextField
        label="Code"
        value={code}
        autoComplete="one-time-code"
        onChange={(event) => setCode(event.target.value)}
        slotProps={{ htmlInput: { inputMode: "numeric", maxLength: 10 } }}
      />
      <Box>
        <Button type="submit" variant="contained" disabled={!code.trim()} loading={confirm.isPending}>
          Confirm
        </Button>
      </Box>
    </Box>
  );
}

function Recovery({ codes, onDone }: { codes: readonly string[]; onDone: () => void }) {
  return (
    <Alert severity="success" onClose={onDone} sx={{ "& .MuiAlert-message": { width: "100%" } }}>
      <Typography>
        Keep these where you find them without this device. Each signs you in once, beside your password. They are shown
        this once.
      </Typography>
      <Box
        component="ul"
        aria-label="Codes for recovery"
        sx={{ columns: 2, pl: 0, my: 1, listStyle: "none", fontFamily: MONO }}
      >
        {codes.map((code) => (
          <li key={code}>{code}</li>
        ))}
      </Box>
      <Button color="inherit" onClick={() => void navigator.clipboard.writeText(codes.join("\n"))}>
        Copy them
      </Button>
    </Alert>
  );
}
