import type { EmailFace } from "../../api/generated/wire";
import type { InputProps } from "../input";
import { TextInput } from "../text_input";

export function EmailInput(props: InputProps<EmailFace>) {
  // type="text": the browser's own idea of an address must not stand in the way of the core's.
  return <TextInput {...props} placeholder={props.block.placeholder} inputMode="email" autoComplete="email" />;
}
