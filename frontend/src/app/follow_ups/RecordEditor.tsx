// Records from a response: of which tables, made or found by what, and what is kept in each column.
import Alert from "@mui/material/Alert";
import Autocomplete from "@mui/material/Autocomplete";
import Box from "@mui/material/Box";
import Button from "@mui/material/Button";
import MenuItem from "@mui/material/MenuItem";
import TextField from "@mui/material/TextField";
import Typography from "@mui/material/Typography";
import { useQuery, useQueryClient } from "@tanstack/react-query";
import { useMemo, useState } from "react";
import { api } from "../../api/client";
import type { Form, KnownTable } from "../../api/generated/wire";
import { queries } from "../../api/queries";
import type { Action } from "../../model/draft";
import { newId } from "../../model/new_block";
import { type Block, type BlockKind, typeOf } from "../../model/blocks";
import { keyFrom, keysOf, type Named, namedIn } from "../../model/outline";
import { type FollowUp, partsOf } from "../../model/parts";
import { AnswerOrValue, WAYS } from "../compose/Operand";
import { Heading } from "../compose/InspectorFrame";
import { ChangedTable } from "../tables/ChangedTable";
import { type Column, columnsOf, knowing, wordsOf } from "../tables/known";
import { useBench } from "../workbench/bench";

type RecordFollowUp = Extract<FollowUp, { kind: "record" }>;
type Step = RecordFollowUp["steps"][number];

const MOST_STEPS = 30;
const HOW = {
  make: "A new record each time",
  either: "The one that is found, else a new one",
  change: "The one that is found, and no new one",
} as const;

interface Props {
  followUp: RecordFollowUp;
  edit: (changes: Partial<RecordFollowUp>) => void;
}

export function RecordEditor({ followUp, edit }: Props) {
  const { form, act, reply } = useBench();
  const queryClient = useQueryClient();
  const tables = useQuery(queries.tables()).data?.tables ?? [];
  const { steps } = followUp;
  const put = (at: number, changes: Partial<Step>) =>
    edit({ steps: steps.map((step, index) => (index === at ? { ...step, ...changes } : step)) });
  const [leftOut, setLeftOut] = useState<readonly string[]>([]);
  /** Has records kept in a table; "" makes one of this form's fields. */
  const choose = async (at: number | null, chosen: string) => {
    const made = chosen === "" ? await api.tableOfForm(reply.id) : null;
    setLeftOut(made?.left_out ?? []);
    if (made) await queryClient.invalidateQueries({ queryKey: queries.tables().queryKey });
    const { known } = await api.table(made?.id ?? chosen);
    const cells = made ? byName(NEW_STEP, askedColumns(known), namedIn(form)) : [];
    const fresh: Step = { ...NEW_STEP, id: newId(), table: known.id, cells };
    const next =
      at === null ? [...steps, fresh] : steps.map((step, index) => (index === at ? { ...fresh, id: step.id } : step));
    const changed: Action = { do: "edit", parts: [followUp.id], changes: { steps: next } };
    act({ do: "together", actions: [knowing(form.tables, known), changed] });
  };
  /** Adds a field for a column at the end of the form, and keeps its answer there. */
  const ask = async (at: number, column: Column) => {
    const last = form.pages.at(-1);
    if (!last) return;
    const key = keyFrom(wordsOf(column), keysOf(form));
    const { blank } = typeOf(column.type as BlockKind);
    const field = { ...blank, ...column, id: newId(), key, label: wordsOf(column) } as Block;
    const named = column.table && !form.tables.some(({ id }) => id === column.table);
    const known = named ? (await api.table(column.table!)).known : null;
    const cells = [...steps[at]!.cells, { column: column.id, value: key }];
    const next = steps.map((step, index) => (index === at ? { ...step, cells } : step));
    act({
      do: "together",
      actions: [
        ...(known ? [knowing(form.tables, known)] : []),
        { do: "add", parts: [field], into: { holder: last.id, list: "blocks" }, at: last.blocks.length },
        { do: "edit", parts: [followUp.id], changes: { steps: next } },
      ],
    });
  };
  return (
    <Box sx={{ display: "grid", gap: 2 }}>
      {leftOut.length > 0 && (
        <Alert severity="info" onClose={() => setLeftOut([])}>
          The table was made. It has no column for {leftOut.join(", ")}: rows become records of a table of their own.
        </Alert>
      )}
      {steps.map((step, at) => (
        <Box
          key={step.id}
          role="group"
          aria-label={`Records ${at + 1}`}
          sx={{ display: "grid", gap: 1.5, pl: 1.5, borderLeft: 2, borderColor: "note.data" }}
        >
          <TableChoice
            label={at === 0 ? "Kept in the table" : "And in the table"}
            table={form.tables.find(({ id }) => id === step.table)}
            tables={tables}
            onChoose={(id) => void choose(at, id)}
          />
          <Changed form={form} table={step.table} tables={tables} />
          <StepSettings
            form={form}
            steps={steps}
            at={at}
            put={(changes) => put(at, changes)}
            onAsk={(column) => void ask(at, column)}
          />
          {steps.length > 1 && (
            <Button
              color="inherit"
              size="small"
              sx={{ justifySelf: "start" }}
              onClick={() => edit({ steps: steps.filter((_step, index) => index !== at) })}
            >
              Leave these records out
            </Button>
          )}
        </Box>
      ))}
      {steps.length < MOST_STEPS && (
        <TableChoice
          label={steps.length === 0 ? "Kept in the table" : "Records of another table besides"}
          table={undefined}
          tables={tables}
          onChoose={(id) => void choose(null, id)}
        />
      )}
    </Box>
  );
}

