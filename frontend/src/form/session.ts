// One visitor filling in one form: what was typed, what the core said of it, and the way between them.
// No React: the view subscribes. The browser never decides; it shows what the core said last.
import type { ErrorFace, FormFace, FormState, PublicPage } from "../api/generated/wire";
import type { Answer } from "../fields/input";
import { type Answers, AwayError, RefusedError, type Transport } from "./transport";

const TYPING_PAUSE_MS = 180;
const RETRY_MS = [1_000, 2_000, 4_000, 8_000, 15_000];

export interface Snapshot {
  answers: Answers;
  state: FormState;
  /** Blocks whose errors may be shown: they were left, or sending was tried. */
  visited: ReadonlySet<string>;
  phase: "filling" | "sending" | "received";
  /** Whether the server could not be reached and is asked again by itself. */
  away: boolean;
  /** Why sending was refused, as a sentence. */
  refusal: string | null;
  /** Counts failed tries to send; the error summary takes the focus when it grows. */
  tries: number;
}

export class FormSession {
  private snapshot: Snapshot;
  private readonly listeners = new Set<() => void>();
  private readonly asks: ReadonlySet<string>;
  private asked = 0;
  private shownTurn = 0;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private failures = 0;
  private key = crypto.randomUUID();

  constructor(
    readonly face: FormFace,
    page: Pick<PublicPage, "state">,
    private readonly transport: Pick<Transport, "state" | "submit">,
  ) {
    this.asks = new Set(face.asks);
    this.snapshot = {
      answers: {},
      state: page.state,
      visited: new Set(),
      phase: "filling",
      away: false,
      refusal: null,
      tries: 0,
    };
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

  change(block: string, answer: Answer): void {
    // Other answers are another response: a key stands for exactly one.
    this.key = crypto.randomUUID();
    this.set({ answers: { ...this.snapshot.answers, [block]: answer }, refusal: null });
    if (this.asks.has(block)) this.askSoon(TYPING_PAUSE_MS);
    else this.forgetError(block);
  }

  /** What was wrong with an answer that nothing depends on no longer holds once it was changed. */
  private forgetError(block: string): void {
    const state = this.snapshot.state.blocks[block];
    if (!state?.error || state.error.code === "required") return;
    this.set({ state: { blocks: { ...this.snapshot.state.blocks, [block]: { ...state, error: null } } } });
  }

  leave(block: string): void {
    if (!this.snapshot.visited.has(block)) this.set({ visited: new Set(this.snapshot.visited).add(block) });
  }

  /** What is wrong with a block, if it may be said by now. */
  errorOf(block: string): ErrorFace | null {
    const { answers, state, visited } = this.snapshot;
    const facts = state.blocks[block];
    if (!visited.has(block) || !facts?.shown) return null;
    const blank = (answers[block] ?? null) === null;
    if (facts.error && facts.error.code !== "required") return facts.error;
    return facts.required && blank ? { code: "required", message: this.face.wording.required } : null;
  }

  private askSoon(delay: number): void {
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.ask(), delay);
  }

  private async ask(): Promise<void> {
    const turn = ++this.asked;
    try {
      const state = await this.transport.state(this.snapshot.answers);
      this.failures = 0;
      // A late answer never overwrites a newer one.
      if (turn > this.shownTurn) {
        this.shownTurn = turn;
        this.set({ state, away: false });
      } else if (this.snapshot.away) this.set({ away: false });
    } catch (error) {
      if (turn !== this.asked) return;
      if (error instanceof AwayError) this.tryAgain(() => void this.ask());
      else if (error instanceof RefusedError) this.set({ refusal: error.message, away: false });
    }
  }

  private tryAgain(attempt: () => void): void {
    this.set({ away: true });
    const delay = RETRY_MS[Math.min(this.failures++, RETRY_MS.length - 1)];
    clearTimeout(this.timer);
    this.timer = setTimeout(attempt, delay);
  }

  /** The connection came back: do not wait for the next try. */
  hurry(): void {
    if (!this.snapshot.away) return;
    clearTimeout(this.timer);
    if (this.snapshot.phase === "sending") void this.send();
    else void this.ask();
  }

  submit(): void {
    if (this.snapshot.phase !== "filling") return;
    clearTimeout(this.timer);
    this.set({ phase: "sending", refusal: null });
    void this.send();
  }

  private async send(): Promise<void> {
    try {
      await this.transport.submit(this.snapshot.answers, this.key);
      this.set({ phase: "received", away: false });
    } catch (error) {
      if (error instanceof AwayError) this.tryAgain(() => void this.send());
      else if (error instanceof RefusedError) this.refused(error);
      else throw error;
    }
  }

  private refused(error: RefusedError): void {
    this.failures = 0;
    const wrong = error.reply.errors;
    const blocks = { ...this.snapshot.state.blocks };
    for (const [block, facts] of Object.entries(blocks)) blocks[block] = { ...facts, error: wrong[block] ?? null };
    this.shownTurn = this.asked;
    this.set({
      phase: "filling",
      away: false,
      state: { blocks },
      visited: new Set(Object.keys(blocks)),
      refusal: error.message,
      tries: this.snapshot.tries + 1,
    });
  }
}
