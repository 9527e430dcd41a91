// One visitor filling in one form: what is entered, what the core says of it, the way through the pages, handing in.
// No React: the view subscribes. The browser never decides; it shows what the core said last.
import type {
  BlockState,
  ErrorFace,
  FormFace,
  FormState,
  KeepReply,
  MemberSignInReply,
  MemberSignInRequest,
  PublicPage,
  FoundOffersReply,
  SpokenReply,
} from "../api/generated/wire";
import type { Answer, Sought, Surroundings } from "../fields/input";
import { say } from "../text/visitor";
import { Asking } from "./asking";
import { Entered, type Wrong } from "./entered";
import { blocksWithin, stampsIn, withErrors, withFills } from "./facts";
import type { AnswerStore, Kept } from "./kept_answers";
import { begun, type Later, newToken } from "./later";
import { Followed } from "./followed";
import { Retrying } from "./line";
import { FORM, type Snapshot } from "./snapshot";
import { Steps } from "./steps";
import { type Answers, RefusedError, type Transport } from "./transport";

const SAVING_PAUSE_MS = 300;
const SIGN_IN = "sign_in_needed"; // the code of what is refused to guests

interface Start extends Pick<PublicPage, "state"> {
  /** Which edition it is; none is told of in a preview. */
  edition?: number;
  /** The id of the page that the address asked for. */
  page?: string | null;
  /** What was received, where its confirmation is seen again on a page of its own. */
  received?: PublicPage["received"];
  /** Who is signed in, by name. */
  visitor?: string;
  /** What a private link brought. */
  kept?: PublicPage["kept"];
}

type Asked = Pick<Transport, "state" | "submit"> &
  Partial<Pick<Transport, "news" | "keep" | "mailLink" | "spoken" | "offers" | "signIn">>;

export class FormSession {
  private snapshot: Snapshot;
  private readonly listeners = new Set<() => void>();
  private readonly asks: ReadonlySet<string>;
  private readonly asking: Asking;
  private readonly entered: Entered;
  private readonly steps: Steps;
  private readonly followed = new Followed();
  private readonly sending = new Retrying((line) => this.set({ line }));
  private readonly understanding = new Retrying((line) => this.set({ line }));
  private saving: ReturnType<typeof setTimeout> | undefined;
  /** Stands for one response, however often it is sent. */
  private key: string;
  /** Files that are not here, by whether they were refused: others are on their way, or did not get through. */
  private readonly missingFiles = new Map<number, boolean>();
  /** Whether the visitor has entered anything: defaults alone are not worth keeping. */
  private touched: boolean;
  private readonly edition: number | undefined;
  /** When the visitor began, in milliseconds since 1970. */
  private began: number;
  readonly seed: number;

  constructor(
    readonly face: FormFace,
    start: Start,
    private readonly transport: Asked,
    private readonly store: AnswerStore | null = null,
  ) {
    this.asks = new Set(face.asks);
    const { kept, here } = begun(store?.load() ?? null, start.kept ?? null);
    const answers = kept ? this.stillAsked(kept) : {};
    const restored = Object.keys(answers).length > 0;
    this.seed = kept?.seed ?? Math.floor(Math.random() * 2 ** 31);
    this.key = kept?.key ?? crypto.randomUUID();
    this.touched = restored;
    this.edition = start.edition;
    this.began = (restored && kept?.began) || Date.now();
    this.snapshot = {
      answers: withFills(answers, start.state, this.followed.take(start.state)),
      state: start.state,
      visited: new Set(),
      phase: start.received ? "received" : face.welcome && !restored ? "welcome" : "filling",
      page: start.state.path[0] ?? null,
      waiting: false,
      line: "fine",
      refusal: null,
      tries: 0,
      restored,
      keptOn: start.kept?.when ?? null,
      here,
      later: kept?.later ?? null,
      news: [],
      elsewhere: store?.elsewhere ?? false,
      checked: new Set(restored ? (kept?.checked ?? []) : []),
      told: [],
      signedIn: start.visitor ?? "",
      signIn: false,
      received: start.received ?? null,
    };
    this.asking = new Asking(transport, {
      answers: () => this.ownAnswers(),
      checked: () => [...this.snapshot.checked],
      take: (reply, whole) => this.take(reply, whole),
      line: (line) => this.set({ line }),
      refused: (error) => this.set({ refusal: error.message, signIn: error.reply.code === SIGN_IN }),
    });
    this.entered = new Entered(face, start.state, {
      read: this.read,
      change: (block, answer) => this.change(block, answer),
      touch: (address) => this.followed.change(address),
      leave: (address) => this.leave(address),
      checkOf: (block) => (this.mayCheck(block) ? () => void this.check(block) : null),
    });
    this.steps = new Steps(
      face.pages.map((page) => page.id),
      () => this.snapshot.state.path,
    );
    this.restore(kept, start.page ?? kept?.page ?? null, restored);
  }

