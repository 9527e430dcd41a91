// Parts that are added, duplicated or pasted: each with an id and a key of its own.
import type { Form } from "../api/generated/wire";
import { type Block, type BlockKind, type Page, titleOf, typeOf } from "./blocks";
import { keyFrom, keysOf } from "./outline";
import type { Confirmation, Figure, FormPart, Paragraph, RowKind, ScoredQuestion } from "./parts";
import { rewritten } from "./renaming";

/** An id that nothing else has; ids never change and mean nothing. */
export const newId = (): string => crypto.randomUUID().replaceAll("-", "").slice(0, 12);

/**
 * A copy of a part of a form in which everything that has an id has another one: blocks, options, row kinds. A quantity
 * that is copied with its product goes on to name it.
 */
function renewed<Value>(value: Value): Value {
  const ids = new Map<unknown, string>();
  const collect = (part: unknown): void => {
    if (part === null || typeof part !== "object") return;
    if ("id" in part) ids.set(part.id, newId());
    Object.values(part).forEach(collect);
  };
  const copied = (part: unknown): unknown => {
    if (Array.isArray(part)) return part.map(copied);
    if (part === null || typeof part !== "object") return part;
    const named = (name: string) => name === "id" || name === "product";
    return Object.fromEntries(
      Object.entries(part).map(([name, each]) => [name, named(name) ? (ids.get(each) ?? each) : copied(each)]),
    );
  };
  collect(value);
  return copied(value) as Value;
}

/** A page without blocks. */
export const newPage = (title: string): Page => ({
  id: newId(),
  title,
  address: "",
  next_label: "",
  back_label: "",
  shown: "",
  required: "",
  locked: "",
  part: "",
  next: [],
  blocks: [],
});

/** A block of that type as it is when it was just added, in the rows of a kind or outside rows. */
export function newBlock(form: Form, kind: BlockKind, rowKind: string | null = null): Block {
  const blank = typeOf(kind).blank;
  return { ...renewed(blank), key: keyFrom(titleOf(blank), keysOf(form, rowKind)) };
}

const REPEAT = typeOf("repeat").blank as Extract<Block, { type: "repeat" }>;

/** A row kind without blocks. */
export function newRowKind(others: readonly RowKind[]): RowKind {
  const label = others.length === 0 ? "Row" : "Another kind of row";
  const taken = others.map((each) => each.key);
  return { ...REPEAT.kinds[0]!, id: newId(), key: keyFrom(label, taken), label, blocks: [] };
}

/** A confirmation that always follows. */
export const newConfirmation = (name: string): Confirmation => ({
  id: newId(),
  name,
  when: "",
  title: "Thank you",
  paragraphs: [],
  redirect: "",
  redirect_within: false,
  own_page: false,
  again: false,
  printing: false,
  sharing: false,
});

/** A part of the form that a group fills in. */
export const newFormPart = (name: string): FormPart => ({ id: newId(), name, groups: [], only_when: "", seen: true });

const PLAIN_LOOK: Paragraph["chart_look"] = { says: "", decimals: null, first: null, order: "largest" };

/** A piece of a confirmation. */
export const newParagraph = (made: Partial<Paragraph>): Paragraph => ({
  text: "",
  shown: "",
  chart: "",
  chart_look: PLAIN_LOOK,
  picture: "",
  alternative: "",
  ...made,
});

/** A field that gives points. */
export const newScored = (field: string): ScoredQuestion => ({
  field,
  points: {},
  right: [],
  worth: "1",
  when_right: "",
  when_wrong: "",
  says: [],
});

const PLAIN_FIGURE = { format: "number", decimals: 0, kept_decimals: null, shown_to_visitors: false } as const;
const KINDS: { [Kind in Figure["kind"]]: Omit<Extract<Figure, { kind: Kind }>, "id" | "key" | "name"> } = {
  formula: { ...PLAIN_FIGURE, kind: "formula", formula: "" },
  bands: { ...PLAIN_FIGURE, kind: "bands", formula: "", bands: [], end: null },
  score: { ...PLAIN_FIGURE, kind: "score", questions: [] },
  profile: { ...PLAIN_FIGURE, kind: "profile", profiles: [], questions: [], tie: "first" },
  counter: { ...PLAIN_FIGURE, kind: "counter", start: "0", counts: [] },
};

/** A figure of that kind with nothing in it. */
export function newFigure(form: Form, kind: Figure["kind"], name: string): Figure {
  return { id: newId(), key: keyFrom(name, keysOf(form)), name, ...KINDS[kind] } as Figure;
}

/** The block and what its group holds with keys that nothing else has. */
function rekeyed(block: Block, taken: string[]): Block {
  const key = keyFrom(block.key.replace(/_\d+$/, ""), taken);
  taken.push(key);
  return block.type === "group"
    ? { ...block, key, blocks: block.blocks.map((inner) => rekeyed(inner, taken)) }
    : { ...block, key };
}

/**
 * Copies of blocks, with their rules. Rules and formulas among them that read one another read the copies; what reads
 * something else goes on reading it by its key.
 */
export function copiesOf(form: Form, blocks: readonly Block[], rowKind: string | null = null): Block[] {
  const taken = keysOf(form, rowKind);
  const copies = renewed(blocks).map((block) => rekeyed(block, taken));
  const renamed = new Map(pairs(blocks, copies).filter(([old, now]) => old !== now));
  return copies.map((copy) => rewritten(copy, renamed));
}

/** A copy of a page with all that stands on it; its address is made anew of its title. */
export const pageCopy = (form: Form, page: Page): Page => ({
  ...page,
  id: newId(),
  address: "",
  blocks: copiesOf(form, page.blocks),
  next: [],
});

/** Copies of row kinds beside others of a repeat: their blocks have ids of their own, and the same names in their rows. */
export function copiesOfKinds(kinds: readonly RowKind[], others: readonly RowKind[]): RowKind[] {
  const taken = others.map(({ key }) => key);
  const labels = new Set(others.map(({ label }) => label));
  return renewed(kinds).map((kind) => {
    const key = keyFrom(kind.key.replace(/_\d+$/, ""), taken);
    taken.push(key);
    return { ...kind, key, label: labels.has(kind.label) ? copied(kind.label) : kind.label };
  });
}

/** Copies that stand beside what they were made of, and say so. */
export const duplicatesOf = (form: Form, blocks: readonly Block[], rowKind: string | null = null): Block[] =>
  copiesOf(form, blocks, rowKind).map((copy) => ("label" in copy ? { ...copy, label: copied(copy.label) } : copy));

/** The name of a copy: "Name (copy)", then "Name (copy 2)"; never "(copy) (copy)". */
export function copied(name: string): string {
  const [, base = "", count] = /^(.*?)(?: \(copy(?: (\d+))?\))?$/s.exec(name)!;
  return base === name ? `${name} (copy)` : `${base} (copy ${Number(count ?? 1) + 1})`;
}

/** The name of what a copy was made of. */
export const uncopied = (name: string): string => name.replace(/ \(copy(?: \d+)?\)$/, "");

const pairs = (before: readonly Block[], after: readonly Block[]): [string, string][] =>
  before.flatMap((block, index) => {
    const copy = after[index]!;
    const inner = block.type === "group" && copy.type === "group" ? pairs(block.blocks, copy.blocks) : [];
    return [[block.key, copy.key], ...inner];
  });
