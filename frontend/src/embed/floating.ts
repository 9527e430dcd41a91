// A form in a window of its own: a pop-up, one behind a tab at the side, or one in the corner.
import { makeFrame, setStyle, tell, type Frame } from "./frame";
import { numberIn, type Place, widthOf } from "./place";

const STYLES = `
:host { all: initial; }
button { font: 600 16px/24px system-ui, sans-serif; cursor: pointer; border: 0; box-sizing: border-box; }
button:focus-visible { outline: 3px solid var(--on); outline-offset: -5px; box-shadow: 0 0 0 3px var(--colour); }
.open { min-height: 44px; padding: 10px 20px; border-radius: 6px; color: var(--on); background: var(--colour); }
.tab.open { position: fixed; right: 0; top: 50%; z-index: 2147483000; writing-mode: vertical-rl;
  transform: translateY(-50%) rotate(180deg); border-radius: 0 6px 6px 0; padding: 20px 10px; max-height: 80vh; }
.corner.open { position: fixed; right: 20px; bottom: 20px; z-index: 2147483000; border-radius: 24px;
  box-shadow: 0 2px 12px rgb(0 0 0 / 25%); }
.greeting { position: fixed; right: 20px; bottom: 76px; z-index: 2147483000; display: flex; align-items: flex-start;
  max-width: min(300px, calc(100vw - 40px)); color: #16202b; background: #fff; border-left: 4px solid var(--colour);
  box-shadow: 0 2px 16px rgb(0 0 0 / 22%); }
.greeting button { color: #16202b; background: none; --on: #16202b; --colour: #fff; }
.greeting .words { padding: 12px 4px 12px 14px; font-weight: 400; text-align: left; overflow-wrap: anywhere; }
.greeting .hush { flex: none; width: 44px; height: 44px; font-size: 20px; }
dialog { display: none; padding: 0; border: 0; box-sizing: border-box; background: #fff; color: #16202b; overflow: hidden;
  flex-direction: column; width: min(var(--width), calc(100vw - 16px)); max-width: none; max-height: none;
  box-shadow: 0 8px 40px rgb(0 0 0 / 30%); border-radius: 8px; }
dialog[open] { display: flex; }
dialog::backdrop { background: rgb(16 24 32 / 55%); }
dialog.pop-up { height: min(760px, calc(100dvh - 32px)); margin: auto; }
dialog.tab { height: 100dvh; margin: 0 0 0 auto; border-radius: 8px 0 0 8px; }
dialog.corner { position: fixed; inset: auto 20px 20px auto; margin: 0; z-index: 2147483000;
  height: min(640px, calc(100dvh - 40px)); }
.bar { display: flex; justify-content: flex-end; flex: none; background: #fff; }
.bar button { width: 44px; height: 44px; font-size: 24px; color: #16202b; background: none; --on: #16202b; --colour: #fff; }
.form { flex: 1; min-height: 0; }
@media (max-width: 480px) {
  dialog.pop-up, dialog.tab, dialog.corner { width: 100vw; height: 100dvh; inset: 0; margin: 0; border-radius: 0; }
}
`;

const CLOSED = "codexa-closed:";

/** Whether this visitor has closed it already: then it opens by itself no more while the tab is open. */
function wasClosed(form: string, now?: boolean): boolean {
  try {
    if (now) sessionStorage.setItem(CLOSED + form, "yes");
    return sessionStorage.getItem(CLOSED + form) !== null;
  } catch {
    return now ?? false;
  }
}

export interface Floating {
  frame: Frame | null;
  open: (opener?: HTMLElement) => void;
  /** Whether a press on this element is meant to open it. */
  isOpener: (element: Element) => HTMLElement | null;
  stop: () => void;
}

/** How a place was before it became ours: whether it hung over the page, and how tall it was. */
export interface Before {
  hung: boolean;
  height: number;
}

