// A condition as rows: a name, what is said of it, and of what; joined by all or any, nested. The formula follows.
import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import IconButton from "@mui/material/IconButton";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useEffect, useMemo, useRef, useState } from "react";
import type { ConditionRow, ConditionRows, Form, RecordChoiceField } from "../../api/generated/wire";
import { api, ApiError } from "../../api/client";
import { queries } from "../../api/queries";
import {
  ANY_SHAPE,
  NAMED_SHAPE,
  enteredBeside,
  OPERATOR_WORDS,
  operandCount,
  type Operator,
  type Shape,
  SHAPES,
  takesSeveral,
  VISITOR_FACT_SHAPE,
  VISITOR_SHAPE,
} from "../../fields/conditions";
import { idsNamed, isRows, withNamesOfToday } from "../../model/condition_rows";
import { columnsOfRecord, type Named, namedIn, placedIn } from "../../model/outline";
import { namesOfVisitor } from "../../model/visitor";
import { useBench } from "../workbench/bench";
import { Operand } from "./Operand";

interface Props {
  text: string;
  rows: ConditionRows;
  rowKind: string | null;
  /** The record choice whose records are filtered. */
  offering?: RecordChoiceField | null;
  readOnly: boolean;
  /** Whether it takes the focus when it appears. */
  focused: boolean;
  onChange: (text: string) => void;
}

const NEW_ROW: ConditionRow = { name: "", operator: "is", operands: [] };

export function ConditionEditor({ text, rows, rowKind, offering = null, readOnly, focused, onChange }: Props) {
  const { form } = useBench();
  const groups = useQuery(queries.groups()).data?.groups;
  const names = useMemo(() => {
    const offered = (groups ?? []).map(({ code, name }) => ({ code, label: name }));
    return [
      ...(offering ? columnsOfRecord(form, offering) : []),
      ...placedIn(form, rowKind),
      ...namesOfVisitor(offered),
    ];
  }, [form, rowKind, offering, groups]);
  const answers = useMemo(() => answersBeside(form, rowKind, offering), [form, rowKind, offering]);
  // What is typed stays as it is typed; what a row lacks stands in its formula as missing.
  const [shown, setShown] = useState({ text, rows, ids: idsNamed(rows, names) });
  const [problem, setProblem] = useState<string | null>(null);
  const turn = useRef(0);
  const box = useRef<HTMLFieldSetElement>(null);
  useEffect(() => {
    const first = focused && box.current?.querySelector("input");
    if (!first) return;
    first.focus();
    // Chosen from its end, so that the beginning of a long name is seen and typing replaces it.
    first.setSelectionRange(0, first.value.length, "backward");
    first.scrollLeft = 0;
  }, [focused]);
  const current = shown.text === text ? withNamesOfToday(shown.rows, shown.ids, names) : rows;
  const change = async (next: ConditionRows) => {
    turn.current += 1;
    const mine = turn.current;
    const ids = idsNamed(next, names);
    setShown({ text, rows: next, ids });
    try {
      const { formula } = await api.condition(next);
      if (mine !== turn.current) return;
      setProblem(null);
      setShown({ text: formula, rows: next, ids });
      if (formula !== text) onChange(formula);
    } catch (error) {
      if (mine === turn.current) setProblem(error instanceof ApiError ? error.message : String(error));
    }
  };
  const list = current.rows.length > 0 ? current : { ...current, rows: [NEW_ROW] };
  return (
    <Box component="fieldset" ref={box} disabled={readOnly} sx={{ m: 0, p: 0, border: 0, minWidth: 0 }}>
      <RowList rows={list} names={names} answers={answers} depth={0} onChange={(next) => void change(next)} />
      {problem && (
        <Typography variant="body2" role="alert" sx={{ color: "note.check" }}>
          {problem}
        </Typography>
      )}
    </Box>
  );
}

interface ListProps {
  rows: ConditionRows;
  names: readonly Named[];
  /** What a column or a record may be compared with. */
  answers: readonly Named[];
  depth: number;
  onChange: (rows: ConditionRows) => void;
}

