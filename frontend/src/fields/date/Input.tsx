import type { DateFace } from "../../api/generated/wire";
import type { InputProps } from "../input";
import { MomentInput } from "../moments/MomentInput";

export function DateInput(props: InputProps<DateFace>) {
  return <MomentInput {...props} kind="date" />;
}
