// What can be said of each type's answer in a condition, and how it is entered there. One line per type.
import type { ConditionRow } from "../api/generated/wire";
import type { BlockKind } from "../model/blocks";

export type Operator = ConditionRow["operator"];

/** How the other side of a condition is entered: chosen among options, typed as a number, day, time or text. */
export type Entered = "option" | "number" | "day" | "time" | "text";

export interface Shape {
  entered: Entered;
  operators: readonly Operator[];
  /** Words of its own for an operator: a date is not "more". */
  words?: Partial<Record<Operator, string>>;
}

export const OPERATOR_WORDS: Record<Operator, string> = {
  is: "is",
  is_not: "is not",
  more: "is more than",
  at_least: "is at least",
  less: "is less than",
  at_most: "is at most",
  from_to: "is from … to",
  blank: "is blank",
  filled: "is filled in",
  has: "has",
  has_not: "has not",
  mentions: "mentions any of",
  mentions_not: "mentions none of",
  yes: "is yes",
  not_yes: "is not yes",
  formula: "holds:",
};

const BLANKS = ["blank", "filled"] as const;
const ORDERED = ["is", "is_not", "more", "at_least", "less", "at_most", "from_to", ...BLANKS] as const;

const NUMBER: Shape = { entered: "number", operators: ORDERED };
const DAY_WORDS = { more: "is after", at_least: "is on or after", less: "is before", at_most: "is on or before" };
const DAY: Shape = { entered: "day", operators: ORDERED, words: DAY_WORDS };
const TIME: Shape = { entered: "time", operators: ORDERED, words: DAY_WORDS };
const TEXT: Shape = { entered: "text", operators: ["is", "is_not", "mentions", "mentions_not", ...BLANKS] };
const CHOICE: Shape = { entered: "option", operators: ["is", "is_not", ...BLANKS] };
const CHOICES: Shape = { entered: "option", operators: ["has", "has_not", ...BLANKS] };
const YES_NO: Shape = { entered: "text", operators: ["yes", "not_yes", ...BLANKS] };
const THERE: Shape = { entered: "text", operators: BLANKS };

/** A figure, or anything else that has no block: mostly a number. */
export const ANY_SHAPE: Shape = { entered: "number", operators: ORDERED };

export const SHAPES: Record<BlockKind, Shape> = {
  short_text: TEXT,
  long_text: TEXT,
  number: NUMBER,
  money: NUMBER,
  calculated: NUMBER,
  single_choice: CHOICE,
  dropdown: CHOICE,
  several_choices: CHOICES,
  date: DAY,
  time: TIME,
  date_time: { ...DAY, entered: "text" },
  yes_no: YES_NO,
  rating: NUMBER,
  scale: NUMBER,
  slider: NUMBER,
  grid: THERE,
  name: TEXT,
  email: TEXT,
  phone: TEXT,
  web_address: TEXT,
  address: THERE,
  consent: YES_NO,
  signature: THERE,
  file_upload: THERE,
  heading: THERE,
  text: THERE,
  picture: THERE,
  divider: THERE,
  group: THERE,
  repeat: THERE,
  hidden: TEXT,
};

export const operandCount = (operator: Operator): number =>
  operator === "from_to" ? 2 : ["blank", "filled", "yes", "not_yes"].includes(operator) ? 0 : 1;
