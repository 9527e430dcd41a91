// A block as visitors see it: its label, its control, its help and what is wrong with it.
import type { Answer } from "../fields/input";
import { INPUTS } from "../fields/inputs";
import type { Face } from "../model/blocks";

interface Props {
  block: Face;
  answer: Answer;
  value: string | null;
  required: boolean;
  error: string | null;
  onChange: (answer: Answer) => void;
  onLeave?: () => void;
}

export const controlIdOf = (blockId: string): string => `field-${blockId}`;

export function BlockOnPage({ block, answer, value, required, error, onChange, onLeave }: Props) {
  const { Input, frame, labels } = INPUTS[block.type];
  const controlId = controlIdOf(block.id);
  const help = "help" in block ? block.help : "";
  const describedBy = [help && `${controlId}-help`, error && `${controlId}-error`].filter(Boolean).join(" ");
  const input = (
    <Input
      block={block}
      controlId={controlId}
      answer={answer}
      value={value}
      required={required}
      invalid={error !== null}
      describedBy={describedBy || undefined}
      onChange={onChange}
    />
  );
  if (frame === "bare" || !("label" in block)) return input;
  const label = (
    <>
      {block.label}
      {required && <Required />}
    </>
  );
  const leave = (event: React.FocusEvent) => {
    if (!event.currentTarget.contains(event.relatedTarget)) onLeave?.();
  };
  return (
    <div className={`cx-${frame}`} onBlur={leave}>
      {labels === "control" ? (
        <label className="cx-label" htmlFor={controlId} id={`${controlId}-label`}>
          {label}
        </label>
      ) : (
        <span className="cx-label" id={`${controlId}-label`}>
          {label}
        </span>
      )}
      {input}
      {help && (
        <p className="cx-help" id={`${controlId}-help`}>
          {help}
        </p>
      )}
      {error && (
        <p className="cx-error" id={`${controlId}-error`}>
          {error}
        </p>
      )}
    </div>
  );
}

function Required() {
  return (
    <span className="cx-required" aria-hidden="true">
      {" *"}
    </span>
  );
}
