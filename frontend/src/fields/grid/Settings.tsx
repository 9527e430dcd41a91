// The questions of a grid, a line each.
import Box from "@mui/material/Box";
import IconButton from "@mui/material/IconButton";
import TextField from "@mui/material/TextField";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import type { GridField } from "../../api/generated/wire";
import { newId } from "../../model/new_block";
import { keyFrom } from "../../model/outline";
import type { SettingsProps } from "../settings";

export function GridQuestions({ block, edit }: SettingsProps<GridField>) {
  const { questions } = block;
  const codes = questions.map((question) => question.code);
  const add = () =>
    edit({
      questions: [...questions, { id: newId(), code: keyFrom(`question ${questions.length + 1}`, codes), label: "" }],
    });
  return (
    <Box role="group" aria-label="Questions" sx={{ display: "grid", gap: 0.75 }}>
      <Typography variant="h3" component="p" color="text.secondary">
        Questions
      </Typography>
      {questions.map((question, index) => (
        <Box key={question.id} sx={{ display: "flex", gap: 0.5 }}>
          <TextField
            value={question.label}
            onChange={(event) =>
              edit({
                questions: questions.map((each) =>
                  each.id === question.id ? { ...each, label: event.target.value } : each,
                ),
              })
            }
            slotProps={{ htmlInput: { "aria-label": `Question ${index + 1}` } }}
          />
          <IconButton
            aria-label={`Remove question ${index + 1}`}
            onClick={() => edit({ questions: questions.filter((each) => each.id !== question.id) })}
          >
            ×
          </IconButton>
        </Box>
      ))}
      <Button onClick={add} sx={{ justifySelf: "start" }}>
        Add a question
      </Button>
    </Box>
  );
}
