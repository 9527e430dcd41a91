// The whole public form: banner, progress, pages, what is wrong, and the way on.
import { type ComponentProps, type ReactNode, useEffect, useMemo, useRef } from "react";
import type { FormFace } from "../api/generated/wire";
import { SurroundingsContext, type Tools, ToolsContext } from "../fields/input";
import { late } from "../fields/late";
import { RichText } from "../fields/RichText";
import { say } from "../text/visitor";
import { Banner } from "./Banner";
import { brandClasses, brandStyle, layoutClasses } from "./brand";
import { BlockList } from "./BlockList";
import { controlIdOf } from "./BlockOnPage";
import { Languages } from "./Languages";
import { useSnapshot } from "./held";
import { Progress } from "./Progress";
import { goToNext } from "./enter";
import { LineNews, Restored, Unpaid } from "./Notices";
import { prefetchPieces, whenIdle } from "./prefetch";
import { goesOn } from "./goes_on";
import { isByQuestion } from "./facts";
import { Safe } from "./Safe";
import type { FormSession } from "./session";
import { FORM } from "./snapshot";
import { pageTitle } from "./titles";

const Chat = late<ComponentProps<typeof import("./chat/Chat").default>>(() => import("./chat/Chat"));
const Received = late<ComponentProps<typeof import("./Received").default>>(() => import("./Received"));
const Earlier = late<ComponentProps<typeof import("./Earlier").default>>(() => import("./Earlier"));
const SignIn = late<ComponentProps<typeof import("./SignIn").default>>(() => import("./SignIn"));
const GoOnLater = late<ComponentProps<typeof import("./GoOnLater").default>>(() => import("./GoOnLater"));

interface Props {
  session: FormSession;
  /** The form's id. */
  form: string;
  upload: Tools["upload"];
  /** The form's own address, to begin again and to hand on; null in a preview. */
  address: string | null;
  /** Whether answers can be kept on the server to go on with later. */
  later?: boolean;
  /** The page of the team's members; "" in a preview. */
  members?: string;
  /** Hears what is entered where people see nothing; null where nothing is kept. */
  onTrap?: ((text: string) => void) | null;
  /** Follows a confirmation that leads elsewhere. */
  onRedirect: (address: string, within: boolean) => void;
  /** Goes to the page of its own that a confirmation has; null where this is that page. */
  onOwnPage: ((address: string) => void) | null;
}

