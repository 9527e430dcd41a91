// A list of options as lines: label, code, number and what it belongs to, with tabs between. No React.
import type { SharedOption } from "../../api/generated/wire";
import { codeFrom } from "../../model/outline";

export const asLines = (options: readonly SharedOption[]): string =>
  options
    .map(({ label, code, counts_as, belongs_to }) => [label, code, counts_as === "0" ? "" : counts_as, belongs_to])
    .map((cells) => cells.join("\t").replace(/\t+$/, ""))
    .join("\n");

/** The options of such lines; one without a code has that of its label before, else a new one made of its label. */
export function fromLines(text: string, before: readonly SharedOption[]): SharedOption[] {
  const known = new Map(before.map((each) => [each.label, each.code]));
  const lines = text
    .split(/\r?\n/)
    .map((line) => line.split("\t").map((cell) => cell.trim()))
    .filter(([label]) => label);
  const codes = lines.map(([, code]) => code ?? "").filter(Boolean);
  return lines.map(([label = "", given = "", number = "", belongs_to = ""]) => {
    const code = given || free(known.get(label), codes) || codeFrom(label, codes);
    if (!given) codes.push(code);
    return { label, code, counts_as: number.replace(",", ".") || "0", belongs_to };
  });
}

const free = (code: string | undefined, codes: readonly string[]): string =>
  code && !codes.includes(code) ? code : "";
