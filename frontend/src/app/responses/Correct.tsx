// Correcting a response: the form that it was given to, filled in as it was, and beside it what a correction changes.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { api, reasonOf } from "../../api/client";
import type { ChangeReply, CorrectedReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { NOTE_KINDS } from "../../text/words";
import { useStable } from "../../ui/useStable";
import { Waiting } from "../Waiting";

interface Props {
  formId: string;
  number: number;
  onDone: () => void;
}

/** What the form in the frame tells. */
interface Heard {
  codexa?: "ready" | "answers" | "block";
  answers?: Record<string, unknown>;
}

const PAUSE_MS = 300;

export function Correct({ formId, number, onDone }: Props) {
  const opened = useQuery({ ...queries.correction(formId, number), gcTime: 0, staleTime: Infinity });
  const frame = useRef<HTMLIFrameElement>(null);
  const [ready, setReady] = useState(false);
  const [filled, setFilled] = useState(false);
  const [answers, setAnswers] = useState<Record<string, unknown> | null>(null);
  const [because, setBecause] = useState("");
  const queryClient = useQueryClient();
  const hear = useStable((event: MessageEvent<Heard>) => {
    if (event.origin !== origin || event.source !== frame.current?.contentWindow) return;
    if (event.data.codexa === "ready") setReady(true);
    if (event.data.codexa !== "answers" || !filled) return;
    const told = event.data.answers ?? {};
    // The form tells of every step in it; the same answers are compared once.
    setAnswers((before) => (JSON.stringify(before) === JSON.stringify(told) ? before : told));
  });
  useEffect(() => {
    addEventListener("message", hear);
    return () => removeEventListener("message", hear);
  }, [hear]);
  useEffect(() => {
    if (!ready || !opened.data) return;
    frame.current?.contentWindow?.postMessage({ codexa: "fill", answers: opened.data.answers }, origin);
    setFilled(true);
  }, [ready, opened.data]);
  const { compared, isOfNow } = useCompared(formId, number, answers);
  const save = useMutation({
    mutationFn: () =>
      api.saveCorrection(formId, number, {
        answers: answers ?? {},
        version: opened.data?.version ?? "",
        because: because.trim(),
      }),
    onSuccess: async (found) => {
      if (found.wrong.length > 0) return;
      for (const name of ["responses", "response", "asking"])
        await queryClient.invalidateQueries({ queryKey: [name, formId] });
      onDone();
    },
  });
  const found = compared.data ?? null;
  const isUntouched = because === "" && (!found || (isOfNow && found.changes.length + found.wrong.length === 0));
  const problem = opened.error ?? compared.error ?? save.error;
  return (
    // What was typed is left by its button alone.
    <Dialog open onClose={() => isUntouched && onDone()} maxWidth={false} fullWidth aria-labelledby="correct-title">
      <Box sx={{ display: "grid", gridTemplateColumns: "minmax(0, 1fr) 360px", height: "calc(100vh - 96px)" }}>
        <Box sx={{ minWidth: 0, borderRight: 1, borderColor: "divider", bgcolor: "background.default" }}>
          {!opened.isError && (
            <Box
              component="iframe"
              ref={frame}
              title={`Answers of response ${number}`}
              src={`/correct/${formId}/${number}`}
              sx={{ border: 0, width: "100%", height: "100%", display: "block" }}
            />
          )}
        </Box>
        <Box sx={{ display: "flex", flexDirection: "column", minHeight: 0, p: 2.5, gap: 1.5 }}>
          <Typography id="correct-title" variant="h2">
            Correct response {number}
          </Typography>
          <Typography variant="body2" color="text.secondary">
            The form as it was on that day. Everything is worked out anew; no mail goes out, and payments stay as they
            are.
          </Typography>
          <Box aria-live="polite" sx={{ flex: 1, minHeight: 0, overflow: "auto" }}>
            {problem && <Alert severity="warning">{reasonOf(problem)}</Alert>}
            {!problem && (found ? <Difference found={found} /> : <Waiting />)}
          </Box>
          <TextField
            multiline
            maxRows={4}
            label="Why (for the team)"
            value={because}
            onChange={(event) => setBecause(event.target.value)}
            slotProps={{ htmlInput: { maxLength: 2000 } }}
          />
          <Box sx={{ display: "flex", gap: 1 }}>
            <Button
              variant="contained"
              loading={save.isPending}
              disabled={!found || !isOfNow || found.changes.length === 0}
              onClick={() => save.mutate()}
            >
              Save the correction
            </Button>
            <Button color="inherit" onClick={onDone}>
              Leave it as it was
            </Button>
          </Box>
        </Box>
      </Box>
    </Dialog>
  );
}

/** What the answers would change, once they rest for a moment; and whether that is about the answers of now. */
function useCompared(formId: string, number: number, answers: Record<string, unknown> | null) {
  const [resting, setResting] = useState(answers);
  useEffect(() => {
    const timer = setTimeout(() => setResting(answers), PAUSE_MS);
    return () => clearTimeout(timer);
  }, [answers]);
  const compared = useQuery({
    queryKey: ["compared", formId, number, resting],
    queryFn: () => api.compareCorrection(formId, number, resting ?? {}),
    enabled: resting !== null,
    placeholderData: (before) => before,
    gcTime: 0,
  });
  return { compared, isOfNow: resting === answers && !compared.isPlaceholderData };
}

function Difference({ found }: { found: CorrectedReply }) {
  if (found.wrong.length > 0)
    return (
      <Alert severity="warning" icon={false}>
        {found.wrong.map((each) => (
          <Box key={`${each.label} ${each.message}`}>
            <b>{each.label}:</b> {each.message}
          </Box>
        ))}
      </Alert>
    );
  if (found.changes.length === 0) return <Typography color="text.secondary">Nothing is changed yet.</Typography>;
  return (
    <>
      <Typography variant="h3" sx={{ mb: 1 }}>
        What changes
      </Typography>
      <Box component="dl" sx={{ m: 0, display: "grid", gap: 1.25 }}>
        {found.changes.map((change) => (
          <Changed key={change.column} change={change} />
        ))}
      </Box>
      {found.paid && (
        <Alert severity="info" sx={{ mt: 1.5 }}>
          {found.paid}
        </Alert>
      )}
    </>
  );
}

const Changed = ({ change }: { change: ChangeReply }) => (
  <Box>
    <Typography component="dt" variant="body2" color="text.secondary">
      {change.label}
      {change.calculated && (
        <Box component="span" role="img" aria-label="Calculated" sx={{ ml: 0.75, color: "note.calculation" }}>
          {NOTE_KINDS.calculation.sign}
        </Box>
      )}
    </Typography>
    <Box component="dd" sx={{ m: 0, overflowWrap: "anywhere", whiteSpace: "pre-line" }}>
      <Box component="del" sx={{ color: "text.secondary" }}>
        {change.before || "not answered"}
      </Box>{" "}
      →{" "}
      <Box component="ins" sx={{ textDecoration: "none", fontWeight: 600 }}>
        {change.after || "not answered"}
      </Box>
    </Box>
  </Box>
);
