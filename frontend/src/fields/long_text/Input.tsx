import type { LongTextFace } from "../../api/generated/wire";
import { type InputProps, textOf } from "../input";

export function LongTextInput(props: InputProps<LongTextFace>) {
  const { block, controlId, answer, describedBy, invalid, locked, required, onChange } = props;
  const text = textOf(answer);
  return (
    <>
      <textarea
        id={controlId}
        className="cx-input cx-long"
        rows={block.lines}
        maxLength={block.max_length ?? undefined}
        placeholder={block.placeholder || undefined}
        readOnly={locked}
        value={text}
        aria-invalid={invalid || undefined}
        aria-required={required || undefined}
        aria-describedby={describedBy}
        onChange={(event) => onChange(event.target.value === "" ? null : event.target.value)}
      />
      {block.max_length && text.length > block.max_length * 0.8 && (
        <p className="cx-count" aria-live="polite">
          {text.length} / {block.max_length}
        </p>
      )}
    </>
  );
}
