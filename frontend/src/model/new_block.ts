// Blocks that are added, duplicated or pasted: each with an id and a key of its own.
import type { Form } from "../api/generated/wire";
import { type Block, type BlockKind, type Page, titleOf, typeOf } from "./blocks";
import { keyFrom, keysOf } from "./outline";

/** An id that nothing else has; ids never change and mean nothing. */
export const newId = (): string => crypto.randomUUID().replaceAll("-", "").slice(0, 12);

/** A copy of a part of a form in which everything that has an id has another one: blocks, options, row kinds. */
function renewed<Value>(value: Value): Value {
  if (Array.isArray(value)) return value.map(renewed) as Value;
  if (value === null || typeof value !== "object") return value;
  const parts = Object.entries(value).map(([name, part]) => [name, name === "id" ? newId() : renewed(part)]);
  return Object.fromEntries(parts) as Value;
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
  next: [],
  blocks: [],
});

/** A block of that type as it is when it was just added. */
export function newBlock(form: Form, kind: BlockKind): Block {
  const blank = typeOf(kind).blank;
  return { ...renewed(blank), key: keyFrom(titleOf(blank), keysOf(form)) };
}

/** The block and what its group holds with keys that nothing else has. */
function rekeyed(block: Block, taken: string[]): Block {
  const key = keyFrom(block.key.replace(/_\d+$/, ""), taken);
  taken.push(key);
  return block.type === "group"
    ? { ...block, key, blocks: block.blocks.map((inner) => rekeyed(inner, taken)) }
    : { ...block, key };
}

/** A copy of a block, with its rules. */
export function copyOf(form: Form, block: Block): Block {
  const taken = keysOf(form);
  const copy = rekeyed(renewed(block), taken);
  return "label" in copy ? { ...copy, label: `${copy.label} (copy)` } : copy;
}
