// What the panel of a type of block gets.
import type { Block } from "../model/blocks";

export interface SettingsProps<Kind extends Block = Block> {
  block: Kind;
  edit: (changes: Partial<Kind>) => void;
  /** Opens a setting where it stands, such as the rule of an option. */
  open: (setting: string) => void;
  /** Calls a setting otherwise ("options.0.code"), with every formula that uses the name. */
  rename: (setting: string, name: string) => Promise<void>;
  /** Whether a code may follow its label: no edition has it, and nothing reads it yet. */
  mayFollow: (code: string) => boolean;
}
