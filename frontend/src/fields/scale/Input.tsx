import type { ScaleFace } from "../../api/generated/wire";
import { ChoiceFrame, ChooseNone } from "../choice_set";
import { type InputProps, textOf } from "../input";

export function ScaleInput(props: InputProps<ScaleFace>) {
  const { block, controlId, answer, required, locked, onChange } = props;
  const values = Array.from({ length: block.most - block.least + 1 }, (_each, index) => String(block.least + index));
  const chosen = textOf(answer);
  const words = (value: string) =>
    value === values[0] ? block.least_label : value === values.at(-1) ? block.most_label : "";
  return (
    <ChoiceFrame {...props} className="cx-scale" role="radiogroup">
      <div className="cx-scale-steps">
        {values.map((value) => (
          <label key={value} data-chosen={chosen === value || undefined}>
            <input
              type="radio"
              name={controlId}
              checked={chosen === value}
              disabled={locked && chosen !== value}
              aria-label={words(value) ? `${value}, ${words(value)}` : value}
              onChange={() => onChange(value)}
            />
            <span aria-hidden="true">{value}</span>
          </label>
        ))}
      </div>
      {(block.least_label || block.most_label) && (
        <div className="cx-scale-ends" aria-hidden="true">
          <span>{block.least_label}</span>
          <span>{block.most_label}</span>
        </div>
      )}
      <ChooseNone off={chosen === "" || required || locked} onPress={() => onChange(null)} />
    </ChoiceFrame>
  );
}
