// What there is to do, each done with a remark, which stands in its response's timeline.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Link from "@mui/material/Link";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useMutation, useQuery, useQueryClient } from "@tanstack/react-query";
import { useState } from "react";
import { Link as RouterLink } from "react-router";
import { api, reasonOf } from "../../api/client";
import type { TaskReply } from "../../api/generated/wire";
import { queries } from "../../api/queries";

export function Tasks() {
  const found = useQuery(queries.tasks()).data?.tasks ?? [];
  if (found.length === 0) return null;
  return (
    <Box component="section" aria-label="To do" sx={{ mt: 3 }}>
      <Typography variant="h2" id="to-do" tabIndex={-1}>
        To do
      </Typography>
      {found.map((each) => (
        <OneTask key={each.id} task={each} />
      ))}
    </Box>
  );
}

function OneTask({ task }: { task: TaskReply }) {
  const queryClient = useQueryClient();
  const [open, setOpen] = useState(false);
  const [remark, setRemark] = useState("");
  const done = useMutation({
    mutationFn: () => api.taskDone(task.id, remark),
    onSettled: () => void queryClient.invalidateQueries({ queryKey: queries.tasks().queryKey }),
  });
  return (
    <Box sx={{ py: 1, borderTop: 1, borderColor: "divider" }}>
      <Typography sx={{ fontWeight: 650 }}>{task.words}</Typography>
      <Typography variant="body2">
        <Link component={RouterLink} to={`/forms/${task.form_id}/responses/${task.number}`}>
          {task.form_name}, no. {task.number}
        </Link>
        {task.due_on && (
          <Box component="span" sx={{ color: task.late ? "note.check" : "text.secondary" }}>
            {" "}
            · {task.late ? "was due" : "until"} {task.due_on}
          </Box>
        )}
      </Typography>
      {done.error && <Alert severity="warning">{reasonOf(done.error)}</Alert>}
      {open && (
        <TextField
          label="Remark, if any"
          value={remark}
          sx={{ mt: 1 }}
          onChange={(event) => setRemark(event.target.value.slice(0, 2_000))}
        />
      )}
      <Button
        loading={done.isPending}
        aria-label={`${open ? "It is done" : "Done"}: ${task.words}`}
        onClick={() => (open ? done.mutate() : setOpen(true))}
      >
        {open ? "It is done" : "Done …"}
      </Button>
    </Box>
  );
}
