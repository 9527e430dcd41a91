// Boxes for the parts of one value: what a name and an address show.
import { type Message, say } from "../text/visitor";
import { type InputProps, partsOf, textOf } from "./input";

export interface PartBox {
  name: string;
  /** The message that names it: an author may have written another. */
  label: Message;
  autoComplete: string;
  width?: "full" | "half" | "third";
  needed: boolean;
  placeholder?: string;
}

export function PartBoxes({ boxes, ...props }: InputProps & { boxes: readonly PartBox[] }) {
  const { controlId, answer, required, locked, invalid, describedBy, onChange } = props;
  const given = partsOf(answer);
  return (
    <div
      id={controlId}
      className="cx-parts"
      role="group"
      tabIndex={-1}
      aria-labelledby={`${controlId}-label`}
      aria-describedby={describedBy}
    >
      {boxes.map((box) => (
        <label key={box.name} className={`cx-part cx-${box.width ?? "full"}`}>
          <span>{say(box.label)}</span>
          <input
            className="cx-input"
            autoComplete={box.autoComplete}
            placeholder={box.placeholder || undefined}
            readOnly={locked}
            value={textOf(given[box.name] ?? null)}
            aria-required={(required && box.needed) || undefined}
            aria-invalid={(invalid && box.needed && !given[box.name]) || undefined}
            onChange={(event) => onChange(withPart(given, box.name, event.target.value))}
          />
        </label>
      ))}
    </div>
  );
}

function withPart(given: ReturnType<typeof partsOf>, name: string, text: string) {
  const parts = { ...given, [name]: text === "" ? null : text };
  return Object.values(parts).some((part) => part !== null) ? parts : null;
}
