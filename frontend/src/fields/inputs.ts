// What each type of block shows on a form, and how it is framed. One line per type; see CONTRIBUTING.md.
import type { ComponentType } from "react";
import type { Face } from "../model/blocks";
import { AddressInput } from "./address/Input";
import { CalculatedInput } from "./calculated/Input";
import { ConsentInput } from "./consent/Input";
import { DateInput } from "./date/Input";
import { DateTimeInput } from "./date_time/Input";
import { DividerContent } from "./divider/Input";
import { DropdownInput, prefetchSearch } from "./dropdown/Input";
import { EmailInput } from "./email/Input";
import { FileUploadInput } from "./file_upload/Input";
import { GridInput } from "./grid/Input";
import { GroupContent } from "./group/Input";
import { HeadingContent } from "./heading/Input";
import { HiddenMark } from "./hidden/Input";
import type { InputProps } from "./input";
import { LongTextInput } from "./long_text/Input";
import { MoneyInput } from "./money/Input";
import { NameInput } from "./name/Input";
import { NumberInput } from "./number/Input";
import { AllAnswersContent } from "./all_answers/Input";
import { OrderSummaryContent } from "./order_summary/Input";
import { PhoneInput } from "./phone/Input";
import { PictureContent } from "./picture/Input";
import { ProductInput } from "./product/Input";
import { QuantityInput } from "./quantity/Input";
import { RatingInput } from "./rating/Input";
import { RepeatInput } from "./repeat/Input";
import { ScaleInput } from "./scale/Input";
import { SeveralChoicesInput } from "./several_choices/Input";
import { ShortTextInput } from "./short_text/Input";
import { SignatureInput } from "./signature/Input";
import { SingleChoiceInput } from "./single_choice/Input";
import { SliderInput } from "./slider/Input";
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

export const INPUTS: Record<Face["type"], BlockView> = {
  short_text: view(ShortTextInput),
  long_text: view(LongTextInput),
  number: view(NumberInput),
  money: view(MoneyInput),
  calculated: view(CalculatedInput, "result"),
  date: view(DateInput),
  time: view(TimeInput),
  date_time: view(DateTimeInput),
  yes_no: view(YesNoInput, "field", "set"),
  single_choice: view(SingleChoiceInput, "field", "set"),
  dropdown: { ...view(DropdownInput), prefetch: prefetchSearch },
  several_choices: view(SeveralChoicesInput, "field", "set"),
  rating: view(RatingInput, "field", "set"),
  scale: view(ScaleInput, "field", "set"),
  slider: view(SliderInput),
  grid: view(GridInput, "field", "set"),
  name: view(NameInput, "field", (block) => (block.parts === "one" ? "control" : "set")),
  email: view(EmailInput),
  phone: view(PhoneInput),
  web_address: view(WebAddressInput),
  address: view(AddressInput, "field", "set"),
  consent: view(ConsentInput, "field", "set"),
  signature: { ...view(SignatureInput, "field", "set"), prefetch: SignatureInput.prefetch },
  file_upload: { ...view(FileUploadInput, "field", "set"), prefetch: FileUploadInput.prefetch },
  product: view(ProductInput, "field", "set"),
  quantity: view(QuantityInput),
  order_summary: view(OrderSummaryContent, "bare"),
  all_answers: view(AllAnswersContent, "bare"),
  heading: view(HeadingContent, "bare"),
  text: view(TextContent, "bare"),
  picture: view(PictureContent, "bare"),
  divider: view(DividerContent, "bare"),
  group: view(GroupContent, "bare"),
  repeat: view(RepeatInput, "field", "set"),
  hidden: view(HiddenMark, "bare"),
};
