import type { PhoneFace } from "../../api/generated/wire";
import type { InputProps } from "../input";
import { TextInput } from "../text_input";

export function PhoneInput(props: InputProps<PhoneFace>) {
  return <TextInput {...props} type="tel" placeholder={props.block.placeholder} autoComplete="tel" />;
}
