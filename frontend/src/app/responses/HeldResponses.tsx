// Responses that look like a machine's: each with why, to be opened, let through or removed. They count nowhere yet.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MuiLink from "@mui/material/Link";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, reasonOf } from "../../api/client";
import { queries } from "../../api/queries";
import { counted } from "../../text/words";
import { AskFirst } from "../../ui/AskFirst";
import { mayEdit, useSignedIn } from "../signed_in";
import { useDayAndTime } from "../workbench/useDayAndTime";

export function HeldResponses({ formId }: { formId: string }) {
  const found = useQuery(queries.held(formId));
  const [open, setOpen] = useState(false);
  const all = found.data?.held ?? [];
  const [held, removed] = [all.filter((each) => !each.removed), all.filter((each) => each.removed)];
  if (all.length === 0) return null;
  return (
    <Alert
      severity={held.length > 0 ? "warning" : "info"}
      sx={{ mb: 1.5, "& .MuiAlert-message": { flex: 1 } }}
      action={
        <Button color="inherit" aria-expanded={open} onClick={() => setOpen(!open)}>
          {open ? "Close" : "Look at them"}
        </Button>
      }
    >
      {held.length > 0 &&
        `${counted(held.length, "suspected response")} held: they count nowhere, and nothing follows, until you let them through. `}
      {removed.length > 0 &&
        `${counted(removed.length, "suspected response")} removed: each can be brought back for 30 days.`}
      {open && (
        <Box component="ul" sx={{ m: 0, mt: 1, p: 0, listStyle: "none", display: "grid", gap: 1 }}>
          {[...held, ...removed].map((each) => (
            <OneHeld key={each.number} formId={formId} {...each} />
          ))}
        </Box>
      )}
    </Alert>
  );
}

interface OneProps {
  formId: string;
  number: number;
  received_at: string;
  reasons: readonly string[];
  removed: boolean;
}

function OneHeld({ formId, number, received_at, reasons, removed }: OneProps) {
  const dayAndTime = useDayAndTime();
  const who = useSignedIn();
  const queryClient = useQueryClient();
  const settle = useMutation({
    mutationFn: (ask: typeof api.letThrough) => ask(formId, number),
    onSuccess: async () => {
      await queryClient.invalidateQueries({ queryKey: ["held", formId] });
      await queryClient.invalidateQueries({ queryKey: ["responses", formId] });
    },
  });
  return (
    <Box component="li" sx={{ display: "flex", gap: 1, alignItems: "center", flexWrap: "wrap" }}>
      <MuiLink component={Link} to={`/forms/${formId}/responses/${number}`}>
        Response {number}
      </MuiLink>
      <span>
        {dayAndTime(received_at)}: {reasons.join("; ")}
      </span>
      {mayEdit(who) && removed && <Button onClick={() => settle.mutate(api.bringBackHeld)}>Bring back</Button>}
      {mayEdit(who) && !removed && (
        <>
          <Button onClick={() => settle.mutate(api.letThrough)}>Let through</Button>
          <AskFirst
            label="Remove"
            color="inherit"
            warning="It is removed, and what it had ordered is free for others again."
            onDone={() => settle.mutate(api.removeHeld)}
          />
        </>
      )}
      {settle.isError && <span role="alert">{reasonOf(settle.error)}</span>}
    </Box>
  );
}
