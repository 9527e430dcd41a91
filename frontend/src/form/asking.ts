// Asking the core: what hangs on which answers, which reply is the newest, and when to ask again.
import type { FormState } from "../api/generated/wire";
import { Retrying } from "./line";
import type { Line } from "./snapshot";
import { type Answers, RefusedError, type Transport } from "./transport";

const TYPING_PAUSE_MS = 180;

interface Host {
  answers: () => Answers;
  /** The questions of a quiz that the visitor is done with. */
  checked: () => readonly string[];
  /** Takes a reply; `whole` says that it holds everything, not only what hangs on what changed. */
  take: (reply: FormState, whole: boolean) => void;
  line: (line: Line) => void;
  refused: (error: RefusedError) => void;
}

export class Asking {
  /** Blocks that the server has not answered for yet, with the turn in which they are asked. */
  private readonly unanswered = new Map<string, number>();
  private asked = 0;
  private shown = 0;
  private wantsAll = false;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private due = false;
  private latest: Promise<void> = Promise.resolve();
  private readonly retrying: Retrying;

  constructor(
    private readonly transport: Pick<Transport, "state">,
    private readonly host: Host,
  ) {
    this.retrying = new Retrying((line) => host.line(line));
  }

  /** Whether something was entered of which the core has not spoken yet. */
  get behind(): boolean {
    return this.due || this.unanswered.size > 0;
  }

  /** After a pause in typing. */
  soon(block: string): void {
    this.unanswered.set(block, this.asked + 1);
    this.due = true;
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.now(), TYPING_PAUSE_MS);
  }

  /** Asks now of these blocks. */
  about(blocks: readonly string[]): Promise<void> {
    for (const block of blocks) this.unanswered.set(block, this.asked + 1);
    return this.now();
  }

  /** Resolves once the newest question has its answer, or there is none to be had. */
  now(everything = false): Promise<void> {
    clearTimeout(this.timer);
    this.due = false;
    this.wantsAll ||= everything;
    this.latest = this.ask(++this.asked);
    // What paused before is no longer the newest: it ends, and whoever waits for it waits for this.
    this.retrying.hurry();
    return this.latest;
  }

  private async ask(turn: number): Promise<void> {
    const whole = this.wantsAll;
    const changed = whole ? null : [...this.unanswered.keys()];
    try {
      const newest = () => turn === this.asked;
      const reply = await this.retrying.run(
        () => this.transport.state(this.host.answers(), changed, this.host.checked()),
        newest,
      );
      if (reply && turn > this.shown) this.take(reply, turn, whole);
      if (!newest()) await this.latest;
    } catch (error) {
      if (!(error instanceof RefusedError)) throw error;
      if (turn === this.asked) this.host.refused(error);
    }
  }

  /** A late reply never gets here, so a newer state is never overwritten by an older. */
  private take(reply: FormState, turn: number, whole: boolean): void {
    this.shown = turn;
    if (whole) this.wantsAll = false;
    for (const [block, asked] of this.unanswered) if (asked <= turn) this.unanswered.delete(block);
    this.host.take(reply, whole);
  }

  /** What was asked before is of no interest any more; replies to it are late. */
  forget(): void {
    this.unanswered.clear();
    this.shown = this.asked;
  }

  /** Whether there is something to ask again now. */
  hurry(): void {
    this.retrying.hurry();
  }

  stop(): void {
    clearTimeout(this.timer);
    this.due = false;
  }
}
