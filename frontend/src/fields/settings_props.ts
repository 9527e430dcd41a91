// What the panel of a type of block gets.
import type { Block } from "../model/blocks";

export interface SettingsProps<Kind extends Block = Block> {
  block: Kind;
  edit: (changes: Partial<Kind>) => void;
  /** Opens a setting where it stands, such as the rule of an option. */
  open: (setting: string) => void;
}
