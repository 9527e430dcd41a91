// Which answers rules and figures are tried with: nothing, samples, a trial's, or one of the newest responses.
import Divider from "@mui/material/Divider";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api } from "../../api/client";
import { queries } from "../../api/queries";
import { useSignedIn } from "../signed_in";
import { NOTHING_ANSWERED, useBench } from "./bench";

const MOST_RESPONSES = 8;
const IN_LINE = {
  disableUnderline: true,
  sx: { fontSize: 12.5, fontWeight: 600, maxWidth: 260, "& .MuiSelect-select": { py: 0 } },
} as const;

interface Props {
  label: string;
  /** A line in a bar, not a field of its own. */
  inLine?: boolean;
}

export function TryingChoice({ label, inLine = false }: Props) {
  const { form, reply, saved, trying, setTrying } = useBench();
  const who = useSignedIn();
  const [seed, setSeed] = useState(1);
  const [opened, setOpened] = useState(false);
  const tried = useQuery({
    ...queries.triedResponses(reply.id, saved.revision),
    // All of them are worked out anew for every draft: not until somebody looks.
    enabled: opened && reply.responses > 0 && who.role !== "viewer",
  });
  const sampling = useMutation({
    mutationFn: () => api.sample(reply.id, seed),
    onSuccess: ({ answers }) => {
      setSeed(seed + 1);
      setTrying({ ...NOTHING_ANSWERED, name: "Sample answers", answers });
    },
  });
  const responses = (tried.data?.responses ?? []).slice(0, MOST_RESPONSES);
  const choose = (value: string) => {
    const [kind, id] = value.split(" ");
    if (kind === "sample") sampling.mutate();
    if (kind === "nothing") setTrying(NOTHING_ANSWERED);
    const trial = form.trials.find((each) => each.id === id);
    if (kind === "trial" && trial)
      setTrying({
        name: `Trial “${trial.name}”`,
        answers: trial.answers,
        link: trial.link,
        day: trial.day,
        visitor: trial.visitor,
      });
    const response = responses.find((each) => String(each.number) === id);
    if (kind === "response" && response)
      setTrying({ ...NOTHING_ANSWERED, name: `Response ${response.number}`, answers: response.answers });
  };
  return (
    <TextField
      select
      label={inLine ? undefined : label}
      variant={inLine ? "standard" : "outlined"}
      value="now"
      error={sampling.isError}
      helperText={sampling.error?.message}
      onChange={(event) => choose(event.target.value)}
      slotProps={{
        select: { onOpen: () => setOpened(true) },
        input: inLine ? IN_LINE : {},
        htmlInput: inLine ? { "aria-label": label } : {},
      }}
      sx={{ width: inLine ? "auto" : 240 }}
    >
      <MenuItem value="now" sx={{ display: "none" }}>
        {trying.name}
      </MenuItem>
      <MenuItem value="nothing">Nothing answered</MenuItem>
      <MenuItem value="sample">{seed === 1 ? "Sample answers" : "Other sample answers"}</MenuItem>
      {form.trials.length > 0 && <Divider />}
      {form.trials.map((trial) => (
        <MenuItem key={trial.id} value={`trial ${trial.id}`}>
          Trial “{trial.name}”
        </MenuItem>
      ))}
      {responses.length > 0 && <Divider />}
      {responses.map((response) => (
        <MenuItem key={response.number} value={`response ${response.number}`}>
          Response {response.number}
        </MenuItem>
      ))}
    </TextField>
  );
}
