// The files in a column of a record: looked at, downloaded, put in and taken out.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import { useMutation } from "@tanstack/react-query";
import { useRef } from "react";
import { api, reasonOf } from "../../api/client";
import type { RecordReply, TableColumnReply, TableReply } from "../../api/generated/wire";
import { smallPicture } from "../../fields/small_picture";

interface Props {
  table: TableReply;
  column: TableColumnReply;
  record: RecordReply;
  /** What shows the record as it is then; null where it can't be changed. */
  onChanged: ((record: RecordReply) => void) | null;
}

export function RecordFiles({ table, column, record, onChanged }: Props) {
  const chooser = useRef<HTMLInputElement>(null);
  const changed = { onSuccess: (after: RecordReply) => onChanged?.(after) };
  const add = useMutation({
    mutationFn: (file: File) => api.addRecordFile(table.id, record.number, column.id, file),
    ...changed,
  });
  const takeOut = useMutation({
    mutationFn: (file: string) => api.takeRecordFile(table.id, record.number, column.id, file),
    ...changed,
  });
  const files = record.files[column.id] ?? [];
  const problem = add.error ?? takeOut.error;
  return (
    <Box role="group" aria-label={column.label} sx={{ display: "grid", gap: 1, justifyItems: "start" }}>
      {files.map(({ id, name, is_picture }) => (
        <Box key={id} sx={{ display: "flex", gap: 1, alignItems: "center", maxWidth: "100%" }}>
          {is_picture && (
            <Box
              component="img"
              src={smallPicture(id)}
              alt=""
              sx={{ width: 56, height: 56, objectFit: "cover", borderRadius: 1, flexShrink: 0 }}
            />
          )}
          <Link href={api.recordFileAddress(table.id, id)} sx={{ overflowWrap: "anywhere", minWidth: 0 }}>
            {name}
          </Link>
          {onChanged && (
            <Button
              size="small"
              color="inherit"
              aria-label={`Take out ${name}`}
              disabled={takeOut.isPending}
              onClick={() => takeOut.mutate(id)}
            >
              Take out
            </Button>
          )}
        </Box>
      ))}
      {files.length === 0 && !onChanged && "–"}
      {onChanged && (
        <>
          <Button size="small" variant="outlined" loading={add.isPending} onClick={() => chooser.current?.click()}>
            Add a file …
          </Button>
          <input
            ref={chooser}
            hidden
            type="file"
            aria-label={`File for ${column.label}`}
            onChange={(event) => {
              const file = event.target.files?.[0];
              if (file) add.mutate(file);
              event.target.value = "";
            }}
          />
        </>
      )}
      {problem && <Alert severity="error">{reasonOf(problem)}</Alert>}
    </Box>
  );
}
