// Jobs and mail, for owners: whether work gets done, how mail is sent and whether it works, and what was done of late.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Table from "@mui/material/Table";
import TableBody from "@mui/material/TableBody";
import TableCell from "@mui/material/TableCell";
import TableHead from "@mui/material/TableHead";
import TableRow from "@mui/material/TableRow";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import type { WorkingsReply } from "../../api/generated/wire";
import { api } from "../../api/client";
import { queries } from "../../api/queries";
import { asDayAndTime, counted } from "../../text/words";
import { STATES } from "../follow_ups/kinds";
import { Single } from "../Single";
import { useSignedIn } from "../signed_in";
import { Waiting } from "../Waiting";

export function Workings() {
  const found = useQuery(queries.workings());
  return (
    <Single title="Jobs and mail">
      {found.isPending && <Waiting />}
      {found.isError && <Alert severity="error">{found.error.message}</Alert>}
      {found.data && (
        <Box sx={{ display: "grid", gap: 4 }}>
          <Queue queue={found.data.queue} />
          <Mail workings={found.data} />
          <Errands errands={found.data.errands} />
        </Box>
      )}
    </Single>
  );
}

function Queue({ queue: { waiting, later, running, workers } }: { queue: WorkingsReply["queue"] }) {
  return (
    <Box component="section" aria-label="Work to be done">
      {workers === 0 && (
        <Alert severity="error" sx={{ mb: 1 }}>
          No worker gives a sign of life: nothing is sent. Start one, as the documentation says.
        </Alert>
      )}
      <Typography>
        {counted(workers, "worker")} at work · {counted(running, "job")} being done · {waiting} waiting now · {later}{" "}
        for later
      </Typography>
    </Box>
  );
}

function Mail({ workings }: { workings: WorkingsReply }) {
  const who = useSignedIn();
  const queryClient = useQueryClient();
  const test = useMutation({
    mutationFn: api.testMail,
    onSuccess: () => void queryClient.invalidateQueries({ queryKey: queries.workings().queryKey }),
  });
  const tested = workings.errands.find(({ id }) => id === test.data?.errand);
  const told: readonly [string, string][] = [
    ["Mail server", `${workings.smtp_host}, port ${workings.smtp_port}`],
    ["Encrypted", workings.smtp_tls === "none" ? "no" : "yes, by STARTTLS"],
    ["Signs in as", workings.smtp_user || "nobody"],
    ["Mail comes from", workings.mail_from],
    ["Mails of one form within an hour", `at most ${workings.mails_per_hour}`],
  ];
  return (
    <Box component="section" aria-label="Mail">
      <Typography variant="h2" sx={{ mb: 1 }}>
        Mail
      </Typography>
      <Box component="dl" sx={{ m: 0, display: "grid", gridTemplateColumns: "240px 1fr", rowGap: 0.5 }}>
        {told.map(([name, value]) => (
          <Box key={name} sx={{ display: "contents" }}>
            <Typography component="dt" color="text.secondary">
              {name}
            </Typography>
            <Typography component="dd" sx={{ m: 0 }}>
              {value}
            </Typography>
          </Box>
        ))}
      </Box>
      <Typography variant="body2" color="text.secondary" sx={{ mt: 1 }}>
        These are settings of the server: CODEXA_SMTP_HOST and its like.
      </Typography>
      <Box sx={{ display: "flex", alignItems: "center", gap: 2, mt: 1 }}>
        <Button variant="outlined" loading={test.isPending} onClick={() => test.mutate()}>
          Send a test mail to {who.email}
        </Button>
        {test.isError && <Typography color="error">{test.error.message}</Typography>}
        {tested && (
          <Typography role="status" color={tested.state === "failed" ? "error" : undefined}>
            {tested.state === "done" ? "It works: " : tested.state === "failed" ? "It does not work: " : "On its way"}
            {tested.result}
          </Typography>
        )}
      </Box>
    </Box>
  );
}

function Errands({ errands }: { errands: WorkingsReply["errands"] }) {
  return (
    <Box component="section" aria-label="Done of late">
      <Typography variant="h2" sx={{ mb: 1 }}>
        Done of late
      </Typography>
      <Typography color="text.secondary" sx={{ mb: 1 }}>
        Work that follows from no response. What follows from one is listed at the response, and in Follow-ups.
      </Typography>
      <Table size="small">
        <TableHead>
          <TableRow>
            <TableCell>Asked for</TableCell>
            <TableCell>What</TableCell>
            <TableCell>How it stands</TableCell>
            <TableCell align="right">Tries</TableCell>
            <TableCell>What came of it</TableCell>
          </TableRow>
        </TableHead>
        <TableBody>
          {errands.map((errand) => (
            <TableRow key={errand.id}>
              <TableCell sx={{ whiteSpace: "nowrap" }}>{asDayAndTime(errand.created_at)}</TableCell>
              <TableCell>{errand.kind}</TableCell>
              <TableCell>{STATES[errand.state]}</TableCell>
              <TableCell align="right">{errand.tries}</TableCell>
              <TableCell sx={{ overflowWrap: "anywhere" }}>{errand.result}</TableCell>
            </TableRow>
          ))}
          {errands.length === 0 && (
            <TableRow>
              <TableCell colSpan={5}>Nothing yet.</TableCell>
            </TableRow>
          )}
        </TableBody>
      </Table>
    </Box>
  );
}
