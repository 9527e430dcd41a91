// What is worked out from a form's face and from what the server said of it. No session, no React.
import type { BlockState, ErrorFace, FormState, RowState } from "../api/generated/wire";
import { type Answer, rowsIn, shownText } from "../fields/input";
import type { Face } from "../model/blocks";
import type { Answers } from "./transport";

/** Blocks and all inside groups, in order; what stands in rows is not among them. */
export function blocksWithin(blocks: readonly Face[]): Face[] {
  return blocks.flatMap((block) => (block.type === "group" ? [block, ...blocksWithin(block.blocks)] : [block]));
}

/** Answers with the defaults that a state brings for what was not answered yet. */
export function withFills(answers: Answers, state: FormState): Answers {
  const filled: Record<string, Answer> = { ...answers };
  for (const [block, facts] of Object.entries(state.blocks)) {
    if (facts.fill !== undefined && facts.fill !== null && (!(block in filled) || facts.locked))
      filled[block] = facts.fill as Answer;
    if (facts.rows && block in filled) filled[block] = rowsWithFills(filled[block]!, facts.rows);
  }
  return filled;
}

function rowsWithFills(answer: Answer, states: Record<string, RowState>): Answer {
  return rowsIn(answer).map((row) => {
    const fresh = Object.entries(states[row.id]?.blocks ?? {}).filter(
      ([block, facts]) => facts.fill !== undefined && facts.fill !== null && !(block in row.values),
    );
    if (fresh.length === 0) return row;
    return {
      ...row,
      values: { ...row.values, ...Object.fromEntries(fresh.map(([id, facts]) => [id, facts.fill as Answer])) },
    };
  });
}

/** A block's state with what a refusal says is wrong, by address, and nothing else wrong. */
export function withErrors(block: string, facts: BlockState, wrong: Record<string, ErrorFace>): BlockState {
  const rows = facts.rows
    ? Object.fromEntries(
        Object.entries(facts.rows).map(([row, state]) => [
          row,
          {
            error: wrong[`${block}/${row}`] ?? null,
            blocks: Object.fromEntries(
              Object.entries(state.blocks).map(([id, each]) => [
                id,
                { ...each, error: wrong[`${block}/${row}/${id}`] ?? null },
              ]),
            ),
          },
        ]),
      )
    : facts.rows;
  return { ...facts, error: wrong[block] ?? null, rows };
}

export const labelOf = (block: Face, facts: BlockState | undefined): string =>
  "label" in block ? shownText(facts, "label", block.label) : "";
