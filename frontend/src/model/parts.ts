// The form as a tree of parts: whatever has an id and stands in a list. Reading and rebuilding it, nothing else.
import type { Form } from "../api/generated/wire";
import { type Block, type Page, titleOf } from "./blocks";

/** The lists that parts stand in, in the order of the outline; an option has an id too, but belongs to its block. */
export const LISTS = ["pages", "blocks", "kinds", "confirmations", "figures", "parts", "follow_ups", "trials"] as const;
export type ListName = (typeof LISTS)[number];

export type RowKind = Extract<Block, { type: "repeat" }>["kinds"][number];
export type Figure = Form["figures"][number];
export type Confirmation = Form["confirmations"][number];
export type Paragraph = Confirmation["paragraphs"][number];
export type ScoredQuestion = Extract<Figure, { kind: "score" }>["questions"][number];
/** A part of the form that only a group changes. */
export type FormPart = Form["parts"][number];
export type FollowUp = Form["follow_ups"][number];
export type EmailFollowUp = Extract<FollowUp, { kind: "email" }>;
export type Recipient = EmailFollowUp["recipients"][number];
export type Trial = Form["trials"][number];

/** The lists of parts that something has; kinds of files that an upload takes are none, nor is what a name is made of. */
export const listsOf = (holder: object): ListName[] =>
  LISTS.filter(
    (list) =>
      list in holder &&
      (list !== "kinds" || ("type" in holder && holder.type === "repeat")) &&
      (list !== "parts" || !("type" in holder)),
  );

/** The holder of the lists that the form itself has. */
export const FORM = "";

/** What the core calls the owner of what belongs to the order: settings of the form, and no part of the outline. */
export const ORDER = "whole-order";

/** The same of the payment, which has an area of its own. */
export const PAYMENT = "whole-payment";

/** Where parts stand: a list of a holder (a page, group, repeat or row kind by id, or the form). */
export interface Into {
  holder: string;
  list: ListName;
}

type Named =
  | { what: "page"; part: Page }
  | { what: "block"; part: Block }
  | { what: "kind"; part: RowKind }
  | { what: "confirmation"; part: Confirmation }
  | { what: "figure"; part: Figure }
  | { what: "form_part"; part: FormPart }
  | { what: "follow_up"; part: FollowUp }
  | { what: "trial"; part: Trial };

/** A part with its place: `number` is its outline number ("2.3"), `depth` how far it is set in. */
export type Entry = Named & {
  id: string;
  number: string;
  title: string;
  into: Into;
  index: number;
  depth: number;
  /** The page it stands on, or null for what stands beside the pages. */
  page: string | null;
  /** The row kind it stands in, or null. */
  kind: string | null;
};

export type Parts = ReadonlyMap<string, Entry>;

const WHAT = {
  pages: "page",
  blocks: "block",
  kinds: "kind",
  confirmations: "confirmation",
  figures: "figure",
  parts: "form_part",
  follow_ups: "follow_up",
  trials: "trial",
} as const;

/** Any part, as the tree sees it. */
type AnyPart = { readonly id: string } & { readonly [List in ListName]?: readonly AnyPart[] };
type Holder = { readonly [List in ListName]?: readonly AnyPart[] };

const titles: { [List in ListName]: (part: never) => string } = {
  pages: (page: Page) => page.title || "Untitled page",
  blocks: titleOf,
  kinds: (kind: RowKind) => kind.label || kind.key,
  confirmations: (confirmation: Confirmation) => confirmation.name || confirmation.title || "Confirmation",
  figures: (figure: Figure) => figure.name || figure.key,
  parts: (part: FormPart) => part.name || "Untitled part",
  follow_ups: (followUp: FollowUp) => followUp.name || "Follow-up",
  trials: (trial: Trial) => trial.name,
};

const numberOf = (list: ListName, before: string, index: number): string =>
  list === "confirmations"
    ? `C.${index + 1}`
    : list === "follow_ups"
      ? `F.${index + 1}`
      : list === "figures" || list === "trials" || list === "parts"
        ? ""
        : `${before}${index + 1}`;

/** Every part of the form by id, in the order of the outline. */
export function partsOf(form: Form): Parts {
  const found = new Map<string, Entry>();
  const visit = (holder: Holder, id: string, before: string, around: Pick<Entry, "depth" | "page" | "kind">): void => {
    for (const list of listsOf(holder))
      holder[list]?.forEach((part, index) => {
        const number = numberOf(list, before, index);
        const page = list === "pages" ? part.id : around.page;
        const entry = { id: part.id, what: WHAT[list], part, number, title: titles[list](part as never), ...around };
        found.set(part.id, { ...entry, page, into: { holder: id, list }, index } as unknown as Entry);
        const kind = list === "kinds" ? part.id : around.kind;
        visit(part, part.id, `${number}.`, { depth: around.depth + 1, page, kind });
      });
  };
  visit(form as unknown as Holder, FORM, "", { depth: 0, page: null, kind: null });
  return found;
}

type Change = (items: readonly AnyPart[], into: Into) => readonly AnyPart[];

/** The form with every list changed, from the outermost in; what does not change stays the very same object. */
export function rebuilt(form: Form, change: Change): Form {
  const visit = <Each extends Holder>(holder: Each, id: string): Each => {
    let made: Each = holder;
    for (const list of listsOf(holder)) {
      const items = holder[list]!;
      const before = change(items, { holder: id, list });
      const after = before.map((part) => visit(part, part.id));
      const same = before === items && after.every((part, index) => part === items[index]);
      if (!same) made = { ...made, [list]: after };
    }
    return made;
  };
  return visit(form as unknown as Holder, FORM) as unknown as Form;
}

/** What a part is without the parts in it. */
export function alone(part: object): Record<string, unknown> {
  const lists: readonly string[] = listsOf(part);
  return Object.fromEntries(Object.entries(part).filter(([name]) => !lists.includes(name)));
}

/** What a setting of a part says, by a path such as "shown" or "checks.0.formula". */
export function settingAt(part: unknown, path: string): unknown {
  return path.split(".").reduce<unknown>((value, step) => (value as Record<string, unknown> | undefined)?.[step], part);
}

/** The change of a part that gives a setting another value: what the action `edit` takes. */
export function changeAt(part: unknown, path: string, value: unknown): Record<string, unknown> {
  const [first = "", ...rest] = path.split(".");
  return { [first]: replaced((part as Record<string, unknown>)[first], rest, value) };
}

function replaced(old: unknown, [step, ...rest]: string[], value: unknown): unknown {
  if (step === undefined) return value;
  if (Array.isArray(old))
    return old.map((each: unknown, index) => (String(index) === step ? replaced(each, rest, value) : each));
  const parts = (old ?? {}) as Record<string, unknown>;
  return { ...parts, [step]: replaced(parts[step], rest, value) };
}
