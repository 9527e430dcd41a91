// Names in formulas and in {insertions} that follow a key. Words and texts in quotation marks stay as they are.

/** The value with the names in it as they are called now, by what they were called. */
export function rewritten<Value>(value: Value, renamed: ReadonlyMap<string, string>, setting = ""): Value {
  if (renamed.size === 0) return value;
  if (Array.isArray(value)) return value.map((each: unknown) => rewritten(each, renamed, setting)) as Value;
  if (value !== null && typeof value === "object")
    return Object.fromEntries(
      Object.entries(value).map(([name, each]) => [name, rewritten(each as unknown, renamed, name)]),
    ) as Value;
  if (typeof value !== "string" || NAMES.has(setting)) return value;
  if (FORMULAS.has(setting)) return namesReplaced(value, renamed) as Value;
  return value.replaceAll(/\{[^{}]*\}/g, (part) => namesReplaced(part, renamed)) as Value;
}

const NAMES = new Set(["id", "key", "code"]);
export const FORMULAS: ReadonlySet<string> = new Set([
  "shown",
  "required",
  "locked",
  "default",
  "formula",
  "offered",
  "fitting",
  "earliest",
  "latest",
  "priced_by",
  "taking",
  "when",
  "only_when",
  "shipping",
  "times",
  "fee",
  "first_day",
  "name_of",
]);

const namesReplaced = (formula: string, renamed: ReadonlyMap<string, string>): string =>
  formula.replaceAll(/"(?:[^"]|"")*"|[^\W\d][\w.]*(?![\w.]|\s*\()/gu, (word) => {
    if (word.startsWith('"')) return word;
    const [first = "", ...rest] = word.split(".");
    const now = renamed.get(first.toLowerCase());
    return now ? [now, ...rest].join(".") : word;
  });
