import type { SingleChoiceFace } from "../../api/generated/wire";
import type { InputProps } from "../input";

export function SingleChoiceInput(props: InputProps<SingleChoiceFace>) {
  const { block, controlId, answer, describedBy, invalid, required, onChange } = props;
  return (
    <div
      id={controlId}
      className={`cx-options cx-options-${block.arrangement}`}
      role="radiogroup"
      tabIndex={-1}
      aria-labelledby={`${controlId}-label`}
      aria-describedby={describedBy}
      aria-invalid={invalid || undefined}
      aria-required={required || undefined}
    >
      {block.options.map((option) => (
        <label key={option.id} className="cx-option" data-chosen={answer === option.id || undefined}>
          <input
            type="radio"
            name={controlId}
            value={option.id}
            checked={answer === option.id}
            onChange={() => onChange(option.id)}
          />
          <span>{option.label || "…"}</span>
        </label>
      ))}
      {answer !== null && !required && (
        <button type="button" className="cx-clear" onClick={() => onChange(null)}>
          Choose none
        </button>
      )}
    </div>
  );
}
