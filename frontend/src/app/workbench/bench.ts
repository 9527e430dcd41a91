// What every area of the workbench works with: the draft and the selection.
import { createContext, useContext } from "react";
import type { FormReply } from "../../api/generated/wire";
import type { Place } from "../../model/outline";
import type { Draft } from "./useDraft";

export interface Selection {
  /** The selected block, or null. */
  block: string | null;
  /** The setting of it that is being edited in the margin, or null. */
  setting: string | null;
  select: (block: string | null, setting?: string | null) => void;
}

export interface Bench extends Draft, Selection {
  reply: FormReply;
  places: Map<string, Place>;
  /** What every part of the form is called, by id. */
  names: Map<string, { number: string; title: string }>;
  mayEdit: boolean;
}

export const BenchContext = createContext<Bench | null>(null);

export function useBench(): Bench {
  const bench = useContext(BenchContext);
  if (!bench) throw new Error("useBench outside of the workbench");
  return bench;
}
