// One person's work on a draft: steps with undo, saved by itself, and settled with what others saved meanwhile.
// No React; the server and what keeps unsaved work in the browser are given.
import { type api, ApiError } from "../../api/client";
import type { AnalysisReply, Form, FormReply } from "../../api/generated/wire";
import { differences, partName, settingName, told } from "../../model/differences";
import type { Action } from "../../model/draft";
import { type History, type HistoryAction, historyReducer, newHistory } from "../../model/history";
import { deltasOf, statesOf } from "../../model/kept_steps";
import { type Clash as MergeClash, merge, type Prefer } from "../../model/merge";
import { partsOf } from "../../model/parts";
import { sayProblems } from "../../model/places";
import { same } from "../../model/same";
import type { DraftStore } from "./kept_draft";

export const PAUSE_MS = 500;
export const RETRY_MS = 4_000;
const KEEP_MS = 250;
const KEEP_STEPS_MS = 1_500;
const STEPS_ROOM = 1_000_000; // characters of JSON
const MOST_NOTICES = 50;

export type DraftServer = Pick<typeof api, "form" | "saveDraft" | "publish" | "goLive" | "state" | "nameState">;

/** What the server holds, and what the core said of it. */
interface Saved {
  form: Form;
  revision: number;
  at: string;
  analysis: AnalysisReply;
  changes: number;
  liveEdition: number | null;
  /** The number of the newest edition, live or not; 0 where there is none. */
  newestEdition: number;
  /** The public address; it follows the name until the first edition. */
  address: string;
}

/** Both changed the same since `base`; nothing is saved until somebody has chosen. */
interface Clash {
  base: Form;
  theirs: FormReply;
  what: readonly MergeClash[];
}

/** What was told about the draft, when. */
export interface Notice {
  id: number;
  at: number;
  words: string;
}

/** The draft as it stands; another object after every change. */
export interface DraftView {
  form: Form;
  analysis: AnalysisReply;
  /** The draft that `analysis` speaks of; places in formulas are right only for texts that are the same there. */
  analysed: Form;
  saved: Saved;
  saveState: "saved" | "saving" | "unreachable" | "refused" | "clash";
  problem: string | null;
  /** What was told, the latest last. */
  notices: readonly Notice[];
  clash: Clash | null;
  /** Whether something is not saved yet. */
  dirty: boolean;
  canUndo: boolean;
  canRedo: boolean;
}

interface Inner {
  history: History;
  saved: Saved;
  saveState: DraftView["saveState"];
  problem: string | null;
  notices: readonly Notice[];
  clash: Clash | null;
  /** What was mine where theirs was taken: to be saved as a state of its own first, so that History has it. */
  aside: Form | null;
  /** What was sent since the last reply: whether it arrived is not known, so that the server may hold any of it. */
  unanswered: readonly Form[];
}

const savedOf = (reply: FormReply): Saved => ({
  form: reply.draft,
  revision: reply.revision,
  at: reply.changed_at,
  analysis: reply.analysis,
  changes: reply.changes,
  liveEdition: reply.live_edition,
  newestEdition: reply.newest_edition,
  address: reply.address,
});

const isDirty = ({ history, saved, unanswered }: Inner): boolean =>
  history.form !== saved.form || unanswered.length > 0;

function viewOf(inner: Inner): DraftView {
  const { history, saved, saveState, problem, notices, clash } = inner;
  const dirty = isDirty(inner);
  return {
    form: history.form,
    analysis: saved.analysis,
    analysed: saved.form,
    saved,
    saveState: dirty && saveState === "saved" ? "saving" : !dirty && saveState === "saving" ? "saved" : saveState,
    problem,
    notices,
    clash,
    dirty,
    canUndo: history.past.length > 0,
    canRedo: history.future.length > 0,
  };
}

export class DraftSession {
  private readonly id: string;
  private inner: Inner;
  private view: DraftView;
  private readonly listeners = new Set<() => void>();
  private running: Promise<void> | null = null;
  private saving: ReturnType<typeof setTimeout> | undefined;
  private keeping: ReturnType<typeof setTimeout> | undefined;
  private keepingSteps: ReturnType<typeof setTimeout> | undefined;

