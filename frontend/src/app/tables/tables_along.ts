// Tables that go along where parts of a form are copied into another: those that the parts name, and those that these name.
import type { KnownTable } from "../../api/generated/wire";
import type { Action } from "../../model/draft";
import { columnsOf } from "./known";

/** The tables that something names ("table": its id), with those whose records their columns name. */
export function tablesNamedIn(part: unknown, tables: readonly KnownTable[]): KnownTable[] {
  const found = new Set<string>();
  const seek = (value: unknown): void => {
    if (Array.isArray(value)) value.forEach(seek);
    else if (value && typeof value === "object")
      for (const [name, each] of Object.entries(value))
        if (name === "table" && typeof each === "string") take(each);
        else seek(each);
  };
  const take = (id: string): void => {
    const table = tables.find((each) => each.id === id);
    if (!table || found.has(id)) return;
    found.add(id);
    columnsOf(table).forEach((column) => column.table && take(column.table));
  };
  seek(part);
  return tables.filter(({ id }) => found.has(id));
}

/** What has a form know tables that came along and that it does not know yet; null where it knows them all. */
export function coming(known: readonly KnownTable[], along: readonly KnownTable[] | undefined): Action | null {
  const fresh = (along ?? []).filter(({ id }) => !known.some((each) => each.id === id));
  return fresh.length > 0 ? { do: "edit_form", changes: { tables: [...known, ...fresh] } } : null;
}
