// What later pages need is fetched while the visitor reads: a line that breaks off later takes no field away.
import { INPUTS } from "../fields/inputs";
import type { Face } from "../model/blocks";
import { blocksWithin } from "./facts";

const withRows = (blocks: readonly Face[]): Face[] =>
  blocksWithin(blocks).flatMap((block) =>
    block.type === "repeat" ? [block, ...block.kinds.flatMap((kind) => withRows(kind.blocks))] : [block],
  );

/** Fetches each piece once; one that does not come is asked for again when it is needed. */
export function prefetchPieces(pages: readonly { blocks: readonly Face[] }[]): void {
  const types = new Set(withRows(pages.flatMap((page) => page.blocks)).map((block) => block.type));
  types.forEach((type) => void INPUTS[type].prefetch?.().catch(() => undefined));
}

/** Does something when the browser has nothing more urgent to do. */
export const whenIdle = (work: () => void): void =>
  "requestIdleCallback" in window ? void requestIdleCallback(work, { timeout: 3_000 }) : void setTimeout(work, 500);
