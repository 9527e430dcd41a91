// What every area of the workbench works with: the draft and the selection.
import { createContext, useContext } from "react";
import type { FormReply, PresentReply, TrialVisitor } from "../../api/generated/wire";
import type { Parts } from "../../model/parts";
import type { ComposeActions } from "../compose/actions";
import type { Draft } from "./useDraft";

/** How a selection changes what was selected: it replaces it, adds to it, or takes all up to it. */
export type SelectHow = "only" | "also" | "through";

export interface Selection {
  /** All that is selected, by id, in the order in which it was. */
  selected: readonly string[];
  /** The part whose settings are shown: the one that is selected alone or last, or null. */
  part: string | null;
  /** The setting of it that is being edited where it stands, by its path ("shown", "checks.0.formula"), or null. */
  setting: string | null;
  select: (part: string | null, setting?: string | null, how?: SelectHow) => void;
  selectAll: (parts: readonly string[]) => void;
}

/** Answers that rules and figures are tried with. */
export interface Trying {
  /** What they are called: a trial's name, "sample answers" … */
  name: string;
  answers: Readonly<Record<string, unknown>>;
  link: Readonly<Record<string, string>>;
  /** The day on which they are given, or null for today. */
  day: string | null;
  /** Who gives them, as formulas know them. */
  visitor: TrialVisitor;
}

/** Nobody who is signed in. */
export const GUEST: TrialVisitor = { email: "", name: "", groups: [] };

export const NOTHING_ANSWERED: Trying = { name: "Nothing answered", answers: {}, link: {}, day: null, visitor: GUEST };

/** Whether anything is tried at all. */
export const isTried = ({ answers, link }: Trying): boolean =>
  Object.keys(answers).length > 0 || Object.keys(link).length > 0;

export interface Bench extends Omit<Draft, "undo" | "redo">, Selection {
  undo: () => void;
  redo: () => void;
  reply: FormReply;
  /** Every part of the form by id, in the order of the outline. */
  parts: Parts;
  mayEdit: boolean;
  /** Who else has the form open. */
  people: readonly PresentReply[];
  trying: Trying;
  setTrying: (trying: Trying) => void;
  /** The same functions for as long as the workbench is open: what they are given to need not be drawn again. */
  actions: ComposeActions;
}

export const BenchContext = createContext<Bench | null>(null);

export function useBench(): Bench {
  const bench = useContext(BenchContext);
  if (!bench) throw new Error("useBench outside of the workbench");
  return bench;
}
