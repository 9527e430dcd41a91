// What waits and what did not work, over all responses of a form: each leads to its response, where it can be done again.
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import type { RunReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { useDayAndTime } from "../workbench/useDayAndTime";
import { STATES } from "./kinds";

export function StillOpen({ formId }: { formId: string }) {
  const found = useQuery(queries.openRuns(formId));
  const runs = found.data?.runs ?? [];
  if (runs.length === 0) return null;
  return (
    <Box component="section" aria-label="Not done yet" sx={{ mt: 2, borderTop: 1, borderColor: "divider" }}>
      <Typography variant="h3" component="h2" color="text.secondary" sx={{ px: 2, pt: 2, pb: 0.5 }}>
        ○ Not done yet
      </Typography>
      {runs.map((run) => (
        <Run key={run.id} formId={formId} run={run} />
      ))}
    </Box>
  );
}

function Run({ formId, run }: { formId: string; run: RunReply }) {
  const dayAndTime = useDayAndTime();
  return (
    <Box
      component={Link}
      to={`/forms/${formId}/responses/${run.number}`}
      sx={{ display: "block", px: 2, py: 1, color: "inherit", textDecoration: "none" }}
    >
      <Typography>
        <b>Response {run.number}</b> · {run.name}
      </Typography>
      <Typography
        variant="body2"
        color={run.state === "failed" ? "error" : "text.secondary"}
        sx={{ overflowWrap: "anywhere" }}
      >
        {STATES[run.state] ?? run.state} {dayAndTime(run.ended_at ?? run.created_at)}
        {run.tries > 1 && `, ${run.tries} tries`}
        {run.result && ` · ${run.result}`}
      </Typography>
    </Box>
  );
}
