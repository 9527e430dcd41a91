// Conditions in words: "site is any of Harbour Deck, Summit Dome".
import type { AskedColumnReply, Condition } from "../../api/generated/wire";

export type How = Condition["how"];

const HOWS: Readonly<Record<How, string>> = {
  is: "is",
  contains: "contains the words",
  begins: "begins with",
  any_of: "is any of",
  all_of: "has all of",
  none_of: "is none of",
  at_least: "is at least",
  at_most: "is at most",
  between: "is between",
  last_days: "is in the last … days",
  this: "is in this",
  blank: "is blank",
  answered: "is answered",
};
const OF_DAYS: Partial<Record<How, string>> = { is: "is on", at_least: "is from", at_most: "is until" };
export const PERIODS: readonly string[] = ["day", "week", "month", "year"];

const isDays = (column: AskedColumnReply): boolean => column.holds === "date" || column.holds === "date and time";

/** A comparison in words, for a list to choose from. */
export const howInWords = (how: How, column: AskedColumnReply): string => (isDays(column) && OF_DAYS[how]) || HOWS[how];

/** What a chip says of its values. */
export function valuesInWords(condition: Condition, column: AskedColumnReply): string {
  const values = condition.values ?? [];
  const labels = values.map((code) => column.options.find((each) => each.code === code)?.label ?? code);
  if (condition.how === "between") return labels.join(" and ");
  if (labels.length > 3) return `${labels.length} of ${column.options.length || labels.length}`;
  return labels.join(", ");
}

/** A condition as its chip says it after the field's name. */
export function conditionInWords(condition: Condition, column: AskedColumnReply): string {
  const values = valuesInWords(condition, column);
  if (condition.how === "last_days") return `is in the last ${values} days`;
  return `${howInWords(condition.how, column)} ${values}`.trim();
}

/** The condition that somebody begins with who picks a field. */
export function begun(column: AskedColumnReply): Condition {
  const how = column.hows[0]!;
  return { column: column.id, how, values: usualValues(how, column) };
}

/** Values for another comparison: those that were there as far as they still fit. */
export function usualValues(how: How, column: AskedColumnReply, before: readonly string[] = []): string[] {
  if (how === "blank" || how === "answered") return [];
  if (how === "this") return ["week"];
  if (how === "last_days") return ["7"];
  if (column.holds === "yes or no") return ["yes"];
  if (how === "between") return [before[0] ?? "", before[1] ?? ""];
  if (how.endsWith("_of")) return [...before];
  return [before[0] ?? ""];
}

/** Whether a condition has all that it needs to be asked. */
export const isWhole = (condition: Condition): boolean =>
  condition.how === "blank" ||
  condition.how === "answered" ||
  ((condition.values ?? []).length > 0 && (condition.values ?? []).every((value) => value.trim() !== ""));