  private restore(kept: Kept | null, wanted: string | null, restored: boolean): void {
    // Shuffled options keep their order over a reload even before anything is answered.
    if (this.store && !kept)
      this.store.save({ answers: {}, page: null, seed: this.seed, key: this.key, sending: false });
    if (kept?.sending) {
      // It was being sent when the page was left: what came of it, the same key asks.
      this.set({ phase: "sending", answers: kept.answers });
      void this.send();
    } else if (restored) {
      const { page } = this.snapshot;
      // Who has gone on meanwhile stays there.
      void this.asking.now(true).then(() => this.goAsFarAs(this.snapshot.page === page ? wanted : this.snapshot.page));
    }
    if (restored && kept?.edition && this.edition && kept.edition !== this.edition)
      void this.transport.news?.(kept.edition).then((news) => this.set({ news }));
  }

  /** When the visitor began; another time, once they begin anew. */
  get beganAt(): number {
    return this.began;
  }

  /** Whether the visitor has entered anything. */
  get isTouched(): boolean {
    return this.touched;
  }

  /** Answers of an earlier visit to blocks that the form still has. */
  private stillAsked(kept: Kept): Answers {
    const known = new Set(blocksWithin(this.face.pages.flatMap((page) => page.blocks)).map((block) => block.id));
    return Object.fromEntries(Object.entries(kept.answers).filter(([block]) => known.has(block)));
  }

  readonly read = (): Snapshot => this.snapshot;

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  private set(changes: Partial<Snapshot>): void {
    this.snapshot = { ...this.snapshot, ...changes };
    this.listeners.forEach((listener) => listener());
  }

  // What is entered

  change(block: string, answer: Answer): void {
    // Other answers are another response: a key stands for exactly one.
    this.key = crypto.randomUUID();
    this.touched = true;
    this.followed.change(block);
    this.uncheck(block);
    this.set({ answers: { ...this.snapshot.answers, [block]: answer }, refusal: null });
    this.learn({ unkept: true });
    this.saveSoon();
    if (this.asks.has(block)) this.asking.soon(block);
    else this.forgetError(block);
  }

  /** The answers without those that follow their default: what is the visitor's own. */
  ownAnswers(): Answers {
    return this.followed.without(this.snapshot.answers);
  }

  // What of a quiz was right

  private mayCheck(block: string): boolean {
    const { quiz } = this.face;
    const { answers, checked, state, phase } = this.snapshot;
    const asks = quiz?.when === "at_once" && quiz.questions.includes(block) && !checked.has(block);
    return asks && phase === "filling" && (answers[block] ?? null) !== null && !state.blocks[block]?.locked;
  }

  /** The visitor is done with an answer: the core says whether it is right, or what is wrong with it in itself. */
  async check(block: string): Promise<void> {
    this.leave(block);
    this.set({ checked: new Set(this.snapshot.checked).add(block) });
    await this.asking.about([block]);
    // Nothing is told of an answer that is none.
    if (!this.snapshot.state.blocks[block]?.feedback) this.uncheck(block);
    this.saveSoon();
  }

  private uncheck(block: string): void {
    const { checked, state } = this.snapshot;
    if (!checked.has(block)) return;
    const facts = state.blocks[block]!;
    this.set({
      checked: new Set([...checked].filter((each) => each !== block)),
      state: { ...state, blocks: { ...state.blocks, [block]: { ...facts, feedback: null } } },
    });
  }

