import type { NameFace } from "../../api/generated/wire";
import type { InputProps } from "../input";
import { PartBoxes } from "../parts";
import { TextInput } from "../text_input";

const BOXES = [
  { name: "first", label: "first", autoComplete: "given-name", width: "half", needed: true },
  { name: "last", label: "last", autoComplete: "family-name", width: "half", needed: true },
] as const;

export function NameInput(props: InputProps<NameFace>) {
  if (props.block.parts === "one") return <TextInput {...props} autoComplete="name" />;
  return <PartBoxes {...props} boxes={BOXES} />;
}
