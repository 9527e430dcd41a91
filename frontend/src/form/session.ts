// One visitor filling in one form: what was typed, what the core said of it, and the way between them.
// No React: the view subscribes. The browser never decides; it shows what the core said last.
import type {
  BlockState,
  ConfirmationFace,
  ErrorFace,
  FormFace,
  FormState,
  PublicPage,
  RowState,
  ShapedRowKindFace,
} from "../api/generated/wire";
import { type Answer, type RowAnswer, rowsIn, shownKinds, type Surroundings } from "../fields/input";
import { say } from "../text/visitor";
import { blocksWithin, labelOf, withErrors, withFills } from "./facts";
import { type AnswerStore, type Kept } from "./kept_answers";
import { type Answers, AwayError, RefusedError, type Transport } from "./transport";

const TYPING_PAUSE_MS = 180;
const SAVING_PAUSE_MS = 300;
const RETRY_MS = [1_000, 2_000, 4_000, 8_000, 15_000];
export const FORM = "whole-form"; // the address of what is wrong with the form as a whole

export type Phase = "welcome" | "filling" | "sending" | "received";

export interface Snapshot {
  answers: Answers;
  state: FormState;
  /** Addresses whose errors may be shown: they were left, or leaving their page was tried. */
  visited: ReadonlySet<string>;
  phase: Phase;
  /** The page that is shown, where pages are shown one by one. */
  page: string | null;
  /** Whether the next page waits for the server. */
  waiting: boolean;
  /** Whether the server could not be reached and is asked again by itself. */
  away: boolean;
  /** Why going on was refused, as a sentence. */
  refusal: string | null;
  /** Counts failed tries to go on; the error summary takes the focus when it grows. */
  tries: number;
  /** Whether answers of an earlier visit were put back. */
  restored: boolean;
  confirmation: ConfirmationFace | null;
}

interface Start extends Pick<PublicPage, "state"> {
  /** The id of the page that the address asked for. */
  page?: string | null;
}

export class FormSession {
  private snapshot: Snapshot;
  private readonly listeners = new Set<() => void>();
  private readonly asks: ReadonlySet<string>;
  /** Blocks that the server has not answered for yet, with the turn in which they are asked. */
  private readonly unanswered = new Map<string, number>();
  private asked = 0;
  private shownTurn = 0;
  private due = false;
  private timer: ReturnType<typeof setTimeout> | undefined;
  private saving: ReturnType<typeof setTimeout> | undefined;
  private failures = 0;
  private key = crypto.randomUUID();
  /** The furthest page that was reached: no address leads beyond it. */
  private furthest = 0;
  /** Files on their way, and those that did not get through. */
  private readonly missingFiles = new Set<number>();
  /** Whether the visitor has entered anything: defaults alone are not worth keeping. */
  private touched = false;
  readonly seed: number;
  private readonly fresh: NonNullable<FormState["fresh"]>;

