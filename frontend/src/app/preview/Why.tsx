// Why a block is as it is: the chain of rules, formulas and answers behind one fact, in words.
import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import TextField from "@mui/material/TextField";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import type { ExplanationReply } from "../../api/generated/wire";
import { api } from "../../api/client";
import { MONO } from "../../theme/theme";
import { useBench } from "../workbench/bench";

const FACTS = [
  { name: "shown", title: "Shown" },
  { name: "value", title: "Value" },
  { name: "required", title: "Required" },
  { name: "locked", title: "Locked" },
] as const;

interface Asked {
  id: string;
  label: string;
  facts: readonly string[];
}

export function Why({ answers, stale }: { answers: Record<string, unknown>; stale: boolean }) {
  const { reply, block, form, names, saved } = useBench();
  const choices = useMemo(() => askable(form, names), [form, names]);
  const [picked, setPicked] = useState<string | null>(block);
  const [wanted, setWanted] = useState<string>("shown");
  const asked = choices.find((each) => each.id === picked) ?? null;
  const fact = asked?.facts.includes(wanted) ? wanted : (asked?.facts[0] ?? "shown");
  const found = useQuery({
    queryKey: ["why", reply.id, saved.revision, asked?.id, fact, answers],
    queryFn: () => api.explain(reply.id, answers, `${asked!.id}.${fact}`),
    enabled: asked !== null && !stale,
    placeholderData: keepPreviousData,
    retry: false,
  });
  return (
    <Box
      component="aside"
      aria-label="Why"
      sx={{ borderLeft: 1, borderColor: "divider", bgcolor: "background.paper", p: 2, overflow: "auto" }}
    >
      <Typography variant="h2">Why?</Typography>
      <Typography variant="body2" color="text.secondary" sx={{ mb: 1.5 }}>
        Pick a block and read why it is as it is, with the answers given in the preview.
      </Typography>
      <Autocomplete
        options={choices}
        value={asked}
        getOptionKey={(option) => option.id}
        getOptionLabel={(option) => option.label}
        onChange={(_event, chosen) => setPicked(chosen?.id ?? null)}
        renderInput={(params) => <TextField {...params} label="Block, page or figure" />}
      />
      {asked && (
        <ToggleButtonGroup
          exclusive
          size="small"
          value={fact}
          aria-label="What about it"
          onChange={(_event, chosen: string | null) => chosen && setWanted(chosen)}
          sx={{ mt: 1.5 }}
        >
          {FACTS.filter(({ name }) => asked.facts.includes(name)).map(({ name, title }) => (
            <ToggleButton key={name} value={name} sx={{ px: 1.25, textTransform: "none", color: "text.primary" }}>
              {title}
            </ToggleButton>
          ))}
        </ToggleButtonGroup>
      )}
      <Box aria-live="polite" sx={{ mt: 2 }}>
        {found.isError && <Typography color="text.secondary">{found.error.message}</Typography>}
        {asked && found.data && <Chain told={found.data} />}
      </Box>
    </Box>
  );
}

function askable(
  form: ReturnType<typeof useBench>["form"],
  names: ReturnType<typeof useBench>["names"],
): readonly Asked[] {
  const figures = new Set(form.figures.map((figure) => figure.id));
  const pages = new Set(form.pages.map((page) => page.id));
  const inRows = new Set(
    form.pages.flatMap((page) =>
      page.blocks.flatMap((block) =>
        block.type === "repeat" ? block.kinds.flatMap((kind) => [kind.id, ...kind.blocks.map((each) => each.id)]) : [],
      ),
    ),
  );
  return [...names]
    .filter(([id]) => !inRows.has(id))
    .map(([id, { number, title }]) => ({
      id,
      label: `${number} ${title}`.trim(),
      facts: figures.has(id)
        ? ["value"]
        : pages.has(id)
          ? ["shown", "required", "locked"]
          : ["shown", "value", "required", "locked"],
    }));
}

function Chain({ told }: { told: ExplanationReply }) {
  return (
    <Box>
      <Typography>{told.sentence}</Typography>
      {told.formula && (
        <Box
          component="code"
          sx={{ display: "block", mt: 0.5, fontFamily: MONO, fontSize: 12, overflowWrap: "anywhere" }}
        >
          {told.formula}
        </Box>
      )}
      {told.because.length > 0 && (
        <Box component="ul" sx={{ m: 0, mt: 1, pl: 2, borderLeft: 2, borderColor: "divider", listStyle: "none" }}>
          {told.because.map((each) => (
            <Box component="li" key={`${each.owner} ${each.fact}`} sx={{ "& + &": { mt: 1 } }}>
              <Chain told={each} />
            </Box>
          ))}
        </Box>
      )}
    </Box>
  );
}
