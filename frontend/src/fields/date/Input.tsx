import type { DateFace } from "../../api/generated/wire";
import type { InputProps } from "../input";
import { TextInput } from "../text_input";

export function DateInput(props: InputProps<DateFace>) {
  return <TextInput {...props} type="date" />;
}
