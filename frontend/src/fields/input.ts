// What every input of the public form gets.
import type { Face } from "../model/blocks";

/** What a visitor entered, as it travels to the core: text as typed, or an option's id. */
export type Answer = string | null;

export interface InputProps<Kind extends Face = Face> {
  block: Kind;
  /** The id of the control, which labels and error links point to. */
  controlId: string;
  answer: Answer;
  /** The value of a calculated field, as visitors read it. */
  value: string | null;
  required: boolean;
  invalid: boolean;
  /** Ids of the help and error texts. */
  describedBy: string | undefined;
  onChange: (answer: Answer) => void;
}
