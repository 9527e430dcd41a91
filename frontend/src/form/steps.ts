// The way through a form whose steps are shown one by one. A step is a page; what applies, and in which order, the core
// said: nothing here knows more of a step than its id.

export class Steps {
  /** The furthest step that was reached: no address leads beyond it. */
  private furthest = 0;

  constructor(
    /** All steps in the author's order, those that don't apply too. */
    private readonly all: readonly string[],
    /** Those that apply now. */
    private readonly path: () => readonly string[],
  ) {}

  isFirst = (step: string | null): boolean => this.path()[0] === step;

  isLast = (step: string | null): boolean => this.path().at(-1) === step;

  after(step: string | null): string | null {
    const path = this.path();
    const at = path.indexOf(step ?? "");
    this.furthest = Math.max(this.furthest, at + 1);
    return path[at + 1] ?? null;
  }

  /** A step that is gone to, whatever was reached before. */
  arriveAt(step: string): string | null {
    const at = this.path().indexOf(step);
    this.furthest = Math.max(this.furthest, at);
    return at < 0 ? null : step;
  }

  before(step: string | null): string | null {
    const path = this.path();
    return path[path.indexOf(step ?? "") - 1] ?? null;
  }

  /** A step that was reached before; for another the furthest that was. */
  reached(step: string | null): string | null {
    const path = this.path();
    const at = path.indexOf(step ?? "");
    return path[Math.min(at < 0 ? 0 : at, this.furthest)] ?? null;
  }

  /** After a reload: as far towards a step as the answers allow; `stuck` says whether one can't be left yet. */
  asFarAs(step: string | null, stuck: (step: string) => boolean): string | null {
    const path = this.path();
    const first = path.findIndex(stuck);
    this.furthest = first < 0 ? path.length - 1 : first;
    return this.reached(path[Math.max(0, Math.min(path.indexOf(step ?? ""), this.furthest))] ?? null);
  }

  /** For a step that no longer applies, the one that comes last before it. */
  nearest(step: string | null): string | null {
    const path = this.path();
    const place = this.all.indexOf(step ?? "");
    return path.filter((id) => this.all.indexOf(id) < place).at(-1) ?? path[0] ?? null;
  }

  startAgain(): void {
    this.furthest = 0;
  }
}
