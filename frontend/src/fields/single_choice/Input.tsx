import type { SingleChoiceFace } from "../../api/generated/wire";
import { OtherBox, RadioSet } from "../choice_set";
import { type InputProps, partsOf, textOf, useTools } from "../input";
import { OTHER, optionsOf } from "../shown_options";

export function SingleChoiceInput(props: InputProps<SingleChoiceFace>) {
  const { block, answer, facts, onChange } = props;
  const { seed } = useTools();
  const own = partsOf(answer)[OTHER];
  const chosen = own !== undefined ? OTHER : textOf(answer) || null;
  const options = optionsOf(block, facts, seed);
  if (block.other) options.push({ id: OTHER, label: block.other_label, barred: false });
  return (
    <RadioSet
      {...props}
      options={options}
      chosen={chosen}
      arrangement={block.arrangement}
      onChoose={(id) => onChange(id === OTHER ? { [OTHER]: "" } : id)}
    >
      {own !== undefined && (
        <OtherBox
          controlId={props.controlId}
          label={block.other_label}
          text={textOf(own)}
          locked={props.locked}
          onText={(text) => onChange({ [OTHER]: text })}
        />
      )}
    </RadioSet>
  );
}
