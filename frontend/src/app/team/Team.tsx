// The people of the team: who is in it and in which role, who was invited, and what becomes of what was somebody's.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableRow from "@mui/material/TableRow";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, reasonOf } from "../../api/client";
import type { TeammateReply, TeamReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { asDayAndTime } from "../../text/words";
import { Single } from "../Single";
import { useSignedIn } from "../signed_in";
import { Waiting } from "../Waiting";
import { type Role, ROLES, ROLE_WORDS } from "./roles";
import { Exceptions } from "./Exceptions";
import { Heads } from "./Heads";
import { TeamPlaces } from "./TeamPlaces";
import { TakeOut } from "./TakeOut";

export function Team() {
  const who = useSignedIn();
  const found = useQuery(queries.team());
  const [leaving, setLeaving] = useState<TeammateReply | null>(null);
  const isOwner = who.role === "owner";
  return (
    <Single title={`People of ${who.team_name}`}>
      <TeamPlaces />
      {found.isPending && <Waiting />}
      {found.isError && <Alert severity="error">{reasonOf(found.error)}</Alert>}
      {found.data && (
        <>
          {isOwner && <Invite />}
          <People team={found.data} onTakeOut={setLeaving} />
          {found.data.invitations.length > 0 && <Invited team={found.data} />}
          {isOwner && <Exceptions team={found.data} />}
          <Typography component="dl" sx={{ mt: 4, display: "grid", gridTemplateColumns: "96px 1fr", gap: 0.5 }}>
            {ROLES.map((role) => (
              <Box key={role} sx={{ display: "contents" }}>
                <Box component="dt" sx={{ fontWeight: 600 }}>
                  {role}
                </Box>
                <Box component="dd" sx={{ m: 0, color: "text.secondary" }}>
                  {ROLE_WORDS[role]}
                </Box>
              </Box>
            ))}
          </Typography>
          {leaving && <TakeOut person={leaving} team={found.data} onClose={() => setLeaving(null)} />}
        </>
      )}
    </Single>
  );
}

/** Has the people looked at anew once something was done to them. */
function useRefreshed() {
  const queryClient = useQueryClient();
  return () => queryClient.invalidateQueries({ queryKey: queries.team().queryKey });
}

function Invite() {
  const [email, setEmail] = useState("");
  const [role, setRole] = useState<Role>("editor");
  const refresh = useRefreshed();
  const invite = useMutation({
    mutationFn: () => api.invite(email.trim(), role),
    onSuccess: async () => {
      setEmail("");
      await refresh();
    },
  });
  return (
    <Box
      component="form"
      onSubmit={(event) => {
        event.preventDefault();
        invite.mutate();
      }}
      sx={{ display: "flex", gap: 1, alignItems: "start", mt: 2 }}
    >
      <TextField
        label="E-mail of somebody to invite"
        type="email"
        value={email}
        onChange={(event) => setEmail(event.target.value)}
        error={invite.isError}
        helperText={invite.isError ? reasonOf(invite.error) : invite.isSuccess ? "A mail is on its way." : ""}
        sx={{ width: 320 }}
      />
      <RoleChoice label="As" role={role} onChange={setRole} />
      <Button
        type="submit"
        variant="contained"
        disabled={!email.trim()}
        loading={invite.isPending}
        sx={{ mt: 0.5, flexShrink: 0 }}
      >
        Invite
      </Button>
    </Box>
  );
}

interface RoleProps {
  label: string;
  role: Role;
  onChange: (role: Role) => void;
}

const RoleChoice = ({ label, role, onChange }: RoleProps) => (
  <TextField
    select
    label={label}
    value={role}
    onChange={(event) => onChange(event.target.value as Role)}
    sx={{ width: 140 }}
  >
    {ROLES.map((each) => (
      <MenuItem key={each} value={each}>
        {each}
      </MenuItem>
    ))}
  </TextField>
);

function People({ team, onTakeOut }: { team: TeamReply; onTakeOut: (person: TeammateReply) => void }) {
  const who = useSignedIn();
  const queryClient = useQueryClient();
  const refresh = useRefreshed();
  const isOwner = who.role === "owner";
  const change = useMutation({
    mutationFn: ({ person, role }: { person: string; role: Role }) => api.setRole(person, role),
    onSuccess: async (_nothing, { person }) => {
      await refresh();
      if (person === who.person_id) await queryClient.invalidateQueries({ queryKey: queries.session().queryKey });
    },
  });
  return (
    <>
      {change.isError && (
        <Alert severity="error" sx={{ mt: 2 }}>
          {reasonOf(change.error)}
        </Alert>
      )}
      <Table size="small" aria-label="People" sx={{ mt: 3, bgcolor: "background.paper" }}>
        <Heads of={["Name", "E-mail", "Role"]} />
        <TableBody>
          {team.people.map((person) => {
            const isYou = person.id === who.person_id;
            return (
              <TableRow key={person.id}>
                <TableCell component="th" scope="row" sx={{ fontWeight: 600 }}>
                  {person.name}
                  {isYou && " (you)"}
                </TableCell>
                <TableCell>{person.email}</TableCell>
                <TableCell>
                  {isOwner ? (
                    <RoleChoice
                      label={`Role of ${person.name}`}
                      role={person.role}
                      onChange={(role) => change.mutate({ person: person.id, role })}
                    />
                  ) : (
                    person.role
                  )}
                </TableCell>
                <TableCell align="right">
                  {(isOwner || isYou) && (
                    <Button color="inherit" onClick={() => onTakeOut(person)}>
                      {isYou ? "Leave the team …" : "Take out …"}
                    </Button>
                  )}
                </TableCell>
              </TableRow>
            );
          })}
        </TableBody>
      </Table>
    </>
  );
}

function Invited({ team }: { team: TeamReply }) {
  const isOwner = useSignedIn().role === "owner";
  const refresh = useRefreshed();
  const again = useMutation({
    mutationFn: ({ email, role }: { email: string; role: Role }) => api.invite(email, role),
    onSuccess: refresh,
  });
  const takeBack = useMutation({ mutationFn: api.takeInvitationBack, onSettled: refresh });
  const problem = again.error ?? takeBack.error;
  return (
    <Box component="section" aria-labelledby="invited" sx={{ mt: 4 }}>
      <Typography variant="h2" id="invited">
        Invited
      </Typography>
      {problem && <Alert severity="error">{reasonOf(problem)}</Alert>}
      <Table size="small" aria-label="Invited" sx={{ mt: 1, bgcolor: "background.paper" }}>
        <Heads of={["E-mail", "As", "By", "Until"]} />
        <TableBody>
          {team.invitations.map((each) => (
            <TableRow key={each.id}>
              <TableCell component="th" scope="row" sx={{ fontWeight: 600 }}>
                {each.email}
              </TableCell>
              <TableCell>{each.role}</TableCell>
              <TableCell>{each.invited_by}</TableCell>
              <TableCell>{asDayAndTime(each.expires_at)}</TableCell>
              <TableCell align="right">
                {isOwner && (
                  <>
                    <Button
                      color="inherit"
                      aria-label={`Once more: ${each.email}`}
                      onClick={() => again.mutate({ email: each.email, role: each.role })}
                    >
                      Once more
                    </Button>
                    <Button
                      color="inherit"
                      aria-label={`Take back: the invitation of ${each.email}`}
                      onClick={() => takeBack.mutate(each.id)}
                    >
                      Take back
                    </Button>
                  </>
                )}
              </TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
    </Box>
  );
}
