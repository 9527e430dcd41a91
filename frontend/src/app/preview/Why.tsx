// Why a part is as it is: the chain of rules, formulas and answers behind each of its facts, in words.
import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import FormControlLabel from "@mui/material/FormControlLabel";
import Switch from "@mui/material/Switch";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useMemo } from "react";
import { api } from "../../api/client";
import { queries } from "../../api/queries";
import type { TrialVisitor } from "../../api/generated/wire";
import { useBench } from "../workbench/bench";
import { askable } from "./asked";
import { Decides } from "./Decides";
import { Explained } from "./Explained";

interface Props {
  answers: Readonly<Record<string, unknown>>;
  link: Readonly<Record<string, string>>;
  /** As whom the draft is looked at. */
  visitor: TrialVisitor;
  /** The address of what is asked about, or null. */
  asked: string | null;
  onAsk: (address: string | null) => void;
  /** Whether it asks about the field that one is in in the preview. */
  follows: boolean;
  onFollow: (follows: boolean) => void;
}

export function Why({ answers, link, visitor, asked, onAsk, follows, onFollow }: Props) {
  const { reply, form, parts, saved, saveState } = useBench();
  const choices = useMemo(() => askable(parts, form, answers), [parts, form, answers]);
  const chosen = asked !== null && choices.has(asked) ? asked : null;
  const found = useQuery({
    queryKey: ["why", reply.id, saved.revision, chosen, answers, link, visitor],
    queryFn: () => api.explain(reply.id, { answers, link, visitor, part: chosen! }),
    enabled: chosen !== null && saveState === "saved",
    placeholderData: keepPreviousData,
    retry: false,
  });
  const outcome = useQuery({
    ...queries.outcome(reply.id, saved.revision, { answers, link, visitor }),
    enabled: chosen !== null && saveState === "saved",
    placeholderData: keepPreviousData,
  });
  return (
    <Box
      component="aside"
      aria-label="Why"
      sx={{ borderLeft: 1, borderColor: "divider", bgcolor: "background.paper", p: 2, overflow: "auto" }}
    >
      <Typography variant="h2">Why?</Typography>
      <Typography variant="body2" color="text.secondary" sx={{ mb: 1.5 }}>
        Read why a part of the form is as it is with these answers. One that is picked here stays while you go on in the
        preview.
      </Typography>
      <Autocomplete
        // By address: an object would be another with every answer, and what is typed here would be lost.
        options={[...choices.keys()]}
        value={chosen}
        getOptionLabel={(address) => choices.get(address) ?? ""}
        onChange={(_event, address) => onAsk(address)}
        renderInput={(params) => <TextField {...params} label="Block, page or figure" />}
      />
      <FormControlLabel
        control={<Switch size="small" checked={follows} onChange={(event) => onFollow(event.target.checked)} />}
        label="Follow the field I am in"
        sx={{ mt: 0.5 }}
      />
      {/* Not spoken at every field that one goes through in the form beside it. */}
      <Box aria-live={follows ? "off" : "polite"}>
        {found.isError && (
          <Typography color="text.secondary" sx={{ mt: 2 }}>
            {found.error.message}
          </Typography>
        )}
        {chosen && <Explained facts={found.data?.facts ?? []} />}
        {chosen && <Decides part={chosen.split("/").at(-1)!} outcome={outcome.data} />}
      </Box>
    </Box>
  );
}
