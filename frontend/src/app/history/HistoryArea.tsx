// History: every edition and saved state, what changed between two of them, and bringing one back.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useInfiniteQuery, useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useSearchParams } from "react-router";
import type { StateReply } from "../../api/generated/wire";
import { api } from "../../api/client";
import { asDay, asTime, counted } from "../../text/words";
import { useBench } from "../workbench/bench";
import { SidePanel, SideRow } from "../../ui/SideList";
import { ChangeList } from "./ChangeList";
import { beforeToday, type Step, stepsOf } from "./steps";

export function HistoryArea() {
  const { form, reply, saved, act, mayEdit } = useBench();
  const [search] = useSearchParams();
  const [chosen, setChosen] = useState<number | null>(() => Number(search.get("state")) || null);
  const [against, setAgainst] = useState<number | null>(null);
  const found = useInfiniteQuery({
    queryKey: ["states", reply.id, saved.revision],
    queryFn: ({ pageParam }) => api.states(reply.id, pageParam),
    initialPageParam: null as number | null,
    getNextPageParam: (last) => (last.states.length >= 200 ? last.states.at(-1)!.revision : undefined),
  });
  const states = found.data?.pages.flatMap((page) => page.states) ?? [];
  const steps = stepsOf(states);
  const state = states.find(({ revision }) => revision === chosen) ?? states[0];
  const step = steps.find((each) => each.states.some(({ revision }) => revision === state?.revision));
  const isWholeStep = step !== undefined && step.last === state;
  const usual = isWholeStep ? step.before : state && state.revision > 1 ? state.revision - 1 : null;
  const before = against ?? usual;
  const choose = (revision: number, compared: number | null = null) => {
    setChosen(revision);
    setAgainst(compared);
  };
  const today = beforeToday(states);
  const isOfToday = today !== null && states[0] !== undefined && states[0].revision > today;
  const bringingBack = useMutation({
    mutationFn: (revision: number) => api.state(reply.id, revision),
    onSuccess: ({ draft }) => act({ do: "replace", base: form, form: { ...draft, trials: form.trials } }),
  });
  return (
    <Box sx={{ display: "grid", gridTemplateColumns: "minmax(300px, 32%) minmax(0, 1fr)", height: "100%" }}>
      <SidePanel name="Saved states">
        <Box sx={{ p: 2, display: "grid", gap: 1, justifyItems: "start" }}>
          <Typography variant="h1">History</Typography>
          <Typography color="text.secondary">
            Every save is a state with a number. What one person saved without a pause stands together.
          </Typography>
          {isOfToday && (
            <Button size="small" variant="outlined" onClick={() => choose(states[0]!.revision, today)}>
              What changed today
            </Button>
          )}
        </Box>
        <Box component="ul" sx={{ flex: 1, m: 0, p: 0, listStyle: "none", overflow: "auto" }}>
          {steps.map((each) => (
            <li key={each.last.revision}>
              <StepRow step={each} chosen={each === step ? (state?.revision ?? null) : null} onChoose={choose} />
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
        {state && (
          <>
            <Typography variant="h2">{titleOf(state)}</Typography>
            <Box sx={{ display: "flex", flexWrap: "wrap", alignItems: "center", gap: 1.5, my: 1.5 }}>
              <TextField
                select
                label="Compared with"
                value={before ?? ""}
                disabled={states.length < 2 && before === null}
                onChange={(event) => setAgainst(Number(event.target.value))}
                sx={{ width: 320 }}
              >
                {steps
                  .filter((each) => each.last.revision !== state.revision)
                  .map((each) => (
                    <MenuItem key={each.last.revision} value={each.last.revision}>
                      {titleOf(each.last)}
                    </MenuItem>
                  ))}
                {before !== null && !steps.some((each) => each.last.revision === before) && (
                  <MenuItem value={before}>state {before}</MenuItem>
                )}
              </TextField>
              {mayEdit && <NameOfState key={state.revision} state={state} />}
              <Button href={api.stateAsText(reply.id, state.revision, null)} target="_blank" rel="noopener">
                As text
              </Button>
              {before !== null && (
                <Button href={api.stateAsText(reply.id, state.revision, before)} target="_blank" rel="noopener">
                  Texts compared
                </Button>
              )}
              {mayEdit && state.revision !== saved.revision && (
                <Button variant="outlined" onClick={() => bringingBack.mutate(state.revision)}>
                  Bring this back as the draft
                </Button>
              )}
            </Box>
            {before === null ? (
              <Typography color="text.secondary">This is how the form began.</Typography>
            ) : (
              <Changes before={Math.min(before, state.revision)} after={Math.max(before, state.revision)} />
            )}
          </>
        )}
      </Box>
    </Box>
  );
}

const when = (state: StateReply): string => `${asDay(state.saved_at)} ${asTime(state.saved_at)}`;

const titleOf = (state: StateReply): string =>
  [
    `State ${state.revision}`,
    state.name && `“${state.name}”`,
    state.edition && `Edition ${state.edition}`,
    when(state),
    state.saved_by,
  ]
    .filter(Boolean)
    .join(" · ");

/** What a state is called: kept once the field is left. */
function NameOfState({ state }: { state: StateReply }) {
  const { reply } = useBench();
  const queryClient = useQueryClient();
  const naming = useMutation({
    mutationFn: (name: string) => api.nameState(reply.id, state.revision, name),
    onSuccess: () => queryClient.invalidateQueries({ queryKey: ["states", reply.id] }),
  });
  const [typed, setTyped] = useState(state.name);
  const keep = () => typed.trim() !== state.name && naming.mutate(typed.trim());
  return (
    <TextField
      label="Called"
      value={typed}
      onChange={(event) => setTyped(event.target.value)}
      onBlur={keep}
      onKeyDown={(event) => event.key === "Enter" && keep()}
      error={naming.isError}
      helperText={naming.isError ? naming.error.message : undefined}
      slotProps={{ htmlInput: { maxLength: 100 } }}
      sx={{ width: 220 }}
    />
  );
}

interface StepProps {
  step: Step;
  /** The state of it that is looked at, or null. */
  chosen: number | null;
  onChoose: (revision: number) => void;
}

function StepRow({ step, chosen, onChoose }: StepProps) {
  const [open, setOpen] = useState(false);
  const { last, states } = step;
  const first = states.at(-1)!;
  const several = states.length > 1;
  return (
    <>
      <SideRow chosen={chosen === last.revision} onChoose={() => onChoose(last.revision)}>
        <b>{several ? `States ${first.revision} to ${last.revision}` : `State ${last.revision}`}</b>
        {last.edition !== null && ` · Edition ${last.edition}`}
        {last.name && ` · “${last.name}”`}
        <Typography variant="body2" color="text.secondary">
          {when(last)} · {last.saved_by ?? "somebody"} ·{" "}
          {counted(
            states.reduce((sum, each) => sum + each.changes, 0),
            "change",
          )}
        </Typography>
      </SideRow>
      {several && (
        <Button
          size="small"
          color="inherit"
          aria-expanded={open}
          onClick={() => setOpen(!open)}
          sx={{ ml: 1.5, mb: 0.5, color: "text.secondary" }}
        >
          {open ? "Fold" : `Each of ${states.length}`}
        </Button>
      )}
      {several && (open || (chosen !== null && chosen !== last.revision)) && (
        <Box component="ul" sx={{ m: 0, p: 0, pl: 2, listStyle: "none" }}>
          {states.map((each) => (
            <li key={each.revision}>
              <SideRow chosen={chosen === each.revision} onChoose={() => onChoose(each.revision)}>
                State {each.revision} · {asTime(each.saved_at)} · {counted(each.changes, "change")}
              </SideRow>
            </li>
          ))}
        </Box>
      )}
    </>
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
