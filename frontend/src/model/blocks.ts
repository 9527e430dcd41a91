// The blocks of a definition and their public faces, named as the workbench uses them.
import type { Form, FormFace } from "../api/generated/wire";
import blockTypes from "../api/generated/block_types.json";

export type Page = Form["pages"][number];
export type Block = Page["blocks"][number];
export type Field = Exclude<Block, { type: "heading" }>;
export type BlockKind = Block["type"];
export type Face = FormFace["pages"][number]["blocks"][number];

export interface BlockType {
  type: BlockKind;
  title: string;
  family: string;
  purpose: string;
  blank: Block;
}

export const BLOCK_TYPES = blockTypes as unknown as BlockType[];

export const typeOf = (kind: BlockKind): BlockType => BLOCK_TYPES.find((each) => each.type === kind)!;

export const isField = (block: Block): block is Field => "label" in block;

/** What a block is called wherever it is named. */
export const titleOf = (block: Block): string => (isField(block) ? block.label : block.text) || "Untitled";
