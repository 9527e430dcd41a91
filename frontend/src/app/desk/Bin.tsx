// The bin: forms that were deleted lately, and the way back.
import Button from "@mui/material/Button";
import Paper from "@mui/material/Paper";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import Typography from "@mui/material/Typography";
import type { BinReply } from "../../api/generated/wire";
import { asDay, counted } from "../../text/words";
import type { DeskActions } from "./useDesk";

const DAY_MS = 86_400_000;

export function Bin({ bin, actions }: { bin: BinReply; actions: DeskActions }) {
  const left = (deletedAt: string) =>
    Math.max(0, Math.ceil(bin.kept_days - (Date.now() - Date.parse(deletedAt)) / DAY_MS));
  return (
    <Paper variant="outlined" sx={{ overflow: "auto" }}>
      <Typography sx={{ p: 2, color: "text.secondary" }}>
        What is deleted lies here for {bin.kept_days} days, with all that came in by it; then it is gone for good, but
        for what was paid by.
      </Typography>
      <Table size="small" aria-label="Bin">
        <TableHead>
          <TableRow>
            <TableCell>Form</TableCell>
            <TableCell align="right">Responses</TableCell>
            <TableCell>Deleted</TableCell>
            <TableCell>Stays for</TableCell>
            <TableCell aria-label="Actions" />
          </TableRow>
        </TableHead>
        <TableBody>
          {bin.forms.map((form) => (
            <TableRow key={form.id}>
              <TableCell sx={{ fontWeight: 650 }}>{form.name}</TableCell>
              <TableCell align="right">{form.responses}</TableCell>
              <TableCell>{asDay(form.deleted_at)}</TableCell>
              <TableCell>{counted(left(form.deleted_at), "day")}</TableCell>
              <TableCell align="right">
                <Button onClick={() => actions.bringBack([form])} aria-label={`Bring back ${form.name}`}>
                  Bring back
                </Button>
              </TableCell>
            </TableRow>
          ))}
        </TableBody>
      </Table>
      {bin.forms.length === 0 && <Typography sx={{ p: 2 }}>The bin is empty.</Typography>}
    </Paper>
  );
}
