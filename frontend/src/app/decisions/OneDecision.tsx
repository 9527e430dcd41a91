// One decision: what was answered, what was said so far, and the four things to say. A approves, D denies, B asks back.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { api, reasonOf } from "../../api/client";
import type { DecisionReply, SaidReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { asDayAndTime } from "../../text/words";
import { Key } from "../../ui/Key";
import { isSomethingOpen, isTypingText } from "../compose/keys";
import { isTurnedOff } from "../compose/single_keys";
import { Waiting } from "../Waiting";
import { SAID } from "./said";

type Verdict = "approve" | "deny" | "ask back" | "remark";

const STATES: Record<string, string> = {
  asked: "This is for others to decide.",
  "asked back": "The visitor was asked back. It waits here again once they have sent it once more.",
  approved: "This was approved.",
  denied: "This was denied.",
  withdrawn: "This is not asked any more: it was denied elsewhere.",
};

export function OneDecision({ id, onDone }: { id: string; onDone: () => void }) {
  const found = useQuery(queries.decision(id));
  if (found.isPending) return <Waiting />;
  if (found.isError)
    return (
      <Alert severity="info" sx={{ m: 3 }} action={<Button onClick={onDone}>To the next</Button>}>
        {reasonOf(found.error)}
      </Alert>
    );
  return <Opened decision={found.data} onDone={onDone} />;
}

function Opened({ decision, onDone }: { decision: DecisionReply; onDone: () => void }) {
  return (
    <Box sx={{ display: "grid", gridTemplateColumns: "minmax(0, 1fr) 320px", alignItems: "start" }}>
      <Box sx={{ p: 3, maxWidth: 760 }}>
        <Typography variant="h1" component="h2">
          {decision.subject || decision.name}
        </Typography>
        <Typography color="text.secondary" sx={{ mb: 2 }}>
          {decision.form_name}, response {decision.number}
        </Typography>
        <Answers document={decision.document as unknown as ResponseDocument} />
      </Box>
      <Box sx={{ p: 2, pt: 3, position: "sticky", top: 0, display: "grid", gap: 2 }}>
        <Say decision={decision} onDone={onDone} />
        <SaidSoFar said={decision.said} />
      </Box>
    </Box>
  );
}

interface ResponseDocument {
  pages: readonly {
    title: string;
    answers: readonly { label: string; text: string; files: readonly (string | { name: string })[] }[];
  }[];
}

function Answers({ document }: { document: ResponseDocument }) {
  return document.pages.map((page, at) => (
    <Box key={at} component="section" sx={{ mb: 2 }}>
      {page.title && <Typography variant="h2">{page.title}</Typography>}
      <Box
        component="dl"
        sx={{ m: 0, display: "grid", gridTemplateColumns: "minmax(120px, 34%) 1fr", columnGap: 2, rowGap: 0.75 }}
      >
        {page.answers.map((answer, index) => (
          <Box key={index} sx={{ display: "contents" }}>
            <Typography component="dt" color="text.secondary">
              {answer.label}
            </Typography>
            <Typography component="dd" sx={{ m: 0, whiteSpace: "pre-line" }}>
              {[answer.text, ...answer.files.map((file) => (typeof file === "string" ? file : file.name))]
                .filter(Boolean)
                .join(", ")}
            </Typography>
          </Box>
        ))}
      </Box>
    </Box>
  ));
}

function Say({ decision, onDone }: { decision: DecisionReply; onDone: () => void }) {
  const queryClient = useQueryClient();
  const [remark, setRemark] = useState("");
  const say = useMutation({
    mutationFn: (verdict: Verdict) => api.decide(decision.id, { step: decision.step, verdict, remark }),
    onSuccess: (_reply, verdict) => {
      setRemark("");
      if (verdict !== "remark") onDone();
    },
    onSettled: () => {
      void queryClient.invalidateQueries({ queryKey: queries.decisions().queryKey });
      void queryClient.invalidateQueries({ queryKey: ["decision"] });
    },
  });
  const may = decision.may_decide && !say.isPending;
  useVerdictKeys(may, (verdict) => say.mutate(verdict));
  const others = decision.deciders.map(({ name, stands_in }) => (stands_in ? `${name}, standing in` : name));
  return (
    <Box component="section" aria-label="Your decision" sx={{ display: "grid", gap: 1.25 }}>
      {decision.steps > 1 && (
        <Typography color="text.secondary">
          Step {decision.step + 1} of {decision.steps}
          {decision.step_name && `: ${decision.step_name}`}
        </Typography>
      )}
      {decision.state === "asked" && (
        <Typography variant="body2" color="text.secondary">
          {decision.every ? "Each of them has to approve: " : "One of them decides: "}
          {others.join(", ")}
        </Typography>
      )}
      {!decision.may_decide && <Alert severity="info">{STATES[decision.state]}</Alert>}
      {say.error && <Alert severity="warning">{reasonOf(say.error)}</Alert>}
      <TextField
        multiline
        minRows={3}
        label="Remark"
        value={remark}
        helperText="For the trail; and for the visitor, where a mail says {decision.remark}"
        onChange={(event) => setRemark(event.target.value.slice(0, 5_000))}
      />
      {decision.may_decide && (
        <>
          <Button variant="contained" disabled={!may} onClick={() => say.mutate("approve")}>
            Approve <Shortcut letter="A" />
          </Button>
          <Button variant="outlined" color="error" disabled={!may} onClick={() => say.mutate("deny")}>
            Deny <Shortcut letter="D" />
          </Button>
          <Button variant="outlined" disabled={!may || !remark.trim()} onClick={() => say.mutate("ask back")}>
            Ask back <Shortcut letter="B" />
          </Button>
        </>
      )}
      <Button disabled={say.isPending || !remark.trim()} onClick={() => say.mutate("remark")}>
        Only remark it
      </Button>
    </Box>
  );
}

const Shortcut = ({ letter }: { letter: string }) => (
  <Box component="span" aria-hidden sx={{ ml: 1, opacity: 0.8 }}>
    <Key>{letter}</Key>
  </Box>
);

/** A, D and B say what their buttons do, while nobody types. */
function useVerdictKeys(may: boolean, say: (verdict: Verdict) => void) {
  const latest = useRef(say);
  useEffect(() => {
    latest.current = say;
  });
  useEffect(() => {
    if (!may) return;
    const verdicts: Record<string, Verdict> = { a: "approve", d: "deny", b: "ask back" };
    const onKey = (event: KeyboardEvent) => {
      const verdict = verdicts[event.key.toLowerCase()];
      const isFree =
        !isTypingText(event.target) && !isSomethingOpen() && !event.ctrlKey && !event.metaKey && !event.altKey;
      if (!verdict || !isFree || isTurnedOff(event)) return;
      event.preventDefault();
      latest.current(verdict);
    };
    addEventListener("keydown", onKey);
    return () => removeEventListener("keydown", onKey);
  }, [may]);
}

function SaidSoFar({ said }: { said: readonly SaidReply[] }) {
  if (said.length === 0) return null;
  return (
    <Box component="section" aria-label="Said so far">
      <Typography variant="h3">Said so far</Typography>
      {said.map((each, at) => (
        <Box key={at} sx={{ py: 0.75, borderTop: 1, borderColor: "divider" }}>
          <Typography variant="body2">
            <b>{SAID[each.kind] ?? each.kind}</b>
            {each.person && `, ${each.person}`}
            {each.step && ` (${each.step})`}
          </Typography>
          {each.remark && (
            <Typography variant="body2" sx={{ whiteSpace: "pre-line" }}>
              {each.remark}
            </Typography>
          )}
          <Typography variant="body2" color="text.secondary">
            {asDayAndTime(each.at)}
          </Typography>
        </Box>
      ))}
    </Box>
  );
}