export function makeFloating(place: Place, root: ShadowRoot, kept: Before): Floating {
  const { host, kind } = place;
  const { codexa, codexaButton, codexaClose, codexaColour, codexaOn, codexaOpener, codexaAfter, codexaGreeting } =
    host.dataset;
  const sheet = new CSSStyleSheet();
  sheet.replaceSync(STYLES);
  root.adoptedStyleSheets = [sheet];
  // The link that stood there takes no room where it hung over the page; else its room stays, so that nothing moves.
  setStyle(host, kept.hung ? { display: "contents" } : { display: "block", "min-height": `${kept.height}px` });
  host.style.setProperty("--colour", codexaColour || "#2b3a8c");
  host.style.setProperty("--on", codexaOn || "#ffffff");
  host.style.setProperty("--width", `${widthOf(place, kind === "corner" ? 400 : 640)}px`);

  const button = document.createElement("button");
  button.type = "button";
  button.className = `open ${kind}`;
  button.textContent = codexaButton || place.title;
  button.setAttribute("aria-haspopup", "dialog");
  if (kind !== "pop-up" || !codexaOpener) root.append(button);

  const dialog = document.createElement("dialog");
  dialog.className = kind;
  dialog.setAttribute("aria-label", place.title);
  const bar = document.createElement("div");
  bar.className = "bar";
  const close = document.createElement("button");
  close.type = "button";
  close.textContent = "×";
  const closing = codexaClose || "Close";
  close.setAttribute("aria-label", closing);
  const form = document.createElement("div");
  form.className = "form";
  bar.append(close);
  dialog.append(bar, form);
  root.append(dialog);

  const hush = () => greeting?.remove();
  let greeting: HTMLElement | null = null;
  let opener: HTMLElement | null = null;
  const made: Floating = {
    frame: null,
    open: (from) => {
      if (dialog.open) return;
      hush();
      opener = from ?? (document.activeElement as HTMLElement | null);
      // The form is loaded once it is wanted, and stays as it is when the window is closed.
      made.frame ??= makeFrame(place, form, false, leave);
      if (kind === "corner") dialog.show();
      else dialog.showModal();
      if (kind !== "pop-up") button.hidden = true;
      made.frame.element.focus();
      tell(place, "opened", {});
    },
    isOpener: (element) => (codexaOpener ? closestTo(element, codexaOpener) : null),
    stop: () => {
      clearTimeout(timer);
      document.removeEventListener("mouseout", leaving);
    },
  };
  const leave = () => dialog.open && dialog.close();
  dialog.addEventListener("close", () => {
    button.hidden = false;
    wasClosed(codexa!, true);
    const back = opener?.isConnected && opener !== host && opener !== document.body ? opener : button;
    back.focus();
    tell(place, "closed", {});
  });
  dialog.addEventListener("keydown", (event) => event.key === "Escape" && leave());
  close.addEventListener("click", leave);
  button.addEventListener("click", () => made.open(button));

  const byItself = () => {
    if (wasClosed(codexa!) || dialog.open) return;
    if (kind !== "corner" || !codexaGreeting) return made.open();
    greeting = greetingOf(
      codexaGreeting,
      closing,
      () => made.open(button),
      () => {
        wasClosed(codexa!, true);
        hush();
        button.focus();
      },
    );
    root.append(greeting);
  };
  const after = numberIn(codexaAfter, -1);
  const timer = codexaAfter === undefined || after < 0 ? undefined : setTimeout(byItself, after * 1_000);
  const leaving = (event: MouseEvent) => {
    if (event.relatedTarget === null && event.clientY <= 0) byItself();
  };
  if ("codexaLeaving" in host.dataset) document.addEventListener("mouseout", leaving);
  return made;
}

/** Words beside the button, which open the form or are sent away; they take no focus and make no sound. */
function greetingOf(words: string, close: string, onOpen: () => void, onHush: () => void): HTMLElement {
  const box = document.createElement("div");
  box.className = "greeting";
  box.setAttribute("role", "status");
  const made = [
    ["words", words, "", onOpen],
    ["hush", "×", close, onHush],
  ] as const;
  for (const [name, text, label, onPress] of made) {
    const button = document.createElement("button");
    button.type = "button";
    button.className = name;
    button.textContent = text;
    if (label) button.setAttribute("aria-label", label);
    button.addEventListener("click", () => onPress());
    box.append(button);
  }
  return box;
}

function closestTo(element: Element, selector: string): HTMLElement | null {
  try {
    return element.closest<HTMLElement>(selector);
  } catch {
    return null; // no selector: the page goes on as without us
  }
}
