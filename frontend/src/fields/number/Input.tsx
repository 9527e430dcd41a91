import type { NumberFace } from "../../api/generated/wire";
import type { InputProps } from "../input";
import { TextInput } from "../text_input";

export function NumberInput(props: InputProps<NumberFace>) {
  const { placeholder, unit, decimals } = props.block;
  return (
    <TextInput {...props} placeholder={placeholder} unit={unit} inputMode={decimals > 0 ? "decimal" : "numeric"} />
  );
}
