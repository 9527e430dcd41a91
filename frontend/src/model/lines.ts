// Blocks side by side: halves, thirds and quarters that fit share a line.
import type { Face } from "./blocks";

const TWELFTHS: Record<Face["width"], number> = { full: 12, half: 6, third: 4, quarter: 3 };

/** Groups blocks into the lines in which they stand, in order. */
export function linesOf<Item extends Pick<Face, "width">>(blocks: readonly Item[]): Item[][] {
  const lines: Item[][] = [];
  let room = 0;
  for (const block of blocks) {
    const wanted = TWELFTHS[block.width];
    if (wanted > room) {
      lines.push([]);
      room = 12;
    }
    lines.at(-1)!.push(block);
    room -= wanted;
  }
  return lines;
}
