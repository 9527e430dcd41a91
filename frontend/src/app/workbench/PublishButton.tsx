import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import Snackbar from "@mui/material/Snackbar";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { useBench } from "./bench";

export function PublishButton() {
  const { saved, analysis, publish, reply } = useBench();
  const queryClient = useQueryClient();
  const [told, setTold] = useState(false);
  const publishing = useMutation({
    mutationFn: publish,
    onSettled: () => setTold(true),
    onSuccess: () => queryClient.invalidateQueries({ queryKey: ["editions", reply.id] }),
  });
  const errors = analysis.findings.filter((finding) => finding.severity === "error").length;
  const nothingNew = saved.liveEdition !== null && saved.changes === 0;
  const close = () => setTold(false);
  return (
    <>
      <Button
        variant="contained"
        disabled={nothingNew || errors > 0}
        loading={publishing.isPending}
        onClick={() => publishing.mutate()}
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
      <Snackbar open={told} autoHideDuration={8000} onClose={close}>
        <Alert severity={publishing.isError ? "error" : "success"} onClose={close}>
          {publishing.isError ? publishing.error.message : `Edition ${publishing.data} is live.`}
        </Alert>
      </Snackbar>
    </>
  );
}
