// A form as it stands on the sheet: nothing filled in, and one row of each kind to see what it holds.
import type { BlockState, Form, FormState } from "../../api/generated/wire";
import type { Answer, Surroundings } from "../../fields/input";
import { blocksOf } from "../../model/outline";

const SHOWN: BlockState = { shown: true };

/** The surroundings of blocks that nobody fills in; what is hidden at first is shown, so that it can be seen. */
export function stillSurroundings(form: Form, state: FormState, kind: string | null = null): Surroundings {
  const rows = new Map<string, Answer>();
  for (const block of blocksOf(form))
    if (block.type === "repeat")
      rows.set(block.id, block.kinds.map((each) => ({ kind: each.id, id: each.id, values: {} })) as unknown as Answer);
  const known = kind ? state.fresh?.[kind] : state.blocks;
  return {
    prefix: kind ? `${kind}/` : "",
    factsOf: (block) => (known?.[block]?.shown ? known[block] : SHOWN),
    answerOf: (block) => rows.get(block) ?? null,
    errorOf: () => null,
    change: () => undefined,
    leave: () => undefined,
    row: (_repeat, row) => stillSurroundings(form, state, row),
    rowErrorOf: () => null,
  };
}
