// What can be asked about in a preview, and what its facts are called. No React, no fetch.
import type { ExplanationReply, Form, NoteKind } from "../../api/generated/wire";
import { type Answer, rowsIn } from "../../fields/input";
import type { Parts } from "../../model/parts";

/** What the core calls the form as a whole. */
export const THE_FORM = "form";

const ASKABLE: readonly string[] = ["page", "block", "figure"];

/**
 * Pages, blocks, those in rows for each row that was filled in, figures, and the form where anything holds for it:
 * labels by the address that the core and the form in the frame use, "OWNER" or "REPEAT/ROW/BLOCK".
 */
export function askable(
  parts: Parts,
  form: Pick<Form, "confirmations" | "checks" | "payment">,
  answers: Readonly<Record<string, unknown>>,
): ReadonlyMap<string, string> {
  const found = [...parts.values()].flatMap(({ id, what, number, title, kind }): [string, string][] => {
    const label = `${number} ${title}`.trim();
    if (!ASKABLE.includes(what)) return [];
    if (kind === null) return [[id, label]];
    const repeat = parts.get(kind)!.into.holder;
    return rowsIn((answers[repeat] ?? null) as Answer).flatMap((row, at) =>
      row.kind === kind ? [[`${repeat}/${row.id}/${id}`, `${label}, row ${at + 1}`]] : [],
    );
  });
  if ([...parts.values()].some((entry) => entry.what === "block" && entry.part.type === "order_summary"))
    found.push(["order", "The order"]);
  if (form.payment.on) found.push(["payment", "The payment"]);
  const whole = form.confirmations.length + form.checks.length > 0;
  return new Map(whole ? [...found, [THE_FORM, "The form: how it ends"]] : found);
}

const FACTS: Record<string, { kind: NoteKind; title: string }> = {
  shown: { kind: "rule", title: "Shown" },
  value: { kind: "calculation", title: "Value" },
  required: { kind: "check", title: "Must be answered" },
  locked: { kind: "rule", title: "Locked" },
  offered: { kind: "rule", title: "Options" },
  barred: { kind: "rule", title: "Options that can’t be chosen" },
  earliest: { kind: "check", title: "Not before" },
  latest: { kind: "check", title: "Not after" },
  check: { kind: "check", title: "Check" },
  next: { kind: "rule", title: "Next page" },
  confirmation: { kind: "rule", title: "Confirmation" },
  lines: { kind: "money", title: "Lines" },
  discounts: { kind: "money", title: "Taken off" },
  shipping: { kind: "money", title: "Shipping" },
  tax: { kind: "money", title: "Tax" },
  total: { kind: "money", title: "Total" },
  to_pay: { kind: "money", title: "To pay" },
  order: { kind: "money", title: "Order" },
  only_when: { kind: "rule", title: "Done" },
  recipients: { kind: "rule", title: "Recipient" },
  paragraphs: { kind: "rule", title: "Paragraph" },
};

/** What a fact ("shown", "check.0") is called, and what kind of note tells it. */
export function factTitle(fact: string): { kind: NoteKind; title: string } {
  const [name = "", index] = fact.split(".");
  const { kind, title } = FACTS[name] ?? { kind: "data", title: name };
  return { kind, title: index === undefined ? title : `${title} ${Number(index) + 1}` };
}

/** Facts that something decided or that were entered, and those that are so because nothing says otherwise. */
export function weighed(facts: readonly ExplanationReply[]): { told: ExplanationReply[]; plain: ExplanationReply[] } {
  const decided = (each: ExplanationReply) => each.fact === "value" || each.formula !== "" || each.because.length > 0;
  return { told: facts.filter(decided), plain: facts.filter((each) => !decided(each)) };
}
