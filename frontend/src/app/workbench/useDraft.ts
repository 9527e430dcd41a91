// One person's work on a draft: steps with undo, saved by itself, and settled with what others saved meanwhile.
import { useCallback, useEffect, useReducer, useRef, useState } from "react";
import { api, ApiError } from "../../api/client";
import type { AnalysisReply, Form, FormReply } from "../../api/generated/wire";
import type { Action } from "../../model/draft";
import { historyReducer, newHistory } from "../../model/history";
import { merge } from "../../model/merge";

const PAUSE_MS = 500;
const RETRY_MS = 4_000;

/** What the server holds, and what the core said of it. */
interface Saved {
  form: Form;
  revision: number;
  at: string;
  analysis: AnalysisReply;
  changes: number;
  liveEdition: number | null;
  /** The public address and the snippet for websites; they follow the name until the first edition. */
  address: string;
  snippet: string;
}

/** Both changed the same; nothing is saved until somebody has chosen. */
export interface Clash {
  theirs: FormReply;
  what: string[];
}

export type SaveState = "saved" | "saving" | "unreachable" | "refused" | "clash";

export interface Draft {
  form: Form;
  analysis: AnalysisReply;
  /** The draft that `analysis` speaks of; places in formulas are right only for texts that are the same there. */
  analysed: Form;
  saved: Saved;
  saveState: SaveState;
  problem: string | null;
  notice: string | null;
  clash: Clash | null;
  canUndo: boolean;
  canRedo: boolean;
  act: (action: Action) => void;
  undo: () => void;
  redo: () => void;
  settle: (prefer: "mine" | "theirs") => void;
  publish: () => Promise<number>;
}

const savedOf = (reply: FormReply): Saved => ({
  form: reply.draft,
  revision: reply.revision,
  at: reply.changed_at,
  analysis: reply.analysis,
  changes: reply.changes,
  liveEdition: reply.live_edition,
  address: reply.address,
  snippet: reply.snippet,
});

export function useDraft(loaded: FormReply): Draft {
  const [history, dispatch] = useReducer(historyReducer, loaded.draft, newHistory);
  const [saved, setSaved] = useState(() => savedOf(loaded));
  const [saveState, setSaveState] = useState<SaveState>("saved");
  const [problem, setProblem] = useState<string | null>(null);
  const [notice, setNotice] = useState<string | null>(null);
  const [clash, setClash] = useState<Clash | null>(null);
  const latest = useRef({ form: history.form, saved });
  useEffect(() => {
    latest.current = { form: history.form, saved };
  });
  const running = useRef<Promise<void> | null>(null);

  /** Somebody saved meanwhile: keep both people's changes, and ask where both changed the same. */
  const settleWithOthers = useCallback(async () => {
    const theirs = await api.form(loaded.id);
    const base = latest.current.saved.form;
    const merged = merge(base, latest.current.form, theirs.draft, "mine");
    if (merged.clashes.length > 0) {
      setClash({ theirs, what: merged.clashes });
      setSaveState("clash");
      return;
    }
    setSaved(savedOf(theirs));
    setNotice(`${theirs.changed_by ?? "Somebody"} saved changes too; theirs and yours are both kept.`);
    dispatch({ type: "merge", form: merged.form });
    setSaveState("saving");
  }, [loaded.id]);

  const saveOnce = useCallback(async () => {
    const { form, saved: before } = latest.current;
    setSaveState("saving");
    try {
      const reply = await api.saveDraft(loaded.id, before.revision, form);
      const now: Saved = {
        ...before,
        form,
        revision: reply.revision,
        at: reply.changed_at,
        analysis: reply.analysis,
        changes: reply.changes,
      };
      latest.current.saved = now;
      setSaved(now);
      setSaveState(latest.current.form === form ? "saved" : "saving");
      setProblem(null);
    } catch (error) {
      if (!(error instanceof ApiError)) throw error;
      if (error.code === "clash") return settleWithOthers();
      setProblem(error.message);
      setSaveState(error.code === "unreachable" || error.code === "away" ? "unreachable" : "refused");
    }
  }, [loaded.id, settleWithOthers]);

  const save = useCallback((): Promise<void> => {
    running.current ??= saveOnce().finally(() => {
      running.current = null;
    });
    return running.current;
  }, [saveOnce]);

  const dirty = history.form !== saved.form;
  useEffect(() => {
    if (!dirty || clash) return;
    const timer = setTimeout(() => void save(), PAUSE_MS);
    const retry = setInterval(() => void save(), RETRY_MS);
    return () => {
      clearTimeout(timer);
      clearInterval(retry);
    };
  }, [dirty, history.form, saved, clash, save]);

  useEffect(() => {
    const warn = (event: BeforeUnloadEvent) => event.preventDefault();
    if (dirty) addEventListener("beforeunload", warn);
    return () => removeEventListener("beforeunload", warn);
  }, [dirty]);

  const settle = (prefer: "mine" | "theirs") => {
    if (!clash) return;
    const merged = merge(saved.form, history.form, clash.theirs.draft, prefer);
    setSaved(savedOf(clash.theirs));
    dispatch({ type: "merge", form: merged.form });
    setClash(null);
    setSaveState("saving");
  };

  const publish = async (): Promise<number> => {
    while (latest.current.form !== latest.current.saved.form) {
      const before = latest.current.saved.revision;
      await save();
      if (latest.current.saved.revision === before)
        throw new ApiError("not_saved", "The draft could not be saved; see the top of the page.");
    }
    const { edition, address, snippet } = await api.publish(loaded.id, latest.current.saved.revision);
    setSaved((now) => ({ ...now, changes: 0, liveEdition: edition, address, snippet }));
    return edition;
  };

  return {
    form: history.form,
    analysis: saved.analysis,
    analysed: saved.form,
    saved,
    saveState: dirty && saveState === "saved" ? "saving" : !dirty && saveState === "saving" ? "saved" : saveState,
    problem,
    notice,
    clash,
    canUndo: history.past.length > 0,
    canRedo: history.future.length > 0,
    act: useCallback((action: Action) => dispatch({ type: "act", action, at: Date.now() }), []),
    undo: useCallback(() => dispatch({ type: "undo" }), []),
    redo: useCallback(() => dispatch({ type: "redo" }), []),
    settle,
    publish,
  };
}
