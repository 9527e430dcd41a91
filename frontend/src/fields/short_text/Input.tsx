import type { ShortTextFace } from "../../api/generated/wire";
import type { InputProps } from "../input";
import { TextInput } from "../text_input";

export function ShortTextInput(props: InputProps<ShortTextFace>) {
  return <TextInput {...props} placeholder={props.block.placeholder} maxLength={props.block.max_length ?? undefined} />;
}
