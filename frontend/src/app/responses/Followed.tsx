// What followed from a response: what was done, to whom, how it ended; and once more, by a press that says so.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api } from "../../api/client";
import type { RunReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { STATES } from "../follow_ups/kinds";
import { RunInFull } from "../follow_ups/RunInFull";
import { mayEdit, useSignedIn } from "../signed_in";
import { useDayAndTime } from "../workbench/useDayAndTime";

export function Followed({ formId, number }: { formId: string; number: number }) {
  const found = useQuery(queries.runs(formId, number));
  if (!found.data || found.data.runs.length === 0) return null;
  return (
    <Box component="section" aria-label="What followed" sx={{ mt: 3 }}>
      <Typography variant="h3" sx={{ mb: 0.5 }}>
        What followed
      </Typography>
      {found.data.runs.map((run) => (
        <Run key={run.id} formId={formId} number={number} run={run} />
      ))}
    </Box>
  );
}

function Run({ formId, number, run }: { formId: string; number: number; run: RunReply }) {
  const dayAndTime = useDayAndTime();
  const who = useSignedIn();
  const queryClient = useQueryClient();
  const [asking, setAsking] = useState(false);
  const [shown, setShown] = useState(false);
  const again = useMutation({
    mutationFn: () => api.runAgain(formId, run.id),
    onSuccess: () => {
      setAsking(false);
      void queryClient.invalidateQueries({ queryKey: queries.runs(formId, number).queryKey });
    },
  });
  return (
    <Box sx={{ py: 0.5, borderBottom: 1, borderColor: "divider" }}>
      <Typography variant="body2" sx={{ overflowWrap: "anywhere" }}>
        <b>{run.name}</b>
        {run.again > 0 && ` · again, asked for by ${run.asked_by ?? "somebody who left"}`} · {run.told}
      </Typography>
      <Typography variant="body2" color={run.state === "failed" ? "error" : "text.secondary"}>
        {STATES[run.state] ?? run.state}
        {run.state === "waiting" && run.due_at && ` for ${dayAndTime(run.due_at)}`}
        {run.ended_at && ` ${dayAndTime(run.ended_at)}`}
        {run.tries > 1 && `, ${run.tries} tries`}
        {run.result && ` · ${run.result}`}
      </Typography>
      <Button
        size="small"
        color="inherit"
        aria-expanded={shown}
        aria-label={`${shown ? "Hide it" : "Show it"}: ${run.name}`}
        onClick={() => setShown(!shown)}
        sx={{ py: 0 }}
      >
        {shown ? "Hide it" : "Show it"}
      </Button>
      {mayEdit(who) && run.state !== "waiting" && !asking && (
        <Button size="small" color="inherit" onClick={() => setAsking(true)} sx={{ py: 0 }}>
          Do it again
        </Button>
      )}
      {shown && <RunInFull formId={formId} run={run.id} />}
      {asking && (
        <Box role="alert">
          <Typography variant="body2">
            It was {run.state === "done" ? "done" : "tried"}
            {run.ended_at && ` on ${dayAndTime(run.ended_at)}`}: {run.told}. Done again, it goes out once more.
          </Typography>
          <Button autoFocus size="small" loading={again.isPending} onClick={() => again.mutate()}>
            Do it again
          </Button>
          <Button size="small" color="inherit" onClick={() => setAsking(false)}>
            Leave it
          </Button>
        </Box>
      )}
      {again.isError && (
        <Typography variant="body2" role="alert" color="error">
          {again.error.message}
        </Typography>
      )}
    </Box>
  );
}
