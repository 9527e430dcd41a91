// A rehearsal: the draft gone through the whole way, by oneself, with all that it made in one place, and gone in one press.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { Link as RouterLink } from "react-router";
import { api, reasonOf } from "../../api/client";
import type { RehearsalReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { counted } from "../../text/words";
import { type As, AsVisitor, GUEST } from "../preview/AsVisitor";
import { useSignedIn } from "../signed_in";
import { useBench } from "../workbench/bench";
import { useDayAndTime } from "../workbench/useDayAndTime";
import { Waiting } from "../Waiting";
import { RehearsedResponse } from "./RehearsedResponse";

const EVERY_MS = 3_000;

export function Rehearsal() {
  const { reply, mayEdit } = useBench();
  const found = useQuery({ ...queries.rehearsal(reply.id), refetchInterval: EVERY_MS, enabled: mayEdit });
  const rehearsal = found.data?.rehearsal ?? null;
  return (
    <Box sx={{ height: "100%", overflow: "auto", p: 3 }}>
      <Box sx={{ maxWidth: 860, display: "grid", gap: 2 }}>
        <Box>
          <Typography variant="h1">Rehearsal</Typography>
          <Typography color="text.secondary">
            The whole way, tried for real and without consequences: you fill in, pay at the practice bank, decide in
            everybody’s place and let days pass. It has numbers, stock and places of its own, counts nowhere, and no
            mail or call leaves this machine; you read them here. It is yours alone, and gone after a week.
          </Typography>
          <Link component={RouterLink} to={`/forms/${reply.id}/trials`}>
            To the trials
          </Link>
        </Box>
        {!mayEdit && <Typography>Whoever may change the form rehearses it.</Typography>}
        {mayEdit && found.isPending && <Waiting />}
        {found.isError && <Alert severity="error">{reasonOf(found.error)}</Alert>}
        {found.data && <Steps rehearsal={rehearsal} />}
        {rehearsal?.responses.length === 0 && (
          <Typography role="status">Nothing was handed in yet. Fill it in, and look here again.</Typography>
        )}
        {rehearsal?.responses.map((each) => (
          <RehearsedResponse
            key={each.number}
            formId={reply.id}
            rehearsed={rehearsal.form}
            response={each}
            approvals={rehearsal.approvals.filter(({ number }) => number === each.number)}
          />
        ))}
      </Box>
    </Box>
  );
}

/** Beginning, filling in, letting days pass, and taking it all away. */
function Steps({ rehearsal }: { rehearsal: RehearsalReply | null }) {
  const { reply, saveState } = useBench();
  const dayAndTime = useDayAndTime();
  const queryClient = useQueryClient();
  const refresh = () => queryClient.invalidateQueries({ queryKey: queries.rehearsal(reply.id).queryKey });
  const begin = useMutation({ mutationFn: () => api.beginRehearsal(reply.id), onSuccess: refresh });
  const end = useMutation({ mutationFn: () => api.endRehearsal(reply.id), onSuccess: refresh });
  const clock = useMutation({ mutationFn: (days: number) => api.moveRehearsalOn(reply.id, days), onSuccess: refresh });
  const wrong = begin.error ?? end.error ?? clock.error;
  return (
    <Box sx={{ display: "grid", gap: 1.5 }}>
      <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap", alignItems: "center" }}>
        {rehearsal && (
          <Button
            variant="contained"
            href={rehearsal.address}
            target="_blank"
            rel="noopener"
            disabled={begin.isPending}
          >
            Fill it in
          </Button>
        )}
        <Button
          variant={rehearsal ? "outlined" : "contained"}
          color={rehearsal ? "inherit" : "primary"}
          disabled={saveState !== "saved"}
          loading={begin.isPending}
          onClick={() => begin.mutate()}
        >
          {rehearsal ? "Begin anew with the draft" : "Begin a rehearsal"}
        </Button>
        {rehearsal && (
          <>
            {[1, 7].map((days) => (
              <Button key={days} color="inherit" loading={clock.isPending} onClick={() => clock.mutate(days)}>
                Let {counted(days, "day")} pass
              </Button>
            ))}
            <FilledInBy rehearsal={rehearsal} />
            <Button color="error" loading={end.isPending} onClick={() => end.mutate()}>
              Take it all away
            </Button>
          </>
        )}
      </Box>
      {rehearsal && (
        <Typography variant="body2" color="text.secondary" role="status">
          Begun {dayAndTime(rehearsal.since)}
          {rehearsal.days > 0 && `, and ${counted(rehearsal.days, "day")} later by its clock`}. Later charges of a plan
          come as days pass at the practice bank.
        </Typography>
      )}
      {wrong && <Alert severity="error">{reasonOf(wrong)}</Alert>}
    </Box>
  );
}

/** As whom it is filled in, from the next page that is opened on. */
function FilledInBy({ rehearsal }: { rehearsal: RehearsalReply }) {
  const { reply } = useBench();
  const who = useSignedIn();
  const queryClient = useQueryClient();
  const choose = useMutation({
    mutationFn: ({ known }: As) => api.rehearseAs(reply.id, known),
    onSettled: () => queryClient.invalidateQueries({ queryKey: queries.rehearsal(reply.id).queryKey }),
  });
  const { filled_in_by: known, visitor_name } = rehearsal;
  const names: Readonly<Record<string, string>> = { "": GUEST.name, me: `You, ${who.person_name}` };
  const now = { ...GUEST, known, name: names[known] ?? (visitor_name || "A member who is gone") };
  return (
    <>
      <AsVisitor label="Filled in by" value={now} disabled={choose.isPending} onChange={(as) => choose.mutate(as)} />
      {choose.isError && <Alert severity="error">{reasonOf(choose.error)}</Alert>}
    </>
  );
}
