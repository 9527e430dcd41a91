// Where what had the focus goes away under the hand, the focus goes where the work goes on: never to nothing.
import { useEffect } from "react";
import { useLocation } from "react-router";
import { isSomethingOpen } from "./compose/keys";
import { LEFT } from "./leave_focus";

// Most is there at once; what a server or a further part of the program brings comes later.
const LOOKS_MS = [80, 200, 400, 800, 1600, 3200];

const MOVED = "codexa-moved";
/** What takes the focus over: what is selected in the outline, or else the heading of what is shown. */
function nextPlace(): HTMLElement | null {
  const row = document.querySelector<HTMLElement>(".ol-row[data-last] .ol-name");
  if (row) return row;
  const heading =
    document.querySelector<HTMLElement>("main h1, main h2") ?? document.querySelector<HTMLElement>("main");
  heading?.setAttribute("tabindex", "-1");
  return heading;
}

/** Watches over the focus for as long as the workbench is open. */
export function useFocusKept(): void {
  const { pathname } = useLocation();
  // Another area is another screen, whatever led there.
  useEffect(() => void dispatchEvent(new Event(MOVED)), [pathname]);
  useEffect(() => {
    let last: HTMLElement | null = null;
    let waiting: ReturnType<typeof setTimeout>[] = [];
    const remember = ({ target }: FocusEvent) => {
      last = target as HTMLElement;
    };
    // A press on nothing in particular is meant so.
    const letGo = ({ target }: PointerEvent) => {
      if (!(target as Element).closest("button, a, input, textarea, select, label, [tabindex], [contenteditable]"))
        last = null;
    };
    // Tab leads to something else, or out of the page, where nobody is held back.
    const leave = ({ key }: KeyboardEvent) => {
      if (key === "Tab") last = null;
    };
    // What was left takes it back no more: it goes where the work goes on.
    const forget = () => {
      last = document.createElement("i");
    };
    const look = () => {
      // A menu or dialog sees to its own.
      if (document.activeElement !== document.body || !last || isSomethingOpen()) return;
      const place = isThere(last) ? last : nextPlace();
      place?.focus({ preventScroll: true });
    };
    const stop = () => waiting.forEach(clearTimeout);
    const lookSoon = () => {
      stop();
      waiting = LOOKS_MS.map((after) => setTimeout(look, after));
    };
    addEventListener("focusin", remember);
    addEventListener(LEFT, forget);
    addEventListener("pointerdown", letGo);
    addEventListener("keydown", leave);
    for (const event of ["keyup", "click", MOVED]) addEventListener(event, lookSoon);
    return () => {
      stop();
      removeEventListener("focusin", remember);
      removeEventListener(LEFT, forget);
      removeEventListener("pointerdown", letGo);
      removeEventListener("keydown", leave);
      for (const event of ["keyup", "click", MOVED]) removeEventListener(event, lookSoon);
    };
  }, []);
}

/** Whether something can still have the focus: it is on the page, shown, and does something. */
const isThere = (element: Element): boolean =>
  element.isConnected && element.getClientRects().length > 0 && !element.matches(":disabled");
