import type { TimeFace } from "../../api/generated/wire";
import type { InputProps } from "../input";
import { MomentInput } from "../moments/MomentInput";

export function TimeInput(props: InputProps<TimeFace>) {
  return <MomentInput {...props} kind="time" />;
}
