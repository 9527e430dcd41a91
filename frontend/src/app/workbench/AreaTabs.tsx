import Box from "@mui/material/Box";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { NavLink } from "react-router";
import { queries } from "../../api/queries";
import { isListed } from "../rules/rules";
import { useSignedIn } from "../signed_in";
import { BEGINS_WITH_OUTCOME, fetchArea } from "./area_code";
import { AREAS, HISTORY } from "./areas";
import { useBench } from "./bench";

export function AreaTabs({ area, formId }: { area: string; formId: string }) {
  const { reply, form, parts, analysis, selected, selectAll, saved, trying } = useBench();
  const who = useSignedIn();
  const failing = useFailingTrials();
  const client = useQueryClient();
  const outcome = queries.outcome(reply.id, saved.revision, trying);
  const counts: Record<string, number> = {
    rules: Object.values(analysis.notes).flat().filter(isListed).length,
    figures: form.figures.length,
    languages: form.languages.length,
    "follow-ups": form.follow_ups.length,
    trials: form.trials.length,
    responses: reply.responses,
  };
  const hasSlots = [...parts.values()].some((entry) => entry.what === "block" && entry.part.type === "slot");
  const isThere: Record<string, boolean> = { responses: who.role !== "viewer", slots: hasSlots || area === "slots" };
  const areas = [...AREAS.filter(({ name }) => isThere[name] ?? true), HISTORY];
  return (
    <Box
      component="nav"
      aria-label="Areas"
      sx={{
        display: "flex",
        gap: 0.5,
        px: 1.5,
        height: 38,
        borderBottom: 1,
        borderColor: "divider",
        bgcolor: "background.paper",
      }}
    >
      {areas.map(({ name, title }) => (
        <Box
          key={name}
          component={NavLink}
          to={`/forms/${formId}/${name}`}
          // What is open in an area is closed with it: on coming back it would take the focus.
          onClick={() => selectAll(selected)}
          onPointerEnter={() => fetchArea(name)}
          onFocus={() => fetchArea(name)}
          onPointerDown={() => BEGINS_WITH_OUTCOME.has(name) && void client.prefetchQuery(outcome)}
          aria-current={name === area ? "page" : undefined}
          sx={{
            display: "flex",
            alignItems: "center",
            gap: 0.75,
            px: 1.25,
            ml: name === HISTORY.name ? "auto" : undefined,
            color: name === area ? "text.primary" : "text.secondary",
            fontWeight: name === area ? 650 : 600,
            fontSize: 14,
            textDecoration: "none",
            borderBottom: 3,
            borderColor: name === area ? "primary.main" : "transparent",
            "&:hover": { color: "text.primary" },
          }}
        >
          {title}
          {name === "trials" && failing > 0 ? (
            <Box
              component="span"
              sx={{ px: 0.75, fontSize: 12, borderRadius: 2, color: "background.paper", bgcolor: "note.check" }}
            >
              {failing} of {counts.trials}
            </Box>
          ) : (
            Boolean(counts[name]) && (
              <Box component="span" sx={{ fontSize: 12, fontWeight: 400, color: "text.secondary" }}>
                {counts[name]}
              </Box>
            )
          )}
        </Box>
      ))}
    </Box>
  );
}

/** How many trials of the draft fail, as it was saved last. */
export function useFailingTrials(): number {
  const { reply, saved, form } = useBench();
  const report = useQuery({ ...queries.trials(reply.id, saved.revision), enabled: form.trials.length > 0 });
  const known = new Set(form.trials.map((trial) => trial.id));
  return (report.data?.results ?? []).filter((result) => !result.passed && known.has(result.trial)).length;
}
