// The keys of Compose, which the sheet of shortcuts lists and the keyboard runs.
import { useEffect } from "react";
import { leaveFocus } from "../leave_focus";
import { useBench } from "../workbench/bench";
import { isTurnedOff } from "./single_keys";
import type { ComposeActions } from "./actions";

const isTyping = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement &&
  (target.isContentEditable || ["INPUT", "TEXTAREA", "SELECT"].includes(target.tagName));

const TEXTLESS = ["checkbox", "radio", "button", "range", "file", "submit", "color"];

/** Whether a sign that is typed goes into a text. */
export const isTypingText = (target: EventTarget | null): boolean =>
  isTyping(target) && !(target instanceof HTMLInputElement && TEXTLESS.includes(target.type));

/** Whether keys and the clipboard belong to something else just now: a text that is typed, a menu, a dialog. */
export const isBusyElsewhere = (event: Event): boolean =>
  isTyping(event.target) || event.defaultPrevented || isSomethingOpen();

/** Whether a menu or dialog is open; they stand at the end of the page, outside of what has hundreds of rows. */
export const isSomethingOpen = (): boolean =>
  [...document.body.children].some((each) => each.matches(".MuiModal-root"));

interface Shortcut {
  /** As people read it; the first of the ways is what runs it. */
  keys: string;
  does: string;
  /** Whether somebody who may only look can do it. */
  looks?: boolean;
  fits: (event: KeyboardEvent) => boolean;
  run: (
    actions: ComposeActions,
    startAdding: () => void,
    select: (part: string | null, setting?: string) => void,
    part: string | null,
  ) => void;
}

const plain = (event: KeyboardEvent, ...keys: string[]) =>
  !event.altKey && !event.ctrlKey && !event.metaKey && keys.includes(event.key);
const alt = (event: KeyboardEvent, key: string) => event.altKey && event.key === key;
const ctrl = (event: KeyboardEvent, key: string) =>
  (event.ctrlKey || event.metaKey) && !event.altKey && event.key.toLowerCase() === key;

export const SHORTCUTS: readonly Shortcut[] = [
  { keys: "A", does: "Add a block after the selection", fits: (e) => plain(e, "a", "A"), run: (_a, add) => add() },
  {
    keys: "/",
    does: "Find a block",
    looks: true,
    fits: (e) => plain(e, "/"),
    run: () => document.getElementById("find-block")?.focus(),
  },
  {
    keys: "↓",
    does: "Next block",
    looks: true,
    fits: (e) => plain(e, "ArrowDown") && !e.shiftKey,
    run: (a) => a.step(1, false),
  },
  {
    keys: "↑",
    does: "Previous block",
    looks: true,
    fits: (e) => plain(e, "ArrowUp") && !e.shiftKey,
    run: (a) => a.step(-1, false),
  },
  {
    keys: "Shift+↓ or Shift+↑",
    does: "Select the next or previous one too",
    looks: true,
    fits: (e) => e.shiftKey && plain(e, "ArrowDown", "ArrowUp"),
    run: (a) => a.step(1, true),
  },
  { keys: "Alt+↑", does: "Move up", fits: (e) => alt(e, "ArrowUp"), run: (a) => a.shift(-1) },
  { keys: "Alt+↓", does: "Move down", fits: (e) => alt(e, "ArrowDown"), run: (a) => a.shift(1) },
  {
    keys: "Alt+→",
    does: "Put into the group or rows beside it",
    fits: (e) => alt(e, "ArrowRight"),
    run: (a) => a.nest(true),
  },
  { keys: "Alt+←", does: "Take out of its group or row", fits: (e) => alt(e, "ArrowLeft"), run: (a) => a.nest(false) },
  { keys: "Ctrl+D", does: "Duplicate", fits: (e) => ctrl(e, "d"), run: (a) => a.duplicate() },
  { keys: "Ctrl+G", does: "Group what is selected", fits: (e) => ctrl(e, "g"), run: (a) => a.group() },
  { keys: "Delete", does: "Delete", fits: (e) => plain(e, "Delete", "Backspace"), run: (a) => a.remove() },
  {
    keys: "F2",
    does: "Type the label of the selected block",
    fits: (e) => plain(e, "F2"),
    run: (_a, _add, select, part) => part && select(part, "label"),
  },
  {
    keys: "Esc",
    does: "Stop typing; then select nothing",
    looks: true,
    fits: (e) => plain(e, "Escape"),
    run: (_a, _add, select) => select(null),
  },
];

