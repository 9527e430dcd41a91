import type { ConsentFace } from "../../api/generated/wire";
import { RichText } from "../RichText";
import { type InputProps, shownText } from "../input";

export function ConsentInput(props: InputProps<ConsentFace>) {
  const { block, controlId, answer, facts, describedBy, invalid, locked, required, onChange } = props;
  return (
    <div
      className="cx-option cx-consent"
      data-chosen={answer === true || undefined}
      data-invalid={invalid || undefined}
    >
      <input
        id={controlId}
        type="checkbox"
        checked={answer === true}
        disabled={locked}
        aria-labelledby={`${controlId}-label ${controlId}-statement`}
        aria-describedby={describedBy}
        aria-invalid={invalid || undefined}
        aria-required={required || undefined}
        onChange={(event) => onChange(event.target.checked || null)}
      />
      <label htmlFor={controlId} id={`${controlId}-statement`}>
        <RichText html={shownText(facts, "statement", block.statement)} />
      </label>
    </div>
  );
}
