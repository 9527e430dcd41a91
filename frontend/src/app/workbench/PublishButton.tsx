import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import Snackbar from "@mui/material/Snackbar";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { ApiError } from "../../api/client";
import { useBench } from "./bench";

export function PublishButton() {
  const { saved, analysis, publish, reply, saveState } = useBench();
  const queryClient = useQueryClient();
  const [told, setTold] = useState(false);
  const [failing, setFailing] = useState<string | null>(null);
  const publishing = useMutation({
    mutationFn: (despiteTrials: boolean) => publish(despiteTrials),
    onSettled: () => setTold(true),
    onError: (error) => setFailing(error instanceof ApiError && error.code === "trials_fail" ? error.message : null),
    onSuccess: () => queryClient.invalidateQueries({ queryKey: ["editions", reply.id] }),
  });
  const errors = analysis.findings.filter((finding) => finding.severity === "error").length;
  const nothingNew = saved.liveEdition !== null && saved.changes === 0;
  // What could not be saved is in no proof yet.
  const isHeld = !["saved", "saving"].includes(saveState);
  const waits = isHeld ? "Waits until the draft is saved" : undefined;
  const close = () => setTold(false);
  return (
    <>
      <Button
        variant="contained"
        disabled={waits !== undefined || nothingNew || errors > 0}
        title={waits}
        loading={publishing.isPending}
        onClick={() => publishing.mutate(false)}
        sx={{
          whiteSpace: "nowrap",
          bgcolor: "bar.text",
          color: "bar.main",
          "&:hover": { bgcolor: "bar.quiet" },
          "&.Mui-disabled": { bgcolor: "bar.raised", color: "bar.quiet" },
        }}
      >
        {nothingNew ? `Edition ${saved.liveEdition} published` : `Publish edition ${(saved.liveEdition ?? 0) + 1}`}
      </Button>
      <Dialog open={failing !== null} onClose={() => setFailing(null)} aria-labelledby="failing-title">
        <DialogTitle id="failing-title">Publish with failing trials?</DialogTitle>
        <DialogContent>
          {failing} Visitors would get what the trials say is wrong. Look at them first, or publish all the same.
        </DialogContent>
        <DialogActions>
          <Button component={Link} to={`/forms/${reply.id}/trials`} onClick={() => setFailing(null)}>
            Look at the trials
          </Button>
          <Button
            color="error"
            onClick={() => {
              setFailing(null);
              publishing.mutate(true);
            }}
          >
            Publish all the same
          </Button>
        </DialogActions>
      </Dialog>
      <Snackbar open={told && failing === null} autoHideDuration={8000} onClose={close}>
        <Alert severity={publishing.isError ? "error" : "success"} onClose={close}>
          {publishing.isError ? publishing.error.message : `Edition ${publishing.data} is live.`}
        </Alert>
      </Snackbar>
    </>
  );
}
