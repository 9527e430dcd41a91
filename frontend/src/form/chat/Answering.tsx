// What a visitor answers with: choices to press, a box to write in, or what the form shows for anything else.
import { type ReactNode, type Ref, useState } from "react";
import { type Answer, useSurroundings } from "../../fields/input";
import { say } from "../../text/visitor";
import { BlockList } from "../BlockList";
import { controlIdOf } from "../BlockOnPage";
import type { FormSession } from "../session";
import type { Asked } from "./asking";

interface Props {
  ref: Ref<HTMLDivElement>;
  session: FormSession;
  /** What is asked; null once all was. */
  now: Asked | null;
  /** Whether something is told of the answer, to be read before going on. */
  isTold: boolean;
  busy: boolean;
  onChoose: (block: string, answer: Answer, words: string) => void;
  /** Resolves to whether it was an answer. */
  onSpeak: (block: string, words: string) => Promise<boolean>;
  /** News of the form, above the button. */
  children: ReactNode;
}

export function Answering({ ref, session, now, isTold, busy, onChoose, onSpeak, children }: Props) {
  const [words, setWords] = useState("");
  const { factsOf } = useSurroundings();
  const question = now?.question ?? null;
  const by = isTold ? "nothing" : (now?.by ?? "nothing");
  const { wording } = session.face;
  const leaveOut = now?.mayBeLeftOut && question && !isTold && (
    <button type="button" className="cx-clear" onClick={() => onChoose(question.id, null, "")}>
      {say("leaveOut")}
    </button>
  );
  const sendWords = () => {
    if (question && words.trim() && !busy) void onSpeak(question.id, words).then((taken) => taken && setWords(""));
  };
  return (
    <div className="cx-answering" ref={ref} data-block={question?.id} data-by={by}>
      {by === "choosing" && question && (
        <>
          <div
            id={controlIdOf(question.id)}
            className="cx-chips"
            role="group"
            aria-label={"label" in question ? question.label : undefined}
          >
            {now!.chips.map(({ answer, label, barred }) => (
              <button
                key={String(answer)}
                type="button"
                className="cx-chip"
                aria-pressed={session.read().answers[question.id] === answer}
                disabled={barred || busy}
                onClick={() => onChoose(question.id, answer, label)}
              >
                {label}
              </button>
            ))}
          </div>
          <div className="cx-writes">
            <input
              className="cx-input"
              aria-label={say("sayHere")}
              placeholder={say("sayHere")}
              value={words}
              maxLength={2_000}
              onChange={({ target }) => setWords(target.value)}
              onKeyDown={(event) => {
                if (event.key !== "Enter" || event.nativeEvent.isComposing) return;
                event.preventDefault();
                sendWords();
              }}
            />
            <button type="button" className="cx-submit" aria-disabled={busy || undefined} onClick={sendWords}>
              {say("say")}
            </button>
          </div>
        </>
      )}
      {by === "filling" && now && <BlockList blocks={now.asks} />}
      {now === null && <BlockList blocks={lastWords(session, (block) => factsOf(block)?.shown ?? false)} />}
      {children}
      {by !== "choosing" && (
        <div className="cx-writes">
          {by === "writing" && now && <BlockList blocks={now.asks} />}
          <button type="submit" className="cx-submit" aria-disabled={busy || undefined}>
            {now === null ? wording.submit : by === "writing" ? say("say") : say("goOn")}
          </button>
        </div>
      )}
      {leaveOut}
    </div>
  );
}

/** What is read once more before sending: the orders. */
const lastWords = (session: FormSession, isShown: (block: string) => boolean) =>
  session.face.pages
    .filter(({ id }) => session.read().state.path.includes(id))
    .flatMap(({ blocks }) => blocks)
    .filter(({ id, type }) => type === "order_summary" && isShown(id));