/** What works everywhere, or is done by the browser; listed for whoever asks. */
export const OTHER_KEYS: readonly { keys: string; does: string }[] = [
  { keys: "Enter", does: "Select; once more, type the label" },
  { keys: "Ctrl+S", does: "Save now; it is saved by itself, too" },
  {
    keys: "Ctrl+C, Ctrl+X, Ctrl+V",
    does: "Copy, cut and paste blocks, also into another form; pasted lines make fields",
  },
  { keys: "Ctrl+Z", does: "Undo" },
  { keys: "Ctrl+Shift+Z", does: "Redo" },
  { keys: "Ctrl+K", does: "Find a block, an area or an action" },
  { keys: "?", does: "Show this list" },
  { keys: "Shift+click or Ctrl+click", does: "Select up to there, or one more" },
];

const CLOSES = "[data-editor], .cm-editor";
// Whoever leaves an editor by Escape may still be typing: till something else is done, no letter acts on blocks.
let hushed = false;

const isHushed = (event: KeyboardEvent): boolean => {
  const acts = event.key.length === 1 || ["Delete", "Backspace", "Enter"].includes(event.key);
  if (!acts || event.ctrlKey || event.metaKey) hushed &&= ["Shift", "Control", "Meta", "Alt"].includes(event.key);
  return hushed;
};

const focusRow = (): void => document.querySelector<HTMLElement>(".ol-row[data-last] .ol-name")?.focus();
const isInOutline = (target: EventTarget | null): boolean =>
  target instanceof HTMLElement && target.classList.contains("ol-name");

/** From what was typed to what is selected, where the keys of Compose work again. */
function backToOutline(typedIn: HTMLElement): void {
  const row = document.querySelector<HTMLElement>(".ol-row[data-last] .ol-name");
  if (row) row.focus();
  else leaveFocus(typedIn);
}

/** Runs the shortcuts wherever nothing is being typed. */
export function useComposeKeys(actions: ComposeActions, startAdding: () => void): void {
  const { mayEdit, select, part } = useBench();
  useEffect(() => {
    const onEscape = (event: KeyboardEvent) => {
      if (event.key === "Escape" && event.target instanceof Element && event.target.closest(CLOSES)) hushed = true;
    };
    const onPointer = () => (hushed = false);
    const onKey = (event: KeyboardEvent) => {
      if (event.key === "Escape" && isTyping(event.target) && !event.defaultPrevented && !isSomethingOpen())
        return backToOutline(event.target as HTMLElement);
      if (isBusyElsewhere(event) || isTurnedOff(event) || isHushed(event)) return;
      if (event.key === "Enter" && part && event.target === document.body && mayEdit) {
        event.preventDefault();
        return select(part, "label");
      }
      const shortcut = SHORTCUTS.find((each) => each.fits(event));
      if (!shortcut || (!mayEdit && !shortcut.looks)) return;
      event.preventDefault();
      const upwards = event.shiftKey && event.key === "ArrowUp";
      if (upwards) actions.step(-1, true);
      else shortcut.run(actions, startAdding, select, part);
      // Whoever walks through the outline goes along with the selection.
      if (event.key.startsWith("Arrow") && isInOutline(event.target)) requestAnimationFrame(focusRow);
    };
    addEventListener("keydown", onKey);
    // Before the editor, which closes itself.
    addEventListener("keydown", onEscape, { capture: true });
    addEventListener("pointerdown", onPointer);
    return () => {
      removeEventListener("keydown", onKey);
      removeEventListener("keydown", onEscape, { capture: true });
      removeEventListener("pointerdown", onPointer);
    };
  });
}