  /** Tells of the answers on this page whether they are right, once; says whether there was anything to tell. */
  private async tellOfPage(): Promise<boolean> {
    const { answers, checked } = this.snapshot;
    const here = new Set(blocksWithin(this.pages.flatMap((page) => page.blocks)).map(({ id }) => id));
    const asked = (this.face.quiz?.questions ?? []).filter(
      (block) => here.has(block) && !checked.has(block) && (answers[block] ?? null) !== null,
    );
    if (asked.length === 0) return false;
    this.set({ checked: new Set([...checked, ...asked]), waiting: true });
    await this.asking.about(asked);
    const { state } = this.snapshot;
    const told = asked.filter((block) => state.blocks[block]?.feedback);
    this.set({ waiting: false, told });
    this.saveSoon();
    return told.length > 0;
  }

  /** What was wrong with an answer that nothing depends on no longer holds once it was changed. */
  private forgetError(block: string): void {
    const { state } = this.snapshot;
    const facts: BlockState | undefined = state.blocks[block];
    if (!facts?.error || facts.error.code === "required") return;
    this.set({ state: { ...state, blocks: { ...state.blocks, [block]: { ...facts, error: null } } } });
  }

  leave(address: string): void {
    if (!this.snapshot.visited.has(address)) this.set({ visited: new Set(this.snapshot.visited).add(address) });
  }

  readonly waitFor = (file: number, refused = false): void => void this.missingFiles.set(file, refused);

  readonly waitNoMore = (file: number): void => void this.missingFiles.delete(file);

  /** Why the form can't go on for its files, or null. */
  private get filesNews(): string | null {
    const refused = [...this.missingFiles.values()];
    if (refused.length === 0) return null;
    return say(refused.every(Boolean) ? "filesRefused" : "filesMissing");
  }

  surroundings = (repeat?: string, row?: string): Surroundings => this.entered.surroundings(repeat, row);

  errorOf = (address: string): ErrorFace | null => this.entered.errorOf(address);

  wrongOn = (pages: FormFace["pages"]): Wrong[] => this.entered.wrongOn(pages);

  // What the core says

  private take(reply: FormState, whole: boolean): void {
    const { state } = this.snapshot;
    const merged = whole
      ? reply
      : { ...reply, blocks: { ...state.blocks, ...reply.blocks }, texts: { ...state.texts, ...reply.texts } };
    this.set({ state: merged, answers: withFills(this.snapshot.answers, reply, this.followed.take(reply)) });
    const { page } = this.snapshot;
    if (this.paged && page && !merged.path.includes(page)) this.open(this.steps.nearest(page));
  }

  /** The line came back, or the visitor asks for another try. */
  hurry(): void {
    this.asking.hurry();
    this.sending.hurry();
    this.understanding.hurry();
    if (this.snapshot.line === "lost" && this.snapshot.phase === "filling") void this.asking.now(true);
  }

  // The way through the pages

  get paged(): boolean {
    return this.face.presentation !== "whole";
  }

  /** The pages to show now: the one that is open, or all that apply. */
  get pages(): FormFace["pages"] {
    const { page, state } = this.snapshot;
    const applying = this.face.pages.filter((each) => state.path.includes(each.id));
    return this.paged ? applying.filter((each) => each.id === page) : applying;
  }

  get atEnd(): boolean {
    return !this.paged || this.steps.isLast(this.snapshot.page);
  }

  get atStart(): boolean {
    return !this.paged || this.steps.isFirst(this.snapshot.page);
  }

  begin(): void {
    this.set({ phase: "filling" });
  }

  /** Goes on to the next page, once nothing on this one is wrong. */
  async next(): Promise<void> {
    if (await this.mayGoOn()) this.open(this.steps.after(this.snapshot.page));
  }

  /** Goes to a step that applies, whether it was reached before or not: what a conversation asks next. */
  goTo(step: string): void {
    this.open(this.steps.arriveAt(step));
  }

  /** What the core makes of words that were said to a question. Resolves to null where it can't be asked now. */
  async understand(block: string, words: string): Promise<SpokenReply | null> {
    this.set({ waiting: true });
    try {
      return await this.understanding.run(
        () => this.transport.spoken!(block, words),
        () => this.snapshot.waiting,
      );
    } catch (error) {
      if (!(error instanceof RefusedError)) throw error;
      this.set({ refusal: error.message });
      return null;
    } finally {
      this.set({ waiting: false });
    }
  }

