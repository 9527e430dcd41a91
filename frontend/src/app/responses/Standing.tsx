// With which part of its form a response stands, and giving it to another, or back to who filled it in.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMutation, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { api, reasonOf } from "../../api/client";
import type { ResponseReply } from "../../api/generated/wire";
import { mayEdit, useSignedIn } from "../signed_in";
import { useDayAndTime } from "../workbench/useDayAndTime";

const NOBODY = "nobody";

export function Standing({ formId, reply }: { formId: string; reply: ResponseReply }) {
  const { standing, parts, row } = reply;
  const dayAndTime = useDayAndTime();
  const who = useSignedIn();
  const queryClient = useQueryClient();
  const [to, setTo] = useState(NOBODY);
  const [remark, setRemark] = useState("");
  const give = useMutation({
    mutationFn: () => api.giveTo(formId, row.number, { to, remark }),
    onSuccess: () => {
      setTo(NOBODY);
      setRemark("");
      return queryClient.invalidateQueries();
    },
  });
  if (parts.length === 0 && !standing) return null;
  return (
    <Box component="section" aria-label="Stands with" sx={{ display: "grid", gap: 1, mb: 2 }}>
      <Typography>
        {standing ? (
          <>
            Stands with <b>{standing.name}</b> since {dayAndTime(standing.since)}
          </>
        ) : (
          "All its parts are filled in."
        )}
        {standing?.remark && ` · ${standing.by_name}: ${standing.remark}`}
      </Typography>
      {mayEdit(who) && row.stage === "complete" && (
        <TextField select label="Give it to" value={to} onChange={({ target }) => setTo(target.value)}>
          <MenuItem value={NOBODY}>leave it where it is</MenuItem>
          <MenuItem value="">who filled it in</MenuItem>
          {parts.map(({ id, name }) => (
            <MenuItem key={id} value={id}>
              {name || "Untitled part"}
            </MenuItem>
          ))}
        </TextField>
      )}
      {to !== NOBODY && (
        <>
          <TextField
            label="What is to be changed there"
            multiline
            minRows={2}
            value={remark}
            onChange={({ target }) => setRemark(target.value.slice(0, 2_000))}
          />
          <Button
            variant="outlined"
            loading={give.isPending}
            sx={{ justifySelf: "start" }}
            onClick={() => give.mutate()}
          >
            Give it
          </Button>
        </>
      )}
      {give.isError && <Alert severity="error">{reasonOf(give.error)}</Alert>}
    </Box>
  );
}
