// Answers that follow their default until the visitor changes them: shown, but never sent as the visitor's own.
import type { BlockState, FormState } from "../api/generated/wire";
import { type Answer, rowsIn } from "../fields/input";
import type { Answers } from "./transport";

export class Followed {
  /** Addresses whose answer is their default's just now. */
  private readonly following = new Set<string>();
  /** Addresses that the visitor changed. */
  private readonly own = new Set<string>();

  /** The visitor changed what stands there. */
  change(address: string): void {
    this.own.add(address);
    this.following.delete(address);
  }

  /** Takes what the core says, and says which addresses follow now. */
  take(state: FormState): ReadonlySet<string> {
    for (const [block, facts] of Object.entries(state.blocks)) {
      this.look(block, facts);
      for (const [row, inside] of Object.entries(facts.rows ?? {}))
        for (const [inner, each] of Object.entries(inside.blocks)) this.look(`${block}/${row}/${inner}`, each);
    }
    return this.following;
  }

  private look(address: string, facts: BlockState): void {
    if (!facts.follows) return;
    // What was changed while the reply was under way is the visitor's; while it is locked nobody can have changed it.
    if (facts.locked) this.own.delete(address);
    if (!this.own.has(address)) this.following.add(address);
  }

  /** The answers that are the visitor's own. */
  without(answers: Answers): Answers {
    if (this.following.size === 0) return answers;
    const own = Object.entries(answers).filter(([block]) => !this.following.has(block));
    return Object.fromEntries(own.map(([block, answer]) => [block, this.withoutInRows(block, answer)]));
  }

  private withoutInRows(block: string, answer: Answer): Answer {
    const begins = `${block}/`;
    if (![...this.following].some((address) => address.startsWith(begins))) return answer;
    return rowsIn(answer).map((row) => {
      const own = Object.entries(row.values).filter(([inner]) => !this.following.has(`${begins}${row.id}/${inner}`));
      return { ...row, values: Object.fromEntries(own) };
    });
  }

  forget(): void {
    this.following.clear();
    this.own.clear();
  }
}
