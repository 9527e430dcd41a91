import type { WebAddressFace } from "../../api/generated/wire";
import type { InputProps } from "../input";
import { TextInput } from "../text_input";

export function WebAddressInput(props: InputProps<WebAddressFace>) {
  // type="text": the browser would refuse an address without https://, which the core takes.
  return <TextInput {...props} placeholder={props.block.placeholder} inputMode="url" autoComplete="url" />;
}
