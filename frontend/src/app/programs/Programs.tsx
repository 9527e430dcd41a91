// Keys for programs: what each may do, when it was used last; and below, what can be asked for with one.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, reasonOf } from "../../api/client";
import type { KeyReply, NewKeyRequest } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { asDayAndTime } from "../../text/words";
import { AskFirst } from "../../ui/AskFirst";
import { CopyField } from "../../ui/CopyField";
import { Single } from "../Single";
import { Waiting } from "../Waiting";
import { Reference } from "./Reference";

const ALL = "all";
type Right = NewKeyRequest["rights"][number];
const RIGHTS: Readonly<Record<Right, string>> = {
  "read forms": "Read forms and their schemas",
  "read responses": "Read responses",
  submit: "Hand in responses",
};

export function Programs() {
  const found = useQuery(queries.keys());
  const [shown, setShown] = useState("");
  return (
    <Single title="Keys for programs">
      {found.isPending && <Waiting />}
      {found.isError && <Alert severity="error">{found.error.message}</Alert>}
      {found.data && (
        <Box sx={{ display: "grid", gap: 4 }}>
          <NewKey onMade={setShown} />
          {shown && (
            <Alert
              severity="success"
              onClose={() => setShown("")}
              sx={{ "& .MuiAlert-message": { flex: 1, minWidth: 0 } }}
            >
              This key is shown once. Copy it to where it belongs; nobody can be shown it again.
              <CopyField label="The key" text={shown} wrap />
            </Alert>
          )}
          <Keys keys={found.data.keys} />
          <Reference usual={shown} />
        </Box>
      )}
    </Single>
  );
}

function NewKey({ onMade }: { onMade: (key: string) => void }) {
  const queryClient = useQueryClient();
  const forms = useQuery(queries.forms());
  const [name, setName] = useState("");
  const [rights, setRights] = useState<readonly Right[]>(["read responses"]);
  const [form, setForm] = useState(ALL);
  const make = useMutation({
    mutationFn: () =>
      api.makeKey({ name: name.trim(), rights: rights as NewKeyRequest["rights"], form: form === ALL ? null : form }),
    onSuccess: async ({ key }) => {
      onMade(key);
      setName("");
      await queryClient.invalidateQueries({ queryKey: queries.keys().queryKey });
    },
  });
  return (
    <Box
      component="form"
      aria-label="Make a key"
      onSubmit={(event) => {
        event.preventDefault();
        make.mutate();
      }}
      sx={{ display: "grid", gap: 1.5, justifyItems: "start" }}
    >
      <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 2, width: "100%" }}>
        <TextField
          label="What the key is for"
          value={name}
          onChange={(event) => setName(event.target.value)}
          slotProps={{ htmlInput: { maxLength: 100 } }}
        />
        <TextField select label="For" value={form} onChange={(event) => setForm(event.target.value)}>
          <MenuItem value={ALL}>All forms of the team</MenuItem>
          {forms.data?.forms.map((each) => (
            <MenuItem key={each.id} value={each.id}>
              {each.name}
            </MenuItem>
          ))}
        </TextField>
      </Box>
      <Box role="group" aria-label="What it may do" sx={{ display: "flex", flexWrap: "wrap", gap: 2 }}>
        {Object.entries(RIGHTS).map(([right, label]) => (
          <FormControlLabel
            key={right}
            label={label}
            control={
              <Checkbox
                checked={rights.includes(right as Right)}
                onChange={(_event, on) =>
                  setRights(on ? [...rights, right as Right] : rights.filter((each) => each !== right))
                }
              />
            }
          />
        ))}
      </Box>
      <Button type="submit" variant="contained" loading={make.isPending} disabled={!name.trim() || rights.length === 0}>
        Make the key
      </Button>
      {make.isError && <Box role="alert">{reasonOf(make.error)}</Box>}
    </Box>
  );
}

function Keys({ keys }: { keys: readonly KeyReply[] }) {
  const queryClient = useQueryClient();
  const end = useMutation({
    mutationFn: api.endKey,
    onSettled: () => queryClient.invalidateQueries({ queryKey: queries.keys().queryKey }),
  });
  if (keys.length === 0) return <Typography color="text.secondary">No program has a key yet.</Typography>;
  return (
    <Box component="section" aria-label="Keys">
      <Table size="small">
        <TableHead>
          <TableRow>
            <TableCell>For</TableCell>
            <TableCell>May</TableCell>
            <TableCell>Forms</TableCell>
            <TableCell>Used last</TableCell>
            <TableCell>
              <Box component="span" sx={{ position: "absolute", clipPath: "inset(50%)" }}>
                End
              </Box>
            </TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {keys.map((key) => (
            <TableRow key={key.id}>
              <TableCell component="th" scope="row">
                {key.name}
                <Typography variant="body2" color="text.secondary">
                  {asDayAndTime(key.made_at)} · {key.made_by ?? "somebody who is gone"}
                </Typography>
              </TableCell>
              <TableCell>{key.rights.join(", ")}</TableCell>
              <TableCell>{key.form ?? "all"}</TableCell>
              <TableCell>{key.last_used_at ? asDayAndTime(key.last_used_at) : "never"}</TableCell>
              <TableCell align="right">
                <AskFirst
                  label="End …"
                  color="inherit"
                  warning={`Programs with the key “${key.name}” are refused from now on.`}
                  onDone={() => end.mutate(key.id)}
                />
              </TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
      {end.isError && <Box role="alert">{reasonOf(end.error)}</Box>}
    </Box>
  );
}
