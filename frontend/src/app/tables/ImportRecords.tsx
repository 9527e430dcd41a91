// Records of a file: its headers are columns or become some, what is wrong is told by line, and the lines that fit come in.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, reasonOf } from "../../api/client";
import type { FileWriting, PlanRecordsReply, TableReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { counted } from "../../text/words";
import { Taken } from "../importing/Taken";
import { useComing } from "../importing/useComing";
import { Wrong } from "../importing/WrongLines";
import { columnType } from "./column_types";
import { FileButton, type SentFile } from "../importing/FileButton";

interface Props {
  table: TableReply;
  onClose: () => void;
}

export function ImportRecords({ table, onClose }: Props) {
  const queryClient = useQueryClient();
  const [source, setSource] = useState<SentFile | null>(null);
  const [picked, setPicked] = useState<Record<string, string> | null>(null);
  const [writing, setWriting] = useState<FileWriting | null>(null);
  const [keyColumn, setKeyColumn] = useState("");
  const plan = useQuery({
    queryKey: ["records' plan", table.id, source?.id, picked, writing],
    queryFn: () => api.planRecords(table.id, { file: source!.content, columns: picked, writing }),
    enabled: source !== null,
    retry: false,
    gcTime: 0,
    placeholderData: (before) => before,
  });
  const begin = useMutation({
    mutationFn: (found: PlanRecordsReply) =>
      api.importRecords(table.id, {
        file: source!.content,
        name: source!.name.slice(0, 200),
        columns: columnsOf(found),
        writing: found.writing,
        key_column: keyColumn,
      }),
    onSuccess: async () => {
      setSource(null);
      setPicked(null);
      await queryClient.invalidateQueries({ queryKey: queries.table(table.id).queryKey });
      await queryClient.invalidateQueries({ queryKey: queries.tableImports(table.id).queryKey });
    },
  });
  const found = plan.data;
  const once = table.columns.filter((each) => each.once && found?.columns.some(({ column }) => column === each.id));
  return (
    <Dialog open onClose={onClose} maxWidth="md" fullWidth aria-labelledby="import-title">
      <Box sx={{ p: 3, display: "grid", gap: 2, justifyItems: "start", "& > *": { maxWidth: "100%" } }}>
        <Typography id="import-title" variant="h2">
          Bring in records from a file
        </Typography>
        <Typography color="text.secondary">
          A CSV or XLSX, a record each line; the first line names the columns. What they hold is guessed, and can be
          chosen otherwise.
        </Typography>
        <FileButton
          name="File of records"
          label={source ? "Choose another file" : "Choose a file"}
          quiet={source !== null}
          onFile={(file) => {
            begin.reset();
            setPicked(null);
            setWriting(null);
            setSource(file);
          }}
        />
        {plan.error && <Alert severity="error">{reasonOf(plan.error)}</Alert>}
        {source && found && (
          <>
            <Typography>
              <b>{source.name}</b>: {counted(found.lines, "line")}
              {found.empty > 0 && `, ${counted(found.empty, "empty one")} passed over`}.
            </Typography>
            <Box
              role="group"
              aria-label="Columns"
              sx={{
                width: "100%",
                display: "grid",
                gridTemplateColumns: "repeat(auto-fill, minmax(220px, 1fr))",
                gap: 1.5,
              }}
            >
              {found.columns.map((each) => (
                <TextField
                  key={each.header}
                  select
                  label={each.header}
                  value={each.column || "left out"}
                  onChange={({ target }) =>
                    setPicked({ ...columnsOf(found), [each.header]: target.value === "left out" ? "" : target.value })
                  }
                >
                  <MenuItem value="left out">Left out</MenuItem>
                  <MenuItem value="new">A new column: {columnType(each.type).word.toLowerCase()}</MenuItem>
                  {table.columns
                    .filter((column) => !column.computed)
                    .map((column) => (
                      <MenuItem key={column.id} value={column.id}>
                        {column.label}
                      </MenuItem>
                    ))}
                </TextField>
              ))}
            </Box>
            <Box sx={{ display: "flex", gap: 1.5, flexWrap: "wrap" }}>
              <TextField
                select
                label="Numbers are written"
                value={found.writing.comma ? "comma" : "point"}
                onChange={({ target }) => setWriting({ ...found.writing, comma: target.value === "comma" })}
                sx={{ width: 190 }}
              >
                <MenuItem value="point">1,234.50</MenuItem>
                <MenuItem value="comma">1.234,50</MenuItem>
              </TextField>
              <TextField
                select
                label="Days are written"
                value={found.writing.days}
                onChange={({ target }) => setWriting({ ...found.writing, days: target.value as FileWriting["days"] })}
                sx={{ width: 190 }}
              >
                <MenuItem value="day">24/12/2026</MenuItem>
                <MenuItem value="month">12/24/2026</MenuItem>
              </TextField>
              {once.length > 0 && (
                <TextField
                  select
                  label="A line that is there already"
                  value={keyColumn || "none"}
                  onChange={({ target }) => setKeyColumn(target.value === "none" ? "" : target.value)}
                  sx={{ minWidth: 280 }}
                >
                  <MenuItem value="none">is left out</MenuItem>
                  {once.map((each) => (
                    <MenuItem key={each.id} value={each.id}>
                      changes the record with the same {each.label}
                    </MenuItem>
                  ))}
                </TextField>
              )}
            </Box>
            {found.wrong_count > 0 && (
              <Wrong count={found.wrong_count} tried={found.tried} lines={found.lines} wrong={found.wrong} />
            )}
            <Button
              variant="contained"
              loading={begin.isPending}
              disabled={plan.isPlaceholderData || found.columns.every((each) => !each.column)}
              onClick={() => begin.mutate(found)}
            >
              Bring in the lines that fit
            </Button>
          </>
        )}
        {begin.isError && <Alert severity="error">{reasonOf(begin.error)}</Alert>}
        {!source && <Earlier tableId={table.id} />}
        <Button color="inherit" onClick={onClose}>
          Close
        </Button>
      </Box>
    </Dialog>
  );
}

const columnsOf = (plan: PlanRecordsReply): Record<string, string> =>
  Object.fromEntries(plan.columns.map((each) => [each.header, each.column]));

/** Files that were brought in of late, and how far they have come. */
function Earlier({ tableId }: { tableId: string }) {
  const queryClient = useQueryClient();
  const imports = useImports(tableId);
  return imports.map((each) => (
    <Taken
      key={each.id}
      file={each}
      noun="record"
      onStop={() => api.stopRecords(tableId, each.id)}
      onStopped={() => queryClient.invalidateQueries({ queryKey: queries.tableImports(tableId).queryKey })}
    />
  ));
}

/** The files of late; while one comes in, the records are looked at again. */
export function useImports(tableId: string) {
  const found = useQuery(queries.tableImports(tableId));
  useComing(found.data?.imports, ["records", tableId]);
  return found.data?.imports ?? [];
}
