import type { DateTimeFace } from "../../api/generated/wire";
import type { InputProps } from "../input";
import { TextInput } from "../text_input";

export function DateTimeInput(props: InputProps<DateTimeFace>) {
  return <TextInput {...props} type="datetime-local" />;
}
