// A box in a table of boxes: a plain input, since hundreds of them may stand there, and below it what is wrong with it.
import { type InputHTMLAttributes, useId } from "react";
import "./cell_box.css";

interface Props extends Omit<InputHTMLAttributes<HTMLInputElement>, "className" | "name"> {
  /** What it is called; its column's head stands above. */
  name: string;
  problem?: string | null;
  /** Whether it holds a code, which is read sign by sign. */
  code?: boolean;
}

export function CellBox({ name, problem = null, code = false, ...input }: Props) {
  const told = useId();
  return (
    <div className="cb-cell">
      <input
        {...input}
        className={code ? "cb-box cb-code" : "cb-box"}
        aria-label={name}
        aria-invalid={problem !== null || undefined}
        aria-describedby={problem === null ? undefined : told}
        spellCheck={code ? false : undefined}
      />
      {problem !== null && (
        <p id={told} className="cb-problem">
          {problem}
        </p>
      )}
    </div>
  );
}
