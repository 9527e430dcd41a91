// A score: for each field that counts, the right answers and what they are worth, or points for each option.
import Box from "@mui/material/Box";
import Checkbox from "@mui/material/Checkbox";
import IconButton from "@mui/material/IconButton";
import TextField from "@mui/material/TextField";
import ToggleButton from "@mui/material/ToggleButton";
import ToggleButtonGroup from "@mui/material/ToggleButtonGroup";
import Typography from "@mui/material/Typography";
import { useState } from "react";
import { newScored } from "../../model/new_block";
import type { Figure, ScoredQuestion as Question } from "../../model/parts";
import { DecimalField } from "../../ui/DecimalField";
import { LongTextField } from "../../ui/LongTextField";
import { useBench } from "../workbench/bench";
import { useNameOf } from "../workbench/names_seen";
import { HelpButton } from "../help/HelpTopic";
import { AddQuestion } from "./AddQuestion";
import type { EditorProps } from "./editor_props";
import { answersIn, optionsIn, withPoints } from "./questions";

type Score = Extract<Figure, { kind: "score" }>;

export function ScoreEditor({ figure, edit }: EditorProps<Score>) {
  const { questions } = figure;
  const put = (next: Question[]) => edit({ questions: next });
  return (
    <Box>
      {questions.map((question, at) => (
        <QuestionRow
          key={question.field}
          question={question}
          onChange={(changes) => put(questions.map((each, index) => (index === at ? { ...each, ...changes } : each)))}
          onRemove={() => put(questions.filter((_each, index) => index !== at))}
        />
      ))}
      <AddQuestion
        taken={questions.map(({ field }) => field)}
        optioned={false}
        onAdd={({ id }) => put([...questions, newScored(id)])}
      />
      <HelpButton topic="quiz" />
      <Typography variant="caption" color="text.secondary" sx={{ display: "block", mt: 1 }}>
        Formulas name the points {figure.key}; {figure.key}.greatest, {figure.key}.share, {figure.key}.right and{" "}
        {figure.key}
        .answered, {figure.key}.questions and {figure.key}.percent are known too. The greatest score is that of the
        whole form, whatever part was reached.
      </Typography>
    </Box>
  );
}

type Options = ReturnType<typeof optionsIn>;

interface RowProps {
  question: Question;
  onChange: (changes: Partial<Question>) => void;
  onRemove: () => void;
}

function QuestionRow({ question, onChange, onRemove }: RowProps) {
  const { parts, form } = useBench();
  const nameOf = useNameOf();
  const entry = parts.get(question.field);
  const options = entry?.what === "block" ? optionsIn(entry.part) : [];
  // Chosen while nothing is entered; then what is entered says it, after an undo too.
  const [way, setWay] = useState<"right" | "points">("right");
  const entered = question.right.length > 0 ? "right" : Object.keys(question.points).length > 0 ? "points" : way;
  const shown = options.length === 0 ? "right" : entered;
  return (
    <Box
      role="group"
      aria-label={nameOf(question.field, "a deleted field")}
      sx={{ py: 1, borderBottom: 1, borderColor: "divider" }}
    >
      <Box sx={{ display: "flex", alignItems: "center", gap: 1 }}>
        <Typography sx={{ flex: 1, fontWeight: 600 }}>{nameOf(question.field, "A deleted field")}</Typography>
        {options.length > 0 && (
          <ToggleButtonGroup
            exclusive
            size="small"
            value={shown}
            aria-label="How it counts"
            onChange={(_event, next: "right" | "points" | null) => {
              if (!next) return;
              setWay(next);
              onChange(next === "right" ? { points: {} } : { right: [] });
            }}
          >
            <ToggleButton value="right" sx={{ py: 0, textTransform: "none" }}>
              right answers
            </ToggleButton>
            <ToggleButton value="points" sx={{ py: 0, textTransform: "none" }}>
              points each
            </ToggleButton>
          </ToggleButtonGroup>
        )}
        {shown === "right" && (
          <Box sx={{ width: 84 }}>
            <DecimalField
              label="Worth"
              value={question.worth}
              onChange={(worth) => onChange({ worth: worth ?? "1" })}
            />
          </Box>
        )}
        <IconButton aria-label="Remove this field" onClick={onRemove} sx={{ fontSize: 14 }}>
          ×
        </IconButton>
      </Box>
      {options.length === 0 ? (
        <RightAnswers right={question.right} onChange={(right) => onChange({ right })} />
      ) : (
        <Box sx={{ display: "flex", flexWrap: "wrap", columnGap: 3, rowGap: 0.5 }}>
          {options.map((option) =>
            shown === "right" ? (
              <Box component="label" key={option.id} sx={{ display: "flex", alignItems: "center" }}>
                <Checkbox
                  size="small"
                  checked={question.right.includes(option.code)}
                  onChange={(_event, on) =>
                    onChange({
                      right: on
                        ? [...question.right, option.code]
                        : question.right.filter((code) => code !== option.code),
                    })
                  }
                />
                {option.label}
              </Box>
            ) : (
              <Box key={option.id} sx={{ width: 150, mt: 1 }}>
                <DecimalField
                  label={option.label || option.code}
                  value={question.points[option.code] ?? null}
                  onChange={(value) => onChange({ points: withPoints(question.points, option.code, value) })}
                />
              </Box>
            ),
          )}
        </Box>
      )}
      {form.feedback.when !== "never" && <OwnWords question={question} options={options} onChange={onChange} />}
    </Box>
  );
}

/** What is told of this question, and of each answer to it, where the form gives feedback. */
function OwnWords({ question, options, onChange }: Pick<RowProps, "question" | "onChange"> & { options: Options }) {
  const say = (code: string, text: string) => {
    const others = question.says.filter((each) => each.code !== code);
    onChange({ says: text ? [...others, { code, text }] : others });
  };
  return (
    <Box component="details" sx={{ mt: 0.5 }}>
      <Typography component="summary" variant="caption" sx={{ cursor: "pointer", color: "text.secondary" }}>
        Feedback in words of its own
      </Typography>
      <Box sx={{ display: "grid", gap: 1, mt: 1, maxWidth: 520 }}>
        <LongTextField
          label="When it is right"
          value={question.when_right}
          attributes={{ "data-values": "" }}
          onChange={(event) => onChange({ when_right: event.target.value })}
        />
        <LongTextField
          label="When it is not"
          value={question.when_wrong}
          attributes={{ "data-values": "" }}
          onChange={(event) => onChange({ when_wrong: event.target.value })}
        />
        {options.map(({ id, code, label }) => (
          <LongTextField
            key={id}
            label={`Of “${label || code}”`}
            value={question.says.find((each) => each.code === code)?.text ?? ""}
            attributes={{ "data-values": "" }}
            onChange={(event) => say(code, event.target.value)}
          />
        ))}
      </Box>
    </Box>
  );
}

/** Answers that are right where there are no options to tick. */
function RightAnswers({ right, onChange }: { right: readonly string[]; onChange: (right: string[]) => void }) {
  // While it is typed, a ; with nothing behind it stays.
  const [typed, setTyped] = useState<string | null>(null);
  return (
    <TextField
      label="Right answers"
      value={typed ?? right.join("; ")}
      helperText="With ; between; capitals don’t matter"
      onChange={(event) => {
        setTyped(event.target.value);
        onChange(answersIn(event.target.value));
      }}
      onBlur={() => setTyped(null)}
      sx={{ mt: 1, maxWidth: 420 }}
    />
  );
}
