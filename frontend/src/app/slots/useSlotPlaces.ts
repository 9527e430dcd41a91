// What slots are offered at: the options of the field by which they are.
import type { SlotField } from "../../api/generated/wire";
import { useBench } from "../workbench/bench";

export interface SlotPlace {
  code: string;
  label: string;
}

export function useSlotPlaces(block: SlotField): readonly SlotPlace[] {
  const { parts } = useBench();
  const entry = parts.get(block.by);
  if (entry?.what !== "block" || !("options" in entry.part)) return [];
  return entry.part.options.map(({ code, label }) => ({ code, label: label || code }));
}
