// A long list searched by typing.
import { useState } from "react";
import type { DropdownFace } from "../../api/generated/wire";
import { say } from "../../text/visitor";
import { Combobox } from "../combobox";
import type { InputProps } from "../input";
import type { ShownOption } from "../shown_options";

interface Props extends InputProps<DropdownFace> {
  options: readonly ShownOption[];
  chosen: string;
  onChoose: (id: string) => void;
}

export default function SearchedList({ options, chosen, onChoose, ...props }: Props) {
  const { block } = props;
  const [typed, setTyped] = useState<string | null>(null);
  const wanted = (typed ?? "").trim().toLocaleLowerCase();
  return (
    <Combobox
      {...props}
      name={block.label}
      placeholder={block.placeholder || say("typeToSearch")}
      label={options.find((option) => option.id === chosen)?.label ?? ""}
      typed={typed}
      onTyped={setTyped}
      found={options.filter((option) => option.label.toLocaleLowerCase().includes(wanted))}
      chosen={[chosen]}
      onPick={onChoose}
      news=""
    />
  );
}
