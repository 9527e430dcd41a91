// One question at a time: a choice that one press answers goes on by itself. Keys never do: arrows pass over choices.
import type { FormSession } from "./session";

const SEEN_MS = 350; // so that the choice is seen before the next question comes
const PRESS_MS = 700; // between a finger that is lifted and what the browser makes of it

let pressed = -Infinity;
addEventListener("pointerup", ({ timeStamp }) => (pressed = timeStamp), true);

/**
 * Goes on once a press has chosen the one answer that a step asks for, or pressed what was chosen before; sending stays
 * the visitor's own press.
 */
export function goesOn(session: FormSession, target: EventTarget): void {
  const { face } = session;
  if (face.presentation !== "single" || !face.goes_on || session.atEnd) return;
  if (!(target instanceof HTMLInputElement) || target.type !== "radio") return;
  if (performance.now() - pressed > PRESS_MS) return;
  const asked = target.closest(".cx-page")?.querySelectorAll<HTMLInputElement>("input, select, textarea") ?? [];
  if ([...asked].some((each) => each.type !== "radio" || each.name !== target.name)) return;
  const { page } = session.read();
  // A second choice, made in between, is the one that counts.
  clearTimeout(waiting);
  waiting = setTimeout(() => void (session.read().page === page && session.next()), SEEN_MS);
}

let waiting: ReturnType<typeof setTimeout> | undefined;
