// What can be said of each type's answer in a condition, and how it is entered there. One line per type.
import type { ConditionRow } from "../api/generated/wire";
import type { BlockKind } from "../model/blocks";

export type Operator = ConditionRow["operator"];

/** How the other side is entered: chosen among options, typed as a number, day, time or text, or another answer. */
export type Entered = "option" | "number" | "day" | "time" | "text" | "answer";

export interface Shape {
  entered: Entered;
  operators: readonly Operator[];
  /** Words of its own for an operator: a date is not "more". */
  words?: Partial<Record<Operator, string>>;
}

export const OPERATOR_WORDS: Record<Operator, string> = {
  is: "is",
  is_not: "is not",
  one_of: "is one of",
  more: "is more than",
  at_least: "is at least",
  less: "is less than",
  at_most: "is at most",
  from_to: "is from … to",
  whole: "is a whole number",
  blank: "is blank",
  filled: "is filled in",
  has: "has",
  has_not: "has not",
  mentions: "mentions any of the words",
  mentions_not: "mentions none of the words",
  contains: "has any of these parts in it",
  contains_not: "has none of these parts in it",
  begins: "begins with",
  ends: "ends with",
  words: "has at least so many words",
  past: "is in the past",
  next_days: "is in the next … days",
  last_days: "is in the last … days",
  yes: "is yes",
  not_yes: "is not yes",
  no: "is no",
  shown: "is shown",
  not_shown: "is hidden",
  in_group: "is in the group",
  not_in_group: "is not in the group",
  formula: "holds:",
};

const BLANKS = ["blank", "filled", "shown", "not_shown"] as const;
const ORDERED = ["is", "is_not", "more", "at_least", "less", "at_most", "from_to", ...BLANKS] as const;

const NUMBER: Shape = { entered: "number", operators: [...ORDERED, "one_of", "whole"] };
const DAY_WORDS = { more: "is after", at_least: "is on or after", less: "is before", at_most: "is on or before" };
const DAY: Shape = {
  entered: "day",
  operators: [...ORDERED, "past", "next_days", "last_days"],
  words: DAY_WORDS,
};
const TIME: Shape = { entered: "time", operators: ORDERED, words: DAY_WORDS };
const IN_TEXTS = ["mentions", "mentions_not", "contains", "contains_not", "begins", "ends", "words"] as const;
const TEXT: Shape = { entered: "text", operators: ["is", "is_not", "one_of", ...IN_TEXTS, ...BLANKS] };
const CHOICE: Shape = { entered: "option", operators: ["is", "is_not", "one_of", ...BLANKS] };
const CHOICES: Shape = { entered: "option", operators: ["has", "has_not", ...BLANKS] };
/** A record is the same as another, or not; all else is said of its columns. */
const RECORD: Shape = { entered: "answer", operators: ["is", "is_not", ...BLANKS] };
const YES_NO: Shape = { entered: "text", operators: ["yes", "no", "not_yes", ...BLANKS] };
const THERE: Shape = { entered: "text", operators: BLANKS };
/** What has no answer: it is on the page, or it is not. */
const PLACED: Shape = { entered: "text", operators: ["shown", "not_shown"] };

const withoutPlace = ({ operators, ...shape }: Shape): Shape => ({
  ...shape,
  operators: operators.filter((each) => each !== "shown" && each !== "not_shown"),
});

/** A figure, or anything else that has no block: mostly a number. */
export const ANY_SHAPE: Shape = withoutPlace(NUMBER);

/** The name of a band, or a profile: one of those that there are. */
export const NAMED_SHAPE: Shape = withoutPlace(CHOICE);

/** Who is signed in. */
export const VISITOR_SHAPE: Shape = { entered: "option", operators: ["in_group", "not_in_group"] };

/** What is known of them: nothing, where nobody is signed in. */
export const VISITOR_FACT_SHAPE: Shape = {
  ...withoutPlace(TEXT),
  words: { filled: "is known", blank: "is not known" },
};

export const SHAPES: Record<BlockKind, Shape> = {
  short_text: TEXT,
  long_text: TEXT,
  number: NUMBER,
  money: NUMBER,
  product: NUMBER,
  quantity: NUMBER,
  calculated: NUMBER,
  single_choice: CHOICE,
  dropdown: CHOICE,
  several_choices: CHOICES,
  record_choice: RECORD,
  date: DAY,
  time: TIME,
  date_time: { ...DAY, entered: "text" },
  slot: { ...DAY, entered: "text" },
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
  order_summary: PLACED,
  all_answers: PLACED,
  heading: PLACED,
  text: PLACED,
  picture: PLACED,
  divider: PLACED,
  group: PLACED,
  repeat: THERE,
  hidden: TEXT,
};

const ALONE: readonly Operator[] = ["blank", "filled", "yes", "not_yes", "no", "whole", "past", "shown", "not_shown"];

export const operandCount = (operator: Operator): number =>
  operator === "from_to" ? 2 : ALONE.includes(operator) ? 0 : 1;

/** Whether an operator takes as many values as one likes. */
export const takesSeveral = (operator: Operator): boolean =>
  ["one_of", "mentions", "mentions_not", "contains", "contains_not"].includes(operator);

/** What stands at the other side of an operator, where it is not of the answer's own kind. */
export const enteredBeside = (operator: Operator, own: Entered): Entered =>
  ["words", "next_days", "last_days"].includes(operator) ? "number" : own;
