import type { TimeFace } from "../../api/generated/wire";
import type { InputProps } from "../input";
import { TextInput } from "../text_input";

export function TimeInput(props: InputProps<TimeFace>) {
  return <TextInput {...props} type="time" />;
}