export function PublicForm(props: Props) {
  const { session, form, upload, address, later = false, members = "", onTrap = null, onRedirect, onOwnPage } = props;
  const { face } = session;
  const { phase, state, page, received, signedIn, signIn } = useSnapshot(session);
  useEffect(() => {
    const hurry = () => session.hurry();
    addEventListener("online", hurry);
    return () => {
      removeEventListener("online", hurry);
    };
  }, [session]);
  useEffect(
    () =>
      whenIdle(() => {
        prefetchPieces(face.pages);
        Received.prefetch().catch(() => undefined);
      }),
    [face],
  );
  useEffect(() => {
    const { payment = null } = received ?? {};
    // What is due is paid on a page of its own, which can be opened again.
    if (payment && payment.state !== "paid") {
      if (received?.page) onOwnPage?.(received.page);
    } else if (received?.confirmation.redirect) {
      const { redirect, redirect_within } = received.confirmation;
      onRedirect(redirect, redirect_within);
    } else if (received?.confirmation.own_page && received.page) onOwnPage?.(received.page);
  }, [received, onRedirect, onOwnPage]);
  // All pages are done, and the form is not.
  const paying = (received?.payment?.state ?? "paid") !== "paid";
  const tools = useMemo<Tools>(
    () => ({
      locale: face.locale,
      currency: face.currency,
      firstWeekday: face.first_weekday,
      seed: session.seed,
      upload,
      offers: session.offers,
      byQuestion: isByQuestion(face),
      openPage: session.paged ? (id) => void session.visit(id) : null,
      waitFor: session.waitFor,
      waitNoMore: session.waitNoMore,
    }),
    [face, session, upload],
  );
  return (
    <main
      className={`${brandClasses(face.brand)} ${layoutClasses(face.brand)} cx-shown-${face.presentation}`}
      style={brandStyle(face.brand)}
    >
      {face.languages.length > 0 && phase !== "received" && <Languages face={face} />}
      <Banner face={face} />
      {face.progress.length > 0 && phase !== "welcome" && (
        <Progress
          face={face}
          state={state}
          page={paying ? (state.path.at(-1) ?? page) : page}
          done={phase === "received" && !paying}
        />
      )}
      <ToolsContext value={tools}>
        {phase === "welcome" && <WelcomePage session={session} />}
        {phase === "received" && (
          <Received
            received={received!}
            form={form}
            onNews={session.hear}
            address={address}
            onAgain={() => (onOwnPage || address === null ? session.again() : location.assign(address))}
          />
        )}
        {(phase === "filling" || phase === "sending") && (
          <Safe>
            {signedIn && (
              <p className="cx-signed-in">
                {say("signedIn", { name: signedIn })}
                {members && (
                  <a href={members} target="_blank" rel="noopener">
                    {say("ownPage")}
                  </a>
                )}
              </p>
            )}
            {signIn && <SignIn session={session} />}
            {face.presentation === "chat" ? (
              <Chat
                key={session.beganAt}
                session={session}
                form={form}
                later={later && <GoOnLater session={session} />}
              />
            ) : (
              <Filling session={session} form={form} later={later} />
            )}
            {onTrap && (
              <div className="cx-trap" aria-hidden="true">
                <input
                  name="homepage"
                  tabIndex={-1}
                  autoComplete="off"
                  onChange={({ target }) => onTrap(target.value)}
                />
              </div>
            )}
          </Safe>
        )}
      </ToolsContext>
    </main>
  );
}

function Filling({ session, form, later }: { session: FormSession; form: string; later: boolean }) {
  const { face } = session;
  const snapshot = useSnapshot(session);
  const { phase, refusal, tries, waiting, elsewhere, state, page, told } = snapshot;
  useEffect(() => {
    const [first] = told;
    if (first) document.getElementById(`${controlIdOf(first)}-feedback`)?.focus();
  }, [told]);
  // Blocks read their facts through the session; a new object lets them all look again.
  const around = session.surroundings();
  const pages = session.pages;
  const open = pages[0];
  const onwards = session.atEnd ? face.wording.submit : open?.next_label || face.wording.next;
  return (
    <form
      noValidate
      onKeyDown={(event) => {
        // A word that is still being composed is taken by its Enter.
        const isOurs = event.key === "Enter" && !event.nativeEvent.isComposing && !event.defaultPrevented;
        const stays = face.enter !== "send" && face.presentation !== "single";
        if (isOurs && stays && goToNext(event.target, event.currentTarget)) event.preventDefault();
      }}
      onClick={(event) => goesOn(session, event.target)}
      onSubmit={(event) => {
        event.preventDefault();
        if (session.atEnd) void session.submit();
        else void session.next();
      }}
    >
      <Restored session={session} snapshot={snapshot} />
      <Unpaid form={form} />
      {elsewhere && <p className="cx-restored">{say("elsewhere")}</p>}
      {refusal && <ErrorSummary key={tries} session={session} message={refusal} />}
      <SurroundingsContext value={around}>
        {pages.map((each) => (
          <PageSection
            key={each.id}
            page={each}
            title={pageTitle(each, state)}
            focused={session.paged}
            single={face.presentation === "single"}
          >
            {face.presentation === "single" && <Earlier session={session} snapshot={snapshot} meanwhile={<></>} />}
            <BlockList blocks={each.blocks} />
          </PageSection>
        ))}
      </SurroundingsContext>
      {state.error && snapshot.tries > 0 && session.atEnd && <p className="cx-error">{state.error.message}</p>}
      {told.length > 0 && <p className="cx-told">{say("answersTold")}</p>}
      <LineNews session={session} snapshot={snapshot} />
      <div className="cx-buttons">
        {!session.atStart && (
          <button type="button" className="cx-back" onClick={() => session.back()}>
            {open?.back_label || face.wording.back}
          </button>
        )}
        <button
          key={page}
          type="submit"
          className="cx-submit"
          aria-disabled={phase === "sending" || waiting || undefined}
        >
          {phase === "sending" ? say("sending") : onwards}
        </button>
      </div>
      {later && <GoOnLater session={session} />}
    </form>
  );
}

