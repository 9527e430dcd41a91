// The form as a conversation: it asks, the visitor answers, and what was said stands above, to be changed.
import { type ReactNode, useEffect, useEffectEvent, useLayoutEffect, useRef, useState } from "react";
import { type Answer, SurroundingsContext, textOf } from "../../fields/input";
import { say } from "../../text/visitor";
import { Feedback } from "../Feedback";
import { LineNews, Restored, Unpaid } from "../Notices";
import { useSnapshot } from "../held";
import type { FormSession } from "../session";
import { pageTitle } from "../titles";
import { Answering } from "./Answering";
import { askedIn, saidIn, sumsIn } from "./asking";
import { asked, caughtUp, isAnswered, nextToAsk, withSums } from "./conversation";
import { Said } from "./Said";
import "./chat.css";

interface Props {
  session: FormSession;
  form: string;
  /** What keeps the answers for later, where that is offered. */
  later: ReactNode;
}

export default function Chat({ session, form, later }: Props) {
  const { face } = session;
  const snapshot = useSnapshot(session);
  const { phase, state, page, refusal, told, elsewhere, waiting } = snapshot;
  const [entries, setEntries] = useState(() => caughtUp([], state.path, page));
  const pageOf = (step: string) => face.pages.find((each) => each.id === step)!;
  const isWrong = (step: string) => session.wrongOn([pageOf(step)]).length > 0;
  /** What is asked while the session is at a step: that, if it has no answer, else what comes next. */
  const askedAt = (at: string | null, path: readonly string[]): string | null =>
    at !== null && path.includes(at) && !isAnswered(entries, at) ? at : nextToAsk(path, entries, isWrong);
  const open = askedAt(page, state.path);
  const around = session.surroundings();
  const now = open === null ? null : askedIn(pageOf(open), around.factsOf, session.seed);
  const answering = useRef<HTMLDivElement>(null);
  const log = useRef<HTMLDivElement>(null);

  // Where the conversation itself has gone.
  const went = useRef(page);
  const goTo = (step: string): void => {
    went.current = step;
    session.goTo(step);
  };
  const ask = useEffectEvent(() => {
    if (phase !== "filling") return;
    // The view may lag behind while something is pressed.
    const { page: at, state: known } = session.read();
    if (at !== went.current) {
      // What was filled in before came back, or sending was refused.
      went.current = at;
      setEntries((before) => caughtUp(before, known.path, at));
      return;
    }
    const due = askedAt(at, known.path);
    if (due === null) return;
    if (due !== at) goTo(due);
    if (!entries.some((each) => each.kind === "asked" && each.step === due) || isAnswered(entries, due))
      setEntries((before) => asked(before, due));
    // What is only said is answered by having been said.
    else if (saidIn(pageOf(due), session.surroundings().factsOf).asks.length === 0)
      setEntries((before) => [...before, { kind: "answered", step: due }]);
  });
  // Before anything is painted: what is asked stands above where it is answered, and moves it.
  useLayoutEffect(() => ask(), [open, page, phase, entries, now?.by]);

  const spoken = useRef(entries.length);
  useEffect(() => {
    const box = log.current?.parentElement;
    if (box) box.scrollTop = box.scrollHeight;
    if (entries.length === spoken.current) return;
    spoken.current = entries.length;
    // Who wrote something that was no answer goes on writing.
    if (answering.current?.contains(document.activeElement)) return;
    answering.current?.querySelector<HTMLElement>("input, select, textarea, button")?.focus({ preventScroll: true });
  }, [entries, open]);

  /** Takes what stands there as the answer, if nothing is wrong with it; `words` are what was said. */
  async function settle(words: string): Promise<void> {
    if (open === null) return;
    const { told: toldBefore } = session.read();
    if (await session.mayGoOn()) {
      const sums = state.path
        .filter((step) => step === open || isAnswered(entries, step))
        .flatMap((step) => sumsIn(pageOf(step), session.surroundings().factsOf));
      setEntries((before) => withSums([...before, { kind: "answered", step: open }], sums));
    } else if (now?.by !== "filling" && session.read().told === toldBefore) {
      const [wrong] = session.wrongOn([pageOf(open)]);
      if (wrong) tried(words, wrong.message);
    }
  }

  const tried = (words: string, reason: string): void => {
    if (open !== null) setEntries((before) => [...before, { kind: "tried", step: open, words, reason }]);
  };

  /** Understands what was said to a question that has choices, too. */
  async function speak(block: string, words: string): Promise<boolean> {
    const reply = await session.understand(block, words);
    if (!reply) return false;
    if (reply.error) {
      tried(words, reply.error.message);
      return false;
    }
    session.change(block, reply.answer as Answer);
    await settle(words);
    return true;
  }

  const change = (step: string): void => {
    setEntries((before) => asked(before, step));
    goTo(step);
  };

  /** A page's title is said with the first of its questions. */
  const titleOf = (step: string): string => {
    const before = state.path[state.path.indexOf(step) - 1];
    const title = pageTitle(pageOf(step), state);
    return before !== undefined && pageTitle(pageOf(before), state) === title ? "" : title;
  };
  const shown = entries.filter((each) => each.kind === "sum" || state.path.includes(each.step));
  return (
    <SurroundingsContext value={around}>
      <form
        noValidate
        className="cx-chat"
        onSubmit={(event) => {
          event.preventDefault();
          if (open === null) void session.submit();
          else if (now?.question) void settle(textOf(session.read().answers[now.question.id] ?? null));
          else void settle("");
        }}
      >
        <div className="cx-chat-said">
          <Restored session={session} snapshot={snapshot} />
          <Unpaid form={form} />
          {elsewhere && <p className="cx-restored">{say("elsewhere")}</p>}
          <div className="cx-log" role="log" aria-label={face.title || undefined} ref={log}>
            {shown.map((entry, at) => (
              <Said
                key={at}
                entry={entry}
                page={entry.kind === "sum" ? null : pageOf(entry.step)}
                title={entry.kind === "asked" ? titleOf(entry.step) : ""}
                state={state}
                onChange={change}
              />
            ))}
            {open === null && <p className="cx-speech">{say("chatEnd")}</p>}
            {told.map((block) => {
              const feedback = state.blocks[block]?.feedback;
              return feedback && <Feedback key={block} id={`told-${block}`} feedback={feedback} focused={false} />;
            })}
          </div>
          <Answering
            ref={answering}
            key={open ?? "end"}
            session={session}
            now={now}
            isTold={told.length > 0}
            busy={phase === "sending" || waiting}
            onChoose={(block, answer, words) => {
              session.change(block, answer);
              void settle(words);
            }}
            onSpeak={speak}
          >
            {refusal && session.wrongOn(session.pages).length === 0 && (
              <p className="cx-error" role="alert">
                {refusal}
              </p>
            )}
            {state.error && open === null && snapshot.tries > 0 && <p className="cx-error">{state.error.message}</p>}
            <LineNews session={session} snapshot={snapshot} />
          </Answering>
          {later}
        </div>
      </form>
    </SurroundingsContext>
  );
}
