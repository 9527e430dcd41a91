import type { CalculatedFace } from "../../api/generated/wire";
import { say } from "../../text/visitor";
import type { InputProps } from "../input";

export function CalculatedInput({ controlId, facts, describedBy }: InputProps<CalculatedFace>) {
  return (
    <output id={controlId} className="cx-calculated" aria-describedby={describedBy} aria-live="polite">
      {facts.value ?? "–"}
      {facts.unsettled && <span className="cx-unsettled">{say("unsettled")}</span>}
    </output>
  );
}
