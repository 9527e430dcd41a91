// Responses of a table: its columns are fields, what is wrong is told by line, and the lines that fit come in.
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
import type { PlanImportReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { counted } from "../../text/words";
import { FileButton, type SentFile } from "../importing/FileButton";
import { Taken } from "../importing/Taken";
import { useComing } from "../importing/useComing";
import { Wrong } from "../importing/WrongLines";

interface Props {
  formId: string;
  onClose: () => void;
}

export function Import({ formId, onClose }: Props) {
  const queryClient = useQueryClient();
  const [source, setSource] = useState<SentFile | null>(null);
  const [picked, setPicked] = useState<Record<string, string> | null>(null);
  const plan = useQuery({
    queryKey: ["import's plan", formId, source?.id, picked],
    queryFn: () => api.planImport(formId, { table: source!.content, columns: picked }),
    enabled: source !== null,
    retry: false,
    gcTime: 0,
    placeholderData: (before) => before,
  });
  const begin = useMutation({
    mutationFn: (columns: Record<string, string>) =>
      api.beginImport(formId, { table: source!.content, name: source!.name.slice(0, 200), columns }),
    onSuccess: async () => {
      setSource(null);
      setPicked(null);
      await queryClient.invalidateQueries({ queryKey: queries.imports(formId).queryKey });
    },
  });
  const take = (file: SentFile) => {
    begin.reset();
    setPicked(null);
    setSource(file);
  };
  return (
    <Dialog open onClose={onClose} maxWidth="md" fullWidth aria-labelledby="import-title">
      <Box sx={{ p: 3, display: "grid", gap: 2, justifyItems: "start", "& > *": { maxWidth: "100%" } }}>
        <Typography id="import-title" variant="h2">
          Bring in responses from a table
        </Typography>
        <Typography color="text.secondary">
          A CSV or XLSX, a response each line; the first line names the columns. Each goes through the form’s rules.
          Nobody is written to.
        </Typography>
        <FileButton
          name="Table of responses"
          label={source ? "Choose another file" : "Choose a file"}
          quiet={source !== null}
          onFile={take}
        />
        {plan.error && <Alert severity="error">{reasonOf(plan.error)}</Alert>}
        {source && plan.data && (
          <Planned
            name={source.name}
            plan={plan.data}
            onPick={setPicked}
            onBegin={() => begin.mutate(plan.data.columns)}
            begins={begin.isPending}
          />
        )}
        {begin.isError && <Alert severity="error">{reasonOf(begin.error)}</Alert>}
        {!source && <Earlier formId={formId} />}
        <Button color="inherit" onClick={onClose}>
          Close
        </Button>
      </Box>
    </Dialog>
  );
}

interface PlannedProps {
  name: string;
  plan: PlanImportReply;
  begins: boolean;
  onPick: (columns: Record<string, string>) => void;
  onBegin: () => void;
}

function Planned({ name, plan, begins, onPick, onBegin }: PlannedProps) {
  const { headers, targets, columns, lines, empty, tried, wrong_count: wrongCount, wrong } = plan;
  const pick = (header: string, key: string) =>
    onPick(
      Object.fromEntries(
        [...Object.entries(columns).filter(([one, other]) => one !== header && other !== key), [header, key]].filter(
          ([, other]) => other,
        ),
      ),
    );
  const fits = lines - wrongCount;
  return (
    <>
      <Typography>
        <b>{name}</b>: {counted(lines, "line")}
        {empty > 0 && `, ${counted(empty, "empty one")} passed over`}.
      </Typography>
      <Box
        role="group"
        aria-label="Columns"
        sx={{ width: "100%", display: "grid", gridTemplateColumns: "repeat(auto-fill, minmax(220px, 1fr))", gap: 1.5 }}
      >
        {headers.map((header) => (
          <TextField
            key={header}
            select
            label={header}
            value={columns[header] ?? "left out"}
            onChange={(event) => pick(header, event.target.value === "left out" ? "" : event.target.value)}
          >
            <MenuItem value="left out">Left out</MenuItem>
            {targets.map((each) => (
              <MenuItem key={each.key} value={each.key}>
                {each.label}
              </MenuItem>
            ))}
          </TextField>
        ))}
      </Box>
      {wrongCount > 0 && <Wrong count={wrongCount} tried={tried} lines={lines} wrong={wrong} />}
      <Button
        variant="contained"
        loading={begins}
        disabled={fits === 0 || Object.keys(columns).length === 0}
        onClick={onBegin}
      >
        Bring in {tried < lines ? "the lines that fit" : counted(fits, "response")}
      </Button>
    </>
  );
}

/** Tables that were brought in of late, and how far they have come. */
function Earlier({ formId }: { formId: string }) {
  const queryClient = useQueryClient();
  const found = useQuery(queries.imports(formId));
  const imports = found.data?.imports ?? [];
  useComing(found.data?.imports, ["responses", formId]);
  return imports.map((each) => (
    <Taken
      key={each.id}
      file={each}
      noun="response"
      onStop={() => api.stopImport(formId, each.id)}
      onStopped={() => queryClient.invalidateQueries({ queryKey: queries.imports(formId).queryKey })}
    />
  ));
}
