// History: every edition and saved state, what changed between two of them, and bringing one back.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useInfiniteQuery, useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { StateReply } from "../../api/generated/wire";
import { api } from "../../api/client";
import { asDay, asTime, counted } from "../../text/words";
import { useBench } from "../workbench/bench";
import { SidePanel, SideRow } from "../../ui/SideList";
import { ChangeList } from "./ChangeList";
import { type Step, stepsOf } from "./steps";

export function HistoryArea() {
  const { form, reply, saved, act, mayEdit } = useBench();
  const [chosen, setChosen] = useState<number | null>(null);
  const [against, setAgainst] = useState<number | null>(null);
  const found = useInfiniteQuery({
    queryKey: ["states", reply.id, saved.revision],
    queryFn: ({ pageParam }) => api.states(reply.id, pageParam),
    initialPageParam: null as number | null,
    getNextPageParam: (last) => (last.states.length >= 200 ? last.states.at(-1)!.revision : undefined),
  });
  const states = found.data?.pages.flatMap((page) => page.states) ?? [];
  const steps = stepsOf(states);
  const at = steps.findIndex((step) => step.last.revision === chosen);
  const step = steps[Math.max(0, at)];
  const before = against ?? step?.before ?? null;
  const bringingBack = useMutation({
    mutationFn: (revision: number) => api.state(reply.id, revision),
    onSuccess: ({ draft }) => act({ do: "replace", base: form, form: { ...draft, trials: form.trials } }),
  });
  return (
    <Box sx={{ display: "grid", gridTemplateColumns: "minmax(300px, 32%) minmax(0, 1fr)", height: "100%" }}>
      <SidePanel name="Saved states">
        <Box sx={{ p: 2 }}>
          <Typography variant="h1">History</Typography>
          <Typography color="text.secondary">Saves that followed each other closely stand together.</Typography>
        </Box>
        <Box component="ul" sx={{ flex: 1, m: 0, p: 0, listStyle: "none", overflow: "auto" }}>
          {steps.map((each) => (
            <li key={each.last.revision}>
              <StepRow
                step={each}
                chosen={each === step}
                onChoose={() => {
                  setChosen(each.last.revision);
                  setAgainst(null);
                }}
              />
            </li>
          ))}
          {found.hasNextPage && (
            <li>
              <Button onClick={() => void found.fetchNextPage()} sx={{ m: 1 }}>
                Older states
              </Button>
            </li>
          )}
        </Box>
      </SidePanel>
      <Box sx={{ overflow: "auto", p: 3 }} tabIndex={0} role="region" aria-label="What changed">
        {bringingBack.isSuccess && (
          <Alert severity="success" onClose={bringingBack.reset} sx={{ mb: 2 }}>
            The draft is as it was in state {bringingBack.variables}, with the trials of today. Undo brings back what it
            was before.
          </Alert>
        )}
        {bringingBack.isError && (
          <Alert severity="error" onClose={bringingBack.reset} sx={{ mb: 2 }}>
            {bringingBack.error.message}
          </Alert>
        )}
        {step && (
          <>
            <Typography variant="h2">{titleOf(step)}</Typography>
            <Box sx={{ display: "flex", alignItems: "center", gap: 1.5, my: 1.5 }}>
              <TextField
                select
                label="Compared with"
                value={before ?? ""}
                disabled={steps.length < 2 && before === null}
                onChange={(event) => setAgainst(Number(event.target.value))}
                sx={{ width: 320 }}
              >
                {steps
                  .filter((each) => each.last.revision !== step.last.revision)
                  .map((each) => (
                    <MenuItem key={each.last.revision} value={each.last.revision}>
                      {titleOf(each)}
                    </MenuItem>
                  ))}
                {before !== null && !steps.some((each) => each.last.revision === before) && (
                  <MenuItem value={before}>the state before</MenuItem>
                )}
              </TextField>
              {mayEdit && step.last.revision !== saved.revision && (
                <Button variant="outlined" onClick={() => bringingBack.mutate(step.last.revision)}>
                  Bring this back as the draft
                </Button>
              )}
            </Box>
            {before === null ? (
              <Typography color="text.secondary">This is how the form began.</Typography>
            ) : (
              <Changes before={Math.min(before, step.last.revision)} after={Math.max(before, step.last.revision)} />
            )}
          </>
        )}
      </Box>
    </Box>
  );
}

const titleOf = (step: Step): string =>
  `${step.last.edition ? `Edition ${step.last.edition} · ` : ""}${asDay(step.last.saved_at)} ${asTime(step.last.saved_at)}${
    step.last.saved_by ? ` · ${step.last.saved_by}` : ""
  }`;

function StepRow({ step, chosen, onChoose }: { step: Step; chosen: boolean; onChoose: () => void }) {
  const state: StateReply = step.last;
  return (
    <SideRow chosen={chosen} onChoose={onChoose}>
      {state.edition ? <b>Edition {state.edition}</b> : `${asDay(state.saved_at)} ${asTime(state.saved_at)}`}
      <Typography variant="body2" color="text.secondary">
        {state.edition && `${asDay(state.saved_at)} ${asTime(state.saved_at)} · `}
        {state.saved_by ?? "somebody"}
        {step.count > 1 && ` · ${counted(step.count, "save")}`}
      </Typography>
    </SideRow>
  );
}

function Changes({ before, after }: { before: number; after: number }) {
  const { reply } = useBench();
  const found = useQuery({
    queryKey: ["changes", reply.id, before, after],
    queryFn: () => api.changes(reply.id, before, after),
    staleTime: Infinity,
  });
  if (found.isError) return <Typography color="error">{found.error.message}</Typography>;
  if (!found.data) return null;
  return <ChangeList changes={found.data.changes} />;
}
