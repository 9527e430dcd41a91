// What later pages need is fetched while the visitor reads: a line that breaks off later takes no field away.
import { INPUTS } from "../fields/inputs";
import type { Face } from "../model/blocks";
import { blocksWithin } from "./facts";

/** Blocks and all inside groups and rows. */
export const withRows = (blocks: readonly Face[]): Face[] =>
  blocksWithin(blocks).flatMap((block) =>
    block.type === "repeat" ? [block, ...block.kinds.flatMap((kind) => withRows(kind.blocks))] : [block],
  );

type Pages = readonly { blocks: readonly Face[] }[];

const typesOn = (pages: Pages): Set<Face["type"]> =>
  new Set(withRows(pages.flatMap((page) => page.blocks)).map((block) => block.type));

/** Waits for the inputs that these pages have beside the usual ones; one that does not come is asked for again there. */
export async function inputsOf(pages: Pages): Promise<void> {
  await Promise.allSettled([...typesOn(pages)].map((type) => INPUTS[type].atOnce?.()));
}

/** Fetches each piece once; one that does not come is asked for again when it is needed. */
export function prefetchPieces(pages: Pages): void {
  typesOn(pages).forEach((type) => void INPUTS[type].prefetch?.().catch(() => undefined));
}

/** Does something when the browser has nothing more urgent to do. */
export const whenIdle = (work: () => void): void =>
  "requestIdleCallback" in window ? void requestIdleCallback(work, { timeout: 3_000 }) : void setTimeout(work, 500);
