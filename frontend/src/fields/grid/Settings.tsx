// The questions of a grid as a table: label · code. Pasted lines, with or without codes, fill it.
import Box from "@mui/material/Box";
import IconButton from "@mui/material/IconButton";
import Typography from "@mui/material/Typography";
import type { ClipboardEvent } from "react";
import type { GridField } from "../../api/generated/wire";
import { newId } from "../../model/new_block";
import { keyFrom } from "../../model/outline";
import { pastedOptions } from "../options/paste";
import { CellBox } from "../../ui/CellBox";
import type { SettingsProps } from "../settings_props";
import { byAltArrows, CodeBox, moved, NewLine } from "../table_pieces";

type Question = GridField["questions"][number];

export function GridQuestions({ block, edit }: SettingsProps<GridField>) {
  const { questions } = block;
  const codes = questions.map((question) => question.code);
  const put = (next: Question[]) => edit({ questions: next });
  const change = (id: string, changes: Partial<Question>) =>
    put(questions.map((question) => (question.id === id ? { ...question, ...changes } : question)));
  const paste = (event: ClipboardEvent) => {
    const pasted = pastedOptions(event.clipboardData.getData("text/plain"), codes, keyFrom);
    if (pasted.length === 0) return;
    event.preventDefault();
    put([...questions, ...pasted.map(({ label, code }) => ({ id: newId(), label, code }))]);
  };
  return (
    <Box role="group" aria-label="Questions" sx={{ display: "grid", gap: 0.5 }}>
      <Typography variant="h3" component="p" color="text.secondary">
        {questions.length} questions
      </Typography>
      {questions.map((question, index) => (
        <Box
          key={question.id}
          onKeyDown={byAltArrows((by) => put(moved(questions, index, index + by)))}
          sx={{
            display: "grid",
            gridTemplateColumns: "minmax(0,1fr) 92px 20px",
            gap: 0.5,
          }}
        >
          <CellBox
            name={`Question ${index + 1}`}
            value={question.label}
            onChange={(event) => change(question.id, { label: event.target.value })}
          />
          <CodeBox
            name={`Code of question ${index + 1}`}
            code={question.code}
            onCode={(code) => change(question.id, { code })}
          />
          <IconButton
            aria-label={`Remove question ${index + 1}`}
            onClick={() => put(questions.filter((each) => each.id !== question.id))}
            sx={{ width: 20, height: 28, fontSize: 14 }}
          >
            ×
          </IconButton>
        </Box>
      ))}
      <NewLine
        name="New question"
        onAdd={(label) => put([...questions, { id: newId(), code: keyFrom(label, codes), label }])}
        onPaste={paste}
      />
      <Typography variant="caption" color="text.secondary">
        Formulas read the answer to one as {block.key}.code. Alt+↑ and Alt+↓ move a line; pasted lines make questions.
      </Typography>
    </Box>
  );
}