function RowList({ rows, names, answers, depth, onChange }: ListProps) {
  const put = (at: number, next: ConditionRow | ConditionRows) =>
    onChange({ ...rows, rows: rows.rows.map((each, index) => (index === at ? next : each)) });
  const without = (at: number) => onChange({ ...rows, rows: rows.rows.filter((_each, index) => index !== at) });
  const add = (each: ConditionRow | ConditionRows) => onChange({ ...rows, rows: [...rows.rows, each] });
  return (
    <Box sx={depth > 0 ? { pl: 1, borderLeft: 2, borderColor: "divider" } : undefined}>
      {rows.rows.length > 1 && (
        <TextField
          select
          value={rows.join}
          onChange={(event) => onChange({ ...rows, join: event.target.value as ConditionRows["join"] })}
          slotProps={{ htmlInput: { "aria-label": "How many of the rows must hold" } }}
          sx={{ mb: 0.75, "& .MuiSelect-select": { py: 0.5, fontSize: 13 } }}
        >
          <MenuItem value="all">all of these hold</MenuItem>
          <MenuItem value="any">any of these holds</MenuItem>
        </TextField>
      )}
      {rows.rows.map((each, at) =>
        isRows(each) ? (
          <Box key={at} sx={{ mb: 0.75 }}>
            <RowList
              answers={answers}
              rows={each}
              names={names}
              depth={depth + 1}
              onChange={(next) => (next.rows.length === 0 ? without(at) : put(at, next))}
            />
          </Box>
        ) : (
          <Row
            key={at}
            row={each}
            names={names}
            answers={answers}
            onChange={(next) => put(at, next)}
            onRemove={() => without(at)}
          />
        ),
      )}
      <Button size="small" onClick={() => add(NEW_ROW)} sx={{ py: 0.25 }}>
        + row
      </Button>
      {depth < 3 && (
        <Button
          size="small"
          color="inherit"
          onClick={() => add({ join: rows.join === "all" ? "any" : "all", rows: [NEW_ROW, NEW_ROW] })}
          sx={{ py: 0.25 }}
        >
          + rows within
        </Button>
      )}
    </Box>
  );
}

function shapeOf(named: Named | undefined): Shape {
  if (named?.kind === "Visitor") return named.choices ? VISITOR_SHAPE : VISITOR_FACT_SHAPE;
  return named?.block ? SHAPES[named.block.type] : named?.choices ? NAMED_SHAPE : ANY_SHAPE;
}

const operatorWords = (shape: Shape, operator: Operator): string => shape.words?.[operator] ?? OPERATOR_WORDS[operator];

function groupOf({ kind, name }: Named): string {
  if (kind === "Visitor") return "Who fills in";
  return kind === "Figure" ? "Figures" : name.startsWith("record.") ? "Columns" : "Answers";
}

/** What a row lacks, in words; null where it is complete, or says nothing at all. */
function lackingIn({ name, operator, operands }: ConditionRow): string | null {
  if (operator === "formula") return null;
  const given = operands.filter((each) => each.trim()).length;
  if (!name) return given > 0 ? "it has no field or figure" : null;
  const wanted = Math.max(operandCount(operator), operands.length);
  return given < wanted ? (takesSeveral(operator) ? "a value is empty" : "a value is missing") : null;
}

const NO_ANSWERS: readonly Named[] = [];

/** Whether the other side is usually an answer: of a column that filters records, and of a record itself. */
const isCompared = ({ name }: ConditionRow, { entered }: Shape): boolean =>
  entered === "answer" || name.startsWith("record.");

/** The answers that may stand on the other side; a list is not filtered by what is chosen in it. */
const answersBeside = (form: Form, rowKind: string | null, offering: RecordChoiceField | null): Named[] =>
  namedIn(form, rowKind).filter(({ id }) => !offering || id.split(".")[0] !== offering.id);

interface RowProps extends Pick<ListProps, "names" | "answers"> {
  row: ConditionRow;
  onChange: (row: ConditionRow) => void;
  onRemove: () => void;
}

