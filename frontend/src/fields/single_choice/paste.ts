// Options from a spreadsheet's clipboard: rows by line breaks, columns by tabs.
import type { Option } from "../../api/generated/wire";
import { keyFrom } from "../../model/outline";

/** What an option has beside its words and its number, when it was just made. */
export const PLAIN_OPTION = { belongs_to: "", shown: "", locked: "" } as const;

const NUMBER = /^-?\d+([.,]\d+)?$/;

/** One column is labels; two are label and number (or code); three are label, code, number. Nothing for a single word. */
export function pastedOptions(text: string, taken: readonly string[]): Omit<Option, "id">[] {
  const rows = text
    .split(/\r?\n/)
    .map((line) => line.split("\t").map((cell) => cell.trim()))
    .filter(([label]) => label);
  if (rows.length < 2 && (rows[0]?.length ?? 0) < 2) return [];
  const codes = [...taken];
  return rows.map(([label = "", ...rest]) => {
    const number = rest.at(-1) ?? "";
    const counts_as = NUMBER.test(number) ? number.replace(",", ".") : "0";
    const given = rest.length > 1 || !NUMBER.test(number) ? rest[0] : "";
    const code = given && !codes.includes(given) ? given : keyFrom(given || label, codes);
    codes.push(code);
    return { label, code, counts_as, ...PLAIN_OPTION };
  });
}
