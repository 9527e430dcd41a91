// While something is pressed nothing on the form moves. Leaving a field shows what is wrong with it or how it was
// understood, and a reply of a slow server may come at any moment; either pushes what is pressed from under the pointer: the
// browser would see no click, and the press would be lost.

// What is drawn while it is pressed, as a slider is, is no press that could be lost.
const PRESSED = "button, a, label, summary, option, input[type=checkbox], input[type=radio], input[type=file]";
const begins: (() => void)[] = [];
const waiting = new Set<() => void>();
let pressed = false;

function press(event: PointerEvent): void {
  if (!(event.target instanceof Element) || !event.target.closest(PRESSED)) return;
  pressed = true;
  begins.forEach((listener) => listener());
}

function release(): void {
  pressed = false;
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

/** What is told whenever a press begins. */
export function onPress(listener: () => void): void {
  begins.push(listener);
}

/** Does something that may move what is on the form: at once, or when what is pressed has been released and heard. */
export function onceReleased(move: () => void): void {
  if (pressed) waiting.add(move);
  else move();
}
