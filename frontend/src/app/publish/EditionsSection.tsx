// Editions: what publishing would change, what replay says of it, and every edition so far, each a press from being live.
import Alert from "@mui/material/Alert";
import Chip from "@mui/material/Chip";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { api, reasonOf } from "../../api/client";
import { queries } from "../../api/queries";
import { counted } from "../../text/words";
import { AskFirst } from "../../ui/AskFirst";
import { ChangeList } from "../history/ChangeList";
import { useSignedIn } from "../signed_in";
import { useBench } from "../workbench/bench";
import { useDayAndTime } from "../workbench/useDayAndTime";
import { Layout, Panel } from "./Layout";
import { ReplayPicture } from "./ReplayPicture";
import { useReplay } from "./useReplay";

export function EditionsSection() {
  const { reply, saved, saveNow } = useBench();
  const who = useSignedIn();
  const { replay, start } = useReplay(reply.id, saveNow);
  const maySee = who.role !== "viewer";
  return (
    <Layout
      title="Editions"
      lead="Each stays as it was published, and so do its responses. Links and websites show the one that is live."
      picture={
        maySee ? (
          <ReplayPicture replay={replay} start={start} />
        ) : (
          <Typography color="text.secondary">
            Replay shows responses, which your role in the team does not see.
          </Typography>
        )
      }
    >
      {saved.liveEdition !== null && <ToCome />}
      <AllEditions />
    </Layout>
  );
}

function ToCome() {
  const { reply, saved, saveNow, analysis, form, dirty } = useBench();
  const found = useQuery({
    queryKey: ["changes to come", reply.id, saved.revision],
    queryFn: async () => ((await saveNow()) ? api.changesToCome(reply.id) : { changes: [] }),
    staleTime: 0,
  });
  const errors = analysis.findings.filter(({ severity }) => severity === "error").length;
  const doubts = analysis.findings.length - errors;
  const same = saved.changes === 0 && !dirty;
  return (
    <Panel
      title={same ? "What stands here is live" : "What the next edition changes"}
      {...(same
        ? {}
        : {
            lead: `Against edition ${saved.liveEdition}. Visitors who are filling in now finish on theirs, at its prices; links and websites stay as they are.`,
          })}
    >
      {found.isError && <Alert severity="error">{reasonOf(found.error)}</Alert>}
      {!same && found.data && <ChangeList changes={found.data.changes} />}
      <Typography color={errors > 0 ? "error" : "text.secondary"}>
        Proof: {counted(errors, "error")}, {counted(doubts, "doubt")}. {counted(form.trials.length, "trial")} run before
        it is published.
      </Typography>
    </Panel>
  );
}

function AllEditions() {
  const dayAndTime = useDayAndTime();
  const { reply, saved, mayEdit } = useBench();
  const editions = useQuery(queries.editions(reply.id));
  const all = editions.data?.editions ?? [];
  return (
    <Panel title="So far">
      {editions.isError && <Alert severity="error">{editions.error.message}</Alert>}
      {editions.data && all.length === 0 && <Typography color="text.secondary">None yet.</Typography>}
      {all.length > 0 && (
        <Table size="small">
          <TableHead>
            <TableRow>
              <TableCell>Edition</TableCell>
              <TableCell>Published</TableCell>
              <TableCell>Note</TableCell>
              <TableCell align="right">Responses</TableCell>
              <TableCell component="td" />
            </TableRow>
          </TableHead>
          <TableBody>
            {all.map((edition) => (
              <TableRow key={edition.number}>
                <TableCell>
                  {edition.number}{" "}
                  {edition.number === saved.liveEdition && <Chip size="small" color="primary" label="live" />}
                </TableCell>
                <TableCell>
                  {dayAndTime(edition.published_at)}
                  {edition.published_by && `, ${edition.published_by}`}
                  {edition.last_live_at && edition.last_live_at !== edition.published_at && (
                    <Typography variant="caption" color="text.secondary" component="div">
                      brought back {dayAndTime(edition.last_live_at)}
                      {edition.last_live_by && `, ${edition.last_live_by}`}
                    </Typography>
                  )}
                </TableCell>
                <TableCell sx={{ overflowWrap: "anywhere" }}>{edition.note}</TableCell>
                <TableCell align="right">{edition.responses}</TableCell>
                <TableCell align="right">
                  {mayEdit && edition.number !== saved.liveEdition && <GoBack edition={edition.number} />}
                </TableCell>
              </TableRow>
            ))}
          </TableBody>
        </Table>
      )}
    </Panel>
  );
}

function GoBack({ edition }: { edition: number }) {
  const { reply, saved, goBack } = useBench();
  const queryClient = useQueryClient();
  const back = useMutation({
    mutationFn: () => goBack(edition),
    onSuccess: () => queryClient.invalidateQueries({ queryKey: ["editions", reply.id] }),
  });
  return (
    <>
      <AskFirst
        label="Go back to it"
        color="primary"
        warning={`Visitors get edition ${edition} from then on, instead of ${saved.liveEdition}. Who is filling in now finishes as it was; the draft stays as it stands.`}
        onDone={() => back.mutate()}
      />
      {back.isError && <Alert severity="error">{reasonOf(back.error)}</Alert>}
    </>
  );
}
