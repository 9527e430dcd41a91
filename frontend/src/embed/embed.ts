// Shows Codexa forms on a website: <div data-codexa="team/form"></div> becomes the form, in the page or in a window of
// its own. This file keeps its address and what it promises: docs/embedding.md. It sets no cookie and needs nothing else.
import { type Floating, makeFloating } from "./floating";
import { type Frame, makeFrame, type Message, setStyle } from "./frame";
import { origin, type Place, placeOf, roomOf, widthOf } from "./place";

interface Shown {
  place: Place;
  frame: () => Frame | null;
  floating: Floating | null;
}

/** Those on the page; all that were ever made are known while they live, as a place may be put back. */
const shown = new Map<HTMLElement, Shown>();
const made = new WeakMap<HTMLElement, Shown>();

function show(host: HTMLElement): void {
  if (shown.has(host)) return;
  const one = made.get(host) ?? makeShown(host);
  made.set(host, one);
  shown.set(host, one);
}

function makeShown(host: HTMLElement): Shown {
  const place = placeOf(host);
  const room = roomOf(place);
  const before = { hung: getComputedStyle(host).position === "fixed", height: host.offsetHeight };
  const root = host.attachShadow({ mode: "open" });
  if (place.kind !== "page") {
    const floating = makeFloating(place, root, before);
    return { place, frame: () => floating.frame, floating };
  }
  const width = widthOf(place, 0);
  setStyle(host, { display: "block", "min-height": `${room}px`, height: "auto", "max-height": "none" });
  if (width) setStyle(host, { "max-width": `${width}px` });
  const frame = makeFrame(place, root, true, () => undefined);
  return { place, frame: () => frame, floating: null };
}

const showAll = () => document.querySelectorAll<HTMLElement>("[data-codexa]").forEach(show);

/** Forgets what was taken off the page; put there again, its frame loads anew by itself. */
function forgetGone(): void {
  for (const [host, { floating }] of shown) {
    if (host.isConnected) continue;
    floating?.stop();
    shown.delete(host);
  }
}

function listen(): void {
  addEventListener("message", (event: MessageEvent<Message | null>) => {
    // Only the form in a frame of ours may say something, and only of itself.
    if (event.origin !== origin || typeof event.data !== "object" || event.data === null) return;
    for (const { frame } of shown.values()) {
      const mine = frame();
      if (mine && mine.element.contentWindow === event.source) mine.hear(event.data);
    }
  });
  document.addEventListener("click", (event) => {
    if (!(event.target instanceof Element)) return;
    for (const { floating } of shown.values()) {
      const opener = floating?.isOpener(event.target);
      if (!floating || !opener) continue;
      event.preventDefault();
      floating.open(opener);
    }
  });
  // Websites that build themselves by scripts put places there at any time.
  new MutationObserver(() => {
    showAll();
    forgetGone();
  }).observe(document.documentElement, { childList: true, subtree: true });
}

// However often the script stands on a page, one of them works.
const mark = `codexa embeds of ${origin}`;
const page = window as unknown as Record<string, unknown>;
if (!page[mark]) {
  page[mark] = true;
  listen();
  showAll();
}
