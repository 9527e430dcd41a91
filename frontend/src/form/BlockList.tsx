// Blocks in their lines, wherever they stand: on a page, in a group, in a row.
import type { Face } from "../model/blocks";
import { BlocksContext, useSurroundings } from "../fields/input";
import { BlockOnPage } from "./BlockOnPage";

/** They wrap as they fit: were each line an element, one that is typed in would be drawn anew when another joins it. */
export function BlockList({ blocks }: { blocks: readonly Face[] }) {
  const around = useSurroundings();
  const shown = blocks.filter((block) => around.factsOf(block.id)?.shown);
  if (shown.length === 0) return null;
  return (
    <BlocksContext value={BlockList}>
      <div className="cx-lines">
        {shown.map((block) => (
          <div key={block.id} className={`cx-block cx-${block.width}`} data-block={around.prefix + block.id}>
            <BlockOnPage
              block={block}
              prefix={around.prefix}
              answer={around.answerOf(block.id)}
              facts={around.factsOf(block.id)!}
              error={around.errorOf(block.id)}
              onChange={(answer) => around.change(block.id, answer)}
              onLeave={() => around.leave(block.id)}
              onCheck={around.checkOf?.(block.id) ?? null}
            />
          </div>
        ))}
      </div>
    </BlocksContext>
  );
}