  constructor(
    private readonly loaded: FormReply,
    private readonly server: DraftServer,
    private readonly store: DraftStore,
  ) {
    this.id = loaded.id;
    const nothing = { problem: null, notices: [], clash: null, aside: null, unanswered: [] };
    this.inner = { history: newHistory(loaded.draft), saved: savedOf(loaded), saveState: "saved", ...nothing };
    this.view = viewOf(this.inner);
  }

  readonly subscribe = (listener: () => void): (() => void) => {
    this.listeners.add(listener);
    return () => this.listeners.delete(listener);
  };

  readonly read = (): DraftView => this.view;

  /** Brings back what an earlier visit could not save, once. */
  readonly open = async (): Promise<void> => {
    await this.bringBackSteps();
    const kept = this.store.load();
    if (!kept) return;
    try {
      const { draft } = await this.server.state(this.id, kept.revision);
      this.store.clear();
      const merged = merge(draft, kept.form, this.loaded.draft, "mine").form;
      if (same(merged, this.loaded.draft)) return;
      const history = this.mergedWith(draft, kept.form, "theirs");
      this.change({ history, ...this.telling("Changes that had not been saved were brought back.") });
      this.saveSoon(PAUSE_MS);
    } catch {
      // Without the state that it was made from it can't be told what was changed; the next visit tries again.
    }
  };

  /** Brings back the steps of an earlier visit that can be undone. */
  private async bringBackSteps(): Promise<void> {
    const kept = this.store.loadSteps();
    if (!kept || kept.deltas.length === 0) return;
    try {
      const { draft, revision } = this.loaded;
      const base = kept.revision === revision ? draft : (await this.server.state(this.id, kept.revision)).draft;
      const past = statesOf(base, kept.deltas).map((form) => ({ form, left: [] }));
      const history = historyReducer(newHistory(base, past), { type: "merge", base, theirs: draft, prefer: "theirs" });
      if (this.inner.history.past.length === 0) this.change({ history: { ...history, form: this.inner.history.form } });
    } catch {
      // What can't be read any more is forgotten: there is only less to be undone.
    }
  }

  private keepSteps(): void {
    const { history, saved } = this.inner;
    const deltas = deltasOf(saved.form, history.past, STEPS_ROOM);
    this.store.saveSteps({ revision: saved.revision, deltas });
  }

  /** Leaves the draft: what is not saved yet is saved now, and kept in the browser until it is. */
  readonly close = (): void => {
    clearTimeout(this.saving);
    clearTimeout(this.keeping);
    clearTimeout(this.keepingSteps);
    this.keepSteps();
    if (!isDirty(this.inner)) return;
    this.store.save({ revision: this.inner.saved.revision, form: this.inner.history.form });
    if (!this.inner.clash) void this.save();
  };

  readonly act = (action: Action): void => this.step({ type: "act", action, at: Date.now() });
  /** Takes back the last step of one's own; returns the parts that are there again or say something else now. */
  readonly undo = (): readonly string[] => this.goTo("undo");
  readonly redo = (): readonly string[] => this.goTo("redo");

  /** What undoing (or doing again) would do, in one line. */
  readonly wouldDo = (way: "undo" | "redo"): string => {
    const { past, future, form } = this.inner.history;
    const step = way === "undo" ? past.at(-1) : future[0];
    return step ? told(way === "undo" ? "Undo" : "Do again", form, step.form) : "";
  };

  private goTo(way: "undo" | "redo"): readonly string[] {
    const { past, future, form } = this.inner.history;
    const step = way === "undo" ? past.at(-1) : future[0];
    if (!step) return [];
    const found = differences(form, step.form);
    const words = [told(way === "undo" ? "Undone" : "Done again", form, step.form, found)];
    if (step.left.length > 0) {
      const parts = [partsOf(form), partsOf(step.form)];
      const names = step.left.map(
        ({ owner, path }) => `${path ? settingName(path) : "all"} of ${partName(parts, owner)}`,
      );
      words.push(`Somebody else has changed ${[...new Set(names)].join(", ")} since; that stays.`);
    }
    this.step({ type: way });
    this.change(this.telling(words.filter((each) => each !== "").join(" ")));
    // Of two neighbours that changed places nobody can say which one was moved.
    return found.flatMap(({ owner, what }) => (owner && (what === "added" || what === "changed") ? [owner] : []));
  }

