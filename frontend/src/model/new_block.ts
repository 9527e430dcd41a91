// Blocks that are added, duplicated or pasted: each with an id and a key of its own.
import type { Form } from "../api/generated/wire";
import { type Block, type BlockKind, isField, titleOf, typeOf } from "./blocks";
import { blocksOf, keyFrom } from "./outline";

/** An id that nothing else has; ids never change and mean nothing. */
export const newId = (): string => crypto.randomUUID().replaceAll("-", "").slice(0, 12);

const withNewIds = (block: Block): Block =>
  "options" in block
    ? { ...block, id: newId(), options: block.options.map((option) => ({ ...option, id: newId() })) }
    : { ...block, id: newId() };

const keysOf = (form: Form): string[] => blocksOf(form).map((block) => block.key);

/** A block of that type as it is when it was just added. */
export function newBlock(form: Form, kind: BlockKind): Block {
  const blank = typeOf(kind).blank;
  return { ...withNewIds(blank), key: keyFrom(titleOf(blank), keysOf(form)) };
}

/** A copy of a block, with its rules. */
export function copyOf(form: Form, block: Block): Block {
  const copy = withNewIds(block);
  const named = isField(copy) ? { ...copy, label: `${copy.label} (copy)` } : copy;
  return { ...named, key: keyFrom(block.key.replace(/_\d+$/, ""), keysOf(form)) };
}