  /** Whether nothing on this page is wrong, and nothing more is to be told of it. */
  async mayGoOn(): Promise<boolean> {
    if (this.snapshot.waiting || this.snapshot.phase !== "filling") return false;
    if (this.asking.behind) {
      this.set({ waiting: true });
      await this.asking.now();
      this.set({ waiting: false });
      // The core could not be asked: what stands here is not known to be right.
      if (this.asking.behind) return false;
    }
    if (this.entered.wrongOn(this.pages).length > 0) this.refuse(say("someWrong"));
    else if (this.filesNews) this.refuse(this.filesNews);
    else return !(await this.tellOfPage());
    return false;
  }

  back(): void {
    this.open(this.steps.before(this.snapshot.page));
  }

  /** Opens a page that was reached before; another address leads to the furthest that was. Returns what is open. */
  visit(page: string | null): string | null {
    this.open(this.steps.reached(page));
    return this.snapshot.page;
  }

  private goAsFarAs(page: string | null): void {
    const stuck = (id: string) => this.entered.wrongOn(this.face.pages.filter((each) => each.id === id)).length > 0;
    this.open(this.steps.asFarAs(page, stuck));
  }

  private open(page: string | null): void {
    if (!page || page === this.snapshot.page) return;
    this.set({ page, refusal: null, told: [] });
    this.saveSoon();
  }

  private refuse(message: string, pages = this.pages): void {
    const addresses = this.entered.addressesOn(pages).map(({ address }) => address);
    const visited = new Set([...this.snapshot.visited, ...addresses]);
    this.set({ visited, refusal: message, tries: this.snapshot.tries + 1 });
  }

  // Handing in

  /** Hands in; of a quiz, once it was told what was right on the last page. */
  async submit(): Promise<void> {
    if (this.face.quiz && !(await this.mayGoOn())) return;
    this.handIn();
  }

  private handIn(): void {
    if (this.snapshot.phase !== "filling") return;
    if (this.filesNews) return this.refuse(this.filesNews);
    this.asking.stop();
    this.set({ phase: "sending", refusal: null });
    void this.send();
  }

  /** What became of the payment of what was handed in. */
  readonly hear = (received: Snapshot["received"]): void => this.set({ received });

  private async send(): Promise<void> {
    const [answers, seen] = [this.ownAnswers(), stampsIn(this.snapshot.state)];
    clearTimeout(this.saving);
    this.keep(true);
    try {
      const received = await this.sending.run(
        () => this.transport.submit(answers, this.key, this.seconds, this.snapshot.later?.token, seen),
        () => this.snapshot.phase === "sending",
      );
      if (received) {
        this.store?.clear();
        this.set({ phase: "received", received });
      } else this.notSent(say("lostSending"));
    } catch (error) {
      if (!(error instanceof RefusedError)) throw error;
      this.refused(error);
    }
  }

  /** It did not get through; the same key goes on standing for it until something is changed. */
  private notSent(message: string): void {
    this.set({ phase: "filling", line: "fine" });
    this.refuse(message, []);
  }

  private refused(error: RefusedError): void {
    this.keep(false);
    this.asking.forget();
    const wrong = error.reply.errors;
    const { state } = this.snapshot;
    const blocks = Object.fromEntries(
      Object.entries(state.blocks).map(([block, facts]) => [block, withErrors(block, facts, wrong)]),
    );
    this.set({ phase: "filling", state: { ...state, blocks, error: wrong[FORM] ?? null } });
    const pages = this.face.pages.filter((page) => state.path.includes(page.id));
    const first = pages.find((page) => this.entered.wrongOn([page]).length > 0);
    if (this.paged && first) this.open(first.id);
    const changed = Object.values(wrong).find((each) => each.code === "record_changed");
    const known = Object.values(wrong).some((each) => each.code === "known_member");
    this.set({ signIn: known || error.reply.code === SIGN_IN });
    this.refuse(wrong[FORM]?.message ?? changed?.message ?? error.message, pages);
    // What was chosen is shown as it is now.
    if (changed) void this.asking.now(true);
  }

