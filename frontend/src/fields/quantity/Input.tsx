import type { QuantityFace } from "../../api/generated/wire";
import { type InputProps, shownText, textOf } from "../input";
import { Stepper } from "../stepper";

export function QuantityInput(props: InputProps<QuantityFace>) {
  const { block, facts, answer } = props;
  return (
    <Stepper
      {...props}
      name={shownText(facts, "label", block.label)}
      answer={textOf(answer)}
      placeholder={block.placeholder}
    />
  );
}
