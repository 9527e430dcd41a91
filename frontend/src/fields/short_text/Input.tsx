import type { ShortTextFace } from "../../api/generated/wire";
import { type InputProps, textOf } from "../input";
import { LengthTold } from "../LengthTold";
import { TextInput } from "../text_input";

export function ShortTextInput(props: InputProps<ShortTextFace>) {
  return (
    <>
      <TextInput {...props} placeholder={props.block.placeholder} />
      <LengthTold text={textOf(props.answer)} most={props.block.max_length} />
    </>
  );
}
