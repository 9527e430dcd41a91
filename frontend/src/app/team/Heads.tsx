// The heads of a table whose last column has what can be done.
import Box from "@mui/material/Box";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import { visuallyHidden } from "@mui/utils";

export const Heads = ({ of }: { of: readonly string[] }) => (
  <TableHead>
    <TableRow>
      {of.map((each) => (
        <TableCell key={each}>{each}</TableCell>
      ))}
      <TableCell>
        <Box component="span" sx={visuallyHidden}>
          What can be done
        </Box>
      </TableCell>
    </TableRow>
  </TableHead>
);
