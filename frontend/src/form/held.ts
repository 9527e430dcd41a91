// What a session says, for its views: while something is pressed they stay as they are.
import { useCallback, useSyncExternalStore } from "react";
import { onceReleased, onPress } from "../fields/press";
import type { FormSession } from "./session";
import type { Snapshot } from "./snapshot";

const sessions = new Set<FormSession>();
let held: Map<FormSession, Snapshot> | null = null;

onPress(() => {
  held = new Map([...sessions].map((session) => [session, session.read()]));
  onceReleased(letGo);
});

function letGo(): void {
  held = null;
}

/** What a session says, for a view; while something is pressed the view stays as it is. */
export function useSnapshot(session: FormSession): Snapshot {
  const subscribe = useCallback(
    (listener: () => void) => {
      sessions.add(session);
      return session.subscribe(() => onceReleased(listener));
    },
    [session],
  );
  return useSyncExternalStore(subscribe, () => held?.get(session) ?? session.read());
}
