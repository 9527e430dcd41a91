// The frame with the form in it, in a shadow root: no style of the website reaches it, nor one of ours the website.
import { addressOf, isPage, origin, type Place, roomOf } from "./place";

const TALLEST = 50_000; // pixels
const PATIENCE_MS = 8_000; // after the frame has loaded, for the form in it to say something

/** Sets styles so that none of the website's, however important, comes before them. */
export function setStyle(element: HTMLElement, styles: Record<string, string>): void {
  for (const [name, value] of Object.entries(styles)) element.style.setProperty(name, value, "important");
}

export interface Frame {
  element: HTMLIFrameElement;
  /** Hears what the form says; false for what is none of its messages. */
  hear: (message: Message) => void;
}

export interface Message {
  codexa?: unknown;
  height?: unknown;
  page?: unknown;
  id?: unknown;
  address?: unknown;
}

/** What a website hears of its form, by the form's own word for it: never an answer. */
const TOLD: Record<string, readonly (keyof Message)[]> = {
  ready: [],
  page: ["page"],
  answered: [],
  submitted: ["id"],
  height: ["height"],
  unavailable: [],
};

/** Tells the website, as an event of the element and in its own list, if it names one. */
export function tell({ host }: Place, name: string, detail: Record<string, unknown>): void {
  const form = host.dataset.codexa!;
  host.dispatchEvent(new CustomEvent(`codexa:${name}`, { detail: { form, ...detail }, bubbles: true, composed: true }));
  const list = host.dataset.codexaList;
  if (!list || name === "height") return;
  const page = window as unknown as Record<string, unknown>;
  page[list] ??= [];
  if (Array.isArray(page[list])) page[list].push({ event: `codexa:${name}`, form, ...detail });
}

/** Makes the frame and puts it where it belongs; `grows` with what is in it, or fills what is around it. */
export function makeFrame(place: Place, into: Node, grows: boolean, leave: () => void): Frame {
  const { host } = place;
  const element = document.createElement("iframe");
  element.title = place.title;
  const room = grows ? roomOf(place) : 0;
  setStyle(element, {
    display: "block",
    width: "100%",
    "min-width": "0",
    "max-width": "none",
    "max-height": "none",
    border: "0",
    height: grows ? `${room}px` : "100%",
  });
  let heard = false;
  const patience = () =>
    setTimeout(() => {
      if (!heard) into.appendChild(linkOf(place));
    }, PATIENCE_MS);
  element.addEventListener("load", patience, { once: true });
  element.src = addressOf(place);
  into.appendChild(element);
  const hear = (message: Message) => {
    heard = true;
    const { codexa, height, page, address } = message;
    if (codexa === "height") {
      // A hidden page has none. The room that was kept stays, by the place's own least height.
      if (typeof height !== "number" || !(height > 0)) return;
      const tall = Math.min(Math.ceil(height), TALLEST);
      if (grows) setStyle(element, { height: `${tall}px` });
    }
    if (codexa === "page" && isPage(page)) {
      if ("codexaFragment" in host.dataset) history.replaceState(history.state, "", `#${page}`);
      if (grows && element.getBoundingClientRect().top < 0) element.scrollIntoView();
    }
    if (codexa === "redirect" && typeof address === "string" && /^https?:\/\//.test(address)) location.assign(address);
    if (codexa === "leave") leave();
    if (typeof codexa !== "string" || !Object.hasOwn(TOLD, codexa)) return;
    tell(place, codexa, Object.fromEntries(TOLD[codexa]!.map((each) => [each, message[each]])));
  };
  return { element, hear };
}

/** A link to the form's own page: what is left where the frame shows nothing. */
export function linkOf({ host, title }: Place): HTMLElement {
  const link = host.querySelector("a")?.cloneNode(true) as HTMLAnchorElement | undefined;
  if (link) return link;
  const made = document.createElement("a");
  made.href = `${origin}/f/${host.dataset.codexa}`;
  made.textContent = title;
  return made;
}
