// What each type of block shows on a form, and how it is framed. One line per type; see CONTRIBUTING.md.
import type { ComponentType } from "react";
import type { Face } from "../model/blocks";
import { CalculatedInput } from "./calculated/Input";
import { ConsentInput } from "./consent/Input";
import { DateInput } from "./date/Input";
import { DateTimeInput } from "./date_time/Input";
import { DividerContent } from "./divider/Input";
import { EmailInput } from "./email/Input";
import { FileUploadInput } from "./file_upload/Input";
import { GroupContent } from "./group/Input";
import { HeadingContent } from "./heading/Input";
import { HiddenMark } from "./hidden/Input";
import type { InputProps } from "./input";
import { late } from "./late";
import { LongTextInput } from "./long_text/Input";
import { MoneyInput } from "./money/Input";
import { NumberInput } from "./number/Input";
import { PhoneInput } from "./phone/Input";
import { PictureContent } from "./picture/Input";
import { SeveralChoicesInput } from "./several_choices/Input";
import { ShortTextInput } from "./short_text/Input";
import { SignatureInput } from "./signature/Input";
import { SingleChoiceInput } from "./single_choice/Input";
import { TextContent } from "./text/Input";
import { TimeInput } from "./time/Input";
import { WebAddressInput } from "./web_address/Input";
import { YesNoInput } from "./yes_no/Input";

export interface BlockView {
  Input: ComponentType<InputProps>;
  /** "field": label above, help and error below; "result": label beside a value; "bare": nothing around it. */
  frame: "field" | "result" | "bare";
  /** Whether the label names one control (a label element) or a set of them; a block may decide that itself. */
  labels: "control" | "set" | ((block: Face) => "control" | "set");
  /** Fetches what it needs beside the form itself. */
  prefetch?: () => Promise<void>;
  /** Fetches the input itself, where that is no part of the form's script. */
  atOnce?: () => Promise<void>;
}

const view = <Kind extends Face>(
  Input: ComponentType<InputProps<Kind>>,
  frame: BlockView["frame"] = "field",
  labels: "control" | "set" | ((block: Kind) => "control" | "set") = "control",
): BlockView => ({
  Input: Input as unknown as ComponentType<InputProps>,
  frame,
  labels: labels as BlockView["labels"],
});

// What fewer forms have comes in one piece, before such a form is drawn.
const moreInputs = () => import("./more_inputs");
const more = <Kind extends Face>(
  pick: (inputs: typeof import("./more_inputs")) => ComponentType<InputProps<Kind>>,
  ...rest: [BlockView["frame"]?, ("control" | "set")?]
): BlockView => {
  const Input = late<InputProps<Kind>>(() => moreInputs().then((inputs) => ({ default: pick(inputs) })));
  return { ...view(Input, ...rest), atOnce: Input.prefetch };
};

export const INPUTS: Record<Face["type"], BlockView> = {
  short_text: view(ShortTextInput),
  long_text: view(LongTextInput),
  number: view(NumberInput),
  money: view(MoneyInput),
  calculated: view(CalculatedInput, "result"),
  date: view(DateInput),
  time: view(TimeInput),
  date_time: view(DateTimeInput),
  slot: more((inputs) => inputs.SlotInput, "field", "set"),
  yes_no: view(YesNoInput, "field", "set"),
  single_choice: view(SingleChoiceInput, "field", "set"),
  dropdown: {
    ...more((inputs) => inputs.DropdownInput),
    prefetch: () => moreInputs().then((inputs) => inputs.prefetchSearch()),
  },
  several_choices: view(SeveralChoicesInput, "field", "set"),
  record_choice: {
    ...more((inputs) => inputs.RecordChoiceInput),
    labels: (block) => ("look" in block && block.look === "list" ? "set" : "control"),
    prefetch: () => moreInputs().then((inputs) => inputs.prefetchRecordSearch()),
  },
  rating: more((inputs) => inputs.RatingInput, "field", "set"),
  scale: more((inputs) => inputs.ScaleInput, "field", "set"),
  slider: more((inputs) => inputs.SliderInput),
  grid: more((inputs) => inputs.GridInput, "field", "set"),
  name: {
    ...more((inputs) => inputs.NameInput),
    labels: (block) => ("parts" in block && block.parts === "one" ? "control" : "set"),
  },
  email: view(EmailInput),
  phone: view(PhoneInput),
  web_address: view(WebAddressInput),
  address: more((inputs) => inputs.AddressInput, "field", "set"),
  consent: view(ConsentInput, "field", "set"),
  signature: { ...view(SignatureInput, "field", "set"), prefetch: SignatureInput.prefetch },
  file_upload: { ...view(FileUploadInput, "field", "set"), prefetch: FileUploadInput.prefetch },
  product: more((inputs) => inputs.ProductInput, "field", "set"),
  quantity: more((inputs) => inputs.QuantityInput),
  order_summary: more((inputs) => inputs.OrderSummaryContent, "bare"),
  all_answers: more((inputs) => inputs.AllAnswersContent, "bare"),
  heading: view(HeadingContent, "bare"),
  text: view(TextContent, "bare"),
  picture: view(PictureContent, "bare"),
  divider: view(DividerContent, "bare"),
  group: view(GroupContent, "bare"),
  repeat: more((inputs) => inputs.RepeatInput, "field", "set"),
  hidden: view(HiddenMark, "bare"),
};
