// Blocks side by side: halves and thirds that fit share a line.
import type { Face } from "./blocks";

const SIXTHS: Record<Face["width"], number> = { full: 6, half: 3, third: 2 };

/** Groups blocks into the lines in which they stand, in order. */
export function linesOf<Item extends Pick<Face, "width">>(blocks: readonly Item[]): Item[][] {
  const lines: Item[][] = [];
  let room = 0;
  for (const block of blocks) {
    const wanted = SIXTHS[block.width];
    if (wanted > room) {
      lines.push([]);
      room = 6;
    }
    lines.at(-1)!.push(block);
    room -= wanted;
  }
  return lines;
}
