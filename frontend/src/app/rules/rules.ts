// The rules of a form: every condition that reads something, with what it acts on. No React, no fetch.
import type { Note, OutcomeReply } from "../../api/generated/wire";
import { FORM as WHOLE_FORM } from "../../form/snapshot";
import { type Entry, ORDER, type Parts, PAYMENT } from "../../model/parts";

/** What a rule acts on: a part of the form, its order, its payment, or the form as a whole. */
export interface RuleOwner extends Pick<Entry, "id" | "number" | "title" | "page"> {
  what: Entry["what"] | "order" | "payment" | "form";
}

export interface Rule {
  owner: RuleOwner;
  note: Note;
  /** What it does: its note's fact ("shown", "required", "check", "next" …). */
  fact: string;
}

/** What rules do, as a filter names it. */
export const RULE_WORDS: Record<string, string> = {
  shown: "show or hide",
  required: "require",
  locked: "lock",
  check: "check",
  next: "lead to a page",
  confirmation: "choose a confirmation",
  offered: "filter options",
  fitting: "filter records",
  counted: "count",
  follow_up: "do a follow-up",
  recipient: "choose a recipient",
  discount: "take something off",
  tax: "tax",
  payment: "ask for a payment",
  plan: "choose a plan",
  default: "fill in a default",
};

const FILTERS = new Set(["offered", "fitting"]);

/** Whether a note tells a rule: a condition, or a filter, that reads something. */
export const isRule = (note: Note): boolean => note.condition && (note.reads.length > 0 || FILTERS.has(note.fact));

const NOWHERE = { number: "", page: null } as const;
const OF_THE_FORM: readonly RuleOwner[] = [
  { ...NOWHERE, id: ORDER, what: "order", title: "The order" },
  { ...NOWHERE, id: PAYMENT, what: "payment", title: "The payment" },
  { ...NOWHERE, id: WHOLE_FORM, what: "form", title: "The form" },
];

/** Whether the list of rules has a note: rules, and defaults, which decide what a field begins as. */
export const isListed = (note: Note): boolean => isRule(note) || note.fact === "default";

/** All rules in the order of the outline, then those of no part; defaults where they are `listed`. */
export function rulesOf(parts: Parts, notes: Record<string, Note[]>, listed: typeof isRule = isRule): Rule[] {
  return [...parts.values(), ...OF_THE_FORM].flatMap((owner: RuleOwner) =>
    (notes[owner.id] ?? []).filter(listed).map((note) => ({ owner, note, fact: note.fact })),
  );
}

/** What a rule says, in plain text, for searching. */
const wordsOf = (rule: Rule, parts: Parts): string =>
  [
    `${rule.owner.number} ${rule.owner.title}`,
    ...rule.note.words.map((words) =>
      words.block ? `${parts.get(words.block)?.number} ${parts.get(words.block)?.title}` : words.text,
    ),
  ].join(" ");

/** What answers make of a condition: "now 64: holds"; nothing where it is none, or nothing is known yet. */
export function nowWords(owner: string, note: Note, outcome: OutcomeReply | undefined): string {
  if (!outcome || !isRule(note)) return "";
  const holds = outcome.holding[owner]?.[note.setting];
  if (holds === undefined) return "not looked at now";
  const known = note.reads
    .slice(0, 3)
    .map((id) => outcome.values[id])
    .filter(Boolean)
    .join(", ");
  return `now${known && ` ${known}`}: ${holds ? "holds" : "does not hold"}`;
}

/** What answers make of a value: "now 64". */
export function nowValue(owner: string, outcome: OutcomeReply | undefined): string {
  const value = outcome?.values[owner];
  return value ? `now ${value}` : "";
}

export interface RuleFilter {
  search: string;
  /** The id of a block or figure that it must read, or "". */
  reads: string;
  /** What it must do, or "". */
  fact: string;
}

export const fitsFilter = (rule: Rule, filter: RuleFilter, parts: Parts): boolean =>
  (filter.reads === "" || rule.note.reads.includes(filter.reads)) &&
  (filter.fact === "" || rule.fact === filter.fact) &&
  wordsOf(rule, parts).toLowerCase().includes(filter.search.trim().toLowerCase());

const BESIDE: Partial<Record<RuleOwner["what"], string>> = {
  confirmation: "Confirmations, the first that holds",
  follow_up: "Follow-ups, each that holds",
  order: "The order",
  payment: "The payment",
  form: "The form as a whole",
};

/** Rules by the page that they act on; what stands beside the pages is a group of its own. */
export function groupsOf(rules: readonly Rule[], parts: Parts): { title: string; rules: Rule[] }[] {
  const groups = new Map<string, Rule[]>();
  for (const rule of rules) {
    const page = rule.owner.page ? parts.get(rule.owner.page) : undefined;
    const title = page ? `Page ${page.number} · ${page.title}` : (BESIDE[rule.owner.what] ?? "Figures");
    groups.set(title, [...(groups.get(title) ?? []), rule]);
  }
  return [...groups].map(([title, found]) => ({ title, rules: found }));
}
