// What a figure gives on the responses that came in: how often each value, and what could not be worked out.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { api, reasonOf } from "../../api/client";
import { queries } from "../../api/queries";
import type { Figure } from "../../model/parts";
import { counted } from "../../text/words";
import { useSignedIn } from "../signed_in";
import { NOTHING_ANSWERED, useBench } from "../workbench/bench";

const MOST_VALUES = 8;

export function OnResponses({ figure }: { figure: Figure }) {
  const { reply, saved, setTrying } = useBench();
  const who = useSignedIn();
  const [open, setOpen] = useState(false);
  const possible = reply.responses > 0 && who.role !== "viewer";
  const found = useQuery({ ...queries.triedResponses(reply.id, saved.revision), enabled: possible && open });
  if (!possible) return null;
  const responses = found.data?.responses ?? [];
  const byValue = new Map<string, number[]>();
  for (const response of responses) {
    const value = response.figures[figure.id] ?? "";
    byValue.set(value, [...(byValue.get(value) ?? []), response.number]);
  }
  const values = [...byValue].sort((one, other) => other[1].length - one[1].length);
  return (
    <Box sx={{ mt: 2 }}>
      <Button size="small" aria-expanded={open} onClick={() => setOpen(!open)} sx={{ px: 0.5 }}>
        {open ? "Hide" : "Try"} on real responses
      </Button>
      {open && <AgainstResponse figure={figure} />}
      {open && found.isError && <Typography color="error">{found.error.message}</Typography>}
      {open && responses.length > 0 && (
        <Box role="region" aria-label="Values on real responses">
          <Typography variant="body2" color="text.secondary">
            In the newest {counted(responses.length, "response")}, as this draft works it out:
          </Typography>
          {values.slice(0, MOST_VALUES).map(([value, numbers]) => (
            <Box
              key={value}
              sx={{ display: "grid", gridTemplateColumns: "160px 48px minmax(0,1fr)", gap: 1, alignItems: "baseline" }}
            >
              <Typography sx={{ fontVariantNumeric: "tabular-nums", color: value === "–" ? "note.check" : undefined }}>
                {value === "–" ? "could not be worked out" : value || "blank"}
              </Typography>
              <Typography color="text.secondary">{numbers.length}×</Typography>
              <Typography variant="body2" noWrap>
                {numbers.slice(0, 4).map((number) => (
                  <Button
                    key={number}
                    size="small"
                    color="inherit"
                    sx={{ py: 0, minWidth: 0 }}
                    onClick={() =>
                      setTrying({
                        ...NOTHING_ANSWERED,
                        name: `Response ${number}`,
                        answers: responses.find((each) => each.number === number)!.answers,
                      })
                    }
                  >
                    {number}
                  </Button>
                ))}
              </Typography>
            </Box>
          ))}
          {values.length > MOST_VALUES && (
            <Typography variant="body2" color="text.secondary">
              and {values.length - MOST_VALUES} other values
            </Typography>
          )}
        </Box>
      )}
    </Box>
  );
}

/** One response by its number: what the draft gives there, its number included, and its answers on the sheet. */
function AgainstResponse({ figure }: { figure: Figure }) {
  const { reply, setTrying } = useBench();
  const [typed, setTyped] = useState("");
  const number = Number(typed);
  const tried = useMutation({
    mutationFn: () => api.triedResponse(reply.id, number),
    onSuccess: ({ answers }) => setTrying({ ...NOTHING_ANSWERED, name: `Response ${number}`, answers }),
  });
  return (
    <Box
      component="form"
      onSubmit={(event) => {
        event.preventDefault();
        tried.mutate();
      }}
      sx={{ display: "flex", gap: 1, alignItems: "center", my: 1 }}
    >
      <TextField
        label="Against response no."
        value={typed}
        sx={{ width: 180 }}
        slotProps={{ htmlInput: { inputMode: "numeric", maxLength: 9 } }}
        onChange={(event) => setTyped(event.target.value.replace(/\D/g, ""))}
      />
      <Button type="submit" loading={tried.isPending} disabled={number < 1}>
        Try it
      </Button>
      <Typography role="status" sx={{ fontVariantNumeric: "tabular-nums" }}>
        {tried.isError
          ? reasonOf(tried.error)
          : tried.data && `Response ${tried.data.number}: ${tried.data.figures[figure.id] || "blank"}`}
      </Typography>
    </Box>
  );
}
