// What is done to a whole table: all of it as a file, and deleting it.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useNavigate } from "react-router";
import { api, reasonOf } from "../../api/client";
import type { TableReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { AskFirst } from "../../ui/AskFirst";
import { PopoverButton } from "../../ui/PopoverButton";
import { mayEdit, useSignedIn } from "../signed_in";
import { ImportRecords } from "./ImportRecords";
import { TableRights } from "./TableRights";

interface Props {
  table: TableReply;
  /** What the worksheet shows, as a file of it is asked for; null where that is all. */
  shown: Readonly<Record<string, string>> | null;
  onPublish: () => void;
}

export function TableMenu({ table, shown, onPublish }: Props) {
  const [brings, setBrings] = useState(false);
  const who = useSignedIn();
  const mayShape = table.may_change && mayEdit(who);
  const navigate = useNavigate();
  const queryClient = useQueryClient();
  const remove = useMutation({
    mutationFn: () => api.deleteTable(table.id),
    onSuccess: async () => {
      await queryClient.invalidateQueries({ queryKey: queries.tables().queryKey });
      await navigate("/tables");
    },
  });
  const makesForm = useMutation({
    mutationFn: () => api.formOfTable(table.id),
    onSuccess: async ({ id }) => {
      await queryClient.invalidateQueries({ queryKey: queries.forms().queryKey });
      await navigate(`/forms/${id}/compose`);
    },
  });
  return (
    <>
      {brings && <ImportRecords table={table} onClose={() => setBrings(false)} />}
      <PopoverButton label="More …" name="The whole table" width={300}>
        {(close) => (
          <Box sx={{ display: "grid", gap: 1.5, p: 2, justifyItems: "start" }}>
            {mayEdit(who) && (
              <Button color="inherit" loading={makesForm.isPending} onClick={() => makesForm.mutate()}>
                Make a form that fills it
              </Button>
            )}
            {mayShape && (
              <Button
                color="inherit"
                onClick={() => {
                  close();
                  setBrings(true);
                }}
              >
                Bring in records from a file …
              </Button>
            )}
            {mayShape && (
              <Button
                color="inherit"
                onClick={() => {
                  close();
                  onPublish();
                }}
              >
                {table.published ? "What anybody may read …" : "Let anybody read records …"}
              </Button>
            )}
            {shown && (
              <>
                <Link href={api.recordsAddress(table.id, "csv", shown)}>What is shown as CSV</Link>
                <Link href={api.recordsAddress(table.id, "xlsx", shown)}>What is shown as a workbook (XLSX)</Link>
              </>
            )}
            <Link href={api.recordsAddress(table.id, "csv")}>All records as CSV</Link>
            <Link href={api.recordsAddress(table.id, "xlsx")}>All records as a workbook (XLSX)</Link>
            {who.role === "owner" && <TableRights table={table} />}
            {mayShape && (
              <AskFirst
                label="Delete the table"
                color="error"
                warning="All its records go with it. Take them along as CSV first, if somebody may want them."
                onDone={() => remove.mutate()}
              />
            )}
            {remove.isError && <Alert severity="error">{reasonOf(remove.error)}</Alert>}
            {makesForm.isError && <Alert severity="error">{reasonOf(makesForm.error)}</Alert>}
          </Box>
        )}
      </PopoverButton>
    </>
  );
}
