// Reading a draft: what formulas can name, keys, and what reads them.
import reservedKeys from "../api/generated/reserved_keys.json";
import type { Form } from "../api/generated/wire";
import { plainWords } from "../text/plain_words";
import { type Block, typeOf } from "./blocks";
import { type Entry, type Figure, partsOf } from "./parts";

/** Something that a formula can name: its name there, and what people call it. */
export interface Named {
  name: string;
  id: string;
  number: string;
  title: string;
  kind: string;
  /** The field, where it is one. */
  block: Block | null;
  /** The texts that it can be, each with what people read: options, profiles, bands; null where it is no such thing. */
  choices: readonly Choice[] | null;
  /** The kind of figure, where it is one. */
  figureKind: Figure["kind"] | null;
}

export interface Choice {
  code: string;
  label: string;
}

type FigureEntry = Extract<Entry, { what: "figure" }>;

/** What a figure is called in formulas: its key, and the name of its band or profile by what there is. */
function namesOfFigure({ id, number, title, part }: FigureEntry): Named[] {
  const own: Named = {
    name: part.key,
    id,
    number,
    title,
    kind: "Figure",
    block: null,
    choices: null,
    figureKind: part.kind,
  };
  if (part.kind === "profile") return [{ ...own, choices: part.profiles }];
  if (part.kind !== "bands") return [own];
  const choices = part.bands.filter(({ label }) => label).map(({ label }) => ({ code: label, label }));
  const band = { ...own, name: `${part.key}.label`, id: `${id}.label`, title: `${title}: name of the band`, choices };
  return choices.length > 0 ? [own, band] : [own];
}

/** What a formula can name where it stands: in the rows of a kind the fields of that kind first, by their bare keys. */
export const namedIn = (form: Form, rowKind: string | null = null): Named[] =>
  placedIn(form, rowKind).filter(({ block }) => !block || hasValue(block));

const hasValue = (block: Block): boolean => "help" in block && block.type !== "group";

/** The same, and all that can be shown or hidden besides. */
export function placedIn(form: Form, rowKind: string | null = null): Named[] {
  const parts = partsOf(form);
  const before = (kind: string): string => {
    const entry = parts.get(kind);
    const repeat = entry && parts.get(entry.into.holder);
    return entry?.what === "kind" && repeat?.what === "block" ? `${repeat.part.key}.${entry.part.key}.` : "";
  };
  const named: Named[] = [];
  for (const entry of parts.values()) {
    const { id, number, title } = entry;
    if (entry.what === "figure") named.push(...namesOfFigure(entry));
    if (entry.what !== "block") continue;
    const kind = typeOf(entry.part.type).title;
    const inSameRow = entry.kind !== null && entry.kind === rowKind;
    // In another row's column only values are known.
    if (entry.kind !== null && !inSameRow && !hasValue(entry.part)) continue;
    const name = (entry.kind && !inSameRow ? before(entry.kind) : "") + entry.part.key;
    const choices = "options" in entry.part ? entry.part.options : null;
    const each = { name, id, number, title, kind, block: entry.part, choices, figureKind: null };
    const all = [each, ...partsOfRecord(form, each)];
    if (inSameRow) named.unshift(...all);
    else named.push(...all);
  }
  return named;
}

/** The columns of the records that a filter is worked out for: record.price. */
export const columnsOfRecord = (form: Form, { id, table }: RecordChoice): Named[] =>
  columnsOf(form, table).map((column) => namedColumn("record", `record.${id}`, "", "", column));

type RecordChoice = Extract<Block, { type: "record_choice" }>;

const columnsOf = (form: Form, table: string): Block[] =>
  (form.tables.find((each) => each.id === table)?.columns ?? []) as unknown as Block[];

/** What a column is called behind the name of its record: "telescope.aperture", "Telescope: Aperture". */
function namedColumn(name: string, id: string, number: string, title: string, column: Block): Named {
  const label = ("label" in column && column.label) || column.key;
  const choices = "options" in column ? column.options : null;
  const called = title ? `${title}: ${label}` : label;
  return {
    name: `${name}.${column.key}`,
    id: `${id}.${column.id}`,
    number,
    title: called,
    kind: "Column",
    block: column,
    choices,
    figureKind: null,
  };
}

/** The columns of a chosen record, and those of the records that it names in turn. */
function partsOfRecord(form: Form, named: Named, deep = 2): Named[] {
  const { block } = named;
  if (block?.type !== "record_choice" || block.several) return [];
  return columnsOf(form, block.table).flatMap((column) => {
    const part = namedColumn(named.name, named.id, named.number, named.title, column);
    return deep > 0 ? [part, ...partsOfRecord(form, part, deep - 1)] : [part];
  });
}

/** The keys that are taken where such a part stands: those of its row, or of everything outside rows. */
export const keysOf = (form: Form, rowKind: string | null = null): string[] =>
  [...partsOf(form).values()].flatMap((entry) =>
    (entry.what === "block" && entry.kind === rowKind) || (entry.what === "figure" && rowKind === null)
      ? [entry.part.key]
      : [],
  );

// Settings that are words and names, where a key's letters mean nothing.
const WORDS = new Set(["id", "key", "type", "code", "name", "width", "belongs_to", "address", "placeholder", "source"]);

const TEXTS = new Set(["label", "help", "text", "title", "lead", "caption", "message", "statement", "redirect"]);

function formulaOf(text: string, setting: string): string[] {
  if (WORDS.has(setting)) return [];
  return TEXTS.has(setting) ? [...text.matchAll(/\{([^}]*)\}/g)].map((match) => match[1]!) : [text];
}

/** Every formula of a part of a form, and what its texts insert. */
function formulasIn(part: unknown, setting = ""): string[] {
  if (typeof part === "string") return formulaOf(part, setting);
  if (Array.isArray(part)) return part.flatMap((each) => formulasIn(each, setting));
  if (part === null || typeof part !== "object") return [];
  return Object.entries(part).flatMap(([name, each]) => formulasIn(each, name));
}

const MOST_SIGNS = 40;

/** A key made of a label, as the core makes it, none of `taken`. */
export function keyFrom(label: string, taken: Iterable<string>): string {
  const words = plainWords(label, "_", MOST_SIGNS) || "field";
  return free(/^[a-z]/.test(words) ? words : `n${words}`, taken);
}

/** An option's code made of its label, as the core makes it, none of `taken`. */
export function codeFrom(label: string, taken: Iterable<string>): string {
  const own = [...label.trim().split(/\s+/).join(" ")].slice(0, MOST_SIGNS).join("").trim();
  return free(plainWords(label, "_", MOST_SIGNS) || own || "option", taken);
}

function free(wanted: string, taken: Iterable<string>): string {
  const used = new Set([...taken, ...reservedKeys]);
  for (let number = 1; ; number++) {
    const key = number === 1 ? wanted : `${wanted}_${number}`;
    if (!used.has(key)) return key;
  }
}

/** Whether some formula of the form, or a score or profile, may name this word as text. */
export const isWordRead = (form: Form, word: string): boolean => {
  const text = `"${word.replaceAll('"', '""')}"`.toLowerCase();
  return (
    formulasIn(form).some((each) => each.toLowerCase().includes(text)) ||
    JSON.stringify(form.figures).includes(JSON.stringify(word))
  );
};

/** Whether some formula of the form may read this key; then changing it is the core's work. */
export const isKeyRead = (form: Form, key: string): boolean => {
  const word = new RegExp(`(^|[^\\w.])${key}($|\\W)`, "i");
  return formulasIn(form).some((text) => word.test(text));
};
