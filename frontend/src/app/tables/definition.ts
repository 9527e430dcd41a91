// A table's definition as it is changed here: columns added, given other settings, moved, taken away.
import type { Publication, TableReply } from "../../api/generated/wire";
import { newId } from "../../model/new_block";
import { codeFrom, keyFrom } from "../../model/outline";

/** A column of a definition; what its type adds stands beside these. */
export interface Column {
  id: string;
  type: string;
  key: string;
  label: string;
  required?: string;
  formula?: string;
  format?: string;
  decimals?: number;
  minimum?: string | number | null;
  maximum?: string | number | null;
  most?: number;
  megabytes?: number;
  min_length?: number | null;
  max_length?: number | null;
  earliest?: string;
  latest?: string;
  pattern?: string;
  pattern_message?: string;
  options?: readonly Option[];
  /** The table whose records it names, without strokes in its id; and whether it names several. */
  table?: string;
  several?: boolean;
}

interface Option {
  id: string;
  code: string;
  label: string;
}

export interface Definition {
  name: string;
  columns: readonly Column[];
  once: readonly string[];
  named_by: string;
  published?: Publication | null;
}

export const definitionOf = (table: TableReply): Definition => table.definition as unknown as Definition;

/** The definition with one more column, at its end; its key is made of its label, and stays. */
export function withColumn(definition: Definition, type: string, label: string): Definition {
  const taken = definition.columns.map((each) => each.key);
  // Never that of a column that was taken away: records still have what stood there.
  const blank: Column = { id: newId(), type, key: keyFrom(label, taken), label };
  return { ...definition, columns: [...definition.columns, { ...blank, ...begins(type) }] };
}

const begins = (type: string): Partial<Column> =>
  type === "calculated" ? { formula: "" } : CHOICES.has(type) ? { options: [] } : {};

export const CHOICES: ReadonlySet<string> = new Set(["dropdown", "several_choices"]);

/** The column as one of another type; options go along between choices, all else that hangs on its type does not. */
export function retyped({ id, key, label, required = "", options }: Column, type: string): Column {
  const chosen = CHOICES.has(type) ? { options: options ?? [] } : {};
  return { id, type, key, label, required, ...chosen };
}

export const replaced = (definition: Definition, column: Column): Definition => ({
  ...definition,
  columns: definition.columns.map((each) => (each.id === column.id ? column : each)),
});

export const changed = (definition: Definition, id: string, settings: Partial<Column>): Definition => ({
  ...definition,
  columns: definition.columns.map((each) => (each.id === id ? { ...each, ...settings } : each)),
});

export const without = (definition: Definition, id: string): Definition => ({
  ...definition,
  columns: definition.columns.filter((each) => each.id !== id),
  once: definition.once.filter((each) => each !== id),
  named_by: definition.named_by === id ? "" : definition.named_by,
  published: definition.published && {
    ...definition.published,
    columns: definition.published.columns.filter((each) => each !== id),
    author: definition.published.author === id ? "" : definition.published.author,
  },
});

export function moved(definition: Definition, id: string, by: -1 | 1): Definition {
  const columns = [...definition.columns];
  const at = columns.findIndex((each) => each.id === id);
  const [column] = columns.splice(at, 1);
  columns.splice(at + by, 0, column!);
  return { ...definition, columns };
}

export const onceOrNot = (definition: Definition, id: string, once: boolean): Definition => ({
  ...definition,
  once: [...definition.once.filter((each) => each !== id), ...(once ? [id] : [])],
});

/** Options by lines of labels; a label that was there keeps its code and id. */
export function optionsOf(lines: string, before: readonly Option[]): Option[] {
  const labels = [...new Set(lines.split("\n").map((each) => each.trim()))].filter(Boolean);
  const known = new Map(before.map((each) => [each.label, each]));
  const kept = labels.flatMap((label) => known.get(label) ?? []);
  const codes = kept.map((each) => each.code);
  const ids = new Set(kept.map((each) => each.id));
  let next = 1;
  const freeId = () => {
    while (ids.has(`o${next}`)) next += 1;
    ids.add(`o${next}`);
    return `o${next}`;
  };
  return labels.map((label) => {
    const found = known.get(label);
    if (found) return found;
    const code = codeFrom(label, codes);
    codes.push(code);
    return { id: freeId(), code, label };
  });
}