  private get seconds(): number {
    return Math.round((Date.now() - this.began) / 1_000);
  }

  /** What a question offers, with what is answered now: records that words find, or slots from a day on. */
  readonly offers = (address: string, sought: Sought): Promise<FoundOffersReply> =>
    this.transport.offers!(this.ownAnswers(), address, sought);

  // Who fills in

  /** Signs in, or has a mail sent; once somebody is signed in, all is asked anew. Rejects as the transport does. */
  async signIn(typed: Omit<MemberSignInRequest, "entry">): Promise<MemberSignInReply> {
    const reply = await this.transport.signIn!(typed);
    if (reply.visitor) {
      // It is another response now: theirs.
      this.key = crypto.randomUUID();
      this.set({ signedIn: reply.visitor, signIn: false, refusal: null });
      await this.asking.now(true);
    }
    return reply;
  }

  // Going on later

  /** Keeps the answers on the server; `over` what others kept by the same link meanwhile. Rejects as the transport does. */
  async keepForLater(over: boolean): Promise<KeepReply> {
    const { page, checked } = this.snapshot;
    const { token, version } = this.snapshot.later ?? { token: newToken(), version: 0 };
    // What is entered from here on is new. A reply that is lost was kept all the same: the token stays.
    this.set({ later: { token, version, unkept: false } });
    const { seed, began } = this;
    const standing = { page, checked: [...checked], seed, began, answers: this.ownAnswers() };
    try {
      const reply = await this.transport.keep!({ ...standing, token, version: over ? null : version });
      this.learn({ version: reply.version });
      this.keep(false);
      return reply;
    } catch (error) {
      this.learn({ unkept: true });
      throw error;
    }
  }

  private learn(changes: Partial<Later>): void {
    const { later } = this.snapshot;
    if (later) this.set({ later: { ...later, ...changes } });
  }

  /** Has the private link sent by mail. */
  async mailLater(email: string): Promise<void> {
    await this.transport.mailLink!(this.snapshot.later!.token, email);
  }

  /** Shows what was entered on this device in place of what the link brought. */
  showHere(): void {
    const { here } = this.snapshot;
    if (!here) return;
    this.fillIn(here);
    this.set({ here: null });
    this.learn({ unkept: true });
    this.saveSoon();
  }

  // What is kept on the device

  private saveSoon(): void {
    if (!this.store) return;
    clearTimeout(this.saving);
    this.saving = setTimeout(() => this.save(), SAVING_PAUSE_MS);
  }

  save(): void {
    if (this.snapshot.phase !== "received" && this.touched) this.keep(this.snapshot.phase === "sending");
  }

  private keep(sending: boolean): void {
    const { page, checked, later } = this.snapshot;
    const answers = this.ownAnswers();
    const { seed, key, edition, began } = this;
    const language = this.face.locale;
    this.store?.save({ answers, page, seed, key, checked: [...checked], edition, began, later, sending, language });
  }

  /** Takes these answers instead of all that were given, as in a preview. */
  fillIn(answers: Answers): void {
    this.asking.forget();
    this.key = crypto.randomUUID();
    this.followed.forget();
    const nothing = { checked: new Set<string>(), told: [] };
    this.set({ answers, visited: new Set(), refusal: null, phase: "filling", received: null, ...nothing });
    void this.asking.now(true).then(() => this.goAsFarAs(this.snapshot.page));
  }

  /** Begins once more, after it was received. */
  again(): void {
    this.set({ phase: this.face.welcome ? "welcome" : "filling", received: null });
    this.startAgain();
  }

  startAgain(): void {
    clearTimeout(this.saving);
    this.store?.clear();
    this.asking.forget();
    this.steps.startAgain();
    this.key = crypto.randomUUID();
    this.touched = false;
    this.began = Date.now();
    this.followed.forget();
    this.set({
      answers: {},
      page: this.snapshot.state.path[0] ?? null,
      visited: new Set(),
      restored: false,
      here: null,
      later: null,
      news: [],
      refusal: null,
      checked: new Set(),
      told: [],
    });
    void this.asking.now(true).then(() => this.visit(null));
  }
}
