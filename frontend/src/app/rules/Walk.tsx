// Walking the map: the answers that rules read, entered as visitors enter them.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Paper from "@mui/material/Paper";
import Typography from "@mui/material/Typography";
import { useMutation } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { api } from "../../api/client";
import { type Answer, SurroundingsContext } from "../../fields/input";
import { BlockOnPage } from "../../form/BlockOnPage";
import { isQuestion } from "../../model/blocks";
import type { Entry } from "../../model/parts";
import { stillSurroundings } from "../compose/still";
import { StillForm } from "../compose/StillForm";
import { keepAsTrial } from "../trials/keep";
import { NOTHING_ANSWERED, useBench } from "../workbench/bench";
import { useOutcome } from "../workbench/useOutcome";
import { TryingChoice } from "../workbench/TryingChoice";
import { rulesOf } from "./rules";

export function Walk() {
  const bench = useBench();
  const { form, parts, analysis, trying, setTrying, mayEdit, reply } = bench;
  const [open, setOpen] = useState(true);
  const [told, setTold] = useState("");
  const read = useMemo(() => answersRead(parts, analysis.notes), [parts, analysis.notes]);
  const values = useOutcome()?.values;
  // Figures, bands and scores, as they come out of the answers.
  const worked = form.figures.flatMap(({ id, name, key }) => {
    const text = values?.[id];
    return text ? [{ id, name: name || key, text }] : [];
  });
  const around = useMemo(() => stillSurroundings(analysis.state, null), [analysis.state]);
  const keeping = useMutation({
    mutationFn: () => api.outcome(reply.id, trying),
    onSuccess: ({ outcome }) => setTold(`Kept as “${keepAsTrial(bench, trying, outcome).name}”.`),
    onError: (error) => setTold(error.message),
  });
  const answer = (block: string, given: Answer) => {
    setTold("");
    setTrying({ ...trying, name: "Your answers", answers: { ...trying.answers, [block]: given } });
  };
  return (
    <Paper
      component="section"
      aria-label="Walk with these answers"
      variant="outlined"
      sx={{
        position: "absolute",
        top: 12,
        right: 12,
        width: 272,
        maxHeight: "calc(100% - 24px)",
        display: "flex",
        flexDirection: "column",
        p: 1.5,
      }}
    >
      <Box sx={{ display: "flex", justifyContent: "space-between", alignItems: "center", mb: open ? 1 : 0 }}>
        <Typography variant="h3" component="h2">
          Walk with these answers
        </Typography>
        <Button
          size="small"
          color="inherit"
          aria-expanded={open}
          onClick={() => setOpen(!open)}
          sx={{ py: 0, minWidth: 0 }}
        >
          {open ? "Fold" : "Unfold"}
        </Button>
      </Box>
      {open && (
        <>
          <TryingChoice label="Answers" />
          <Box sx={{ overflow: "auto", mt: 1.5, minHeight: 0 }}>
            <SurroundingsContext value={around}>
              <StillForm
                drawn
                sx={{
                  p: 1,
                  fontSize: "14px !important",
                  "& .cx-help": { display: "none" },
                  "& .cx-input": { minHeight: 34, py: 0.5 },
                  "& .cx-option": { minHeight: 34, py: 0.25 },
                }}
              >
                {read.map((entry) => (
                  <Box key={entry.id} sx={{ mb: 1.5 }}>
                    <BlockOnPage
                      block={numbered(entry)}
                      prefix="walk-"
                      answer={(trying.answers[entry.id] ?? null) as Answer}
                      facts={{ ...analysis.state.blocks[entry.id], shown: true, required: false, locked: false }}
                      error={null}
                      onChange={(given) => answer(entry.id, given)}
                    />
                  </Box>
                ))}
              </StillForm>
            </SurroundingsContext>
            {read.length === 0 && (
              <Typography variant="body2" color="text.secondary">
                No rule reads an answer yet.
              </Typography>
            )}
          </Box>
          <Box
            role="status"
            aria-label="What comes of it"
            tabIndex={worked.length > 0 ? 0 : undefined}
            sx={{ flex: "none", maxHeight: "35%", overflow: "auto" }}
          >
            {worked.map(({ id, name, text }) => (
              <Typography key={id} variant="body2" sx={{ display: "flex", gap: 1, mt: 0.5, overflowWrap: "anywhere" }}>
                <Box component="span" sx={{ flex: 1, color: "text.secondary" }}>
                  {name}
                </Box>
                <b>{text}</b>
              </Typography>
            ))}
          </Box>
          <Box sx={{ display: "flex", mt: 1 }}>
            <Button size="small" color="inherit" onClick={() => setTrying(NOTHING_ANSWERED)}>
              Clear
            </Button>
            {mayEdit && (
              <Button size="small" loading={keeping.isPending} onClick={() => keeping.mutate()}>
                Keep as trial
              </Button>
            )}
          </Box>
          <Typography role="status" variant="body2" color="text.secondary">
            {told}
          </Typography>
        </>
      )}
    </Paper>
  );
}

/** The field with its number before its label, as rules name it. */
const numbered = ({ part, number }: Extract<Entry, { what: "block" }>) =>
  "label" in part ? { ...part, label: `${number} ${part.label}` } : part;

/** The questions outside rows that some rule, or a figure that a rule reads, looks at. */
function answersRead(
  parts: ReturnType<typeof useBench>["parts"],
  notes: ReturnType<typeof useBench>["analysis"]["notes"],
) {
  const wanted = new Set(rulesOf(parts, notes).flatMap((rule) => rule.note.reads));
  for (const id of wanted) {
    const entry = parts.get(id);
    const derived = entry?.what === "figure" || (entry?.what === "block" && !isQuestion(entry.part));
    if (derived) for (const read of (notes[id] ?? []).flatMap((note) => note.reads)) wanted.add(read);
  }
  return [...parts.values()].flatMap((entry) =>
    entry.what === "block" && wanted.has(entry.id) && isQuestion(entry.part) && entry.kind === null ? [entry] : [],
  );
}
