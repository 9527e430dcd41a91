import type { YesNoFace } from "../../api/generated/wire";
import { RadioSet } from "../choice_set";
import type { InputProps } from "../input";

export function YesNoInput(props: InputProps<YesNoFace>) {
  const { block, answer, onChange } = props;
  const options = [
    { id: "yes", label: block.yes, barred: false },
    { id: "no", label: block.no, barred: false },
  ];
  const chosen = answer === true || answer === "yes" ? "yes" : answer === false || answer === "no" ? "no" : null;
  return (
    <RadioSet
      {...props}
      options={options}
      chosen={chosen}
      arrangement="row"
      onChoose={(id) => onChange(id === null ? null : id === "yes")}
    />
  );
}