  private telling(words: string): Pick<Inner, "notices"> {
    const { notices } = this.inner;
    const next = { id: (notices.at(-1)?.id ?? 0) + 1, at: Date.now(), words };
    return { notices: words ? [...notices.slice(1 - MOST_NOTICES), next] : notices };
  }

  /** Decides what both changed, and goes on. What is mine and does not stay is kept as a state of its own. */
  readonly settle = (prefer: Prefer): void => {
    const { clash } = this.inner;
    if (!clash) return;
    const { base, theirs } = clash;
    const asMine = merge(base, this.inner.history.form, theirs.draft, "mine").form;
    const history = this.mergedWith(base, theirs.draft, prefer);
    const aside = same(asMine, history.form) ? null : asMine;
    this.change({ history, saved: savedOf(theirs), clash: null, saveState: "saving", aside });
    this.saveSoon(PAUSE_MS);
  };

  /** Saves now what is not saved yet; returns whether all is saved. */
  readonly saveNow = async (): Promise<boolean> => {
    while (isDirty(this.inner)) {
      const before = this.inner.saved.revision;
      await this.save();
      if (this.inner.saved.revision === before) return false;
    }
    return true;
  };

  /** Publishes the draft as it stands and returns its edition. Throws ApiError. */
  readonly publish = async (despiteTrials = false, note = ""): Promise<number> => {
    if (!(await this.saveNow()))
      throw new ApiError("not_saved", "The draft could not be saved; see the top of the page.");
    const { saved } = this.inner;
    const asked = { revision: saved.revision, live: saved.liveEdition, note, despite_trials: despiteTrials };
    const published = await this.server.publish(this.id, asked).catch(async (error: unknown) => {
      if (error instanceof ApiError && error.code === "published_meanwhile") await this.lookAtLive();
      throw error;
    });
    const { edition, address, newest_edition: newestEdition } = published;
    this.change({ saved: { ...this.inner.saved, changes: 0, liveEdition: edition, newestEdition, address } });
    return edition;
  };

  /** Takes over what somebody else has made live. */
  private async lookAtLive(): Promise<void> {
    const { changes, liveEdition, newestEdition, address } = savedOf(await this.server.form(this.id));
    const isNews = liveEdition !== null && liveEdition !== this.inner.saved.liveEdition;
    const saved = { ...this.inner.saved, changes, liveEdition, newestEdition, address };
    this.change({ saved, ...(isNews ? this.telling(`Somebody published: edition ${liveEdition} is live now.`) : {}) });
  }

  /** Gives visitors an earlier edition; the draft stays as it is. Throws ApiError. */
  readonly goBack = async (edition: number): Promise<void> => {
    const { changes } = await this.server.goLive(this.id, edition, this.inner.saved.liveEdition);
    this.change({ saved: { ...this.inner.saved, changes, liveEdition: edition } });
  };

  /** Takes over the public address that was chosen. */
  readonly move = ({ address }: Pick<Saved, "address">): void => {
    this.change({ saved: { ...this.inner.saved, address } });
  };

  /** Takes over what others saved, where the revision is later than the one that is known here, and what they published. */
  readonly catchUp = (revision: number, liveEdition = this.inner.saved.liveEdition): void => {
    if (this.running || this.inner.clash) return;
    if (revision > this.inner.saved.revision) void this.alone(() => this.settleWithOthers());
    else if (liveEdition !== this.inner.saved.liveEdition)
      void this.alone(() => this.lookAtLive().catch(() => undefined));
  };

  /** One conversation with the server at a time: what is asked meanwhile waits for the one that runs. */
  private alone(talk: () => Promise<void>): Promise<void> {
    this.running ??= talk().finally(() => {
      this.running = null;
      this.saveSoon(this.inner.problem === null ? PAUSE_MS : RETRY_MS);
    });
    return this.running;
  }

  private save(): Promise<void> {
    return this.alone(() => this.saveOnce());
  }

  private async saveOnce(): Promise<void> {
    const { form } = this.inner.history;
    this.change({ saveState: "saving" });
    try {
      await this.saveAside();
      const reply = await this.server.saveDraft(this.id, this.inner.saved.revision, form);
      const { revision, changed_at: at, analysis, changes, address } = reply;
      this.change({
        saved: { ...this.inner.saved, form, revision, at, analysis, changes, address },
        saveState: "saved",
        problem: null,
        unanswered: [],
      });
    } catch (error) {
      if (error instanceof ApiError && error.code === "clash") return this.settleWithOthers();
      this.tellProblem(error, form);
    }
  }