/** A page; when pages are shown one by one, its title takes the focus once it has replaced another. */
function PageSection({
  page,
  title,
  focused,
  single,
  children,
}: {
  page: FormFace["pages"][number];
  title: string;
  focused: boolean;
  single: boolean;
  children: ReactNode;
}) {
  const section = useRef<HTMLElement>(null);
  const first = useRef(opened === 0);
  useEffect(() => {
    opened += 1;
    if (!focused || first.current) return;
    // One question is answered at once; of several the first need not be the one that is.
    const control = single ? section.current?.querySelector<HTMLElement>("input, select, textarea") : null;
    (control ?? section.current)?.focus({ preventScroll: true });
    section.current?.closest("main")?.scrollIntoView({ block: "start" });
  }, [focused, single]);
  return (
    <section ref={section} className="cx-page" tabIndex={-1} aria-labelledby={title ? `page-${page.id}` : undefined}>
      {title && <h2 id={`page-${page.id}`}>{title}</h2>}
      {children}
    </section>
  );
}

// The first page of a visit leaves the focus where the browser put it.
let opened = 0;

function WelcomePage({ session }: { session: FormSession }) {
  const { state } = useSnapshot(session);
  const welcome = session.face.welcome!;
  const texts = state.texts?.[FORM];
  return (
    <div className="cx-received">
      <h2>{texts?.["welcome.title"] ?? welcome.title}</h2>
      <RichText html={texts?.["welcome.text"] ?? welcome.text} />
      <button
        type="button"
        className="cx-submit"
        onClick={() => {
          session.begin();
          // What was pressed is gone; the page that came takes the focus.
          requestAnimationFrame(() => document.querySelector<HTMLElement>(".cx-page")?.focus());
        }}
      >
        {welcome.button || session.face.wording.next}
      </button>
    </div>
  );
}

/** Puts the focus where a field is answered; says whether it is there. */
function focusField(address: string): boolean {
  const control = document.getElementById(controlIdOf(address));
  (control?.querySelector<HTMLElement>("input, select, textarea") ?? control)?.focus();
  return control !== null;
}

function ErrorSummary({ session, message }: { session: FormSession; message: string }) {
  const box = useRef<HTMLDivElement>(null);
  const wrong = session.wrongOn(session.pages).filter(({ label }) => label);
  const first = useRef(wrong[0]?.address);
  useEffect(() => {
    // People go on at the first field that is wrong; the summary is announced.
    if (!first.current || !focusField(first.current)) box.current?.focus();
  }, []);
  return (
    <div className="cx-summary" ref={box} tabIndex={-1} role="group" aria-labelledby="summary-title">
      <div role="alert">
        <h2 id="summary-title">{message}</h2>
      </div>
      {wrong.length > 0 && (
        <ul>
          {wrong.map(({ address, label, message: reason }) => (
            <li key={address}>
              <a
                href={`#${controlIdOf(address)}`}
                onClick={(event) => {
                  event.preventDefault();
                  focusField(address);
                }}
              >
                {label}
              </a>
              : {reason}
            </li>
          ))}
        </ul>
      )}
    </div>
  );
}
