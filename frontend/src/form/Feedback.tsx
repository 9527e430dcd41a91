// What a visitor is told of an answer in a quiz, and the button that asks for it.
import { useEffect, useRef } from "react";
import type { FeedbackFace } from "../api/generated/wire";
import { say } from "../text/visitor";

const SIGNS = { right: "✓", partly: "◐", wrong: "✗" } as const;

interface Props {
  id: string;
  feedback: FeedbackFace;
  /** Whether it takes the focus: the button that asked for it is gone. */
  focused: boolean;
}

export function Feedback({ id, feedback, focused }: Props) {
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (focused) box.current?.focus({ preventScroll: true });
  }, [focused]);
  return (
    <div className="cx-feedback" data-outcome={feedback.outcome} id={id} ref={box} tabIndex={-1} role="status">
      <p>
        <span aria-hidden="true">{SIGNS[feedback.outcome]} </span>
        {feedback.words}
      </p>
      {feedback.notes?.map((note) => (
        <p key={note}>{note}</p>
      ))}
      {feedback.right && <p>{feedback.right}</p>}
    </div>
  );
}

export function CheckAnswer({ onPress }: { onPress: () => void }) {
  return (
    <button type="button" className="cx-check" onClick={onPress}>
      {say("checkAnswer")}
    </button>
  );
}
