// A block as it stands on the sheet, with the answers that are tried; what is hidden is shown, so that it can be seen.
import type { BlockState, FormState } from "../../api/generated/wire";
import type { Answer, Surroundings } from "../../fields/input";

const SHOWN: BlockState = { shown: true };

/** The surroundings of blocks that nobody fills in, on a page or in the rows of a kind. */
export function stillSurroundings(
  state: FormState,
  kind: string | null,
  answers: Readonly<Record<string, unknown>> = {},
): Surroundings {
  const known = kind ? state.fresh?.[kind] : state.blocks;
  return {
    prefix: kind ? `${kind}/` : "",
    factsOf: (block) => (known?.[block]?.shown ? known[block] : SHOWN),
    answerOf: (block) => (answers[block] ?? null) as Answer,
    errorOf: () => null,
    change: () => undefined,
    leave: () => undefined,
    row: () => stillSurroundings(state, kind),
    rowErrorOf: () => null,
  };
}