function Row({ row, names, answers, onChange, onRemove }: RowProps) {
  const named = names.find((each) => each.name.toLowerCase() === row.name.toLowerCase());
  const shape = shapeOf(named);
  const operators = shape.operators.includes(row.operator) ? shape.operators : [row.operator, ...shape.operators];
  const operands = Array.from({ length: Math.max(operandCount(row.operator), row.operands.length) });
  const several = takesSeveral(row.operator);
  const lacks = lackingIn(row);
  const choose = (next: Named | null) => {
    const fits = shapeOf(next ?? undefined);
    const keep = fits.operators.includes(row.operator);
    onChange({
      name: next?.name ?? "",
      operator: keep ? row.operator : fits.operators[0]!,
      operands: keep && fits.entered === shape.entered && fits.entered !== "option" ? row.operands : [],
    });
  };
  return (
    <Box
      sx={{
        display: "grid",
        gridTemplateColumns: "minmax(0,1fr) 24px",
        gap: 0.5,
        mb: 0.75,
        pb: 0.75,
        borderBottom: 1,
        borderColor: "divider",
        "& .MuiInputBase-root": { fontSize: 13 },
        "& .MuiSelect-select, & .MuiInputBase-input": { py: "4px !important" },
      }}
    >
      {row.operator === "formula" ? (
        <Operand
          label="Formula"
          entered="formula"
          choices={[]}
          answers={NO_ANSWERS}
          value={row.operands[0] ?? ""}
          onChange={(value) => onChange({ ...row, operands: [value] })}
        />
      ) : (
        <Autocomplete
          options={names as Named[]}
          disableClearable={named !== undefined}
          value={(named ?? null) as Named}
          groupBy={groupOf}
          getOptionKey={(each) => each.id + each.name}
          getOptionLabel={(each) => `${each.number} ${each.title}`.trim()}
          filterOptions={(options, { inputValue }) =>
            options.filter((each) =>
              `${each.number} ${each.title} ${each.name}`.toLowerCase().includes(inputValue.trim().toLowerCase()),
            )
          }
          isOptionEqualToValue={(one, other) => one.name === other.name}
          // The margin is narrow; names are long.
          slotProps={{ popper: { style: { width: 320 }, placement: "bottom-end" } }}
          onChange={(_event, next) => choose(next)}
          renderInput={(params) => (
            <TextField
              {...params}
              placeholder={row.name || "Field or figure"}
              slotProps={{
                ...params.slotProps,
                htmlInput: { ...params.slotProps?.htmlInput, "aria-label": "Field or figure" },
              }}
            />
          )}
        />
      )}
      <IconButton aria-label="Remove this row" onClick={onRemove} sx={{ width: 24, height: 28, fontSize: 14 }}>
        ×
      </IconButton>
      {row.operator !== "formula" && (
        <TextField
          select
          value={row.operator}
          onChange={(event) => {
            const operator = event.target.value as Operator;
            onChange({ ...row, operator, operands: row.operands.slice(0, operandCount(operator)) });
          }}
          slotProps={{ htmlInput: { "aria-label": "What is said of it" } }}
          sx={{ gridColumn: "1" }}
        >
          {operators.map((operator) => (
            <MenuItem key={operator} value={operator} dense>
              {operatorWords(shape, operator)}
            </MenuItem>
          ))}
        </TextField>
      )}
      {row.operator !== "formula" &&
        operands.map((_operand, at) => (
          <Box key={at} sx={{ gridColumn: "1 / -1", display: "grid", gridTemplateColumns: "subgrid" }}>
            <Operand
              label={operandName(row.operator, several ? operands.length : 1, at)}
              entered={enteredBeside(row.operator, shape.entered)}
              choices={named?.choices ?? []}
              answers={isCompared(row, shape) ? answers : NO_ANSWERS}
              value={row.operands[at] ?? ""}
              onChange={(value) =>
                onChange({
                  ...row,
                  operands: Array.from({ length: Math.max(row.operands.length, at + 1) }, (_each, index) =>
                    index === at ? value : (row.operands[index] ?? ""),
                  ),
                })
              }
            />
            {several && operands.length > 1 && (
              <IconButton
                aria-label={`Remove value ${at + 1}`}
                onClick={() => onChange({ ...row, operands: row.operands.filter((_each, index) => index !== at) })}
                sx={{ width: 24, height: 28, fontSize: 14 }}
              >
                ×
              </IconButton>
            )}
          </Box>
        ))}
      {several && (
        <Button
          size="small"
          onClick={() => onChange({ ...row, operands: [...row.operands, ""] })}
          sx={{ justifySelf: "start", py: 0.25 }}
        >
          + value
        </Button>
      )}
      {lacks && (
        <Typography variant="caption" sx={{ gridColumn: "1 / -1", color: "note.check" }}>
          Not complete yet: {lacks}. The form can’t be published until it is, or the row is removed.
        </Typography>
      )}
    </Box>
  );
}

/** What a box for a value is called: a word alone, one of several, or the two ends of a range. */
function operandName(operator: Operator, several: number, at: number): string {
  if (operator === "from_to") return at === 0 ? "From" : "Up to";
  const one = operator === "mentions" || operator === "mentions_not" ? "Word" : "Value";
  return several > 1 || at > 0 ? `${one} ${at + 1}` : one;
}
