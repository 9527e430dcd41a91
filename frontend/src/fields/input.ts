import type { BlockState, FoundOffersReply, RepeatFace, ShapedRowKindFace, UploadReply } from "../api/generated/wire";
import { type ComponentType, createContext, useContext } from "react";
import type { Face } from "../model/blocks";

/** What a visitor entered, as it travels to the core: text as typed, an option's id, a list of ids, rows … */
export type Answer = string | boolean | null | readonly Answer[] | { readonly [part: string]: Answer };

export interface InputProps<Kind extends Face = Face> {
  block: Kind;
  /** The id of the control, which labels and error links point to. */
  controlId: string;
  answer: Answer;
  /** What is true of the block now. */
  facts: BlockState;
  required: boolean;
  locked: boolean;
  invalid: boolean;
  /** Ids of the help and error texts. */
  describedBy: string | undefined;
  onChange: (answer: Answer) => void;
}

/** A row of a repeat as the visitor has it. */
export type RowAnswer = {
  readonly kind: string;
  readonly id: string;
  readonly values: { readonly [block: string]: Answer };
};

/** Where blocks stand: the form itself, or a row. Gives each block its facts and takes its answers. */
export interface Surroundings {
  /** Before every control's id, so that the same block in two rows has two ids. */
  prefix: string;
  factsOf: (block: string) => BlockState | undefined;
  answerOf: (block: string) => Answer;
  errorOf: (block: string) => string | null;
  change: (block: string, answer: Answer) => void;
  leave: (block: string) => void;
  /** What asks whether an answer is right, where it may be asked now. */
  checkOf?: (block: string) => (() => void) | null;
  /** The surroundings inside a row of a repeat that stands here. */
  row: (repeat: string, row: string) => Surroundings;
  /** What is wrong with a row as a whole. */
  rowErrorOf: (repeat: string, row: string) => string | null;
}

/** What is looked for: records by words, or slots from a day on (ISO 8601). */
export interface Sought {
  words?: string;
  since?: string;
}

/** What some inputs need of the form around them. */
export type Weekday = 0 | 1 | 2 | 3 | 4 | 5 | 6;

export interface Tools {
  locale: string;
  currency: string;
  /** The day with which weeks begin; 0 is Sunday. */
  firstWeekday: Weekday;
  /** The same for one visitor, so that shuffled options keep their order. */
  seed: number;
  upload:
    | ((block: string, file: File, onProgress: (share: number) => void, stop: AbortSignal) => Promise<UploadReply>)
    | null;
  /** What the question at an address offers; null where there is nobody to ask. */
  offers: ((address: string, sought: Sought) => Promise<Partial<FoundOffersReply>>) | null;
  /** Leads back to a page, where pages are shown one by one. */
  openPage: ((page: string) => void) | null;
  /** Whether questions come one after the other, not by pages. */
  byQuestion?: boolean;
  /** Files that have not arrived, or were refused: the form does not go on before that is settled. */
  waitFor: (file: number, refused?: boolean) => void;
  waitNoMore: (file: number) => void;
}

/** Where there is no form around: nothing can be sent. */
export const NO_TOOLS: Tools = {
  locale: "en",
  currency: "EUR",
  firstWeekday: 1,
  seed: 1,
  upload: null,
  offers: null,
  openPage: null,
  waitFor: () => undefined,
  waitNoMore: () => undefined,
};
export const ToolsContext = createContext(NO_TOOLS);
export const useTools = (): Tools => useContext(ToolsContext);

/** What draws blocks, wherever they stand: given by the form, so that a group needs nothing of it. */
export const BlocksContext = createContext<ComponentType<{ blocks: readonly Face[] }>>(() => null);
export const useBlocks = () => useContext(BlocksContext);

export const SurroundingsContext = createContext<Surroundings | null>(null);
export const useSurroundings = (): Surroundings => useContext(SurroundingsContext)!;

export const textOf = (answer: Answer): string => (typeof answer === "string" ? answer : "");
export const partsOf = (answer: Answer): { readonly [part: string]: Answer } =>
  answer !== null && typeof answer === "object" && !Array.isArray(answer)
    ? (answer as { readonly [part: string]: Answer })
    : {};
export const listOf = (answer: Answer): readonly Answer[] =>
  Array.isArray(answer) ? (answer as readonly Answer[]) : [];
const isRow = (answer: Answer): answer is RowAnswer => {
  const { kind, id, values } = partsOf(answer);
  return typeof kind === "string" && typeof id === "string" && typeof values === "object" && values !== null;
};
export const rowsIn = (answer: Answer): readonly RowAnswer[] => listOf(answer).filter(isRow);

/** A setting's text, with its values inserted where it has any. */
export const shownText = (facts: BlockState | undefined, setting: string, written: string): string =>
  facts?.texts?.[setting] ?? written;

/** The row kinds of a repeat, with values inserted into their labels. */
export const shownKinds = (repeat: RepeatFace, facts: BlockState | undefined): readonly ShapedRowKindFace[] =>
  repeat.kinds.map((kind) => ({ ...kind, label: facts?.kinds?.[kind.id]?.label ?? kind.label }));
