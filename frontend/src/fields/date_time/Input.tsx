import type { DateTimeFace } from "../../api/generated/wire";
import type { InputProps } from "../input";
import { MomentInput } from "../moments/MomentInput";

export function DateTimeInput(props: InputProps<DateTimeFace>) {
  return <MomentInput {...props} kind="date_time" />;
}
