// The blocks of a definition and their public faces, named as the workbench uses them.
import type { Form, FormFace } from "../api/generated/wire";
import blockTypes from "../api/generated/block_types.json";

export type Page = Form["pages"][number];
export type Block = Page["blocks"][number];
export type Field = Exclude<Extract<Block, { label: string; help: string }>, { type: "group" | "repeat" }>;
export type Question = Extract<Block, { default: string }>;
export type BlockKind = Block["type"];
export type Face = FormFace["pages"][number]["blocks"][number];

export interface BlockType {
  type: BlockKind;
  title: string;
  family: string;
  purpose: string;
  /** Whether a link can bring its answer. */
  linkable: boolean;
  blank: Block;
}

export const BLOCK_TYPES = blockTypes as unknown as BlockType[];

export const typeOf = (kind: BlockKind): BlockType => BLOCK_TYPES.find((each) => each.type === kind)!;

export const isQuestion = (block: Block): block is Question => "default" in block;

/** What a block says of itself: its label, or the beginning of its text without tags. */
const saidBy = (block: Block): string =>
  "label" in block
    ? block.label
    : "text" in block
      ? block.text
          .replaceAll(/<[^>]*>/g, " ")
          .trim()
          .slice(0, 80)
      : "";

/** What a block is called wherever it is named. */
export const titleOf = (block: Block): string => saidBy(block) || typeOf(block.type).title;

/** The setting that a block's title is typed into, if it has one. */
export const titleSetting = (block: Block): "label" | "text" | null =>
  "label" in block ? "label" : "text" in block ? "text" : null;

/** A block's title as it was typed; null if it has none. */
export const typedTitle = (block: Block): string | null =>
  "label" in block ? block.label : "text" in block ? block.text : null;
