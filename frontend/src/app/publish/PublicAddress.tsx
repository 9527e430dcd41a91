// The form's public address: it goes by the name until somebody chooses another; earlier ones lead on.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import InputAdornment from "@mui/material/InputAdornment";
import TextField from "@mui/material/TextField";
import { useMutation } from "@tanstack/react-query";
import { useState } from "react";
import { api, reasonOf } from "../../api/client";
import { useBench } from "../workbench/bench";

export function PublicAddress() {
  const { reply, saved, move, mayEdit } = useBench();
  const cut = saved.address.lastIndexOf("/") + 1;
  const [before, now] = [saved.address.slice(0, cut), saved.address.slice(cut)];
  const [typed, setTyped] = useState<string | null>(null);
  const choose = useMutation({
    mutationFn: (address: string) => api.setAddress(reply.id, address),
    onSuccess: (moved) => {
      move(moved);
      setTyped(null);
    },
  });
  const wanted = typed ?? now;
  const isLive = saved.liveEdition !== null;
  return (
    <Box
      component="form"
      onSubmit={(event) => {
        event.preventDefault();
        if (wanted !== now) choose.mutate(wanted);
      }}
      sx={{ display: "grid", gap: 1, mt: 1.5 }}
    >
      <Box sx={{ display: "flex", gap: 1, alignItems: "flex-start" }}>
        <TextField
          label="Address"
          value={wanted}
          disabled={!mayEdit}
          helperText={
            isLive
              ? "Small letters, digits and hyphens. Links to earlier addresses lead on to the new one."
              : "Small letters, digits and hyphens. Until you choose, it goes by the form’s name."
          }
          onChange={(event) => setTyped(event.target.value)}
          slotProps={{
            input: { startAdornment: <InputAdornment position="start">{before}</InputAdornment> },
            htmlInput: { spellCheck: false, maxLength: 200 },
          }}
          sx={{ flex: 1 }}
        />
        <Button
          type="submit"
          variant="outlined"
          aria-disabled={wanted === now || undefined}
          loading={choose.isPending}
          sx={{ minWidth: 76, opacity: wanted === now ? 0.5 : 1 }}
        >
          {choose.isSuccess && typed === null ? "Chosen" : "Choose"}
        </Button>
      </Box>
      {choose.isError && <Alert severity="error">{reasonOf(choose.error)}</Alert>}
    </Box>
  );
}
