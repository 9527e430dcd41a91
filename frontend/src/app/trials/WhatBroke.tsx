// Since when a trial fails: the saved state that broke it, who saved that, and what in it leads to the difference.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { Link } from "react-router";
import { api } from "../../api/client";
import { asDay, asTime } from "../../text/words";
import { ChangeList } from "../history/ChangeList";
import { useBench } from "../workbench/bench";

export function WhatBroke({ trial }: { trial: string }) {
  const { reply, saved, saveState } = useBench();
  const found = useQuery({
    queryKey: ["broken", reply.id, saved.revision, trial],
    queryFn: () => api.whatBroke(reply.id, trial),
    enabled: saveState === "saved",
    retry: false,
  });
  if (found.isError) return <Typography role="alert">{found.error.message}</Typography>;
  if (!found.data) return <Typography color="text.secondary">Looking for what broke it …</Typography>;
  const { fails, passed, failed, changes } = found.data;
  if (!fails) return null;
  if (!passed || !failed)
    return (
      <Typography color="text.secondary">
        It passes in none of the saved states that were looked at, up to 200.
      </Typography>
    );
  return (
    <Box component="section" aria-label="What broke it" sx={{ mt: 1.5 }}>
      <Typography sx={{ mb: 1 }}>
        It passed until state {passed.revision}. {failed.saved_by ?? "Somebody"} saved state {failed.revision}{" "}
        {asDay(failed.saved_at)} at {asTime(failed.saved_at)}, and this leads there:
      </Typography>
      <ChangeList changes={changes} />
      <Button
        component={Link}
        to={`/forms/${reply.id}/history?state=${failed.revision}`}
        size="small"
        color="inherit"
        sx={{ mt: 1 }}
      >
        See state {failed.revision} in History
      </Button>
    </Box>
  );
}
