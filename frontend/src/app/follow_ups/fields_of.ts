// Fields that a follow-up can be told by: those of some types that stand outside rows.
import type { BlockKind } from "../../model/blocks";
import { useBench } from "../workbench/bench";

/** Such fields by id, with their number and title. */
export function useFieldsOf(types: readonly BlockKind[]): { id: string; words: string }[] {
  const { parts } = useBench();
  return [...parts.values()].flatMap((entry) =>
    entry.what === "block" && types.includes(entry.part.type) && entry.kind === null
      ? [{ id: entry.id, words: `${entry.number} ${entry.title}` }]
      : [],
  );
}
