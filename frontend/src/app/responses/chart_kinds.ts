// In which ways a chart can be drawn, the best first, by what it tells; and which charts stand there at first.
import type { AskedColumnReply, AskingReply, ChartReply } from "../../api/generated/wire";

export type Drawing = "bars" | "columns" | "line" | "table";

export const DRAWINGS: Readonly<Record<ChartReply["kind"], readonly Drawing[]>> = {
  shares: ["bars", "columns"],
  ticks: ["bars", "columns"],
  answers: ["bars"],
  compared: ["bars", "columns"],
  numbers: ["columns", "bars"],
  hours: ["columns", "bars"],
  days: ["line", "columns"],
  crossed: ["table"],
  grid: ["table"],
};
export const DRAWING_WORDS: Readonly<Record<Drawing, string>> = {
  bars: "Bars",
  columns: "Columns",
  line: "Line",
  table: "Cells",
};

const USUAL = 11;
const CHARTED = new Set(["choice", "choices", "number", "yes or no", "date", "time", "grid"]);

/** What is charted at first: what came when, then every answer that can be counted, in the order of the form. */
export function usualCharts(asking: AskingReply): [string, string][] {
  const counted = asking.columns.filter(
    (each) => !each.facet && !each.earlier && CHARTED.has(each.holds) && !each.id.includes("."),
  );
  return [...counted.slice(0, USUAL).map((each): [string, string] => [each.id, ""]), ["response.received", ""]];
}

/** Whether something can be compared by a column: by single values that come up again. */
export const canGroup = (column: AskedColumnReply): boolean =>
  ["choice", "choices", "yes or no", "text"].includes(column.holds) || column.id === "response.edition";

/** The repeat in whose rows a field is asked for; none for one that is asked once. */
export const rowsOf = (column: AskedColumnReply, columns: readonly AskedColumnReply[]): AskedColumnReply | undefined =>
  columns.find((each) => each.holds === "rows" && each.parts.some((part) => part.id === column.id));

/** A chart as rows of cells, its heads first: what its table and its CSV hold. */
export function cellsOf(chart: ChartReply): string[][] {
  if (chart.cells.length > 0) {
    const at = new Map(chart.cells.map((cell) => [`${cell.row}\n${cell.code}`, cell]));
    return [
      ["", ...chart.bars.map((bar) => bar.label), "All"],
      ...chart.rows.map((row) => [
        row.label,
        ...chart.bars.map((bar) => `${at.get(`${row.code}\n${bar.code}`)?.count ?? 0}`),
        `${row.count}`,
      ]),
    ];
  }
  const measured = chart.kind === "compared";
  return [
    ["Value", ...(measured ? ["Average"] : []), "Answers", "Share in %"],
    ...chart.bars.map((bar) => [bar.label, ...(measured ? [bar.value_shown] : []), `${bar.count}`, `${bar.share}`]),
  ];
}

/** RFC 4180, with what a spreadsheet would work out made harmless. */
export function asCsv(rows: readonly (readonly string[])[]): string {
  const cell = (text: string) => {
    const safe = /^[\s]*[=+\-@\t\r]/.test(text) && !/^-?[\d.,]+$/.test(text) ? `'${text}` : text;
    return `"${safe.replace(/"/g, '""')}"`;
  };
  return `\uFEFF${rows.map((row) => row.map(cell).join(",")).join("\r\n")}\r\n`;
}
