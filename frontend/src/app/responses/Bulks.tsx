// What is being done to many responses, how far it has come, and what came of it, with the way back.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import LinearProgress from "@mui/material/LinearProgress";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useEffect, useRef, useState } from "react";
import { api, reasonOf } from "../../api/client";
import type { AskingReply, BulkReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { mayMark, useSignedIn } from "../signed_in";
import { begunHere } from "./begun";
import { FACET } from "./facets";

const UNDONE: ReadonlySet<BulkReply["does"]> = new Set(["remove", "bring back", "tag"]);

export function Bulks({ formId, asking }: { formId: string; asking: AskingReply }) {
  const found = useQuery(queries.bulks(formId));
  const queryClient = useQueryClient();
  // What ended before this was open is not news.
  const [closed, setClosed] = useState<ReadonlySet<string>>(new Set());
  const bulks = found.data?.bulks ?? [];
  for (const each of bulks) if (each.state === "waiting") begunHere.add(each.id);
  const told = bulks.filter((each) => begunHere.has(each.id) && !closed.has(each.id));
  const moved = bulks.map((each) => each.place).join();
  const known = useRef(moved);
  useEffect(() => {
    // What stood there from the beginning changes nothing.
    if (!found.data || known.current === moved) return;
    known.current = moved;
    for (const name of ["responses", "response", "asking"])
      void queryClient.invalidateQueries({ queryKey: [name, formId] });
  }, [found.data, moved, queryClient, formId]);
  return told.map((bulk) => (
    <OneBulk
      key={bulk.id}
      {...{ formId, bulk, asking }}
      onClose={() => setClosed((before) => new Set(before).add(bulk.id))}
    />
  ));
}

interface OneProps {
  formId: string;
  bulk: BulkReply;
  asking: AskingReply;
  onClose: () => void;
}

function OneBulk({ formId, bulk, asking, onClose }: OneProps) {
  const who = useSignedIn();
  const queryClient = useQueryClient();
  const again = () => queryClient.invalidateQueries({ queryKey: queries.bulks(formId).queryKey });
  const stop = useMutation({ mutationFn: () => api.stopBulk(formId, bulk.id), onSettled: again });
  const undo = useMutation({
    mutationFn: () => api.undoBulk(formId, bulk.id),
    onSuccess: ({ id }) => {
      begunHere.add(id);
      onClose();
    },
    onSettled: again,
  });
  const waiting = bulk.state === "waiting";
  const problem = stop.error ?? undo.error;
  return (
    <Alert
      severity="info"
      onClose={waiting ? undefined : onClose}
      sx={{ mb: 1, "& .MuiAlert-message": { flex: 1 } }}
      action={
        !mayMark(who) ? undefined : waiting ? (
          <Button color="inherit" loading={stop.isPending} onClick={() => stop.mutate()}>
            Stop
          </Button>
        ) : (
          <>
            {UNDONE.has(bulk.does) && bulk.changed > 0 && (
              <Button color="inherit" loading={undo.isPending} onClick={() => undo.mutate()}>
                Undo
              </Button>
            )}
            <Button color="inherit" onClick={onClose}>
              Close
            </Button>
          </>
        )
      }
    >
      <Box role="status">{waiting ? underWay(bulk, asking) : whatCame(bulk, asking)}</Box>
      {waiting && (
        <LinearProgress
          variant="determinate"
          aria-label="How far it has come"
          value={(100 * bulk.place) / bulk.count}
          sx={{ mt: 0.75 }}
        />
      )}
      {problem && <Box role="alert">{reasonOf(problem)}</Box>}
    </Alert>
  );
}

const inFigures = (count: number): string => count.toLocaleString("en");
const responses = (count: number): string => `${inFigures(count)} ${count === 1 ? "response" : "responses"}`;

const underWay = (bulk: BulkReply, asking: AskingReply): string =>
  `${DOING[bulk.does]}${ofValue(bulk, asking)}: ${inFigures(bulk.place)} of ${responses(bulk.count)} gone through.`;

function whatCame(bulk: BulkReply, asking: AskingReply): string {
  const begins = bulk.state === "stopped" ? `Stopped after ${inFigures(bulk.place)} of ${responses(bulk.count)}. ` : "";
  const others = bulk.place - bulk.changed;
  const rest = others > 0 ? ` ${responses(others)} stayed as ${others === 1 ? "it was" : "they were"}.` : "";
  return `${begins}${responses(bulk.changed)} ${DONE[bulk.does]}${ofValue(bulk, asking)}.${rest}`;
}

const DOING: Readonly<Record<BulkReply["does"], string>> = {
  status: "Giving a status",
  tag: "Tagging",
  untag: "Taking a tag away",
  person: "Giving to somebody",
  remove: "Removing",
  "bring back": "Bringing back",
  anonymise: "Anonymising",
  "mail again": "Sending a mail again",
};

const DONE: Readonly<Record<BulkReply["does"], string>> = {
  status: "given a status",
  tag: "tagged",
  untag: "lost a tag",
  person: "given to somebody",
  remove: "removed",
  "bring back": "brought back",
  anonymise: "anonymised",
  "mail again": "whose mail is sent again",
};

const FACETS: Partial<Record<BulkReply["does"], string>> = { status: FACET.status, person: FACET.person };

/** Which status, tag or person it is. */
function ofValue({ does, value }: BulkReply, asking: AskingReply): string {
  if (does === "tag" || does === "untag") return ` “${value}”`;
  const facet = FACETS[does];
  if (!facet) return "";
  const options = asking.columns.find((each) => each.id === facet)?.options ?? [];
  return ` (${options.find((each) => each.code === value)?.label ?? "none"})`;
}
