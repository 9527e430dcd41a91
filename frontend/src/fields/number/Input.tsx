import type { NumberFace } from "../../api/generated/wire";
import { say } from "../../text/visitor";
import type { InputProps } from "../input";
import { TextInput } from "../text_input";

export function NumberInput(props: InputProps<NumberFace>) {
  const { placeholder, unit, decimals } = props.block;
  const price = props.facts.prices?.[""];
  const behind = [unit, price && say("each", { price })].filter(Boolean).join(" · ");
  return (
    <TextInput {...props} placeholder={placeholder} unit={behind} inputMode={decimals > 0 ? "decimal" : "numeric"} />
  );
}
