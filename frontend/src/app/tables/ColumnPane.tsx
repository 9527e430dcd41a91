// A column's settings beside the worksheet; they are kept by a button, as records change with them.
import Alert from "@mui/material/Alert";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import Checkbox from "@mui/material/Checkbox";
import FormControlLabel from "@mui/material/FormControlLabel";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery } from "@tanstack/react-query";
import { useState } from "react";
import { queries } from "../../api/queries";
import { reasonOf } from "../../api/client";
import type { TableReply } from "../../api/generated/wire";
import { MONO } from "../../theme/theme";
import { AskFirst } from "../../ui/AskFirst";
import { ColumnLimits } from "./ColumnLimits";
import { COLUMN_TYPES, columnType } from "./column_types";
import {
  changed,
  CHOICES,
  type Column,
  type Definition,
  definitionOf,
  moved,
  onceOrNot,
  optionsOf,
  replaced,
  retyped,
  withColumn,
  without,
} from "./definition";
import { PaneHead } from "./RecordPane";

interface Props {
  table: TableReply;
  columnId: string;
  problem: Error | null;
  saves: boolean;
  onSave: (definition: Definition) => void;
  onClose: () => void;
}

/** Whether what stands in a column of a type is text that can be read as another. */
const isReadAnew = (type: string): boolean => type !== "calculated" && type !== "file_upload";
const FORMATS = ["number", "percent", "money", "text", "date"];
const DECIMAL = new Set(["number", "percent"]);

export function ColumnPane({ table, columnId, problem, saves, onSave, onClose }: Props) {
  const kept = definitionOf(table);
  const [definition, setDefinition] = useState(kept);
  const [lines, setLines] = useState<string | null>(null);
  const at = definition.columns.findIndex((each) => each.id === columnId);
  const column = definition.columns[at];
  if (!column) return <PaneHead title="This column is gone" onClose={onClose} />;
  const set = (settings: Partial<Column>) => setDefinition(changed(definition, columnId, settings));
  const known = kept.columns.find((each) => each.id === columnId);
  const isRetyped = known?.type !== column.type;
  const options = column.options ?? [];
  const isChanged = definition !== kept || lines !== null;
  const save = () =>
    onSave(lines === null ? definition : changed(definition, columnId, { options: optionsOf(lines, options) }));
  return (
    <>
      <PaneHead title={columnType(column.type).word} onClose={onClose} />
      <Box sx={{ display: "grid", gap: 1.5 }}>
        <TextField label="Label" value={column.label} onChange={(event) => set({ label: event.target.value })} />
        <Typography variant="body2" color="text.secondary">
          Formulas call it <code>{column.key}</code>.
        </Typography>
        {isReadAnew(column.type) && (
          <TextField
            select
            label="What it holds"
            value={column.type}
            onChange={({ target: { value } }) =>
              setDefinition(replaced(definition, value === known?.type ? known : retyped(column, value)))
            }
            helperText={isRetyped ? "All that stands there is read anew, or it stays as it is." : ""}
          >
            {COLUMN_TYPES.filter(({ type }) => isReadAnew(type)).map((each) => (
              <MenuItem key={each.type} value={each.type}>
                {each.word}
              </MenuItem>
            ))}
          </TextField>
        )}
        {column.type === "calculated" ? (
          <>
            <TextField
              label="Formula over its own record"
              value={column.formula ?? ""}
              onChange={(event) => set({ formula: event.target.value })}
              multiline
              slotProps={{ htmlInput: { style: { fontFamily: MONO } } }}
            />
            <TextField
              select
              label="Shown as"
              value={column.format ?? "number"}
              onChange={(event) => set({ format: event.target.value })}
            >
              {FORMATS.map((each) => (
                <MenuItem key={each} value={each}>
                  {each}
                </MenuItem>
              ))}
            </TextField>
          </>
        ) : (
          <>
            <Switch
              label="Every record has one"
              checked={column.required === "TRUE"}
              onChange={(to) => set({ required: to ? "TRUE" : "" })}
            />
            {column.type !== "file_upload" && (
              <Switch
                label="No two have the same"
                checked={definition.once.includes(columnId)}
                onChange={(to) => setDefinition(onceOrNot(definition, columnId, to))}
              />
            )}
          </>
        )}
        <Switch
          label="It names a record"
          checked={(definition.named_by || definition.columns[0]?.id) === columnId}
          onChange={(to) => setDefinition({ ...definition, named_by: to ? columnId : "" })}
        />
        <ColumnLimits column={column} onChange={set} />
        {(column.type === "number" || (column.type === "calculated" && DECIMAL.has(column.format ?? "number"))) && (
          <TextField
            type="number"
            label="Decimals"
            value={column.decimals ?? 0}
            onChange={(event) => set({ decimals: Number(event.target.value) })}
          />
        )}
        {CHOICES.has(column.type) && (
          <TextField
            label="Options, a line each"
            value={lines ?? options.map((each) => each.label).join("\n")}
            onChange={(event) => setLines(event.target.value)}
            multiline
            minRows={4}
          />
        )}
        {column.type === "record_choice" && (
          <NamedTable names={{ table: column.table ?? "", several: column.several ?? false }} onChange={set} />
        )}
        {problem && <Alert severity="error">{reasonOf(problem)}</Alert>}
        <Button variant="contained" disabled={!isChanged} loading={saves} onClick={save}>
          Keep the column so
        </Button>
        <Box sx={{ display: "flex", gap: 1, flexWrap: "wrap" }}>
          <Button color="inherit" disabled={at === 0} onClick={() => onSave(moved(kept, columnId, -1))}>
            To the left
          </Button>
          <Button
            color="inherit"
            disabled={at === kept.columns.length - 1}
            onClick={() => onSave(moved(kept, columnId, 1))}
          >
            To the right
          </Button>
          <AskFirst
            label="Take it away"
            color="error"
            warning="No record shows it any more, and nothing is found by it. Added again with its key it is another column."
            onDone={() => onSave(without(kept, columnId))}
          />
        </Box>
      </Box>
    </>
  );
}

