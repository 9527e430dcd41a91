// What a follow-up of a response sends: the mail as it is read, or what another system was sent and answered, each time.
import Box from "@mui/material/Box";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import type { RunInFullReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import { MONO } from "../../theme/theme";
import { Waiting } from "../Waiting";
import { useDayAndTime } from "../workbench/useDayAndTime";
import { MailFrame } from "./MailFrame";

type Delivery = RunInFullReply["deliveries"][number];

interface Props {
  formId: string;
  run: number;
  /** Whether it is one of the form's rehearsal. */
  rehearsed?: boolean;
}

export function RunInFull({ formId, run, rehearsed = false }: Props) {
  const found = useQuery(rehearsed ? queries.rehearsedRun(formId, run) : queries.runInFull(formId, run));
  if (found.isPending) return <Waiting />;
  if (found.isError) return <Typography color="error">{found.error.message}</Typography>;
  const { html, body, deliveries } = found.data;
  if (html) return <MailFrame html={html} height={320} />;
  return (
    <Box sx={{ display: "grid", gap: 1 }}>
      <Verbatim name="What is sent" text={JSON.stringify(body, null, 2)} />
      {deliveries.map((delivery) => (
        <DeliverySeen key={delivery.try_} delivery={delivery} />
      ))}
    </Box>
  );
}

function DeliverySeen({ delivery: { try_, at, request, reply } }: { delivery: Delivery }) {
  const dayAndTime = useDayAndTime();
  const headers = (found: unknown): string =>
    Object.entries(found as Record<string, string>)
      .map(([name, value]) => `${name}: ${value}`)
      .join("\n");
  return (
    <Box component="section" aria-label={`Try ${try_}`}>
      <Typography variant="body2">
        <b>Try {try_}</b> · {dayAndTime(at)} · {reply ? `answered ${reply.status as number}` : "not answered"}
      </Typography>
      <Verbatim name="Request" text={`POST ${request.address as string}\n${headers(request.headers)}`} />
      {reply && (
        <Verbatim
          name="Reply"
          text={`${reply.status as number}\n${headers(reply.headers)}\n\n${reply.body as string}`}
        />
      )}
    </Box>
  );
}

function Verbatim({ name, text }: { name: string; text: string }) {
  return (
    <Box
      component="pre"
      role="group"
      aria-label={name}
      tabIndex={0}
      sx={{
        m: 0,
        p: 1,
        maxHeight: 180,
        overflow: "auto",
        fontFamily: MONO,
        fontSize: 12,
        lineHeight: "18px",
        whiteSpace: "pre-wrap",
        overflowWrap: "anywhere",
        bgcolor: "background.default",
      }}
    >
      {text}
    </Box>
  );
}
