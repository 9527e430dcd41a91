// Which columns the table shows, in which order, and how wide they are.
import type { AskedColumnReply, AskingReply, RowReply } from "../../api/generated/wire";
import type { Look } from "./look";

// What somebody sees who has chosen nothing: more is found under Columns.
const USUAL = 14;
const FACETS_FIRST = ["response.number", "response.received"];
const ORDERED: ReadonlySet<string> = new Set([
  "text",
  "number",
  "yes or no",
  "date",
  "time",
  "date and time",
  "choice",
  "choices",
  "files",
  "rows",
]);

/** The columns that are shown, by the look, or the usual ones. */
export function shownColumns(asking: AskingReply, look: Look): AskedColumnReply[] {
  const byId = new Map(asking.columns.map((each) => [each.id, each]));
  const ids = look.columns ?? usualColumns(asking);
  return ids.flatMap((id) => byId.get(id) ?? []);
}

export function usualColumns(asking: AskingReply): string[] {
  const answers = asking.columns.filter((each) => !each.facet && !each.earlier && !each.id.startsWith("link."));
  const status = asking.statuses.length > 0 ? ["response.status"] : [];
  return [...FACETS_FIRST, ...status, ...answers.slice(0, USUAL).map((each) => each.id)];
}

export const hasOrder = (column: AskedColumnReply): boolean => ORDERED.has(column.holds);

export function usualWidth(column: AskedColumnReply): number {
  if (column.id === "response.number") return 72;
  if (column.id === "response.received") return 124;
  return column.holds === "number" || column.holds === "yes or no" ? 104 : 160;
}

/** What a cell says of a facet; answers come as text already. */
export function cellText(column: AskedColumnReply, row: RowReply, dayAndTime: (iso: string) => string): string {
  if (!column.facet) return row.cells[column.id] ?? "";
  const labelled = (code: string) => column.options.find((each) => each.code === code)?.label ?? code;
  switch (column.id) {
    case "response.number":
      return row.test ? `try ${row.number}` : `${row.number}`;
    case "response.received":
      return dayAndTime(row.received_at);
    case "response.edition":
      return `${row.edition}`;
    case "response.status":
      return labelled(row.status);
    case "response.person":
      return labelled(row.person);
    case "response.tags":
      return row.tags.join(", ");
    case "response.stage":
      return labelled(row.stage);
    case "response.payment":
      return row.payment === "none" ? "" : row.payment;
    case "response.decision":
      return row.decision === "none" ? "" : row.decision;
    case "response.at_part":
      return row.at_part === "none" ? "" : row.at_part;
    case "response.booking":
      return row.booking === "none" ? "" : row.booking;
    case "response.practice":
      return row.test ? "yes" : "";
    default:
      return "";
  }
}

// What a row has no words for: it can be filtered by, and is told on the single sheet.
const NOT_IN_ROWS = new Set(
  ["way", "page", "link", "sealed_link", "language", "held"].map((name) => `response.${name}`),
);

export const canBeShown = (column: AskedColumnReply): boolean =>
  !NOT_IN_ROWS.has(column.id) && !column.id.startsWith("link.");

/** The order after a press on a column: up, down, then none; with `added` beside the others, else alone. */
export function turnedSorts(sorts: readonly string[], id: string, added: boolean): string[] {
  const now = sorts.find((each) => each.replace(/^-/, "") === id);
  const next = now === undefined ? [id] : now === id ? [`-${id}`] : [];
  if (!added) return next;
  const kept = sorts.filter((each) => each.replace(/^-/, "") !== id);
  const place = now === undefined ? kept.length : sorts.indexOf(now);
  return [...kept.slice(0, place), ...next, ...kept.slice(place)].slice(0, 4);
}
