// A file whose lines are taken in: how far it has come, what did not fit, and a way to stop it.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { useMutation } from "@tanstack/react-query";
import type { ImportReply } from "../../api/generated/wire";
import { asDayAndTime, counted } from "../../text/words";
import { LineList } from "./WrongLines";

interface Props {
  file: ImportReply;
  /** What a line becomes. */
  noun: string;
  onStop: () => Promise<unknown>;
  onStopped: () => Promise<unknown>;
}

export function Taken({ file, noun, onStop, onStopped }: Props) {
  const stop = useMutation({ mutationFn: onStop, onSettled: onStopped });
  const waiting = file.state === "waiting";
  return (
    <Box component="section" aria-label={file.name} sx={{ width: "100%" }}>
      <Typography role="status">
        <b>{file.name}</b> · {asDayAndTime(file.created_at)}
        {file.person && ` · ${file.person}`}:{" "}
        {waiting && `${file.place.toLocaleString("en")} of ${counted(file.count, "line")} gone through, `}
        {counted(file.kept, noun)} brought in
        {file.refused.length > 0 && `, ${counted(file.place - file.kept, "line")} did not fit`}
        {file.state === "stopped" && ", then stopped"}.
      </Typography>
      {waiting && (
        <Button color="inherit" loading={stop.isPending} onClick={() => stop.mutate()}>
          Stop
        </Button>
      )}
      {file.refused.length > 0 && <LineList lines={file.refused} />}
    </Box>
  );
}
