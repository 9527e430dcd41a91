// Replay: the latest responses put through the draft, some at a time, so that there is progress to see.
import { useEffect, useRef, useState } from "react";
import { api, reasonOf } from "../../api/client";
import type { ReplayedReply } from "../../api/generated/wire";

export const USUAL = 500;

export interface Replay {
  state: "idle" | "running" | "done";
  lookedAt: number;
  differing: readonly ReplayedReply[];
  unreadable: number;
  /** Whether there are more responses than were looked at. */
  more: boolean;
  problem: string | null;
}

const NOTHING: Replay = { state: "idle", lookedAt: 0, differing: [], unreadable: 0, more: false, problem: null };

/** Runs a replay of the saved draft; `most` responses, or all for null. It stops when the section is left. */
export function useReplay(form: string, save: () => Promise<boolean>) {
  const [replay, setReplay] = useState(NOTHING);
  const run = useRef(0);
  useEffect(
    () => () => {
      run.current += 1;
    },
    [],
  );
  const start = async (most: number | null) => {
    const mine = ++run.current;
    let found: Replay = { ...NOTHING, state: "running" };
    setReplay(found);
    try {
      if (!(await save())) throw new Error("The draft could not be saved; replay looks at what is saved.");
      let after: string | null = "";
      while (after !== null && (most === null || found.lookedAt < most)) {
        const page = await api.replay(form, after);
        if (run.current !== mine) return;
        after = page.next;
        found = {
          ...found,
          lookedAt: found.lookedAt + page.looked_at,
          differing: [...found.differing, ...page.differing],
          unreadable: found.unreadable + page.unreadable,
          more: after !== null,
        };
        setReplay(found);
      }
      setReplay({ ...found, state: "done" });
    } catch (error) {
      if (run.current === mine) setReplay({ ...found, state: "done", problem: reasonOf(error) });
    }
  };
  return { replay, start };
}
