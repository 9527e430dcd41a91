// Reading a draft: numbers, places, keys.
import type { Form } from "../api/generated/wire";
import type { Block, Page } from "./blocks";

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

export const blocksOf = (form: Form): Block[] => form.pages.flatMap((page) => page.blocks);

export const formulasOf = (block: Block): string[] =>
  ["shown", "required", "formula"].map((setting) =>
    String((block as unknown as Record<string, unknown>)[setting] ?? ""),
  );

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
  return blocksOf(form).some((block) => formulasOf(block).some((text) => word.test(text)));
};
