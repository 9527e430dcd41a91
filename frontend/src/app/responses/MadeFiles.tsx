// Files that are made in the background, of any number: how far they have come, to be fetched for a day.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, type ExportKind, reasonOf } from "../../api/client";
import type { ExportFileReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { counted } from "../../text/words";
import { useDayAndTime } from "../workbench/useDayAndTime";

interface Props {
  formId: string;
  kind: ExportKind;
  /** What is looked at, and how it is written. */
  asked: Record<string, string>;
}

export function MadeFiles({ formId, kind, asked }: Props) {
  const queryClient = useQueryClient();
  const found = useQuery(queries.exportFiles(formId));
  const refresh = () => queryClient.invalidateQueries({ queryKey: queries.exportFiles(formId).queryKey });
  const make = useMutation({ mutationFn: () => api.makeExportFile(formId, kind, asked), onSettled: refresh });
  const forget = useMutation({ mutationFn: (file: string) => api.deleteExportFile(formId, file), onSettled: refresh });
  const problem = make.error ?? forget.error;
  return (
    <Box component="section" aria-label="Made in the background" sx={{ display: "grid", gap: 1 }}>
      <Button variant="outlined" color="inherit" loading={make.isPending} onClick={() => make.mutate()}>
        Make it in the background
      </Button>
      <Typography variant="body2" color="text.secondary">
        For very many: it is made while you work on, and kept for a day.
      </Typography>
      {found.data?.files.map((each) => (
        <OneFile key={each.id} formId={formId} file={each} onForget={() => forget.mutate(each.id)} />
      ))}
      {problem && <Box role="alert">{reasonOf(problem)}</Box>}
    </Box>
  );
}

function OneFile({ formId, file, onForget }: { formId: string; file: ExportFileReply; onForget: () => void }) {
  const dayAndTime = useDayAndTime();
  return (
    <Box sx={{ borderTop: 1, borderColor: "divider", pt: 1 }}>
      <Typography variant="body2" role="status" sx={{ overflowWrap: "anywhere" }}>
        <b>{file.name}</b>, {dayAndTime(file.created_at)}: {standing(file)}
      </Typography>
      {file.state === "done" && (
        <Button component="a" size="small" href={api.exportFileAddress(formId, file.id)} download>
          Fetch it
        </Button>
      )}
      <Button size="small" color="inherit" onClick={onForget}>
        {file.state === "waiting" ? "Stop" : "Forget it"}
      </Button>
    </Box>
  );
}

const MEGABYTE = 1_000_000;

function standing({ state, rows, size, result }: ExportFileReply): string {
  if (state === "failed") return result;
  const written = counted(rows, "response");
  if (state === "waiting") return `${written} written so far …`;
  return `${written}, ${size < MEGABYTE ? `${Math.ceil(size / 1_000)} KB` : `${(size / MEGABYTE).toFixed(1)} MB`}.`;
}
