// What the formulas of a part are called, by the path of the setting that each stands in.
import type { NoteKind } from "../../api/generated/wire";
import { PAYMENT } from "../../model/parts";

export interface FormulaSetting {
  kind: NoteKind;
  title: string;
  /** What is said while the setting is empty; nothing where the setting comes and goes with its list. */
  absent: string;
  example: string;
  /** Whether it holds or does not, so that it can be written as rows. */
  condition: boolean;
  help: string;
}

const SETTINGS: Record<string, FormulaSetting> = {
  shown: {
    kind: "rule",
    title: "shown when",
    absent: "◇ always shown; add a rule",
    example: 'adults > 12, or arrival = "coach"',
    condition: true,
    help: "While it does not hold, visitors don’t see it, and its answers are blank to every formula.",
  },
  required: {
    kind: "check",
    title: "must be answered when",
    absent: "! may stay blank; make it required",
    example: "TRUE for always, or adults > 12",
    condition: true,
    help: "While it holds, the page can’t be left with this blank.",
  },
  locked: {
    kind: "rule",
    title: "locked when",
    absent: "◇ can be changed; lock it",
    example: "TRUE for always, or NOT(ISBLANK(link.code))",
    condition: true,
    help: "While it holds, visitors see it and can’t change it.",
  },
  default: {
    kind: "data",
    title: "begins as",
    absent: "→ begins blank; give it a default",
    example: '"email", TODAY() + 7, or link.code',
    condition: false,
    help: "Worked out once, when the field is first shown; visitors may change it. In Behaviour it can be made to follow.",
  },
  offered: {
    kind: "rule",
    title: "offers an option when",
    absent: "◇ offers every option; filter them",
    example: "option.belongs_to = site",
    condition: false,
    help: "Worked out for each option: option is its code; option.label, option.counts_as and option.belongs_to are known.",
  },
  fitting: {
    kind: "rule",
    title: "offered when",
    absent: "◇ offers every record; filter them",
    example: "record.site = site.name, or AND(record.kind = kind, record.left > 0)",
    condition: true,
    help: "Worked out for each record: record.price is a column of it. What does not fit is not offered, and not taken.",
  },
  earliest: {
    kind: "check",
    title: "not before",
    absent: "! as early as you like; set a limit",
    example: "TODAY() + 2, or arrival",
    condition: false,
    help: "The earliest that is taken.",
  },
  latest: {
    kind: "check",
    title: "not after",
    absent: "! as late as you like; set a limit",
    example: "EDATE(TODAY(), 6)",
    condition: false,
    help: "The latest that is taken.",
  },
  formula: {
    kind: "calculation",
    title: "= is worked out by",
    absent: "ƒ no formula yet; write one",
    example: "adults * 9.50 + children * 4",
    condition: false,
    help: "Fields, options’ numbers, figures and columns of rows can be named; SUM(lines.amount) adds a column.",
  },
  when: {
    kind: "rule",
    title: "follows when",
    absent: "◇ follows when no other does; add a rule",
    example: 'band.label = "a festival", or adults > 12',
    condition: true,
    help: "Of the confirmations the first that holds follows; one without a rule always holds.",
  },
};

SETTINGS.priced_by = {
  kind: "money",
  title: "each costs",
  absent: "¤ has the price that is set; work one out",
  example: "instrument.charge, or ROUND(length * 1.5, 2)",
  condition: false,
  help: "In the place of a price. While it gives none, what is ordered of it can’t be sent: nothing is given away.",
};

SETTINGS.taking = {
  kind: "data",
  title: "each response takes",
  absent: "→ takes one of each; work out how many",
  example: "seats, or adults + children",
  condition: false,
  help: "Of each record that is chosen. Where it gives no number, it is one.",
};

SETTINGS.only_when = {
  kind: "rule",
  title: "only when",
  absent: "◇ for every response; add a rule",
  example: "adults > 12",
  condition: true,
  help: "Where it does not hold, nothing is sent.",
};

