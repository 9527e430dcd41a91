import type { HiddenFace } from "../../api/generated/wire";
import type { InputProps } from "../input";

/** Visitors never get a hidden field; this is how the workbench shows where it stands. */
export function HiddenMark({ block }: InputProps<HiddenFace>) {
  return <p className="cx-hidden">{block.label}</p>;
}
