// Where what is dragged in the outline lands.
import { FORM, type Parts } from "../../model/parts";
import type { Target } from "./actions";

/** Where a dragged part lands: on a page or in rows at the start, else just before the part it is dropped on. */
export function dropTarget(parts: Parts, dragged: string, over: string): Target | null {
  const [moving, target] = [parts.get(dragged), parts.get(over)];
  if (!moving || !target || dragged === over) return null;
  // The place counts without the part itself: dropped further down in its own list, it comes after what it is put on.
  if (moving.into.list === target.into.list) return { into: target.into, at: target.index };
  if (moving.what === "block" && (target.what === "page" || target.what === "kind"))
    return { into: { holder: target.id, list: "blocks" }, at: 0 };
  if (moving.what === "block" && target.what === "confirmation") {
    const page = [...parts.values()].filter((entry) => entry.what === "page" && entry.into.holder === FORM).at(-1);
    return page?.what === "page" ? { into: { holder: page.id, list: "blocks" }, at: page.part.blocks.length } : null;
  }
  return null;
}
