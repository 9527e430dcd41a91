import type { LongTextFace } from "../../api/generated/wire";
import { type InputProps, textOf } from "../input";
import { LengthTold } from "../LengthTold";

export function LongTextInput(props: InputProps<LongTextFace>) {
  const { block, controlId, answer, describedBy, invalid, locked, required, onChange } = props;
  const text = textOf(answer);
  return (
    <>
      <textarea
        id={controlId}
        className="cx-input cx-long"
        rows={block.lines}
        placeholder={block.placeholder || undefined}
        readOnly={locked}
        value={text}
        aria-invalid={invalid || undefined}
        aria-required={required || undefined}
        aria-describedby={describedBy}
        onChange={(event) => onChange(event.target.value === "" ? null : event.target.value)}
      />
      <LengthTold text={text} most={block.max_length} />
    </>
  );
}
