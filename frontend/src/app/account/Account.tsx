// One's own account: name, password, address, how often a digest comes, the language of mails, second factor, and where one is signed in.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { type FormEvent, type PropsWithChildren, useState } from "react";
import { api } from "../../api/client";
import { queries } from "../../api/queries";
import { NameField } from "../../ui/NameField";
import { PasswordField } from "../../ui/PasswordField";
import { Single } from "../Single";
import { SecondFactors } from "./SecondFactors";
import { Sessions } from "./Sessions";
import { useSignedIn } from "../signed_in";

export function Account() {
  const who = useSignedIn();
  return (
    <Single title="Your account">
      <Typography sx={{ mb: 3 }}>
        {who.person_name}, {who.role} of {who.team_name}. You sign in as <b>{who.email}</b>.
      </Typography>
      <Box sx={{ display: "grid", gridTemplateColumns: { xs: "1fr", md: "1fr 1fr" }, gap: 4, alignItems: "start" }}>
        <Name />
        <Password />
        <Address />
        <HowOften />
        <Language />
        <SecondFactors />
        <Sessions />
      </Box>
    </Single>
  );
}

function Sheet({ title, onSubmit, children }: PropsWithChildren<{ title: string; onSubmit: () => void }>) {
  return (
    <Box
      component="form"
      aria-label={title}
      onSubmit={(event: FormEvent) => {
        event.preventDefault();
        onSubmit();
      }}
      sx={{ display: "grid", gap: 2, maxWidth: 380 }}
    >
      <Typography variant="h2">{title}</Typography>
      {children}
    </Box>
  );
}

function Name() {
  const who = useSignedIn();
  const queryClient = useQueryClient();
  const [name, setName] = useState(who.person_name);
  const change = useMutation({
    mutationFn: () => api.setName(name.trim()),
    onSuccess: () => queryClient.invalidateQueries({ queryKey: queries.session().queryKey }),
  });
  return (
    <Sheet title="What you are called" onSubmit={() => change.mutate()}>
      {change.isError && <Alert severity="error">{change.error.message}</Alert>}
      <NameField value={name} onChange={setName} />
      <Box>
        <Button type="submit" variant="contained" disabled={!name.trim()} loading={change.isPending}>
          {change.isSuccess && name.trim() === who.person_name ? "Changed" : "Change the name"}
        </Button>
      </Box>
    </Sheet>
  );
}

function Password() {
  const [old, setOld] = useState("");
  const [next, setNext] = useState("");
  const change = useMutation({
    mutationFn: () => api.changePassword(old, next),
    onSuccess: () => {
      setOld("");
      setNext("");
    },
  });
  return (
    <Sheet title="Another password" onSubmit={() => change.mutate()}>
      {change.isError && <Alert severity="error">{change.error.message}</Alert>}
      {change.isSuccess && (
        <Alert severity="success">Changed. Elsewhere you are signed out; a mail tells you of it.</Alert>
      )}
      <PasswordField label="Password now" value={old} onChange={setOld} />
      <PasswordField fresh label="New password" value={next} onChange={setNext} />
      <Box>
        <Button type="submit" variant="contained" loading={change.isPending}>
          Change the password
        </Button>
      </Box>
    </Sheet>
  );
}

const EVERY = { none: "Never", daily: "Each morning", weekly: "Once a week" } as const;

function HowOften() {
  const queryClient = useQueryClient();
  const found = useQuery(queries.digest());
  const set = useMutation({
    mutationFn: api.setDigest,
    onSettled: () => queryClient.invalidateQueries({ queryKey: queries.digest().queryKey }),
  });
  return (
    <Chosen
      title="What came in, by mail"
      label="Told"
      options={EVERY}
      value={found.data?.every}
      error={found.error ?? set.error}
      onChoose={(every) => set.mutate(every as keyof typeof EVERY)}
    >
      New responses of all forms, and what waits for you: held, in your hands, follow-ups that did not work. Where there
      is nothing, no mail comes.
    </Chosen>
  );
}

function Language() {
  const queryClient = useQueryClient();
  const found = useQuery(queries.language());
  const set = useMutation({
    mutationFn: api.setLanguage,
    onSettled: () => queryClient.invalidateQueries({ queryKey: queries.language().queryKey }),
  });
  return (
    <Chosen
      title="Language of mails to you"
      label="Language"
      options={Object.fromEntries(found.data?.languages.map(({ code, name }) => [code, name]) ?? [])}
      value={found.data?.language}
      error={found.error ?? set.error}
      onChoose={set.mutate}
    >
      In which Codexa writes to you: invitations, what waits for you, decisions, your password. The workbench is in
      English.
    </Chosen>
  );
}

interface ChosenProps {
  title: string;
  label: string;
  options: Readonly<Record<string, string>>;
  /** What is chosen; undefined until that is known. */
  value: string | undefined;
  error: Error | null;
  onChoose: (value: string) => void;
}

/** A choice that counts at once. */
function Chosen({ title, label, options, value, error, onChoose, children }: PropsWithChildren<ChosenProps>) {
  return (
    <Sheet title={title} onSubmit={() => undefined}>
      {error && <Alert severity="error">{error.message}</Alert>}
      <Typography color="text.secondary">{children}</Typography>
      {value !== undefined && (
        <TextField select label={label} value={value} onChange={(event) => onChoose(event.target.value)}>
          {Object.entries(options).map(([each, words]) => (
            <MenuItem key={each} value={each}>
              {words}
            </MenuItem>
          ))}
        </TextField>
      )}
    </Sheet>
  );
}

function Address() {
  const [email, setEmail] = useState("");
  const [password, setPassword] = useState("");
  const queryClient = useQueryClient();
  const wanted = useQuery(queries.wantedAddress());
  const ask = useMutation({
    mutationFn: () => api.askAddress(email, password),
    onSuccess: () => {
      setPassword("");
      void queryClient.invalidateQueries({ queryKey: queries.wantedAddress().queryKey });
    },
  });
  const there = wanted.data;
  return (
    <Sheet title="Another address" onSubmit={() => ask.mutate()}>
      {ask.isError && <Alert severity="error">{ask.error.message}</Alert>}
      {there?.email && (
        <Alert severity="info">
          {there.email} waits to be confirmed at{" "}
          {[!there.old_confirmed && "your address now", !there.new_confirmed && "the new one"]
            .filter(Boolean)
            .join(" and ")}
          . A mail went there; its link works for a day.
        </Alert>
      )}
      <TextField
        label="New address"
        type="email"
        autoComplete="email"
        required
        value={email}
        onChange={(event) => setEmail(event.target.value)}
      />
      <PasswordField label="Your password" value={password} onChange={setPassword} />
      <Box>
        <Button type="submit" variant="contained" loading={ask.isPending}>
          Send the links
        </Button>
      </Box>
    </Sheet>
  );
}
