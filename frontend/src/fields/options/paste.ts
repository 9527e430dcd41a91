// Options from a spreadsheet's clipboard: rows by line breaks, columns by tabs.
import { parse, unparse } from "papaparse";
import type { Option } from "../../api/generated/wire";
import { codeFrom } from "../../model/outline";

/** What an option has beside its words and its number, when it was just made. */
export const PLAIN_OPTION = { picture: "", price: null, belongs_to: "", shown: "", locked: "" } as const;

const NUMBER = /^-?\d+([.,]\d+)?$/;
const GROUPED = /^-?\d{1,3}([.,'’])\d{3}(\1\d{3})*((?!\1)[.,]\d+)?$/;

/** A number as spreadsheets show it ("4.50", "€ 1.234,50", "1 200"), as plain text; null for anything else. */
function numberIn(cell: string): string | null {
  const bare = cell.replaceAll(/[\s\p{Sc}]/gu, "");
  const separators = bare.match(/[.,'’]/g) ?? [];
  // One point or comma alone is taken for the decimal one: 1.234 is more than one, and less than two.
  const grouped = separators.length > 1 ? GROUPED.exec(bare)?.[1] : undefined;
  const plain = grouped ? bare.replaceAll(grouped, "") : bare;
  return NUMBER.test(plain) ? plain.replace(",", ".") : null;
}

/** Rows of cells, as spreadsheets write them: with tabs, and in quotation marks where there is a line break in a cell. */
function cellsOf(text: string): string[][] {
  const { data, errors } = parse<string[]>(text, { delimiter: "\t", skipEmptyLines: true });
  // A quotation mark that is never closed is one that somebody wrote.
  const rows = errors.length > 0 ? text.split(/\r?\n/).map((line) => line.split("\t")) : data;
  return rows.map((row) => row.map((cell) => cell.replaceAll(/\s*\n\s*/g, " ").trim())).filter(([label]) => label);
}

/** What is written for a number or a price and is none, in words, line by line. */
export function wrongNumbers(text: string): string[] {
  return cellsOf(text).flatMap(([label, ...cells]) =>
    (cells.length > 1 ? cells.slice(1, 3) : []).flatMap((cell, at) =>
      cell && numberIn(cell) === null
        ? [`“${label}”: “${cell}” is no ${at === 0 ? "number; it counts as 0" : "price; it has none"}.`]
        : [],
    ),
  );
}

/**
 * One column is labels; two are label and number (or code); three are label, code, number; a fourth is the price. Nothing
 * for a single word.
 */
export function pastedOptions(
  text: string,
  taken: readonly string[],
  make: typeof codeFrom = codeFrom,
): Omit<Option, "id">[] {
  const rows = cellsOf(text);
  if (rows.length < 2 && (rows[0]?.length ?? 0) < 2) return [];
  const codes = [...taken];
  return rows.map(([label = "", ...cells]) => {
    const price = cells.length > 2 ? numberIn(cells[2] ?? "") : null;
    const rest = cells.slice(0, 2);
    const number = numberIn(rest.at(-1) ?? "");
    const given = rest.length > 1 || number === null ? rest[0] : "";
    const code = given && !codes.includes(given) ? given : make(given || label, codes);
    codes.push(code);
    return { label, code, counts_as: number ?? "0", ...PLAIN_OPTION, price };
  });
}

/** Options as lines for a spreadsheet: label, code, number and, where any has one, price, with tabs between. */
export function optionsAsText(options: readonly Option[]): string {
  const priced = options.some(({ price }) => price !== null);
  const rows = options.map(({ label, code, counts_as, price }) => [
    label,
    code,
    counts_as,
    ...(priced ? [price ?? ""] : []),
  ]);
  return unparse(rows, { delimiter: "\t", newline: "\n" });
}

/** The options of such lines; those whose code stays keep their id and their rules. */
export function optionsFromText(text: string, before: readonly Option[], newId: () => string): Option[] {
  const byCode = new Map(before.map((option) => [option.code, option]));
  const lines = text.split(/\r?\n/).filter((line) => line.trim());
  return lines.reduce<Option[]>((made, line) => {
    const codes = made.map((option) => option.code);
    // A line alone would be a word; with its columns it is an option.
    const [fresh] = pastedOptions(line.includes("\t") ? line : `${line}\t0`, codes);
    if (!fresh) return made;
    const known = byCode.get(fresh.code);
    if (!known) return [...made, { ...fresh, id: newId() }];
    // Without a column of prices they stay as they are.
    const price = line.split("\t").length > 3 ? fresh.price : known.price;
    return [...made, { ...known, label: fresh.label, counts_as: fresh.counts_as, price }];
  }, []);
}
