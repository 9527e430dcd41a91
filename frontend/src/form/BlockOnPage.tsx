// A block as visitors see it: its label, its control, its help and what is wrong with it.
import { useState } from "react";
import type { BlockState } from "../api/generated/wire";
import { type Answer, shownText } from "../fields/input";
import { INPUTS } from "../fields/inputs";
import type { Face } from "../model/blocks";
import { say } from "../text/visitor";
import { CheckAnswer, Feedback } from "./Feedback";

interface Props {
  block: Face;
  /** What stands before the control's id: the row that the block is in. */
  prefix?: string;
  answer: Answer;
  facts: BlockState;
  error: string | null;
  onChange: (answer: Answer) => void;
  onLeave?: () => void;
  /** Asks whether the answer is right, where it may be asked. */
  onCheck?: (() => void) | null;
}

export const controlIdOf = (address: string): string => `field-${address.replaceAll("/", "-")}`;

export function BlockOnPage({ block, prefix = "", answer, facts, error, onChange, onLeave, onCheck }: Props) {
  const [checking, setChecking] = useState(false);
  const { Input, frame, labels } = INPUTS[block.type];
  const controlId = controlIdOf(prefix + block.id);
  const required = facts.required ?? false;
  const help = "help" in block ? shownText(facts, "help", block.help) : "";
  const dropped = facts.dropped && (answer ?? null) !== null;
  const describedBy = [
    help && `${controlId}-help`,
    facts.from_link && `${controlId}-brought`,
    dropped && `${controlId}-dropped`,
    error && `${controlId}-error`,
    facts.feedback && `${controlId}-feedback`,
  ].filter(Boolean);
  const input = (
    <Input
      block={block}
      controlId={controlId}
      answer={answer}
      facts={facts}
      required={required}
      locked={facts.locked ?? false}
      invalid={error !== null}
      describedBy={describedBy.join(" ") || undefined}
      onChange={onChange}
    />
  );
  if (frame === "bare" || !("label" in block)) return input;
  const label = (
    <>
      {shownText(facts, "label", block.label)}
      {required && <Required />}
    </>
  );
  const leave = (event: React.FocusEvent) => {
    if (!event.currentTarget.contains(event.relatedTarget)) onLeave?.();
  };
  const names = typeof labels === "function" ? labels(block) : labels;
  return (
    <div className={`cx-${frame}`} onBlur={leave}>
      {names === "control" ? (
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
      {facts.from_link && (
        <p className="cx-help" id={`${controlId}-brought`}>
          {say("fromLink")}
        </p>
      )}
      {dropped && (
        <p className="cx-dropped" id={`${controlId}-dropped`} role="status">
          {say("dropped")}
        </p>
      )}
      {error && (
        <p className="cx-error" id={`${controlId}-error`}>
          {error}
        </p>
      )}
      {facts.feedback && <Feedback id={`${controlId}-feedback`} feedback={facts.feedback} focused={checking} />}
      {onCheck && !facts.feedback && (
        <CheckAnswer
          onPress={() => {
            setChecking(true);
            onCheck();
          }}
        />
      )}
    </div>
  );
}

function Required() {
  return (
    <span className="cx-required" aria-hidden="true">
      {"\u00a0*"}
    </span>
  );
}
