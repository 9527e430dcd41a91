// Trying again: what can heal is tried with growing pauses, a limit, and at once when the line is back.
import type { Line } from "./snapshot";
import { AwayError } from "./transport";

const RETRY_MS = [1_000, 2_000, 4_000, 8_000, 15_000, 15_000];
const SLOW_MS = 8_000;

/** Runs requests until they come through, are refused, or were tried too often; nobody who waits is left waiting. */
export class Retrying {
  private wake: (() => void) | null = null;
  private failures = 0;

  constructor(private readonly tell: (line: Line) => void) {}

  /**
   * The reply, or null where `stillWanted` no longer holds or the line is lost.
   * Rejects with what is no AwayError: trying the same again would not help.
   */
  async run<Reply>(attempt: () => Promise<Reply>, stillWanted: () => boolean): Promise<Reply | null> {
    for (;;) {
      const slow = setTimeout(() => stillWanted() && this.tell("slow"), SLOW_MS);
      try {
        const reply = await attempt();
        this.failures = 0;
        this.tell("fine");
        return reply;
      } catch (error) {
        if (!(error instanceof AwayError)) {
          this.failures = 0;
          this.tell("fine");
          throw error;
        }
        if (!stillWanted()) return null;
        if (this.failures >= RETRY_MS.length) {
          this.failures = 0;
          this.tell("lost");
          return null;
        }
        this.tell("away");
        await this.pause(Math.max(RETRY_MS[this.failures++]!, error.after));
        if (!stillWanted()) return null;
      } finally {
        clearTimeout(slow);
      }
    }
  }

  private pause(milliseconds: number): Promise<void> {
    return new Promise((resolve) => {
      const timer = setTimeout(resolve, milliseconds);
      this.wake = () => {
        clearTimeout(timer);
        resolve();
      };
    });
  }

  /** Whoever pauses goes on at once: the line came back, or something newer is asked. */
  hurry(): void {
    this.wake?.();
    this.wake = null;
  }
}
