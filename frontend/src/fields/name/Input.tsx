import type { NameFace } from "../../api/generated/wire";
import type { InputProps } from "../input";
import { PartBoxes } from "../parts";
import { TextInput } from "../text_input";

const BOXES = [
  { name: "first", label: "first", autoComplete: "given-name", width: "half", needed: true },
  { name: "last", label: "last", autoComplete: "family-name", width: "half", needed: true },
] as const;

export function NameInput(props: InputProps<NameFace>) {
  const { parts, placeholder, placeholder_last } = props.block;
  if (parts === "one") return <TextInput {...props} placeholder={placeholder} autoComplete="name" />;
  const [first, last] = BOXES;
  return (
    <PartBoxes
      {...props}
      boxes={[
        { ...first, placeholder },
        { ...last, placeholder: placeholder_last },
      ]}
    />
  );
}
