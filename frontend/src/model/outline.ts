// Reading a draft: numbers, places, keys.
import type { Form } from "../api/generated/wire";
import { type Block, type Page, titleOf, typeOf } from "./blocks";

export interface Place {
  page: Page;
  pageIndex: number;
  block: Block;
  index: number;
  number: string;
}

/** Every block by id, with its page and its outline number ("2.3"). */
export function placesOf(form: Form): Map<string, Place> {
  const places = new Map<string, Place>();
  form.pages.forEach((page, pageIndex) =>
    page.blocks.forEach((block, index) =>
      places.set(block.id, { page, pageIndex, block, index, number: `${pageIndex + 1}.${index + 1}` }),
    ),
  );
  return places;
}

/** What every part of a form is called: pages, blocks wherever they stand, row kinds, figures; by id. */
export function namesOf(form: Form): Map<string, { number: string; title: string }> {
  const names = new Map<string, { number: string; title: string }>();
  const take = (blocks: readonly Block[], before: string) =>
    blocks.forEach((block, index) => {
      const number = `${before}${index + 1}`;
      names.set(block.id, { number, title: titleOf(block) });
      if (block.type === "group") take(block.blocks, `${number}.`);
      if (block.type === "repeat")
        block.kinds.forEach((kind, at) => {
          names.set(kind.id, { number: `${number}.${at + 1}`, title: kind.label || kind.key });
          take(kind.blocks, `${number}.${at + 1}.`);
        });
    });
  form.pages.forEach((page, index) => {
    names.set(page.id, { number: `${index + 1}`, title: page.title });
    take(page.blocks, `${index + 1}.`);
  });
  form.figures.forEach((figure) => names.set(figure.id, { number: "", title: figure.name || figure.key }));
  return names;
}

/** What a formula outside rows can name: fields on pages and in groups, columns of repeats, figures. */
export function namedIn(form: Form): { name: string; number: string; title: string; kind: string }[] {
  const called = namesOf(form);
  const within = (blocks: readonly Block[], before: string): ReturnType<typeof namedIn> =>
    blocks.flatMap((block) => {
      const inner =
        block.type === "group"
          ? within(block.blocks, before)
          : block.type === "repeat"
            ? block.kinds.flatMap((kind) => within(kind.blocks, `${block.key}.${kind.key}.`))
            : [];
      const own = { name: before + block.key, ...called.get(block.id)!, kind: typeOf(block.type).title };
      return "help" in block && block.type !== "group" ? [own, ...inner] : inner;
    });
  const figures = form.figures.map((figure) => ({
    name: figure.key,
    number: "",
    title: figure.name || figure.key,
    kind: "Figure",
  }));
  return [...form.pages.flatMap((page) => within(page.blocks, "")), ...figures];
}

export const blocksOf = (form: Form): Block[] => form.pages.flatMap((page) => page.blocks);

/** The keys that are taken outside rows: of blocks, of what groups hold, of figures. */
export const keysOf = (form: Form): string[] => {
  const within = (blocks: readonly Block[]): Block[] =>
    blocks.flatMap((block) => (block.type === "group" ? [block, ...within(block.blocks)] : [block]));
  return [...within(blocksOf(form)), ...form.figures].map((each) => each.key);
};

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

/** A key made of a label: small letters, digits and _, not yet used by any of `taken`. */
export function keyFrom(label: string, taken: Iterable<string>): string {
  const plain = label
    .normalize("NFKD")
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, "_")
    .replace(/^[_0-9]+|_+$/g, "")
    .slice(0, 40);
  const wanted = plain || "field";
  const used = new Set(taken);
  for (let number = 1; ; number++) {
    const key = number === 1 ? wanted : `${wanted}_${number}`;
    if (!used.has(key)) return key;
  }
}

/** Whether some formula of the form may read this key; then changing it is the core's work. */
export const isKeyRead = (form: Form, key: string): boolean => {
  const word = new RegExp(`(^|[^\\w.])${key}($|\\W)`, "i");
  return formulasIn(form).some((text) => word.test(text));
};
