// What waits for my decision, one after the other: the response on the left, what can be said on the right.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useEffect } from "react";
import { Link as RouterLink, useNavigate, useParams } from "react-router";
import { reasonOf } from "../../api/client";
import type { DecidedReply, WaitingReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { asDayAndTime } from "../../text/words";
import { Places } from "../Places";
import { TopBar } from "../TopBar";
import { Waiting } from "../Waiting";
import { OneDecision } from "./OneDecision";
import { Parts } from "./Parts";
import { SAID } from "./said";
import { Tasks } from "./Tasks";

export function Decisions() {
  const { decision } = useParams();
  const navigate = useNavigate();
  const inbox = useQuery({ ...queries.decisions(), refetchInterval: 15_000 });
  const waiting = inbox.data?.waiting ?? [];
  const first = waiting[0]?.id;
  useEffect(() => {
    document.title = "Decisions · Codexa";
  }, []);
  const shown = decision ?? first;
  /** The one after this, so that nobody has to look for it. */
  const next = (done: string) => {
    const rest = waiting.filter(({ id }) => id !== done);
    const at = waiting.findIndex(({ id }) => id === done);
    const following = rest[Math.max(0, Math.min(at, rest.length - 1))];
    void navigate(following ? `/decisions/${following.id}` : "/decisions");
  };
  return (
    <Box sx={{ display: "flex", flexDirection: "column", height: "100vh", minWidth: 1000 }}>
      <TopBar>
        <Places />
      </TopBar>
      <Box
        component="main"
        sx={{ flex: 1, minHeight: 0, display: "grid", gridTemplateColumns: "300px minmax(0, 1fr)" }}
      >
        <Box sx={{ borderRight: 1, borderColor: "divider", overflow: "auto", p: 2 }}>
          <Typography variant="h1">Decisions</Typography>
          {inbox.isPending && <Waiting />}
          {inbox.isError && <Alert severity="error">{reasonOf(inbox.error)}</Alert>}
          {inbox.data && <Beside parts={inbox.data.parts.length} />}
          {inbox.data && <Stack waiting={waiting} shown={shown} />}
          {inbox.data && inbox.data.parts.length > 0 && <Parts parts={inbox.data.parts} />}
          <Tasks />
          {inbox.data && inbox.data.decided.length > 0 && <History decided={inbox.data.decided} />}
        </Box>
        <Box sx={{ overflow: "auto", minWidth: 0 }}>
          {shown ? <OneDecision key={shown} id={shown} onDone={() => next(shown)} /> : inbox.data && <Nothing />}
        </Box>
      </Box>
    </Box>
  );
}

/** What is further down: many decisions hide it. */
function Beside({ parts }: { parts: number }) {
  const tasks = useQuery(queries.tasks()).data?.tasks.length ?? 0;
  return (
    <Box sx={{ display: "flex", gap: 1.5, mb: 0.5 }}>
      {parts > 0 && <Link href="#to-fill-in">{parts} to fill in</Link>}
      {tasks > 0 && <Link href="#to-do">{tasks} to do</Link>}
    </Box>
  );
}

const Nothing = () => (
  <Box sx={{ p: 4, maxWidth: 560 }}>
    <Typography variant="h2">Nothing waits for you</Typography>
    <Typography sx={{ mt: 1 }}>
      Where a form asks you to decide about a response, it stands here. Who decides is said in the form’s follow-ups, as
      an approval.
    </Typography>
    <Button component={RouterLink} to="/" sx={{ mt: 2 }} variant="outlined">
      To the forms
    </Button>
  </Box>
);

function Stack({ waiting, shown }: { waiting: readonly WaitingReply[]; shown: string | undefined }) {
  return (
    <>
      <Typography color="text.secondary" role="status" sx={{ mb: 1.5 }}>
        {waiting.length === 0
          ? "Nothing waits for you."
          : `${waiting.length} ${waiting.length === 1 ? "waits" : "wait"}`}
      </Typography>
      <Box component="ol" sx={{ listStyle: "none", m: 0, p: 0, display: "grid", gap: 1 }}>
        {waiting.map((each) => (
          <Box component="li" key={each.id}>
            <Link
              component={RouterLink}
              to={`/decisions/${each.id}`}
              aria-current={each.id === shown ? "page" : undefined}
              underline="none"
              color="inherit"
              sx={{
                display: "block",
                p: 1.25,
                border: 1,
                borderColor: each.id === shown ? "primary.main" : "divider",
                borderRadius: 1,
                bgcolor: "background.paper",
              }}
            >
              <Typography sx={{ fontWeight: 650 }}>{each.subject || each.name}</Typography>
              <Typography variant="body2" color="text.secondary">
                {each.form_name}, no. {each.number}
                {each.step_name && ` · ${each.step_name}`}
              </Typography>
              <Typography variant="body2" sx={{ color: isOver(each) ? "note.check" : "text.secondary" }}>
                {each.due_at
                  ? `${isOver(each) ? "Over since" : "Until"} ${asDayAndTime(each.due_at)}`
                  : `Since ${asDayAndTime(each.asked_at)}`}
              </Typography>
            </Link>
          </Box>
        ))}
      </Box>
    </>
  );
}

const isOver = ({ due_at }: WaitingReply): boolean => due_at !== null && Date.parse(due_at) < Date.now();

function History({ decided }: { decided: readonly DecidedReply[] }) {
  return (
    <Box component="section" aria-label="Decided by you" sx={{ mt: 3 }}>
      <Typography variant="h2">Decided by you</Typography>
      {decided.map((each) => (
        <Box key={`${each.form_id} ${each.number} ${each.at}`} sx={{ py: 0.75, borderTop: 1, borderColor: "divider" }}>
          <Typography variant="body2">
            <b>{SAID[each.kind] ?? each.kind}</b>{" "}
            <Link component={RouterLink} to={`/forms/${each.form_id}/responses/${each.number}`}>
              {each.form_name}, no. {each.number}
            </Link>
          </Typography>
          <Typography variant="body2" color="text.secondary">
            {asDayAndTime(each.at)}
            {each.remark && `: ${each.remark}`}
          </Typography>
        </Box>
      ))}
    </Box>
  );
}
