// A formula with all that helps to write it: rows for conditions, findings at their place, an example, and its meaning.
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Typography from "@mui/material/Typography";
import { keepPreviousData, useQuery } from "@tanstack/react-query";
import { useState } from "react";
import type { ConditionRows } from "../../api/generated/wire";
import { api } from "../../api/client";
import { useBench } from "../workbench/bench";
import { useOutcome } from "../workbench/useOutcome";
import { ConditionEditor } from "./ConditionEditor";
import { Findings } from "./Findings";
import { FormulaEditor } from "./FormulaEditor";
import { formulaSetting } from "./settings_text";
import { useFindings } from "./useFindings";

interface Props {
  part: string;
  setting: string;
  text: string;
  /** The row kind in whose rows it is worked out, or null. */
  rowKind: string | null;
  readOnly: boolean;
  focused?: boolean;
  onChange: (text: string) => void;
  onDone?: () => void;
}

const ignore = () => undefined;

export function FormulaField({ part, setting, text, rowKind, readOnly, focused = false, onChange, onDone }: Props) {
  const { parts } = useBench();
  const { title, condition, example, help } = formulaSetting(setting, part)!;
  const entry = parts.get(part);
  const offering =
    setting === "fitting" && entry?.what === "block" && entry.part.type === "record_choice" ? entry.part : null;
  const findings = useFindings(part, setting, text);
  const rows = useQuery({
    queryKey: ["rows", text],
    queryFn: () => api.rows(text),
    enabled: condition,
    staleTime: Infinity,
    retry: false,
    // While the rows of what was just written are asked for, those before stay: the editor keeps its place.
    placeholderData: keepPreviousData,
  });
  const [chosen, setChosen] = useState<"rows" | "formula" | null>(null);
  const known = rows.data?.rows;
  // Until somebody chooses, the way of writing that fits what is there; then it stays, whatever is typed.
  // What is wrong with it is underlined in the formula; what is only missing is marked in its row.
  const readable = findings.length === 0 || text.includes("MISSING(");
  const fitting = condition && known && isMostlyRows(known) && readable ? "rows" : "formula";
  const way = chosen ?? fitting;
  if (condition && !chosen && rows.isPending) return null;
  return (
    <>
      {condition && (
        <Box sx={{ display: "flex", justifyContent: "flex-end", mt: -3.25, mb: 0.25 }}>
          <Button
            size="small"
            disabled={way === "formula" && !known}
            onClick={() => setChosen(way === "rows" ? "formula" : "rows")}
            sx={{ py: 0.25, minWidth: 0 }}
          >
            {way === "rows" ? "as formula" : "as rows"}
          </Button>
        </Box>
      )}
      {way === "rows" && known ? (
        <ConditionEditor
          text={text}
          rows={known}
          rowKind={rowKind}
          offering={offering}
          readOnly={readOnly}
          focused={focused}
          onChange={(changed) => {
            setChosen("rows");
            onChange(changed);
          }}
        />
      ) : (
        <FormulaEditor
          label={`Formula: ${title}`}
          text={text}
          findings={findings}
          rowKind={rowKind}
          offering={offering}
          readOnly={readOnly}
          focused={focused}
          onChange={(changed) => {
            setChosen("formula");
            onChange(changed);
          }}
          onDone={onDone ?? ignore}
        />
      )}
      <Findings findings={findings} />
      {!condition && <Result part={part} setting={setting} />}
      <Typography variant="caption" sx={{ display: "block", mt: 0.5, color: "text.secondary" }}>
        {help} {way === "formula" && example && `For example: ${example}`}
      </Typography>
    </>
  );
}

const TYPE_WORDS: Record<string, string> = {
  yes_no: "yes or no",
  date_time: "date and time",
  any: "anything",
  choices: "several choices",
};

/** What kind of value a formula gives, and the value itself with the answers that are tried. */
function Result({ part, setting }: { part: string; setting: string }) {
  const { analysis, trying, parts } = useBench();
  const outcome = useOutcome();
  const note = analysis.notes[part]?.find((each) => each.setting === setting);
  if (!note?.type) return null;
  // Of bands the value is not what their formula gives; the number line tells both.
  const entry = parts.get(part);
  const own = setting === "formula" && !(entry?.what === "figure" && entry.part.kind === "bands");
  const value = own ? outcome?.values[part] : undefined;
  return (
    <Typography variant="body2" role="status" sx={{ mt: 0.5, fontVariantNumeric: "tabular-nums" }}>
      gives {TYPE_WORDS[note.type] ?? note.type}
      {value !== undefined && (
        <>
          {" · "}
          <b>{value || "blank"}</b> with {trying.name.toLowerCase()}
        </>
      )}
    </Typography>
  );
}

const isMostlyRows = (rows: ConditionRows): boolean =>
  !(rows.rows.length === 1 && "operator" in rows.rows[0]! && rows.rows[0].operator === "formula");
