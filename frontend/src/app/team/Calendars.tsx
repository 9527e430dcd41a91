// The calendars of other systems in which follow-ups keep entries: added once they answer, tried again, removed.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, reasonOf } from "../../api/client";
import type { CalendarNameReply, NewCalendarRequest } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { Single } from "../Single";
import { useSignedIn } from "../signed_in";
import { Waiting } from "../Waiting";
import { TeamPlaces } from "./TeamPlaces";

const BLANK: NewCalendarRequest = { name: "", address: "", user_name: "", password: "" };

export function Calendars() {
  const { role, team_name } = useSignedIn();
  const found = useQuery(queries.calendars());
  return (
    <Single title={`Calendars of ${team_name}`}>
      <TeamPlaces />
      <Typography color="text.secondary" sx={{ mb: 2 }}>
        Follow-ups of the kind “Calendar entry” keep bookings here. Any calendar that speaks CalDAV will do.
      </Typography>
      {found.isPending && <Waiting />}
      {found.isError && <Alert severity="error">{reasonOf(found.error)}</Alert>}
      {found.data?.calendars.map((each) => (
        <OneCalendar key={each.id} calendar={each} mayKeep={role === "owner"} />
      ))}
      {found.data?.calendars.length === 0 && <Typography>There is none yet.</Typography>}
      {role === "owner" ? <NewCalendar /> : <Typography>An owner of the team adds and removes them.</Typography>}
    </Single>
  );
}

function OneCalendar({ calendar, mayKeep }: { calendar: CalendarNameReply; mayKeep: boolean }) {
  const queryClient = useQueryClient();
  const tried = useMutation({ mutationFn: () => api.tryCalendar(calendar.id) });
  const removed = useMutation({
    mutationFn: () => api.removeCalendar(calendar.id),
    onSuccess: () => queryClient.invalidateQueries({ queryKey: queries.calendars().queryKey }),
  });
  const wrong = tried.error ?? removed.error;
  return (
    <Box component="section" aria-label={calendar.name} sx={{ py: 1, borderTop: 1, borderColor: "divider" }}>
      <Typography sx={{ fontWeight: 650 }}>{calendar.name}</Typography>
      <Typography variant="body2" color="text.secondary" sx={{ overflowWrap: "anywhere" }}>
        {calendar.address}
        {calendar.user_name && `, as ${calendar.user_name}`}
      </Typography>
      {mayKeep && (
        <Box sx={{ display: "flex", gap: 1 }}>
          <Button loading={tried.isPending} aria-label={`Try it: ${calendar.name}`} onClick={() => tried.mutate()}>
            Try it
          </Button>
          <Button
            color="error"
            loading={removed.isPending}
            aria-label={`Remove ${calendar.name}`}
            onClick={() => removed.mutate()}
          >
            Remove
          </Button>
        </Box>
      )}
      {tried.isSuccess && <Alert severity="success">It answers.</Alert>}
      {wrong && <Alert severity="error">{reasonOf(wrong)}</Alert>}
    </Box>
  );
}

function NewCalendar() {
  const queryClient = useQueryClient();
  const [typed, setTyped] = useState(BLANK);
  const add = useMutation({
    mutationFn: () => api.addCalendar(typed),
    onSuccess: () => {
      setTyped(BLANK);
      return queryClient.invalidateQueries({ queryKey: queries.calendars().queryKey });
    },
  });
  const field = (name: keyof NewCalendarRequest, label: string, help: string, type = "text") => (
    <TextField
      label={label}
      type={type}
      value={typed[name]}
      helperText={help}
      autoComplete="off"
      onChange={(event) => setTyped({ ...typed, [name]: event.target.value })}
    />
  );
  return (
    <Box
      component="form"
      aria-label="Add a calendar"
      onSubmit={(event) => {
        event.preventDefault();
        add.mutate();
      }}
      sx={{ display: "grid", gap: 1.5, maxWidth: 520, mt: 3 }}
    >
      <Typography variant="h2">Add a calendar</Typography>
      {field("name", "Name", "As follow-ups offer it")}
      {field(
        "address",
        "Address (CalDAV)",
        "That of the calendar itself, such as https://calendar.example.org/dome/nights/",
      )}
      {field("user_name", "Name to sign in with", "")}
      {field("password", "Password", "Kept encrypted, and never shown again", "password")}
      {add.isError && <Alert severity="error">{reasonOf(add.error)}</Alert>}
      <Button
        type="submit"
        variant="contained"
        loading={add.isPending}
        disabled={!typed.name.trim() || !typed.address.trim()}
        sx={{ justifySelf: "start" }}
      >
        Add it
      </Button>
    </Box>
  );
}
