import type { SeveralChoicesFace } from "../../api/generated/wire";
import { CheckSet, OtherBox } from "../choice_set";
import { type Answer, type InputProps, listOf, partsOf, textOf, useTools } from "../input";
import { OTHER, optionsOf } from "../shown_options";

export function SeveralChoicesInput(props: InputProps<SeveralChoicesFace>) {
  const { block, answer, facts, onChange } = props;
  const { seed } = useTools();
  const chosen = listOf(answer);
  const ids = chosen.map((each) => (typeof each === "string" ? each : OTHER));
  const own = chosen.find((each) => typeof each !== "string");
  const options = optionsOf(block, facts, seed);
  if (block.other) options.push({ id: OTHER, label: block.other_label, barred: false });
  const keep = (kept: readonly Answer[]) => onChange(kept.length > 0 ? kept : null);
  const without = (id: string) => chosen.filter((_each, at) => ids[at] !== id);
  return (
    <CheckSet
      {...props}
      options={options}
      chosen={ids}
      arrangement={block.arrangement}
      onToggle={(id, on) => keep(on ? [...chosen, id === OTHER ? { [OTHER]: "" } : id] : without(id))}
    >
      {own !== undefined && (
        <OtherBox
          controlId={props.controlId}
          label={block.other_label}
          text={textOf(partsOf(own)[OTHER] ?? null)}
          locked={props.locked}
          onText={(text) => keep([...without(OTHER), { [OTHER]: text }])}
        />
      )}
    </CheckSet>
  );
}
