// The audit log of the team: what was done, by whom, when; filtered, and as a file.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { reasonOf } from "../../api/client";
import type { AuditEntryReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { asDayAndTime } from "../../text/words";
import { Single } from "../Single";
import { useSignedIn } from "../signed_in";
import { Waiting } from "../Waiting";
import { TeamPlaces } from "./TeamPlaces";

const AREAS: readonly AuditEntryReply["area"][] = [
  "sign-ins",
  "rights",
  "publishing",
  "exports",
  "feeds and keys",
  "removals",
];

/** The moment at which a day begins where this is looked at, with its offset. */
const beginOf = (day: string, later = 0): string => {
  const begin = new Date(`${day}T00:00`);
  begin.setDate(begin.getDate() + later);
  return begin.toISOString();
};

export function Audit() {
  const who = useSignedIn();
  const [asked, setAsked] = useState({ area: "", person: "", from: "", to: "" });
  const [before, setBefore] = useState<readonly number[]>([]);
  const people = useQuery(queries.team()).data?.people ?? [];
  const wanted = Object.fromEntries(
    Object.entries({
      area: asked.area,
      person: asked.person,
      since: asked.from && beginOf(asked.from),
      until: asked.to && beginOf(asked.to, 1),
    }).filter(([, value]) => value),
  );
  const at = before.at(-1);
  const found = useQuery(queries.audit({ ...wanted, ...(at ? { before: String(at) } : {}) }));
  const ask = (changes: Partial<typeof asked>) => {
    setAsked({ ...asked, ...changes });
    setBefore([]);
  };
  return (
    <Single title={`Audit log of ${who.team_name}`}>
      <TeamPlaces />
      <Box sx={{ display: "flex", gap: 1, alignItems: "start" }}>
        <Choice label="About" value={asked.area} all="everything" onChange={(area) => ask({ area })}>
          {AREAS.map((area) => [area, area])}
        </Choice>
        <Choice label="By" value={asked.person} all="anybody" onChange={(person) => ask({ person })}>
          {people.map(({ id, name }) => [id, name])}
        </Choice>
        {(["from", "to"] as const).map((name) => (
          <TextField
            key={name}
            type="date"
            label={name === "from" ? "From" : "To"}
            value={asked[name]}
            onChange={(event) => ask({ [name]: event.target.value })}
            slotProps={{ inputLabel: { shrink: true } }}
            sx={{ width: 160 }}
          />
        ))}
        <Box sx={{ flex: 1 }} />
        <Button href={`/api/team/audit.csv?${new URLSearchParams(wanted)}`} color="inherit">
          As CSV
        </Button>
      </Box>
      {found.isPending && <Waiting />}
      {found.isError && <Alert severity="error">{reasonOf(found.error)}</Alert>}
      {found.data?.entries.length === 0 && <Typography sx={{ mt: 3 }}>Nothing of that was done.</Typography>}
      {found.data && found.data.entries.length > 0 && (
        <Table size="small" aria-label="What was done" sx={{ mt: 2, bgcolor: "background.paper" }}>
          <TableHead>
            <TableRow>
              <TableCell>When</TableCell>
              <TableCell>Who</TableCell>
              <TableCell>What</TableCell>
              <TableCell>About</TableCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {found.data.entries.map((each) => (
              <TableRow key={each.id}>
                <TableCell sx={{ whiteSpace: "nowrap", fontVariantNumeric: "tabular-nums" }}>
                  {asDayAndTime(each.at)}
                </TableCell>
                <TableCell>{each.person_name}</TableCell>
                <TableCell sx={{ overflowWrap: "anywhere" }}>{each.told}</TableCell>
                <TableCell sx={{ color: "text.secondary" }}>{each.area}</TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      )}
      <Box sx={{ display: "flex", gap: 1, mt: 1 }}>
        {before.length > 0 && (
          <Button color="inherit" onClick={() => setBefore(before.slice(0, -1))}>
            Later
          </Button>
        )}
        {found.data?.more && (
          <Button color="inherit" onClick={() => setBefore([...before, found.data.entries.at(-1)!.id])}>
            Earlier
          </Button>
        )}
      </Box>
    </Single>
  );
}

interface ChoiceProps {
  label: string;
  value: string;
  all: string;
  onChange: (value: string) => void;
  children: readonly (readonly [string, string])[];
}

const Choice = ({ label, value, all, onChange, children }: ChoiceProps) => (
  <TextField
    select
    label={label}
    value={value}
    onChange={(event) => onChange(event.target.value)}
    slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
    sx={{ width: 180, flexShrink: 0 }}
  >
    <MenuItem value="">{all}</MenuItem>
    {children.map(([id, words]) => (
      <MenuItem key={id} value={id}>
        {words}
      </MenuItem>
    ))}
  </TextField>
);
