// What a follow-up would do with the answers that are tried: in a line, and a mail as it will be read. Nothing is sent.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api } from "../../api/client";
import type { FollowUp } from "../../model/parts";
import { MONO } from "../../theme/theme";
import { CopyField } from "../../ui/CopyField";
import { Explained } from "../preview/Explained";
import { useSignedIn } from "../signed_in";
import { columnsOf, wordsOf } from "../tables/known";
import { useBench } from "../workbench/bench";
import { MailFrame } from "./MailFrame";

export function WouldFollow({ followUp }: { followUp: FollowUp }) {
  const { reply, saved, trying, saveState, mayEdit } = useBench();
  const who = useSignedIn();
  const { answers, link, visitor } = trying;
  const found = useQuery({
    queryKey: ["would follow", reply.id, saved.revision, answers, link, visitor],
    queryFn: () => api.wouldFollow(reply.id, { answers, link, visitor }),
    placeholderData: keepPreviousData,
    retry: false,
  });
  const due = found.data?.due.find((each) => each.follow_up === followUp.id);
  const trial = useMutation({
    mutationFn: () => api.tryFollowUp(reply.id, { follow_up: followUp.id, answers, link, visitor }),
  });
  return (
    <Box component="section" aria-label="What would follow" sx={{ display: "grid", gap: 1.5, alignContent: "start" }}>
      <Typography variant="h3" component="p" color="text.secondary">
        With {trying.name.toLowerCase()}
      </Typography>
      {found.isError && <Alert severity="error">{found.error.message}</Alert>}
      {found.data && (
        <Typography role="status">
          {due ? `This would be done: ${due.told}.` : "With these answers it would not be done."}
        </Typography>
      )}
      <WhyFollowed followUp={followUp.id} />
      {due?.html && <MailFrame html={due.html} />}
      {due && followUp.kind === "webhook" && (
        <Box
          component="pre"
          tabIndex={0}
          sx={{
            m: 0,
            p: 1.5,
            maxHeight: 420,
            overflow: "auto",
            fontFamily: MONO,
            fontSize: 12,
            bgcolor: "background.default",
          }}
        >
          {JSON.stringify(due.content.body, null, 2)}
        </Box>
      )}
      {due && followUp.kind === "record" && <Records steps={due.content.steps as readonly KeptStep[]} />}
      {followUp.kind === "webhook" && mayEdit && <Secret form={reply.id} />}
      {due && followUp.kind === "email" && mayEdit && (
        <Box>
          <Button
            variant="outlined"
            disabled={saveState !== "saved"}
            loading={trial.isPending}
            onClick={() => trial.mutate()}
          >
            Send it to me
          </Button>
          {trial.isSuccess && <Typography role="status">On its way to {who.email}, marked as a try.</Typography>}
          {trial.isError && <Alert severity="error">{trial.error.message}</Alert>}
        </Box>
      )}
    </Box>
  );
}

interface KeptStep {
  id: string;
  table: string;
  records: readonly {
    cells: Readonly<Record<string, unknown>>;
    shown: Readonly<Record<string, string>>;
    wrong: readonly string[];
  }[];
}

/** The records that would be kept, as rows of their tables. */
function Records({ steps }: { steps: readonly KeptStep[] }) {
  const { form } = useBench();
  return steps.map((step) => {
    const table = form.tables.find(({ id }) => id === step.table);
    const columns = columnsOf(table).filter(({ id }) => step.records.some(({ cells }) => id in cells));
    return (
      <Box key={step.id} component="table" sx={TABLE} aria-label={table?.name}>
        <caption>{table?.name}</caption>
        <thead>
          <tr>
            {columns.map((each) => (
              <th key={each.id} scope="col">
                {wordsOf(each)}
              </th>
            ))}
          </tr>
        </thead>
        <tbody>
          {step.records.map(({ shown, wrong }, at) => (
            <tr key={at}>
              {columns.map((each) => (
                <td key={each.id}>{shown[each.id] ?? "–"}</td>
              ))}
              {wrong.length > 0 && <td>{wrong.join("; ")}</td>}
            </tr>
          ))}
        </tbody>
      </Box>
    );
  });
}

const TABLE = {
  display: "block",
  overflow: "auto",
  borderCollapse: "collapse",
  fontSize: 13,
  "& caption": { textAlign: "left", fontWeight: 650, pb: 0.5 },
  "& th, & td": { border: 1, borderColor: "divider", px: 1, py: 0.5, textAlign: "left", verticalAlign: "top" },
} as const;

/** Why it would be done or not, by the rules that it has. */
function WhyFollowed({ followUp }: { followUp: string }) {
  const { reply, saved, trying } = useBench();
  const [asked, setAsked] = useState(false);
  const { answers, link, visitor } = trying;
  const found = useQuery({
    queryKey: ["why", reply.id, saved.revision, followUp, answers, link, visitor],
    queryFn: () => api.explain(reply.id, { answers, link, visitor, part: followUp }),
    enabled: asked,
    placeholderData: keepPreviousData,
    retry: false,
  });
  return (
    <Box>
      <Button size="small" color="inherit" aria-expanded={asked} onClick={() => setAsked(!asked)}>
        Why?
      </Button>
      {asked && found.data && (
        <Box aria-live="polite">
          {found.data.facts.length > 0 ? <Explained facts={found.data.facts} /> : "It has no rules: it is always done."}
        </Box>
      )}
    </Box>
  );
}

/** What the other system needs to know that it was us. */
function Secret({ form }: { form: string }) {
  const found = useQuery({ queryKey: ["webhook secret", form], queryFn: () => api.webhookSecret(form) });
  if (!found.data) return null;
  return (
    <Box>
      <CopyField label="the secret" text={found.data.secret} />
      <Typography variant="caption" color="text.secondary">
        Codexa-Signature is the HMAC-SHA256 by this secret of Codexa-Time, a point and the body, in hexadecimal.
      </Typography>
    </Box>
  );
}
