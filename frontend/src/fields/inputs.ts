// What each type of block shows on a form, and how it is framed. One line per type; see CONTRIBUTING.md.
import type { ComponentType } from "react";
import type { Face } from "../model/blocks";
import { CalculatedInput } from "./calculated/Input";
import { EmailInput } from "./email/Input";
import { HeadingContent } from "./heading/Input";
import type { InputProps } from "./input";
import { NumberInput } from "./number/Input";
import { ShortTextInput } from "./short_text/Input";
import { SingleChoiceInput } from "./single_choice/Input";

export interface BlockView {
  Input: ComponentType<InputProps>;
  /** "field": label above, help and error below; "result": label beside a value; "bare": nothing around it. */
  frame: "field" | "result" | "bare";
  /** Whether the label names one control (a label element) or a set of them. */
  labels: "control" | "set";
}

const view = <Kind extends Face>(
  Input: ComponentType<InputProps<Kind>>,
  frame: BlockView["frame"] = "field",
  labels: BlockView["labels"] = "control",
): BlockView => ({ Input: Input as ComponentType<InputProps>, frame, labels });

export const INPUTS: Record<Face["type"], BlockView> = {
  short_text: view(ShortTextInput),
  email: view(EmailInput),
  number: view(NumberInput),
  calculated: view(CalculatedInput, "result"),
  single_choice: view(SingleChoiceInput, "field", "set"),
  heading: view(HeadingContent, "bare"),
};