  constructor(
    readonly face: FormFace,
    start: Start,
    private readonly transport: Pick<Transport, "state" | "submit">,
    private readonly store: AnswerStore | null = null,
  ) {
    this.asks = new Set(face.asks);
    this.fresh = start.state.fresh ?? {};
    const kept = store?.load() ?? null;
    const answers = kept ? this.stillAsked(kept) : {};
    const restored = Object.keys(answers).length > 0;
    this.seed = kept?.seed ?? Math.floor(Math.random() * 2 ** 31);
    this.snapshot = {
      answers: withFills(answers, start.state),
      state: start.state,
      visited: new Set(),
      phase: face.welcome && !restored ? "welcome" : "filling",
      page: start.state.path[0] ?? null,
      waiting: false,
      away: false,
      refusal: null,
      tries: 0,
      restored,
      confirmation: null,
    };
    this.touched = restored;
    const wanted = start.page ?? kept?.page ?? null;
    // Shuffled options keep their order over a reload even before anything is answered.
    if (store && !kept) store.save({ answers: {}, page: null, seed: this.seed });
    if (restored) void this.ask(true).then(() => this.goAsFarAs(wanted));
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

  get paged(): boolean {
    return this.face.presentation === "paged";
  }

  /** The pages to show now: the one that is open, or all that apply. */
  get pages(): FormFace["pages"] {
    const { page, state } = this.snapshot;
    const applying = this.face.pages.filter((each) => state.path.includes(each.id));
    return this.paged ? applying.filter((each) => each.id === page) : applying;
  }

  get atEnd(): boolean {
    return !this.paged || this.snapshot.state.path.at(-1) === this.snapshot.page;
  }

  get atStart(): boolean {
    return !this.paged || this.snapshot.state.path[0] === this.snapshot.page;
  }

  // What is entered

  change(block: string, answer: Answer): void {
    // Other answers are another response: a key stands for exactly one.
    this.key = crypto.randomUUID();
    this.touched = true;
    this.set({ answers: { ...this.snapshot.answers, [block]: answer }, refusal: null });
    this.saveSoon();
    if (this.asks.has(block)) this.askSoon(block);
    else this.forgetError(block);
  }

  private changeInRow(repeat: string, row: string, block: string, answer: Answer): void {
    const changed = this.rowsOf(repeat).map((each) =>
      each.id === row ? { ...each, values: { ...each.values, [block]: answer } } : each,
    );
    this.change(repeat, changed as unknown as Answer);
  }

  /** What was wrong with an answer that nothing depends on no longer holds once it was changed. */
  private forgetError(block: string): void {
    const facts = this.snapshot.state.blocks[block];
    if (!facts?.error || facts.error.code === "required") return;
    this.setBlock(block, { ...facts, error: null });
  }

  private setBlock(block: string, facts: BlockState): void {
    const { state } = this.snapshot;
    this.set({ state: { ...state, blocks: { ...state.blocks, [block]: facts } } });
  }

  leave(address: string): void {
    if (!this.snapshot.visited.has(address)) this.set({ visited: new Set(this.snapshot.visited).add(address) });
  }

  readonly waitFor = (file: number): void => void this.missingFiles.add(file);

  readonly waitNoMore = (file: number): void => void this.missingFiles.delete(file);

  // What is shown

  /** Where the blocks of the form stand, or with a row those inside it. */
  surroundings(repeat?: string, row?: string): Surroundings {
    const inRow = repeat !== undefined && row !== undefined;
    const prefix = inRow ? `${repeat}/${row}/` : "";
    const rowState = (): RowState | undefined => this.snapshot.state.blocks[repeat!]?.rows?.[row!];
    return {
      prefix,
      factsOf: (block) => (inRow ? this.factsInRow(rowState(), repeat, row, block) : this.snapshot.state.blocks[block]),
      answerOf: (block) =>
        inRow ? (this.rowAnswer(repeat, row)?.values[block] ?? null) : (this.snapshot.answers[block] ?? null),
      errorOf: (block) => this.errorOf(prefix + block)?.message ?? null,
      change: (block, answer) => (inRow ? this.changeInRow(repeat, row, block, answer) : this.change(block, answer)),
      leave: (block) => this.leave(prefix + block),
      row: (inner, id) => this.surroundings(inner, id),
      rowErrorOf: (inner, id) => {
        const error = this.snapshot.state.blocks[inner]?.rows?.[id]?.error;
        return error && this.snapshot.visited.has(inner) ? error.message : null;
      },
    };
  }

  /** What is true of a block in a row; of a new row what is true of any new one, until the server has seen it. */
  private factsInRow(state: RowState | undefined, repeat: string, row: string, block: string): BlockState | undefined {
    return state ? state.blocks[block] : this.fresh[this.rowAnswer(repeat, row)?.kind ?? ""]?.[block];
  }

  private rowAnswer(repeat: string, row: string): RowAnswer | undefined {
    return this.rowsOf(repeat).find((each) => each.id === row);
  }

  private factsAt(address: string): { facts: BlockState | undefined; answer: Answer } {
    const [repeat, row, block] = address.split("/");
    const { answers, state } = this.snapshot;
    if (!row || !block) return { facts: state.blocks[address], answer: answers[address] ?? null };
    return {
      facts: this.factsInRow(state.blocks[repeat!]?.rows?.[row], repeat!, row, block),
      answer: this.rowAnswer(repeat!, row)?.values[block] ?? null,
    };
  }

  /** What is wrong at an address, if it may be said by now. */
  errorOf(address: string): ErrorFace | null {
    return this.snapshot.visited.has(address) ? this.wrongAt(address) : null;
  }

  private wrongAt(address: string): ErrorFace | null {
    const { facts, answer } = this.factsAt(address);
    if (!facts?.shown) return null;
    if (facts.error && facts.error.code !== "required") return facts.error;
    // Whether something was entered, the browser sees by itself, before the server says so.
    if (!facts.required && !facts.error) return null;
    const dropped = facts.dropped ?? false;
    return answer === null || dropped
      ? { code: "required", message: facts.error?.message ?? this.face.wording.required }
      : null;
  }

  /** Everything that is wrong on these pages, in order. */
  wrongOn(pages: FormFace["pages"]): { address: string; label: string; message: string }[] {
    return this.addressesOn(pages).flatMap(({ address, label }) => {
      const error = this.wrongAt(address) ?? this.rowWrong(address);
      return error ? [{ address, label, message: error.message }] : [];
    });
  }

  private rowWrong(address: string): ErrorFace | null {
    const [repeat, row, block] = address.split("/");
    return row && !block ? (this.snapshot.state.blocks[repeat!]?.rows?.[row]?.error ?? null) : null;
  }

  private addressesOn(pages: FormFace["pages"]): { address: string; label: string }[] {
    const { state } = this.snapshot;
    return blocksWithin(pages.flatMap((page) => page.blocks)).flatMap((block) => {
      const facts = state.blocks[block.id];
      const own = { address: block.id, label: labelOf(block, facts) };
      if (block.type !== "repeat") return [own];
      const kinds = shownKinds(block, facts);
      return [own, ...this.rowsOf(block.id).flatMap((row, at) => this.addressesInRow(block.id, kinds, row, at))];
    });
  }

  private addressesInRow(repeat: string, kinds: readonly ShapedRowKindFace[], row: RowAnswer, at: number) {
    const kind = kinds.find((each) => each.id === row.kind);
    const { prefix, factsOf } = this.surroundings(repeat, row.id);
    return [
      { address: prefix.slice(0, -1), label: `${kind?.label ?? ""} ${at + 1}` },
      ...blocksWithin(kind?.blocks ?? []).map((block) => {
        const label = labelOf(block, factsOf(block.id));
        return { address: prefix + block.id, label: label && `${at + 1}: ${label}` };
      }),
    ];
  }

  private rowsOf(repeat: string): readonly RowAnswer[] {
    return rowsIn(this.snapshot.answers[repeat] ?? null);
  }

  // What the server says

  private askSoon(block: string): void {
    this.unanswered.set(block, this.asked + 1);
    this.due = true;
    clearTimeout(this.timer);
    this.timer = setTimeout(() => void this.ask(), TYPING_PAUSE_MS);
  }

  /** Asks for what hangs on the answers that changed, or for everything. */
  private async ask(everything = false): Promise<void> {
    clearTimeout(this.timer);
    this.due = false;
    const turn = ++this.asked;
    const changed = everything ? null : [...this.unanswered.keys()];
    try {
      const reply = await this.transport.state(this.snapshot.answers, changed);
      this.failures = 0;
      if (turn > this.shownTurn) this.take(reply, turn, everything);
      if (this.snapshot.away) this.set({ away: false });
    } catch (error) {
      if (turn !== this.asked) return;
      if (error instanceof AwayError) await this.tryAgain(() => this.ask(everything));
      else if (error instanceof RefusedError) this.set({ refusal: error.message, away: false });
    }
  }

  /** Shows a reply; a late one never gets here, so a newer state is never overwritten by an older. */
  private take(reply: FormState, turn: number, everything: boolean): void {
    this.shownTurn = turn;
    for (const [block, asked] of this.unanswered) if (asked <= turn) this.unanswered.delete(block);
    const { state } = this.snapshot;
    const merged = everything
      ? reply
      : { ...reply, blocks: { ...state.blocks, ...reply.blocks }, texts: { ...state.texts, ...reply.texts } };
    this.set({ state: merged, answers: withFills(this.snapshot.answers, reply) });
    if (this.paged && this.snapshot.page && !merged.path.includes(this.snapshot.page)) this.open(this.nearest(merged));
  }

  /** The page of the path that comes last before the one that is open. */
  private nearest(state: FormState): string | null {
    const order = this.face.pages.map((page) => page.id);
    const open = order.indexOf(this.snapshot.page ?? "");
    return state.path.filter((id) => order.indexOf(id) < open).at(-1) ?? state.path[0] ?? null;
  }

  private tryAgain(attempt: () => Promise<void>): Promise<void> {
    this.set({ away: true });
    const delay = RETRY_MS[Math.min(this.failures++, RETRY_MS.length - 1)];
    clearTimeout(this.timer);
    return new Promise((resolve) => {
      this.timer = setTimeout(() => void attempt().then(resolve), delay);
    });
  }

  /** The connection came back: do not wait for the next try. */
  hurry(): void {
    if (!this.snapshot.away) return;
    clearTimeout(this.timer);
    if (this.snapshot.phase === "sending") void this.send();
    else void this.ask();
  }

  // The way through the pages

  begin(): void {
    this.set({ phase: "filling" });
  }

  /** Goes on to the next page, once nothing on this one is wrong. */
  async next(): Promise<void> {
    if (this.snapshot.waiting || this.snapshot.phase !== "filling") return;
    if (this.due || this.unanswered.size > 0) {
      this.set({ waiting: true });
      await this.ask();
      this.set({ waiting: false });
    }
    const wrong = this.wrongOn(this.pages);
    if (wrong.length > 0) return this.refuse(say("someWrong"));
    if (this.missingFiles.size > 0) return this.refuse(say("filesMissing"));
    const { path } = this.snapshot.state;
    const at = path.indexOf(this.snapshot.page ?? "");
    this.furthest = Math.max(this.furthest, at + 1);
    this.open(path[at + 1] ?? null);
  }

  back(): void {
    const { path } = this.snapshot.state;
    const before = path[path.indexOf(this.snapshot.page ?? "") - 1];
    if (before) this.open(before);
  }

  /** Opens a page that was reached before; another address leads to the furthest that was. Returns what is open. */
  visit(page: string | null): string | null {
    const { path } = this.snapshot.state;
    const at = path.indexOf(page ?? "");
    this.open(path[Math.min(at < 0 ? 0 : at, this.furthest)] ?? null);
    return this.snapshot.page;
  }

  /** After a reload: as far towards a page as the answers allow. */
  private goAsFarAs(page: string | null): void {
    const { path } = this.snapshot.state;
    const wanted = path.indexOf(page ?? "");
    const pages = path.map((id) => this.face.pages.find((each) => each.id === id)!);
    const stuck = pages.findIndex((each) => this.wrongOn([each]).length > 0);
    this.furthest = stuck < 0 ? path.length - 1 : stuck;
    this.visit(path[Math.max(0, Math.min(wanted, this.furthest))] ?? null);
  }

  private open(page: string | null): void {
    if (!page || page === this.snapshot.page) return;
    this.set({ page, refusal: null });
    this.saveSoon();
  }

  private refuse(message: string, pages = this.pages): void {
    const addresses = this.addressesOn(pages).map(({ address }) => address);
    const visited = new Set([...this.snapshot.visited, ...addresses]);
    this.set({ visited, refusal: message, tries: this.snapshot.tries + 1 });
  }

  // Handing in

  submit(): void {
    if (this.snapshot.phase !== "filling") return;
    if (this.missingFiles.size > 0) return this.refuse(say("filesMissing"));
    clearTimeout(this.timer);
    this.set({ phase: "sending", refusal: null });
    void this.send();
  }

  private async send(): Promise<void> {
    try {
      const received = await this.transport.submit(this.snapshot.answers, this.key);
      clearTimeout(this.saving);
      this.store?.clear();
      this.set({ phase: "received", away: false, confirmation: received.confirmation });
    } catch (error) {
      if (error instanceof AwayError) void this.tryAgain(() => this.send());
      else if (error instanceof RefusedError) this.refused(error);
      else throw error;
    }
  }

  private refused(error: RefusedError): void {
    this.failures = 0;
    this.shownTurn = this.asked;
    const wrong = error.reply.errors;
    const { state } = this.snapshot;
    const blocks = Object.fromEntries(
      Object.entries(state.blocks).map(([block, facts]) => [block, withErrors(block, facts, wrong)]),
    );
    this.set({ phase: "filling", away: false, state: { ...state, blocks, error: wrong[FORM] ?? null } });
    const pages = this.face.pages.filter((page) => state.path.includes(page.id));
    const first = pages.find((page) => this.wrongOn([page]).length > 0);
    if (this.paged && first) this.open(first.id);
    this.refuse(wrong[FORM]?.message ?? error.message, pages);
  }

  // What is kept on the device

  private saveSoon(): void {
    if (!this.store) return;
    clearTimeout(this.saving);
    this.saving = setTimeout(() => this.save(), SAVING_PAUSE_MS);
  }

  save(): void {
    const { answers, page, phase } = this.snapshot;
    if (phase !== "received" && this.touched) this.store?.save({ answers, page, seed: this.seed });
  }

  /** Takes these answers instead of all that were given, as in a preview. */
  fillIn(answers: Answers): void {
    this.unanswered.clear();
    this.key = crypto.randomUUID();
    this.set({ answers, visited: new Set(), refusal: null, phase: "filling", confirmation: null });
    void this.ask(true).then(() => this.goAsFarAs(this.snapshot.page));
  }

  startAgain(): void {
    clearTimeout(this.saving);
    this.store?.clear();
    this.unanswered.clear();
    this.furthest = 0;
    this.touched = false;
    this.set({ answers: {}, visited: new Set(), restored: false, refusal: null });
    void this.ask(true).then(() => this.visit(null));
  }
}
