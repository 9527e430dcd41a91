// What replay found: how many responses would come out otherwise, and each of them with its differences.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import LinearProgress from "@mui/material/LinearProgress";
import MuiLink from "@mui/material/Link";
import Paper from "@mui/material/Paper";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { Link } from "react-router";
import type { ReplayedReply } from "../../api/generated/wire";
import { counted } from "../../text/words";
import { useBench } from "../workbench/bench";
import { useDayAndTime } from "../workbench/useDayAndTime";
import { type Replay, USUAL } from "./useReplay";

type Difference = ReplayedReply["differences"][number];

const KINDS: Record<Difference["kind"], string> = {
  refused: "would be refused",
  lost: "loses an answer",
  figure: "another figure",
  total: "another total",
  path: "another way",
  confirmation: "another confirmation",
};
const MOST_SHOWN = 200;

interface Props {
  replay: Replay;
  start: (most: number | null) => Promise<void>;
}

export function ReplayPicture({ replay, start }: Props) {
  const { reply } = useBench();
  const { state, lookedAt, differing, unreadable, more, problem } = replay;
  const total = Math.min(USUAL, reply.responses);
  return (
    <>
      <Box sx={{ display: "flex", alignItems: "center", justifyContent: "space-between", gap: 1 }}>
        <Typography sx={{ fontWeight: 600 }}>Replay</Typography>
        <Box sx={{ display: "flex", gap: 1 }}>
          {state === "done" && more && (
            <Button color="inherit" onClick={() => void start(null)}>
              All of them
            </Button>
          )}
          <Button variant="outlined" loading={state === "running"} onClick={() => void start(USUAL)}>
            {state === "done" ? "Again" : `Replay the latest ${USUAL}`}
          </Button>
        </Box>
      </Box>
      {state === "idle" && (
        <Typography color="text.secondary">
          The latest complete responses are put through the draft: which of them would now be refused, or come out with
          another figure, total, way or confirmation, and why. Nothing of them is changed.
        </Typography>
      )}
      {state === "running" && (
        <LinearProgress
          aria-label="Replay"
          variant={lookedAt < total ? "determinate" : "indeterminate"}
          value={total > 0 ? (100 * lookedAt) / total : 0}
        />
      )}
      {problem && <Alert severity="error">{problem}</Alert>}
      {state !== "idle" && (
        <Typography role="status" sx={{ fontWeight: 600 }}>
          {differing.length} of {counted(lookedAt, "response")} would come out differently.
          {unreadable > 0 && ` ${unreadable} are of editions that can’t be read any more.`}
        </Typography>
      )}
      {state !== "idle" && <Summary differing={differing} />}
      {differing.slice(0, MOST_SHOWN).map((each) => (
        <One key={each.number} replayed={each} />
      ))}
      {differing.length > MOST_SHOWN && (
        <Typography color="text.secondary">And {differing.length - MOST_SHOWN} more.</Typography>
      )}
    </>
  );
}

/** How often each kind of difference was found. */
function Summary({ differing }: { differing: readonly ReplayedReply[] }) {
  const kinds = Object.entries(KINDS).map(([kind, words]) => ({
    words,
    count: differing.filter(({ differences }) => differences.some((each) => each.kind === kind)).length,
  }));
  const found = kinds.filter(({ count }) => count > 0);
  if (found.length === 0) return null;
  return (
    <Typography color="text.secondary">{found.map(({ words, count }) => `${count} ${words}`).join(" · ")}</Typography>
  );
}

function One({ replayed: { number, received_at, edition, differences } }: { replayed: ReplayedReply }) {
  const { reply } = useBench();
  const dayAndTime = useDayAndTime();
  const [open, setOpen] = useState(false);
  const kinds = [...new Set(differences.map(({ kind }) => KINDS[kind]))];
  return (
    <Paper variant="outlined">
      <Box
        component="button"
        type="button"
        aria-expanded={open}
        onClick={() => setOpen(!open)}
        sx={{
          display: "block",
          width: "100%",
          p: 1.25,
          font: "inherit",
          color: "inherit",
          textAlign: "left",
          border: 0,
          background: "none",
          cursor: "pointer",
        }}
      >
        <b>{number}</b> {kinds.join(", ")}{" "}
        <Typography component="span" variant="body2" color="text.secondary">
          {dayAndTime(received_at)}, edition {edition}
        </Typography>
      </Box>
      {open && (
        <Box sx={{ px: 1.25, pb: 1.25, display: "grid", gap: 1 }}>
          {differences.map(({ kind, name, before, now, why }, at) => (
            <Box key={at}>
              <Typography sx={{ fontWeight: 600, overflowWrap: "anywhere" }}>{name}</Typography>
              <Typography sx={{ overflowWrap: "anywhere" }}>
                {before} →{" "}
                <Box
                  component="span"
                  sx={{ color: kind === "refused" || kind === "lost" ? "note.check" : undefined, fontWeight: 600 }}
                >
                  {now}
                </Box>
              </Typography>
              {why && (
                <Typography variant="body2" color="text.secondary">
                  Because {why}.
                </Typography>
              )}
            </Box>
          ))}
          <MuiLink component={Link} to={`/forms/${reply.id}/responses/${number}`}>
            Open the response
          </MuiLink>
        </Box>
      )}
    </Paper>
  );
}