  /** Saves what was mine before theirs was taken, with a name by which History shows it. */
  private async saveAside(): Promise<void> {
    const { aside } = this.inner;
    if (!aside) return;
    const { revision, changed_at: at } = await this.server.saveDraft(this.id, this.inner.saved.revision, aside);
    this.change({ saved: { ...this.inner.saved, form: aside, revision, at }, aside: null });
    // Without its name it is still there, by its number.
    await this.server.nameState(this.id, revision, "Mine, before theirs was taken").catch(() => undefined);
    this.change(this.telling(`What was yours there is state ${revision} in History.`));
  }

  /** Somebody saved meanwhile: keep both people's changes, and ask where both changed the same. */
  private async settleWithOthers(): Promise<void> {
    let theirs: FormReply;
    let base: Form;
    try {
      theirs = await this.server.form(this.id);
      base = await this.lastShared();
    } catch (error) {
      return this.tellProblem(error);
    }
    const mine = this.inner.history.form;
    const { clashes } = merge(base, mine, theirs.draft, "mine");
    if (clashes.length > 0)
      return this.change({ clash: { base, theirs, what: clashes }, saveState: "clash", unanswered: [], aside: null });
    const who = theirs.changed_by ?? "Somebody";
    const notice =
      mine === base
        ? `${who} saved changes; you see them now, as state ${theirs.revision}.`
        : `${who} saved changes too (state ${theirs.revision}); theirs and yours are both kept.`;
    this.change({
      history: this.mergedWith(base, theirs.draft, "mine"),
      saved: savedOf(theirs),
      saveState: mine === base ? "saved" : "saving",
      problem: null,
      unanswered: [],
      // What arrived and was not heard of is no news.
      ...(same(base, theirs.draft) ? {} : this.telling(notice)),
    });
  }

  /** The last state that both sides began from: one's own last save, should it have arrived without a reply. */
  private async lastShared(): Promise<Form> {
    const { saved, unanswered } = this.inner;
    if (unanswered.length === 0) return saved.form;
    const { draft } = await this.server.state(this.id, saved.revision + 1);
    return unanswered.find((sent) => same(sent, draft)) ?? saved.form;
  }

  private mergedWith(base: Form, theirs: Form, prefer: Prefer): History {
    return historyReducer(this.inner.history, { type: "merge", base, theirs, prefer });
  }

  /** Says what went wrong; what was `sent` may have arrived, unless the server said no. */
  private tellProblem(error: unknown, sent?: Form): void {
    if (!(error instanceof ApiError)) throw error;
    const away = error.code === "unreachable" || error.code === "away";
    const unanswered = away && sent ? [...this.inner.unanswered, sent] : this.inner.unanswered;
    const problem = sayProblems(this.inner.history.form, error.problems) || error.message;
    this.change({ problem, saveState: away ? "unreachable" : "refused", unanswered });
  }

  private step(event: HistoryAction): void {
    const history = historyReducer(this.inner.history, event);
    if (history === this.inner.history) return;
    this.change({ history });
    this.saveSoon(PAUSE_MS);
  }

  private saveSoon(pause: number): void {
    clearTimeout(this.saving);
    if (isDirty(this.inner) && !this.inner.clash) this.saving = setTimeout(() => void this.save(), pause);
  }

  private change(changes: Partial<Inner>): void {
    this.inner = { ...this.inner, ...changes };
    this.view = viewOf(this.inner);
    this.keepUnsaved();
    for (const listener of this.listeners) listener();
  }

  /** What is not saved lies in the browser too: for a crash, a closed lid, or a server that is away. */
  private keepUnsaved(): void {
    clearTimeout(this.keeping);
    const { history, saved } = this.inner;
    if (!isDirty(this.inner)) this.store.clear();
    else this.keeping = setTimeout(() => this.store.save({ revision: saved.revision, form: history.form }), KEEP_MS);
    clearTimeout(this.keepingSteps);
    this.keepingSteps = setTimeout(() => this.keepSteps(), KEEP_STEPS_MS);
  }
}
