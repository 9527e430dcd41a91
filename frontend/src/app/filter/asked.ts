// A filter as the address and the server have it, and the columns that it asks for.
import type { ApiError } from "../../api/client";
import type { AskedColumnReply, Condition } from "../../api/generated/wire";

/** Which are looked at: all conditions hold, or any, and all words are found. */
export interface Asked {
  match: "all" | "any";
  conditions: readonly Condition[];
  words: string;
}

/** The filter that an address holds; what can't be read in it is left out, and the server tells what it refuses. */
export const askedIn = (query: URLSearchParams): Asked => ({
  match: query.get("match") === "any" ? "any" : "all",
  conditions: conditionsOf(query.get("where")),
  words: query.get("words") ?? "",
});

function conditionsOf(text: string | null): Condition[] {
  try {
    const listed = JSON.parse(text ?? "[]") as [string, Condition["how"], ...string[]][];
    return listed.map(([column, how, ...values]) => ({ column, how, values: values.map(String) }));
  } catch {
    return [];
  }
}

export const whereOf = (conditions: readonly Condition[]): string =>
  JSON.stringify(conditions.map(({ column, how, values }) => [column, how, ...(values ?? [])]));

/** What the server is asked for a filter. */
export const askedOf = ({ conditions, match, words }: Asked): Record<string, string> => ({
  where: whereOf(conditions),
  match,
  words,
});

/** Whether some are left out. */
export const isFiltered = ({ conditions, words }: Asked): boolean => conditions.length > 0 || words !== "";

/** The place of the condition that the server refused, with why. */
export function refusedOf(error: ApiError): { at: number; message: string } | null {
  const path = error.problems[0]?.path ?? "";
  return path.startsWith("conditions.")
    ? { at: Number(path.slice("conditions.".length)), message: error.message }
    : null;
}

/** Columns by id, parts among them. */
export function columnsById(columns: readonly AskedColumnReply[]): Map<string, AskedColumnReply> {
  return new Map(columns.flatMap((each) => [each, ...each.parts]).map((each) => [each.id, each]));
}

/** How a column is called: "2.1 Guests". */
export const named = (column: Pick<AskedColumnReply, "number" | "label">): string =>
  `${column.number} ${column.label}`.trim();
