// The rows of a condition while they are written: not complete, so in no formula, and yet they follow a renamed key.
import type { ConditionRow, ConditionRows } from "../api/generated/wire";
import type { Named } from "./outline";

/** What rows name: ids by name in small letters. */
export type NamedIds = Readonly<Record<string, string>>;

export const isRows = (each: ConditionRow | ConditionRows): each is ConditionRows => "rows" in each;

/** The ids of what the rows name, as far as they are known. */
export function idsNamed(rows: ConditionRows, names: readonly Named[]): NamedIds {
  const ids = new Map(names.map(({ name, id }) => [name.toLowerCase(), id]));
  const used = rows.rows.flatMap((each) => (isRows(each) ? Object.entries(idsNamed(each, names)) : known(each, ids)));
  return Object.fromEntries(used);
}

function known(row: ConditionRow, ids: ReadonlyMap<string, string>): [string, string][] {
  const name = row.name.toLowerCase();
  const id = ids.get(name);
  return id === undefined ? [] : [[name, id]];
}

/** The rows with the names of today: what had another key when it was named is called by the one it has now. */
export function withNamesOfToday(rows: ConditionRows, ids: NamedIds, names: readonly Named[]): ConditionRows {
  const nameOf = new Map(names.map(({ name, id }) => [id, name]));
  const today = (row: ConditionRow): ConditionRow => {
    const id = ids[row.name.toLowerCase()];
    const name = id === undefined ? undefined : nameOf.get(id);
    return name === undefined || name.toLowerCase() === row.name.toLowerCase() ? row : { ...row, name };
  };
  return {
    ...rows,
    rows: rows.rows.map((each) => (isRows(each) ? withNamesOfToday(each, ids, names) : today(each))),
  };
}
