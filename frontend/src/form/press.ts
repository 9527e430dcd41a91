// While a button is pressed nothing on the form moves. Leaving a field shows what is wrong with it, which pushes the
// button from under the pointer: the browser would see no click, and the press would be lost.
import { useCallback, useSyncExternalStore } from "react";
import type { FormSession, Snapshot } from "./session";

const waiting = new Set<() => void>();
let pressed = false;

function press(event: PointerEvent): void {
  pressed = event.target instanceof Element && event.target.closest("button, a") !== null;
}

function release(): void {
  pressed = false;
  const listeners = [...waiting];
  waiting.clear();
  listeners.forEach((listener) => listener());
}

addEventListener("pointerdown", press, true);
addEventListener("click", release, true);
addEventListener("pointercancel", release, true);
// A click, if there is one, comes before the next task.
addEventListener("pointerup", () => setTimeout(release), true);

function onceReleased(listener: () => void): void {
  if (pressed) waiting.add(listener);
  else listener();
}

/** What a session says, for a view; while a button is pressed the view stays as it is. */
export function useSnapshot(session: FormSession): Snapshot {
  const subscribe = useCallback((listener: () => void) => session.subscribe(() => onceReleased(listener)), [session]);
  return useSyncExternalStore(subscribe, session.read);
}
