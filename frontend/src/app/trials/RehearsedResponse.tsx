// A response of a rehearsal: how it stands, what is to be decided, what happened, and what followed, mail for mail.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, reasonOf } from "../../api/client";
import type { RehearsedApprovalReply, RehearsedReply, RunReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { STATES } from "../follow_ups/kinds";
import { RunInFull } from "../follow_ups/RunInFull";
import { Heading } from "../compose/InspectorFrame";
import { useDayAndTime } from "../workbench/useDayAndTime";

interface Props {
  formId: string;
  /** The form of the rehearsal itself. */
  rehearsed: string;
  response: RehearsedReply;
  approvals: readonly RehearsedApprovalReply[];
}

export function RehearsedResponse({ formId, rehearsed, response, approvals }: Props) {
  const { number, standing } = response;
  const facets = [
    `Stage ${response.stage}`,
    ...(
      [
        ["Payment", response.payment],
        ["Decision", response.decision],
        ["Booking", response.booking],
      ] as const
    )
      .filter(([, state]) => state !== "none")
      .map(([name, state]) => `${name} ${state}`),
  ];
  return (
    <Box
      component="section"
      aria-label={`Response ${number}`}
      sx={{
        p: 2,
        border: 1,
        borderColor: "divider",
        borderRadius: 1,
        bgcolor: "background.paper",
        display: "grid",
        gap: 1.5,
      }}
    >
      <Box>
        <Typography variant="h2">Response {number}</Typography>
        <Typography color="text.secondary">
          {facets.join(" · ")} ·{" "}
          <Link href={response.own_page} target="_blank" rel="noopener">
            its visitor’s own page
          </Link>
        </Typography>
      </Box>
      {standing && standing.part !== "" && (
        <Typography>
          It stands with <b>{standing.name}</b>:{" "}
          <Link href={`/part/${rehearsed}/${number}`} target="_blank" rel="noopener">
            fill in that part
          </Link>
        </Typography>
      )}
      {approvals.map((each) => (
        <Decide key={`${each.id} ${each.step}`} formId={formId} approval={each} />
      ))}
      <Box component="dl" sx={{ m: 0, display: "grid", gridTemplateColumns: "minmax(120px, 30%) 1fr", gap: 0.5 }}>
        {response.answers.map(({ label, text }, at) => (
          <Box key={at} sx={{ display: "contents" }}>
            <Typography component="dt" variant="body2" color="text.secondary">
              {label}
            </Typography>
            <Typography component="dd" variant="body2" sx={{ m: 0, overflowWrap: "anywhere", whiteSpace: "pre-line" }}>
              {text}
            </Typography>
          </Box>
        ))}
      </Box>
      <Followed formId={formId} runs={response.runs} />
      <Happened response={response} />
    </Box>
  );
}

function Followed({ formId, runs }: { formId: string; runs: readonly RunReply[] }) {
  const dayAndTime = useDayAndTime();
  const [shown, setShown] = useState<number | null>(null);
  if (runs.length === 0) return null;
  return (
    <Box>
      <Heading>What followed</Heading>
      {runs.map((run) => (
        <Box key={run.id} sx={{ py: 0.5, borderBottom: 1, borderColor: "divider" }}>
          <Typography variant="body2" sx={{ overflowWrap: "anywhere" }}>
            <b>{run.name}</b> · {run.told}
          </Typography>
          <Typography variant="body2" color={run.state === "failed" ? "error" : "text.secondary"}>
            {STATES[run.state] ?? run.state}
            {run.state === "waiting" && run.due_at && ` for ${dayAndTime(run.due_at)}`}
            {run.result && ` · ${run.result}`}
          </Typography>
          <Button
            size="small"
            color="inherit"
            aria-expanded={shown === run.id}
            aria-label={`${shown === run.id ? "Hide it" : "Show it"}: ${run.name}`}
            onClick={() => setShown(shown === run.id ? null : run.id)}
            sx={{ py: 0 }}
          >
            {shown === run.id ? "Hide it" : "Show it"}
          </Button>
          {shown === run.id && <RunInFull formId={formId} run={run.id} rehearsed />}
        </Box>
      ))}
    </Box>
  );
}

function Happened({ response: { events } }: { response: RehearsedReply }) {
  const dayAndTime = useDayAndTime();
  return (
    <Box>
      <Heading>What happened</Heading>
      {events.map((event) => (
        <Typography key={`${event.kind} ${event.at}`} variant="body2">
          {event.kind.charAt(0).toUpperCase() + event.kind.slice(1)}
          <Box component="span" sx={{ color: "text.secondary" }}>
            {" "}
            · {dayAndTime(event.at)}
            {event.about && ` · ${event.about}`}
          </Box>
        </Typography>
      ))}
    </Box>
  );
}

/** Deciding in the place of whoever is asked. */
function Decide({ formId, approval }: { formId: string; approval: RehearsedApprovalReply }) {
  const queryClient = useQueryClient();
  const [remark, setRemark] = useState("");
  const decide = useMutation({
    mutationFn: (verdict: "approve" | "deny" | "ask back") =>
      api.decideRehearsed(formId, approval.id, { step: approval.step, verdict, remark }),
    onSettled: () => queryClient.invalidateQueries({ queryKey: queries.rehearsal(formId).queryKey }),
  });
  return (
    <Box
      role="group"
      aria-label={`Decide about response ${approval.number}`}
      sx={{ display: "grid", gap: 1, pl: 1.5, borderLeft: 2, borderColor: "note.rule" }}
    >
      <Typography>
        <b>{approval.name}</b>
        {approval.step_name && ` (${approval.step_name})`}: {approval.subject}
      </Typography>
      <TextField label="Remark" value={remark} onChange={(event) => setRemark(event.target.value.slice(0, 2_000))} />
      <Box sx={{ display: "flex", gap: 1 }}>
        <Button variant="contained" loading={decide.isPending} onClick={() => decide.mutate("approve")}>
          Approve
        </Button>
        <Button variant="outlined" color="error" loading={decide.isPending} onClick={() => decide.mutate("deny")}>
          Deny
        </Button>
        <Button
          variant="outlined"
          color="inherit"
          disabled={!remark.trim()}
          loading={decide.isPending}
          onClick={() => decide.mutate("ask back")}
        >
          Ask back
        </Button>
      </Box>
      {decide.isError && <Alert severity="warning">{reasonOf(decide.error)}</Alert>}
    </Box>
  );
}
