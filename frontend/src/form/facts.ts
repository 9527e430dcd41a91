// What is worked out from a form's face and from what the server said of it. No session, no React.
import type { BlockState, ErrorFace, FormState, RowState } from "../api/generated/wire";
import { type Answer, rowsIn, shownText } from "../fields/input";
import type { Face } from "../model/blocks";
import type { Answers } from "./transport";

/** Blocks and all inside groups, in order; what stands in rows is not among them. */
export function blocksWithin(blocks: readonly Face[]): Face[] {
  return blocks.flatMap((block) => (block.type === "group" ? [block, ...blocksWithin(block.blocks)] : [block]));
}

/** The marks of what is known of the records that were chosen, by address, as they are shown. */
export function stampsIn({ blocks }: FormState): Record<string, string> {
  const found = Object.entries(blocks).flatMap(([block, facts]) => [
    [block, facts.records?.stamp] as const,
    ...Object.entries(facts.rows ?? {}).flatMap(([row, { blocks: inner }]) =>
      Object.entries(inner).map(([each, inRow]) => [`${block}/${row}/${each}`, inRow.records?.stamp] as const),
    ),
  ]);
  return Object.fromEntries(found.filter((each): each is [string, string] => Boolean(each[1])));
}

/** Whether questions are asked one after the other, not by pages. */
export const isByQuestion = ({ presentation }: { presentation: string }): boolean =>
  presentation === "single" || presentation === "chat";

/**
 * Answers with the defaults that a state brings for what was not answered yet, and, at the addresses that follow theirs,
 * with what that is now.
 */
export function withFills(answers: Answers, state: FormState, following: ReadonlySet<string>): Answers {
  const filled: Record<string, Answer> = { ...answers };
  for (const [block, facts] of Object.entries(state.blocks)) {
    Object.assign(filled, fillOf(block, facts, filled, following.has(block)));
    if (facts.rows && block in filled) filled[block] = rowsWithFills(block, filled[block]!, facts.rows, following);
  }
  return filled;
}

function fillOf(block: string, facts: BlockState, answers: Answers, follows: boolean): Answers {
  const fill = (facts.fill ?? null) as Answer;
  if (facts.follows) return follows ? { [block]: fill } : {};
  return fill !== null && (!(block in answers) || facts.locked) ? { [block]: fill } : {};
}

function rowsWithFills(
  repeat: string,
  answer: Answer,
  states: Record<string, RowState>,
  following: ReadonlySet<string>,
): Answer {
  return rowsIn(answer).map((row) => {
    const fills = Object.entries(states[row.id]?.blocks ?? {}).map(([block, facts]) =>
      fillOf(block, facts, row.values, following.has(`${repeat}/${row.id}/${block}`)),
    );
    return fills.some((fill) => Object.keys(fill).length > 0)
      ? { ...row, values: Object.assign({}, row.values, ...fills) }
      : row;
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
