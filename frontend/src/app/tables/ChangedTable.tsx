// What has changed in a table since a form came to know it, and what takes it over.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import type { KnownTable } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { same } from "../../model/same";
import { useBench } from "../workbench/bench";
import { columnsOf, knowing, wordsOf } from "./known";

interface Props {
  known: KnownTable;
  /** The table's id as its address has it. */
  tableId: string;
}

export function ChangedTable({ known, tableId }: Props) {
  const { form, act, mayEdit } = useBench();
  const now = useQuery(queries.table(tableId)).data?.known;
  if (!now || same(known, now)) return null;
  const [before, after] = [columnsOf(known), columnsOf(now)];
  const added = after.filter(({ id }) => !before.some((each) => each.id === id)).map(wordsOf);
  const gone = before.filter(({ id }) => !after.some((each) => each.id === id)).map(wordsOf);
  const told = [
    ...(added.length > 0 ? [`New columns: ${added.join(", ")}.`] : []),
    ...(gone.length > 0 ? [`Columns that are gone: ${gone.join(", ")}.`] : []),
  ];
  return (
    <Box role="status" sx={{ p: 1, borderLeft: 2, borderColor: "note.data", bgcolor: "background.default" }}>
      <Typography variant="body2">
        The table has changed since this form came to know it.{" "}
        {told.join(" ") || "Some of its columns are set otherwise."}
      </Typography>
      {mayEdit && (
        <Button size="small" onClick={() => act(knowing(form.tables, now))}>
          Take it over
        </Button>
      )}
    </Box>
  );
}
