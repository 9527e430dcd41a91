// What a form knows of a table: its columns, and how it comes to know it.
import type { KnownTable } from "../../api/generated/wire";
import type { Action } from "../../model/draft";
import type { Choice } from "../../model/outline";

/** A column as a form knows it: a block of its type, of which only this is read here. */
export interface Column {
  id: string;
  type: string;
  key: string;
  label?: string;
  required?: string;
  options?: readonly Choice[];
  table?: string;
  format?: string;
}

export const columnsOf = (table: KnownTable | undefined): Column[] => (table?.columns ?? []) as unknown as Column[];

export const wordsOf = ({ label, key }: Column): string => label || key;

/** The action by which a form comes to know a table, or knows it as it is now. */
export function knowing(tables: readonly KnownTable[], table: KnownTable): Action {
  const others = tables.filter(({ id }) => id !== table.id);
  return { do: "edit_form", changes: { tables: [...others, table] } };
}