/** Tells that a table has more columns by now, so that they can be asked for and kept. */
function Changed({ form, table, tables }: { form: Form; table: string; tables: readonly { id: string }[] }) {
  const known = form.tables.find(({ id }) => id === table);
  const own = tables.find(({ id }) => id.replaceAll("-", "") === table);
  return known && own ? <ChangedTable known={known} tableId={own.id} /> : null;
}

const NEW_STEP: Omit<Step, "id"> = {
  table: "",
  way: "make",
  found_by: [],
  rows: "",
  under: "",
  linked_by: "",
  cells: [],
};

function TableChoice({
  label,
  table,
  tables,
  onChoose,
}: {
  label: string;
  table: KnownTable | undefined;
  tables: readonly { id: string; name: string }[];
  onChoose: (id: string) => void;
}) {
  const own = tables.find(({ id }) => id.replaceAll("-", "") === table?.id);
  return (
    <TextField
      select
      label={label}
      value={own?.id ?? (table ? "gone" : "")}
      slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
      onChange={(event) => onChoose(event.target.value === "new" ? "" : event.target.value)}
    >
      {!own && (
        <MenuItem value={table ? "gone" : ""} disabled>
          {table ? `${table.name}, which is not there any more` : "choose one"}
        </MenuItem>
      )}
      {!table && <MenuItem value="new">a new table of this form’s fields</MenuItem>}
      {tables.map(({ id, name }) => (
        <MenuItem key={id} value={id}>
          {name}
        </MenuItem>
      ))}
    </TextField>
  );
}

interface StepProps {
  form: Form;
  steps: readonly Step[];
  at: number;
  put: (changes: Partial<Step>) => void;
  onAsk: (column: Column) => void;
}

