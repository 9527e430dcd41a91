// The team's tables: what each holds, and how much of it.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Link from "@mui/material/Link";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link as Going, useNavigate } from "react-router";
import { api, reasonOf } from "../../api/client";
import { queries } from "../../api/queries";
import { asDayAndTime } from "../../text/words";
import { Single } from "../Single";
import { mayEdit, useSignedIn } from "../signed_in";
import { Waiting } from "../Waiting";
import { Lists } from "./Lists";
import { NewNamed } from "./NewNamed";
import { FileButton, type SentFile } from "../importing/FileButton";

export function Tables() {
  const who = useSignedIn();
  const found = useQuery(queries.tables());
  return (
    <Single title="Tables">
      <Typography color="text.secondary" sx={{ mb: 2 }}>
        What the team’s forms stand on: instruments, places, talks, members. A row is a record.
      </Typography>
      {mayEdit(who) && (
        <Box sx={{ display: "flex", gap: 2, alignItems: "start", flexWrap: "wrap" }}>
          <NewNamed
            label="Name of a new table"
            make={(name) => api.makeTable({ name })}
            queryKey={queries.tables().queryKey}
            place={(id) => `/tables/${id}`}
          />
          <FromFile />
        </Box>
      )}
      {found.isPending && <Waiting />}
      {found.isError && <Alert severity="error">{reasonOf(found.error)}</Alert>}
      {found.data && found.data.tables.length > 0 && (
        <Table size="small" aria-label="Tables" sx={{ mt: 3, bgcolor: "background.paper" }}>
          <TableHead>
            <TableRow>
              <TableCell>Table</TableCell>
              <TableCell align="right">Records</TableCell>
              <TableCell align="right">Columns</TableCell>
              <TableCell>Changed</TableCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {found.data.tables.map((each) => (
              <TableRow key={each.id} hover>
                <TableCell component="th" scope="row">
                  <Link component={Going} to={`/tables/${each.id}`} sx={{ fontWeight: 600 }}>
                    {each.name}
                  </Link>
                </TableCell>
                <TableCell align="right">{each.records.toLocaleString("en")}</TableCell>
                <TableCell align="right">{each.columns}</TableCell>
                <TableCell>{asDayAndTime(each.changed_at)}</TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      )}
      {found.data?.tables.length === 0 && <Typography sx={{ mt: 3 }}>There is no table yet.</Typography>}
      <Lists />
    </Single>
  );
}

/** A table made of a file: its headers become columns, its lines records. */
function FromFile() {
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const make = useMutation({
    mutationFn: (file: SentFile) =>
      api.tableOfFile(file.name.replace(/\.[^.]*$/, "").slice(0, 200) || file.name, file.content),
    onSuccess: async ({ id }) => {
      await queryClient.invalidateQueries({ queryKey: queries.tables().queryKey });
      await navigate(`/tables/${id}`);
    },
  });
  return (
    <Box sx={{ mt: 0.5 }}>
      <FileButton
        name="File to make a table of"
        label="Make it of a file …"
        quiet
        loading={make.isPending}
        onFile={(file) => make.mutate(file)}
      />
      {make.isError && <Alert severity="error">{reasonOf(make.error)}</Alert>}
    </Box>
  );
}
