// The whole public form: banner, pages one under another, what is wrong, and the way to send it.
import { useEffect, useRef, useSyncExternalStore } from "react";
import type { FormFace } from "../api/generated/wire";
import type { Face } from "../model/blocks";
import { BlockOnPage, controlIdOf } from "./BlockOnPage";
import { Banner, brandStyle } from "./Banner";
import { linesOf } from "./lines";
import type { FormSession } from "./session";

export function PublicForm({ session }: { session: FormSession }) {
  const { face } = session;
  const { phase, away, refusal, tries } = useSyncExternalStore(session.subscribe, session.read);
  useEffect(() => {
    const hurry = () => session.hurry();
    addEventListener("online", hurry);
    return () => removeEventListener("online", hurry);
  }, [session]);
  if (phase === "received") return <Received face={face} />;
  return (
    <main className="codexa-form" style={brandStyle(face.brand)}>
      <Banner face={face} />
      <form
        noValidate
        onSubmit={(event) => {
          event.preventDefault();
          session.submit();
        }}
      >
        {refusal && <ErrorSummary key={tries} session={session} message={refusal} />}
        {face.pages.map((page) => (
          <section key={page.id} className="cx-page" aria-labelledby={page.title ? `page-${page.id}` : undefined}>
            {page.title && <h2 id={`page-${page.id}`}>{page.title}</h2>}
            <Blocks blocks={page.blocks} session={session} />
          </section>
        ))}
        <p className="cx-away" role="status">
          {away &&
            (phase === "sending"
              ? "We can't reach the server just now. Your answers are kept here, and we send them as soon as it is back."
              : "We can't reach the server just now. What you typed stays here; we try again by ourselves.")}
        </p>
        <button type="submit" className="cx-submit" aria-disabled={phase === "sending" || undefined}>
          {phase === "sending" ? "Sending …" : face.wording.submit}
        </button>
      </form>
    </main>
  );
}

function Blocks({ blocks, session }: { blocks: readonly Face[]; session: FormSession }) {
  const { answers, state } = useSyncExternalStore(session.subscribe, session.read);
  const shown = blocks.filter((block) => state.blocks[block.id]?.shown);
  return linesOf(shown).map((line) => (
    <div key={line[0]!.id} className="cx-line">
      {line.map((block) => (
        <div key={block.id} className={`cx-block cx-${block.width}`}>
          <BlockOnPage
            block={block}
            answer={answers[block.id] ?? null}
            value={state.blocks[block.id]!.value}
            required={state.blocks[block.id]!.required}
            error={session.errorOf(block.id)?.message ?? null}
            onChange={(answer) => session.change(block.id, answer)}
            onLeave={() => session.leave(block.id)}
          />
        </div>
      ))}
    </div>
  ));
}

function ErrorSummary({ session, message }: { session: FormSession; message: string }) {
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    box.current?.focus();
  }, []);
  const wrong = session.face.pages
    .flatMap((page) => page.blocks)
    .flatMap((block) => {
      const error = session.errorOf(block.id);
      return error && "label" in block ? [{ id: block.id, label: block.label, message: error.message }] : [];
    });
  return (
    <div className="cx-summary" ref={box} tabIndex={-1} role="group" aria-labelledby="summary-title">
      <h2 id="summary-title">{message}</h2>
      <ul>
        {wrong.map(({ id, label, message: reason }) => (
          <li key={id}>
            <a
              href={`#${controlIdOf(id)}`}
              onClick={(event) => {
                event.preventDefault();
                const control = document.getElementById(controlIdOf(id));
                (control?.querySelector<HTMLElement>("input") ?? control)?.focus();
              }}
            >
              {label}
            </a>
            : {reason}
          </li>
        ))}
      </ul>
    </div>
  );
}

function Received({ face }: { face: FormFace }) {
  const title = useRef<HTMLHeadingElement>(null);
  useEffect(() => {
    title.current?.focus();
  }, []);
  return (
    <main className="codexa-form" style={brandStyle(face.brand)}>
      <Banner face={face} />
      <div className="cx-received" role="status">
        <h2 ref={title} tabIndex={-1}>
          {face.wording.confirmation_title}
        </h2>
        <p>{face.wording.confirmation_text}</p>
      </div>
    </main>
  );
}
