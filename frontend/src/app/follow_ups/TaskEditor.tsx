// A task: what is to be done, by whom, within how many days.
import Box from "@mui/material/Box";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import type { FollowUp } from "../../model/parts";
import { Who } from "./ApprovalEditor";

type TaskFollowUp = Extract<FollowUp, { kind: "task" }>;

interface Props {
  followUp: TaskFollowUp;
  edit: (changes: Partial<TaskFollowUp>) => void;
}

export function TaskEditor({ followUp, edit }: Props) {
  return (
    <Box sx={{ display: "grid", gap: 1.5 }}>
      <TextField
        label="What is to be done"
        value={followUp.words}
        helperText="With values in braces, such as {name}"
        data-values=""
        onChange={(event) => edit({ words: event.target.value })}
      />
      <Who label="By" decider={followUp.who} put={(who) => edit({ who })} />
      <TextField
        type="number"
        label="Within so many days"
        value={followUp.days ?? ""}
        helperText="Blank: without an end"
        sx={{ maxWidth: 200 }}
        slotProps={{ inputLabel: { shrink: true }, htmlInput: { min: 0, max: 1_000 } }}
        onChange={(event) =>
          edit({
            days:
              event.target.value === "" ? null : Math.min(1_000, Math.max(0, Math.trunc(Number(event.target.value)))),
          })
        }
      />
      <Typography variant="body2" color="text.secondary">
        It stands in Decisions, under what is to be done, until somebody has done it; then in the response’s timeline.
      </Typography>
    </Box>
  );
}