const Switch = ({ label, checked, onChange }: { label: string; checked: boolean; onChange: (to: boolean) => void }) => (
  <FormControlLabel
    label={label}
    control={<Checkbox size="small" checked={checked} onChange={(event) => onChange(event.target.checked)} />}
  />
);

interface Names {
  table: string;
  several: boolean;
}

/** Of which table a column names records, and how many. */
function NamedTable({ names, onChange }: { names: Names; onChange: (names: Names) => void }) {
  const tables = useQuery(queries.tables());
  return (
    <>
      <TextField
        select
        label="Records of"
        value={names.table}
        onChange={(event) => onChange({ ...names, table: event.target.value })}
      >
        {(tables.data?.tables ?? []).map(({ id, name }) => (
          <MenuItem key={id} value={id.replaceAll("-", "")}>
            {name}
          </MenuItem>
        ))}
      </TextField>
      <Switch
        label="It names several"
        checked={names.several}
        onChange={(several) => onChange({ ...names, several })}
      />
    </>
  );
}

type NewProps = Pick<Props, "table" | "problem" | "onSave" | "onClose">;

export function NewColumn({ table, problem, onSave, onClose }: NewProps) {
  const [type, setType] = useState("short_text");
  const [label, setLabel] = useState("");
  const [formula, setFormula] = useState("");
  const [lines, setLines] = useState("");
  const [names, setNames] = useState({ table: "", several: false });
  const add = () => {
    const longer = withColumn(definitionOf(table), type, label.trim());
    const id = longer.columns.at(-1)!.id;
    const own: Readonly<Record<string, Partial<Column>>> = { calculated: { formula }, record_choice: names };
    onSave(changed(longer, id, CHOICES.has(type) ? { options: optionsOf(lines, []) } : (own[type] ?? {})));
  };
  return (
    <Box
      component="form"
      onSubmit={(event) => {
        event.preventDefault();
        add();
      }}
    >
      <PaneHead title="A new column" onClose={onClose} />
      <Box sx={{ display: "grid", gap: 1.5 }}>
        <TextField autoFocus label="Label" value={label} onChange={(event) => setLabel(event.target.value)} />
        <TextField select label="What it holds" value={type} onChange={(event) => setType(event.target.value)}>
          {COLUMN_TYPES.map((each) => (
            <MenuItem key={each.type} value={each.type}>
              {each.word}
            </MenuItem>
          ))}
        </TextField>
        {CHOICES.has(type) && (
          <TextField
            label="Options, a line each"
            value={lines}
            onChange={(event) => setLines(event.target.value)}
            multiline
            minRows={4}
          />
        )}
        {type === "record_choice" && <NamedTable names={names} onChange={setNames} />}
        {type === "calculated" && (
          <TextField
            label="Formula over its own record"
            value={formula}
            onChange={(event) => setFormula(event.target.value)}
            helperText={`Such as ${definitionOf(table).columns[0]?.key ?? "price"} & " (" & …`}
            multiline
          />
        )}
        {problem && <Alert severity="error">{reasonOf(problem)}</Alert>}
        <Button
          type="submit"
          variant="contained"
          disabled={!label.trim() || (type === "record_choice" && !names.table)}
        >
          Add the column
        </Button>
      </Box>
    </Box>
  );
}
