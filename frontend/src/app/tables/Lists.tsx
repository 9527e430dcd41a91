// The team's lists of options: what each holds, and how many forms have it.
import Box from "@mui/material/Box";
import Link from "@mui/material/Link";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { Link as Going } from "react-router";
import { api } from "../../api/client";
import { queries } from "../../api/queries";
import { asDayAndTime } from "../../text/words";
import { mayEdit, useSignedIn } from "../signed_in";
import { NewNamed } from "./NewNamed";

export function Lists() {
  const who = useSignedIn();
  const found = useQuery(queries.lists());
  return (
    <Box component="section" aria-labelledby="lists" sx={{ mt: 5 }}>
      <Typography variant="h2" id="lists">
        Lists
      </Typography>
      <Typography color="text.secondary" sx={{ mt: 0.5, mb: 2 }}>
        Options that many forms share: countries, sizes, weekdays. Changed here, the drafts that have them follow.
      </Typography>
      {mayEdit(who) && (
        <NewNamed
          label="Name of a new list"
          make={(name) => api.makeList({ name })}
          queryKey={queries.lists().queryKey}
          place={(id) => `/tables/lists/${id}`}
        />
      )}
      {found.data && found.data.lists.length > 0 && (
        <Table size="small" aria-label="Lists" sx={{ mt: 3, bgcolor: "background.paper" }}>
          <TableHead>
            <TableRow>
              <TableCell>List</TableCell>
              <TableCell align="right">Options</TableCell>
              <TableCell align="right">Forms</TableCell>
              <TableCell>Changed</TableCell>
            </TableRow>
          </TableHead>
          <TableBody>
            {found.data.lists.map((each) => (
              <TableRow key={each.id} hover>
                <TableCell component="th" scope="row">
                  <Link component={Going} to={`/tables/lists/${each.id}`} sx={{ fontWeight: 600 }}>
                    {each.name}
                  </Link>
                </TableCell>
                <TableCell align="right">{each.options.toLocaleString("en")}</TableCell>
                <TableCell align="right">{each.forms}</TableCell>
                <TableCell>{asDayAndTime(each.changed_at)}</TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      )}
    </Box>
  );
}
