// Trials: saved answers with what must come out, run on the draft; and which rules they have tried.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import type { TrialResult } from "../../api/generated/wire";
import { api } from "../../api/client";
import { queries } from "../../api/queries";
import type { Trial } from "../../model/parts";
import { counted } from "../../text/words";
import { NOTHING_ANSWERED, useBench } from "../workbench/bench";
import { Reached } from "./Reached";
import { Coverage } from "./Coverage";
import { keepAsTrial } from "./keep";
import { SidePanel, SideRow } from "../../ui/SideList";
import { TrialDetail } from "./TrialDetail";

export function Trials() {
  const bench = useBench();
  const { form, reply, saved, saveState, mayEdit } = bench;
  const report = useQuery({ ...queries.trials(reply.id, saved.revision), retry: false });
  const [chosen, setChosen] = useState<string | null>(null);
  const [seed, setSeed] = useState(1);
  const results = new Map((report.data?.results ?? []).map((result) => [result.trial, result]));
  const broken = form.trials.filter((trial) => results.get(trial.id)?.passed === false);
  const failing = broken.length;
  // Who comes here while one fails comes for that.
  const trial = form.trials.find((each) => each.id === chosen) ?? broken[0] ?? form.trials[0];
  const adding = useMutation({
    mutationFn: () => api.untried(reply.id, seed),
    onSuccess: ({ answers, link, outcome }) => {
      setSeed(seed + 1);
      setChosen(keepAsTrial(bench, { ...NOTHING_ANSWERED, answers, link }, outcome).id);
    },
  });
  return (
    <Box sx={{ display: "grid", gridTemplateColumns: "minmax(300px, 30%) minmax(0, 1fr)", height: "100%" }}>
      <SidePanel name="All trials">
        <Box sx={{ p: 2, borderBottom: 1, borderColor: "divider" }}>
          <Typography variant="h1">Trials</Typography>
          <Typography role="status" color={failing > 0 ? "error" : "text.secondary"} sx={{ mb: 1 }}>
            {form.trials.length === 0
              ? "Answers with what must come out, run before every publish."
              : saveState !== "saved" || report.isFetching
                ? "Running …"
                : failing > 0
                  ? `${failing} of ${counted(form.trials.length, "trial")} ${failing === 1 ? "fails" : "fail"}`
                  : form.trials.length === 1
                    ? "The only trial passes"
                    : `All ${form.trials.length} trials pass`}
          </Typography>
          {mayEdit && (
            <Box sx={{ display: "flex", gap: 1 }}>
              <Button variant="outlined" color="inherit" loading={adding.isPending} onClick={() => adding.mutate()}>
                Add with sample answers
              </Button>
              <Button component={Link} to={`/forms/${reply.id}/preview`} color="inherit">
                Fill in the form
              </Button>
            </Box>
          )}
          {mayEdit && (
            <Button component={Link} to={`/forms/${reply.id}/rehearsal`} color="inherit" sx={{ mt: 1 }}>
              Rehearse the whole way …
            </Button>
          )}
        </Box>
        <Box component="ul" sx={{ flex: 1, m: 0, p: 0, listStyle: "none", overflow: "auto" }}>
          {form.trials.map((each) => (
            <li key={each.id}>
              <TrialRow
                trial={each}
                result={results.get(each.id)}
                chosen={each.id === trial?.id}
                onChoose={() => setChosen(each.id)}
              />
            </li>
          ))}
        </Box>
      </SidePanel>
      <Box
        sx={{ overflow: "auto", p: 3 }}
        tabIndex={0}
        role="region"
        aria-label="The selected trial and what the trials cover"
      >
        {(report.error ?? adding.error) && (
          <Typography role="alert" color="error">
            {(report.error ?? adding.error)!.message}
          </Typography>
        )}
        {adding.data && <Reached found={adding.data} onClose={adding.reset} />}
        {trial ? (
          <TrialDetail key={trial.id} trial={trial} result={results.get(trial.id)} />
        ) : (
          <Typography sx={{ maxWidth: 560, color: "text.secondary", mb: 3 }}>
            A trial remembers answers and everything that comes of them: what is shown, every figure, the pages and the
            confirmation. When a later change breaks one, it says what was expected and what came. Keep one from the
            preview, from a walk through the rules, or with sample answers.
          </Typography>
        )}
        {report.data && form.trials.length > 0 && <Coverage coverage={report.data.coverage} />}
      </Box>
    </Box>
  );
}

interface RowProps {
  trial: Trial;
  result: TrialResult | undefined;
  chosen: boolean;
  onChoose: () => void;
}

function TrialRow({ trial, result, chosen, onChoose }: RowProps) {
  const state =
    result === undefined ? "not run yet" : result.passed ? "passes" : counted(result.differences.length, "difference");
  return (
    <SideRow chosen={chosen} onChoose={onChoose}>
      <b>{trial.name}</b>
      <Typography variant="body2" sx={{ color: result?.passed === false ? "note.check" : "text.secondary" }}>
        {result?.passed === false ? "✕ " : result ? "✓ " : ""}
        {state}
      </Typography>
    </SideRow>
  );
}
