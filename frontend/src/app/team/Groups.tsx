// The groups of the team: what formulas call them, who of its people is in each; members have theirs in their table.
import Alert from "@mui/material/Alert";
import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableRow from "@mui/material/TableRow";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, reasonOf } from "../../api/client";
import type { GroupReply, TeamReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { MONO } from "../../theme/theme";
import { Single } from "../Single";
import { useSignedIn } from "../signed_in";
import { Waiting } from "../Waiting";
import { Heads } from "./Heads";
import { TeamPlaces } from "./TeamPlaces";

export function Groups() {
  const who = useSignedIn();
  const groups = useQuery(queries.groups());
  const team = useQuery(queries.team());
  return (
    <Single title={`Groups of ${who.team_name}`}>
      <TeamPlaces />
      <Typography color="text.secondary" sx={{ maxWidth: 720 }}>
        People of the team and members are in any of them. Rules ask for one by its code; a form can be for some of them
        alone.
      </Typography>
      {groups.isPending && <Waiting />}
      {groups.isError && <Alert severity="error">{reasonOf(groups.error)}</Alert>}
      {who.role === "owner" && <NewGroup />}
      {groups.data && team.data && groups.data.groups.length > 0 && (
        <List groups={groups.data.groups} team={team.data} mayEdit={who.role === "owner"} />
      )}
      {groups.data?.groups.length === 0 && (
        <Typography sx={{ mt: 3 }}>There are none yet. Name the first one, such as Dome keepers.</Typography>
      )}
    </Single>
  );
}

/** Has the groups looked at anew, and the members' table, which offers them. */
function useRefreshed() {
  const queryClient = useQueryClient();
  return async () => {
    await queryClient.invalidateQueries({ queryKey: queries.groups().queryKey });
    await queryClient.invalidateQueries({ queryKey: ["table"] });
  };
}

function NewGroup() {
  const [name, setName] = useState("");
  const refresh = useRefreshed();
  const make = useMutation({
    mutationFn: () => api.makeGroup(name.trim()),
    onSuccess: async () => {
      setName("");
      await refresh();
    },
  });
  return (
    <Box
      component="form"
      onSubmit={(event) => {
        event.preventDefault();
        make.mutate();
      }}
      sx={{ display: "flex", gap: 1, alignItems: "start", mt: 2 }}
    >
      <TextField
        label="Name of another group"
        value={name}
        onChange={(event) => setName(event.target.value)}
        error={make.isError}
        helperText={make.isError ? reasonOf(make.error) : ""}
        slotProps={{ htmlInput: { maxLength: 60 } }}
        sx={{ width: 320 }}
      />
      <Button type="submit" variant="contained" disabled={!name.trim()} loading={make.isPending} sx={{ mt: 0.5 }}>
        Make the group
      </Button>
    </Box>
  );
}

function List({ groups, team, mayEdit }: { groups: readonly GroupReply[]; team: TeamReply; mayEdit: boolean }) {
  const refresh = useRefreshed();
  const [asked, setAsked] = useState<GroupReply | null>(null);
  const put = useMutation({
    mutationFn: ({ code, person, inside }: { code: string; person: string; inside: boolean }) =>
      api.setInGroup(code, person, inside),
    onSettled: refresh,
  });
  const rename = useMutation({
    mutationFn: ({ code, name }: { code: string; name: string }) => api.nameGroup(code, name),
    onSettled: refresh,
  });
  const problem = put.error ?? rename.error;
  return (
    <>
      {problem && (
        <Alert severity="error" sx={{ mt: 2 }}>
          {reasonOf(problem)}
        </Alert>
      )}
      {asked && <TakeAway group={asked} onDone={() => setAsked(null)} />}
      <Table size="small" aria-label="Groups" sx={{ mt: 3, bgcolor: "background.paper" }}>
        <Heads of={["Name", "In rules", "People of the team"]} />
        <TableBody>
          {groups.map((group) => (
            <TableRow key={group.code}>
              <TableCell component="th" scope="row" sx={{ width: 220 }}>
                {mayEdit ? (
                  <NameField group={group} onName={(name) => rename.mutate({ code: group.code, name })} />
                ) : (
                  group.name
                )}
              </TableCell>
              <TableCell sx={{ fontFamily: MONO, fontSize: 12 }}>{`INGROUP("${group.code}")`}</TableCell>
              <TableCell>
                <Inside
                  group={group}
                  team={team}
                  mayEdit={mayEdit}
                  onPut={(person, inside) => put.mutate({ code: group.code, person, inside })}
                />
              </TableCell>
              <TableCell align="right">
                {mayEdit && (
                  <Button color="inherit" aria-label={`Take away: ${group.name}`} onClick={() => setAsked(group)}>
                    Take away …
                  </Button>
                )}
              </TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
    </>
  );
}

function NameField({ group, onName }: { group: GroupReply; onName: (name: string) => void }) {
  const [typed, setTyped] = useState<string | null>(null);
  const keep = () => {
    if (typed !== null && typed.trim() && typed.trim() !== group.name) onName(typed.trim());
    setTyped(null);
  };
  return (
    <TextField
      value={typed ?? group.name}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={keep}
      onKeyDown={(event) => event.key === "Enter" && keep()}
      slotProps={{ htmlInput: { "aria-label": `Name of the group ${group.name}`, maxLength: 60 } }}
    />
  );
}

interface InsideProps {
  group: GroupReply;
  team: TeamReply;
  mayEdit: boolean;
  onPut: (person: string, inside: boolean) => void;
}

function Inside({ group, team, mayEdit, onPut }: InsideProps) {
  const inside = team.people.filter(({ id }) => group.people.includes(id));
  if (!mayEdit) return inside.map(({ name }) => name).join(", ") || "nobody";
  return (
    <Autocomplete
      multiple
      disableClearable
      options={team.people}
      value={inside}
      getOptionKey={({ id }) => id}
      getOptionLabel={({ name }) => name}
      isOptionEqualToValue={(one, other) => one.id === other.id}
      onChange={(_event, chosen) => {
        const ids = new Set(chosen.map(({ id }) => id));
        team.people
          .filter(({ id }) => ids.has(id) !== group.people.includes(id))
          .forEach(({ id }) => onPut(id, ids.has(id)));
      }}
      renderInput={(params) => <TextField {...params} label={`People in ${group.name}`} />}
    />
  );
}

function TakeAway({ group, onDone }: { group: GroupReply; onDone: () => void }) {
  const refresh = useRefreshed();
  const hanging = useQuery(queries.groupHanging(group.code));
  const take = useMutation({
    mutationFn: () => api.takeGroupAway(group.code),
    onSuccess: async () => {
      await refresh();
      onDone();
    },
  });
  const forms = hanging.data?.forms ?? [];
  return (
    <Alert
      severity="warning"
      sx={{ mt: 2 }}
      action={
        <>
          <Button color="inherit" onClick={onDone}>
            Keep it
          </Button>
          <Button color="inherit" loading={take.isPending || hanging.isPending} onClick={() => take.mutate()}>
            Take it away
          </Button>
        </>
      }
    >
      {forms.length > 0 && `${forms.join(", ")} ${forms.length === 1 ? "asks" : "ask"} for it. `}
      Nobody is in {group.name} any more then, neither people nor members.
      {take.isError && ` ${reasonOf(take.error)}`}
    </Alert>
  );
}
