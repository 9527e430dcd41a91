// While something is pressed nothing on the form moves. Leaving a field shows what is wrong with it, and a reply of a slow
// server may come at any moment; either pushes what is pressed from under the pointer: the browser would see no click, and
// the press would be lost.
import { useCallback, useSyncExternalStore } from "react";
import type { FormSession } from "./session";
import type { Snapshot } from "./snapshot";

// What is drawn while it is pressed, as a slider is, is no press that could be lost.
const PRESSED = "button, a, label, summary, option, input[type=checkbox], input[type=radio], input[type=file]";
const waiting = new Set<() => void>();
const sessions = new Set<FormSession>();
let held: Map<FormSession, Snapshot> | null = null;

function press(event: PointerEvent): void {
  if (!(event.target instanceof Element) || !event.target.closest(PRESSED)) return;
  held = new Map([...sessions].map((session) => [session, session.read()]));
}

function release(): void {
  held = null;
  const listeners = [...waiting];
  waiting.clear();
  listeners.forEach((listener) => listener());
}

addEventListener("pointerdown", press, true);
// Last of all, so that what was pressed has been heard: drawn anew before, a choice would look as if nothing had changed.
addEventListener("click", release);
addEventListener("pointercancel", release, true);
// A click, if there is one, comes before the next task.
addEventListener("pointerup", () => setTimeout(release), true);

function onceReleased(listener: () => void): void {
  if (held) waiting.add(listener);
  else listener();
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
