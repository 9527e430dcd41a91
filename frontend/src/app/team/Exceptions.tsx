// Exceptions: what somebody may do with one form, in the place of what their role in the team allows.
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
import type { ExceptionReply, TeamReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { Heads } from "./Heads";

type Role = ExceptionReply["role"];

const ROLES: Readonly<Record<Role, string>> = {
  none: "not at all: it is hidden",
  viewer: "as a viewer",
  reviewer: "as a reviewer",
  editor: "as an editor",
};

export function Exceptions({ team }: { team: TeamReply }) {
  const queryClient = useQueryClient();
  const found = useQuery(queries.exceptions());
  const forms = useQuery(queries.forms()).data?.forms ?? [];
  const [asked, setAsked] = useState<{ form: string; person: string; role: Role }>({
    form: "",
    person: "",
    role: "editor",
  });
  const put = useMutation({
    mutationFn: (exception: { form: string; person: string; role: Role | null }) => api.setException(exception),
    onSuccess: async () => {
      setAsked({ ...asked, form: "", person: "" });
      await queryClient.invalidateQueries({ queryKey: queries.exceptions().queryKey });
    },
  });
  const exceptions = found.data?.exceptions ?? [];
  const choice = (label: string, value: string, set: (value: string) => void, options: readonly [string, string][]) => (
    <TextField select label={label} value={value} onChange={(event) => set(event.target.value)} sx={{ width: 220 }}>
      {options.map(([id, words]) => (
        <MenuItem key={id} value={id}>
          {words}
        </MenuItem>
      ))}
    </TextField>
  );
  return (
    <Box component="section" aria-labelledby="exceptions" sx={{ mt: 4 }}>
      <Typography variant="h2" id="exceptions">
        Exceptions for single forms
      </Typography>
      {(found.error ?? put.error) && <Alert severity="error">{reasonOf((found.error ?? put.error)!)}</Alert>}
      {exceptions.length > 0 && (
        <Table size="small" aria-label="Exceptions" sx={{ mt: 1, bgcolor: "background.paper" }}>
          <Heads of={["Form", "Person", "Works with it"]} />
          <TableBody>
            {exceptions.map(({ form_id, form_name, person_id, person_name, role }) => (
              <TableRow key={form_id + person_id}>
                <TableCell component="th" scope="row" sx={{ fontWeight: 600 }}>
                  {form_name}
                </TableCell>
                <TableCell>{person_name}</TableCell>
                <TableCell>{ROLES[role]}</TableCell>
                <TableCell align="right">
                  <Button
                    color="inherit"
                    aria-label={`Take away: the exception of ${person_name} for ${form_name}`}
                    onClick={() => put.mutate({ form: form_id, person: person_id, role: null })}
                  >
                    Take away
                  </Button>
                </TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      )}
      <Box
        component="form"
        aria-label="Another exception"
        onSubmit={(event) => {
          event.preventDefault();
          put.mutate(asked);
        }}
        sx={{ display: "flex", gap: 1, mt: 1.5, alignItems: "center" }}
      >
        {choice(
          "Form",
          asked.form,
          (form) => setAsked({ ...asked, form }),
          forms.map(({ id, name }) => [id, name]),
        )}
        {choice(
          "Person",
          asked.person,
          (person) => setAsked({ ...asked, person }),
          team.people.filter(({ role }) => role !== "owner").map(({ id, name }) => [id, name]),
        )}
        {choice(
          "Works with it",
          asked.role,
          (role) => setAsked({ ...asked, role: role as Role }),
          Object.entries(ROLES),
        )}
        <Button
          type="submit"
          variant="outlined"
          disabled={!asked.form || !asked.person}
          loading={put.isPending}
          sx={{ flexShrink: 0 }}
        >
          Make the exception
        </Button>
      </Box>
    </Box>
  );
}