function StepSettings({ form, steps, at, put, onAsk }: StepProps) {
  const step = steps[at]!;
  const table = form.tables.find(({ id }) => id === step.table);
  const names = useMemo(() => namedIn(form, step.rows || null), [form, step.rows]);
  if (!table) return null;
  const columns = askedColumns(table);
  const kinds = [...partsOf(form).values()].filter((entry) => entry.what === "kind");
  const above = steps.slice(0, at);
  const linking = columns.filter((each) => each.type === "record_choice");
  const valueOf = (column: string) => step.cells.find((each) => each.column === column)?.value ?? "";
  const set = (column: string, value: string) => {
    const others = step.cells.filter((each) => each.column !== column);
    put({ cells: value ? [...others, { column, value }] : others });
  };
  return (
    <>
      <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 1.5 }}>
        <TextField
          select
          label="Which record"
          value={step.way}
          onChange={(event) => put({ way: event.target.value as Step["way"] })}
        >
          {Object.entries(HOW).map(([way, words]) => (
            <MenuItem key={way} value={way}>
              {words}
            </MenuItem>
          ))}
        </TextField>
        {kinds.length > 0 && (
          <TextField
            select
            label="How many"
            value={step.rows}
            slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
            onChange={(event) => put({ rows: event.target.value })}
          >
            <MenuItem value="">one for the response</MenuItem>
            {kinds.map(({ id, number, title }) => (
              <MenuItem key={id} value={id}>
                one for each row {number} {title}
              </MenuItem>
            ))}
          </TextField>
        )}
      </Box>
      {step.way !== "make" && (
        <Autocomplete
          multiple
          options={columns}
          value={columns.filter(({ id }) => step.found_by.includes(id))}
          getOptionKey={({ id }) => id}
          getOptionLabel={wordsOf}
          onChange={(_event, chosen) => put({ found_by: chosen.map(({ id }) => id) })}
          renderInput={(params) => (
            <TextField
              {...params}
              label="Found by what is the same in"
              helperText="Compared without capitals and outer spaces; where two fit, none is touched, and you are told"
            />
          )}
        />
      )}
      {above.length > 0 && linking.length > 0 && (
        <Box sx={{ display: "grid", gridTemplateColumns: "1fr 1fr", gap: 1.5 }}>
          <TextField
            select
            label="Belongs to"
            value={step.under}
            slotProps={{ select: { displayEmpty: true }, inputLabel: { shrink: true } }}
            onChange={(event) => put({ under: event.target.value, linked_by: linking[0]!.id })}
          >
            <MenuItem value="">nothing above</MenuItem>
            {above.map((each) => (
              <MenuItem key={each.id} value={each.id}>
                the record of {form.tables.find(({ id }) => id === each.table)?.name ?? "…"}
              </MenuItem>
            ))}
          </TextField>
          {step.under && (
            <TextField
              select
              label="Named in the column"
              value={step.linked_by}
              onChange={(event) => put({ linked_by: event.target.value })}
            >
              {linking.map((each) => (
                <MenuItem key={each.id} value={each.id}>
                  {wordsOf(each)}
                </MenuItem>
              ))}
            </TextField>
          )}
        </Box>
      )}
      <Box sx={{ display: "flex", alignItems: "center", justifyContent: "space-between" }}>
        <Heading>What is kept</Heading>
        <Button size="small" onClick={() => put({ cells: byName(step, columns, names) })}>
          Fill in by name
        </Button>
      </Box>
      <Box
        sx={{
          display: "grid",
          gridTemplateColumns: "minmax(0, 2fr) minmax(0, 3fr) 60px",
          gap: 1,
          alignItems: "center",
        }}
      >
        {columns.map((column) =>
          step.under && column.id === step.linked_by ? null : (
            <Cell
              key={column.id}
              column={column}
              names={names}
              value={valueOf(column.id)}
              onChange={(value) => set(column.id, value)}
              onAsk={step.rows ? null : () => onAsk(column)}
            />
          ),
        )}
      </Box>
    </>
  );
}

/** The columns in which something can be kept: what is worked out is the table's own. */
const askedColumns = (table: KnownTable): Column[] => columnsOf(table).filter(({ type }) => type !== "calculated");

/** What is kept, with what is named like a column for those of which nothing is said yet. */
function byName(step: Pick<Step, "cells">, columns: readonly Column[], names: readonly Named[]): Step["cells"] {
  const plain = (text: string) => text.toLowerCase().replaceAll(/[^\p{L}\p{N}]/gu, "");
  const said = new Set(step.cells.map(({ column }) => column));
  const found = columns.flatMap((column) => {
    const wanted = [plain(column.key), plain(wordsOf(column))];
    const named = names.find(({ name, title }) => wanted.includes(plain(name)) || wanted.includes(plain(title)));
    return said.has(column.id) || !named ? [] : [{ column: column.id, value: named.name }];
  });
  return [...step.cells, ...found];
}

function Cell({
  column,
  names,
  value,
  onChange,
  onAsk,
}: {
  column: Column;
  names: readonly Named[];
  value: string;
  onChange: (value: string) => void;
  /** Adds a field for it to the form; null where it is kept of each row. */
  onAsk: (() => void) | null;
}) {
  const way = column.type === "number" || column.type === "money" ? WAYS.number : WAYS.text;
  return (
    <>
      <Typography variant="body2">
        {wordsOf(column)}
        {column.required === "TRUE" && " *"}
      </Typography>
      <AnswerOrValue
        label={wordsOf(column)}
        way={way}
        choices={column.options ?? []}
        answers={names}
        value={value}
        onChange={onChange}
      />
      {value === "" && onAsk ? (
        <Button size="small" title="Adds a field to the form, and keeps its answer here" onClick={onAsk}>
          Ask it
        </Button>
      ) : (
        <span />
      )}
    </>
  );
}
