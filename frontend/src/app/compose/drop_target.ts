// Where what is dragged in the outline lands: where the line shows.
import { FORM, type Parts } from "../../model/parts";
import type { Target } from "./actions";

export type Side = "before" | "after";

/** Where a dragged part lands: beside the part it is dropped on, or at the start of a page or of rows that it is put on. */
export function dropTarget(parts: Parts, dragged: string, over: string, side: Side): Target | null {
  const [moving, target] = [parts.get(dragged), parts.get(over)];
  if (!moving || !target || dragged === over) return null;
  if (moving.into.list === target.into.list) {
    const at = target.index + (side === "after" ? 1 : 0);
    // The place counts without the part itself.
    const isBelow = moving.into.holder === target.into.holder && moving.index < at;
    return { into: target.into, at: isBelow ? at - 1 : at };
  }
  if (moving.what === "block" && (target.what === "page" || target.what === "kind"))
    return { into: { holder: target.id, list: "blocks" }, at: 0 };
  if (moving.what === "block" && target.what === "confirmation") {
    const page = [...parts.values()].filter((entry) => entry.what === "page" && entry.into.holder === FORM).at(-1);
    return page?.what === "page" ? { into: { holder: page.id, list: "blocks" }, at: page.part.blocks.length } : null;
  }
  return null;
}

/** On which side of a row the line shows: into a page or rows below their own line, before a confirmation above it. */
export function sideOf(parts: Parts, dragged: string | null, over: string, half: Side): Side {
  const [moving, target] = [dragged ? parts.get(dragged) : undefined, parts.get(over)];
  if (!moving || !target || moving.into.list === target.into.list) return half;
  return target.what === "confirmation" ? "before" : "after";
}
