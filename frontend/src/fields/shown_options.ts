// Options as a visitor sees them: those on offer, in their order, with the visitor's own words last.
import type { BlockState, ChoiceFace, OptionFace } from "../api/generated/wire";
import { shownText } from "./input";

export const OTHER = "other";

export interface ShownOption {
  id: string;
  label: string;
  barred: boolean;
  picture?: string;
}

interface WithOptions {
  id: string;
  options: readonly (OptionFace & Partial<Pick<ChoiceFace, "picture">>)[];
  shuffled: boolean;
}

/** The options on offer; shuffled ones in an order that the seed and the block's id decide. */
export function optionsOf(block: WithOptions, facts: BlockState, seed: number): ShownOption[] {
  const shown = block.options.map((option, at) => ({
    id: option.id,
    label: priced(shownText(facts, `options.${at}.label`, option.label) || "…", facts.prices?.[option.id]),
    barred: facts.barred?.includes(option.id) ?? false,
    picture: option.picture,
  }));
  const offered = facts.options ? shown.filter((option) => facts.options!.includes(option.id)) : shown;
  return block.shuffled ? shuffled(offered, seed, block.id) : offered;
}

const priced = (label: string, price: string | undefined): string => (price ? `${label} · ${price}` : label);

/** Sorts by a number that hangs on the visitor, the block and the option alone: options that come and go move no other. */
function shuffled(options: ShownOption[], seed: number, block: string): ShownOption[] {
  const rank = new Map(options.map((option) => [option.id, hash(`${seed} ${block} ${option.id}`)]));
  return [...options].sort((one, other) => rank.get(one.id)! - rank.get(other.id)!);
}

/** FNV-1a, 32 bits: spreads short texts well; nothing here is a secret. */
function hash(text: string): number {
  let value = 0x811c9dc5;
  for (const sign of text) value = Math.imul(value ^ sign.codePointAt(0)!, 0x01000193) >>> 0;
  return Math.imul(value ^ (value >>> 15), 0x2c1b3c6d) >>> 0;
}
