// Publishing: what it will change is read first; why it has to wait is said at the button.
import Alert from "@mui/material/Alert";
import Button from "@mui/material/Button";
import Dialog from "@mui/material/Dialog";
import DialogActions from "@mui/material/DialogActions";
import DialogContent from "@mui/material/DialogContent";
import DialogTitle from "@mui/material/DialogTitle";
import MuiLink from "@mui/material/Link";
import Snackbar from "@mui/material/Snackbar";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link } from "react-router";
import { api, ApiError, reasonOf } from "../../api/client";
import { counted } from "../../text/words";
import { ChangeList } from "../history/ChangeList";
import { type Bench, useBench } from "./bench";

export function PublishButton() {
  const bench = useBench();
  const { saved, publish, reply } = bench;
  const queryClient = useQueryClient();
  const [asking, setAsking] = useState(false);
  const [told, setTold] = useState(false);
  const [failing, setFailing] = useState<string | null>(null);
  const [note, setNote] = useState("");
  const publishing = useMutation({
    mutationFn: (despiteTrials: boolean) => publish(despiteTrials, note),
    onSettled: () => {
      setAsking(false);
      setTold(true);
    },
    onError: (error) => setFailing(error instanceof ApiError && error.code === "trials_fail" ? error.message : null),
    onSuccess: () => {
      setNote("");
      return queryClient.invalidateQueries({ queryKey: ["editions", reply.id] });
    },
  });
  const edition = saved.newestEdition + 1;
  const waits = whyNot(bench);
  const close = () => setTold(false);
  return (
    <>
      <Button
        variant="contained"
        aria-disabled={waits !== null || undefined}
        title={waits ?? undefined}
        loading={publishing.isPending}
        onClick={() => setAsking(waits === null)}
        sx={{
          whiteSpace: "nowrap",
          bgcolor: waits === null ? "bar.text" : "bar.raised",
          color: waits === null ? "bar.main" : "bar.quiet",
          cursor: waits === null ? "pointer" : "default",
          "&:hover": { bgcolor: waits === null ? "bar.quiet" : "bar.raised" },
        }}
      >
        {isLive(bench) ? `Edition ${saved.liveEdition} published` : `Publish edition ${edition}`}
      </Button>
      {asking && (
        <Dialog open onClose={() => setAsking(false)} aria-labelledby="publish-title" maxWidth="sm" fullWidth>
          <DialogTitle id="publish-title">Publish edition {edition}?</DialogTitle>
          <DialogContent>
            <WhatChanges />
            <TextField
              label="Note for the team"
              value={note}
              onChange={(event) => setNote(event.target.value)}
              slotProps={{ htmlInput: { maxLength: 500 } }}
              sx={{ mt: 2 }}
              fullWidth
            />
            {saved.liveEdition !== null && (
              <Typography sx={{ mt: 1.5 }}>
                <MuiLink
                  component={Link}
                  to={`/forms/${reply.id}/publish?section=editions`}
                  onClick={() => setAsking(false)}
                >
                  Replay the latest responses first
                </MuiLink>
              </Typography>
            )}
          </DialogContent>
          <DialogActions>
            <Button color="inherit" onClick={() => setAsking(false)}>
              Not now
            </Button>
            <Button
              autoFocus
              variant="contained"
              loading={publishing.isPending}
              onClick={() => publishing.mutate(false)}
            >
              Publish
            </Button>
          </DialogActions>
        </Dialog>
      )}
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

const isLive = ({ saved, dirty }: Bench): boolean => saved.liveEdition !== null && saved.changes === 0 && !dirty;

/** Why nothing can be published now, or null. */
function whyNot(bench: Bench): string | null {
  const { analysis, saveState } = bench;
  if (isLive(bench)) return "What is live is what stands here";
  // What could not be saved is in no proof yet.
  if (!["saved", "saving"].includes(saveState)) return "Waits until the draft is saved";
  const errors = analysis.findings.filter((finding) => finding.severity === "error");
  if (errors.length === 0) return null;
  const more = errors.length > 1 ? ` And ${errors.length - 1} more.` : "";
  return `Waits for ${counted(errors.length, "error")} to be mended: ${errors[0]!.message}${more}`;
}

function WhatChanges() {
  const { reply, saved, saveNow, form, analysis } = useBench();
  const found = useQuery({
    queryKey: ["changes to come", reply.id],
    queryFn: async () => ((await saveNow()) ? api.changesToCome(reply.id) : { changes: [] }),
    staleTime: 0,
    gcTime: 0,
  });
  const doubts = analysis.findings.filter((finding) => finding.severity !== "error").length;
  if (found.isError) return <Alert severity="error">{reasonOf(found.error)}</Alert>;
  return (
    <>
      {saved.liveEdition === null ? (
        <Typography sx={{ overflowWrap: "anywhere" }}>
          From then on visitors reach {counted(form.pages.length, "page")} at {saved.address}.
        </Typography>
      ) : (
        <>
          <Typography sx={{ mb: 1.5 }}>
            Visitors get this from then on, instead of edition {saved.liveEdition}. Who is filling in now finishes as it
            was.
          </Typography>
          {found.data && <ChangeList changes={found.data.changes} />}
        </>
      )}
      {doubts > 0 && (
        <Typography color="text.secondary" sx={{ mt: 1.5 }}>
          The proof has no error and {counted(doubts, "doubt")}.
        </Typography>
      )}
    </>
  );
}