SETTINGS.shipping = {
  kind: "money",
  title: "shipping costs",
  absent: "# nothing for sending; set a price",
  example: "IF(order.subtotal >= 50, 0, 6.50)",
  condition: false,
  help: "Known here: order.subtotal, order.discount and order.count, and every field. Where nothing is ordered, there is none.",
};

const IN_LISTS: Record<string, Partial<FormulaSetting>> = {
  "checks.formula": {
    kind: "check",
    title: "must fit",
    example: "departure > arrival",
    condition: true,
    help: "Looked at once there is an answer; where it does not hold, visitors read the message.",
  },
  "next.when": {
    kind: "rule",
    title: "goes on elsewhere when",
    example: "age < 18",
    condition: true,
    help: "Of these rules the first that holds counts; without one the following page comes next.",
  },
  "options.shown": {
    ...SETTINGS.shown,
    title: "option shown when",
    help: "While it does not hold, the option is not offered, and a choice of it is dropped.",
  },
  "options.locked": { ...SETTINGS.locked, title: "option locked when" },
  "paragraphs.shown": { ...SETTINGS.shown, title: "paragraph shown when" },
  "bands.value": {
    kind: "calculation",
    title: "value of the band",
    example: "12 + distance * 0.85",
    help: "A number, or a formula that is worked out only where this band is the one.",
  },
  "recipients.when": {
    kind: "rule",
    title: "gets it when",
    example: 'site = "deck"',
    condition: true,
    help: "Where it does not hold, this recipient is left out.",
  },
  "discounts.when": {
    kind: "money",
    title: "taken off when",
    example: "order.count >= 3",
    condition: true,
    help: "Where it does not hold, nothing is taken off.",
  },
  "discounts.amount": {
    kind: "money",
    title: "takes off",
    example: "5, or order.subtotal * 0.1",
    help: "An amount; never more than the lines come to.",
  },
  "taxes.when": {
    kind: "money",
    title: "due when",
    example: 'country = "NO"',
    condition: true,
    help: "Where it does not hold, this tax is not in the order.",
  },
  "plans.when": {
    kind: "money",
    title: "paid by this plan when",
    example: 'how_often = "monthly"',
    condition: true,
    help: "The first plan that holds is the one; where none does, the amount is paid once.",
  },
  "plans.times": {
    kind: "money",
    title: "the number of payments is",
    example: "12, or parts",
    help: "The first payment counts too. 1 to 1,000, whole.",
  },
  "plans.fee": {
    kind: "money",
    title: "paid once, with the first",
    example: "25, or -gift / 2 for a first at half the price",
    help: "Added to what is paid at once; what is paid then is never below 0.",
  },
  "plans.first_day": {
    kind: "money",
    title: "the first is paid on",
    example: "EOMONTH(TODAY(), 0) + 1",
    help: "A date. Until it comes only the first fee is paid, and the card is kept. Blank or over: at once.",
  },
  "counts.when": {
    kind: "calculation",
    title: "counts when",
    example: "score > 3",
    condition: true,
    help: "Adds its number while it holds.",
  },
};

/** What the payment calls its own. */
const OF_PAYMENT: Record<string, FormulaSetting> = {
  amount: {
    kind: "money",
    title: "the amount to pay is",
    absent: "# the order’s total",
    example: "order.total / 2, or fee",
    condition: false,
    help: "Where it is 0 or below, nothing is paid and the response is complete at once.",
  },
  when: {
    kind: "money",
    title: "paid for when",
    absent: "◇ always; add a rule",
    example: "NOT(member)",
    condition: true,
    help: "Where it does not hold, nothing is paid and the response is complete at once.",
  },
};

/**
 * What is known of a formula's setting by its path ("shown", "checks.0.formula") and the part that it is of; null for
 * any other setting.
 */
export function formulaSetting(path: string, part = ""): FormulaSetting | null {
  const steps = path.split(".");
  if (steps.length === 1) return (part === PAYMENT ? OF_PAYMENT : SETTINGS)[path] ?? null;
  const found = IN_LISTS[`${steps[0]}.${steps.at(-1)}`];
  return found ? ({ absent: "", example: "", help: "", ...found } as FormulaSetting) : null;
}
