// A place on a website where a form shall stand: an element with data-codexa, and what its attributes say.

export type Kind = "page" | "pop-up" | "tab" | "corner";
const KINDS: readonly string[] = ["page", "pop-up", "tab", "corner"];
const LEAST_ROOM = 320; // pixels

/** How the form is told that it stands so; "script" is the form in the page itself. */
const WAYS: Record<Kind, string> = { page: "script", "pop-up": "pop-up", tab: "tab", corner: "corner" };

export interface Place {
  host: HTMLElement;
  kind: Kind;
  title: string;
}

/** Where forms come from: the origin of this very script. */
export const origin = new URL((document.currentScript as HTMLScriptElement).src).origin;

export const placeOf = (host: HTMLElement): Place => {
  const { codexaAs = "", codexaTitle } = host.dataset;
  const kind = (KINDS.includes(codexaAs) ? codexaAs : "page") as Kind;
  return { host, kind, title: codexaTitle || host.textContent?.trim() || "Form" };
};

/** A number that an attribute has, or the usual one. */
export const numberIn = (text: string | undefined, usual: number): number => {
  const number = Number.parseFloat(text ?? "");
  return Number.isFinite(number) && number >= 0 ? number : usual;
};

/** How much room the form is given before it has said how much it takes. */
export const roomOf = ({ host }: Place): number =>
  Math.max(LEAST_ROOM, numberIn(host.dataset.codexaRoom, 0), host.offsetHeight);

export const widthOf = ({ host }: Place, usual: number): number => numberIn(host.dataset.codexaWidth, usual);

const PAGE = /^[a-z0-9-]{1,60}$/;

export const isPage = (text: unknown): text is string => typeof text === "string" && PAGE.test(text);

/** Where the frame leads: the form, the page that the website's address asks for, the values, and where it stands. */
export function addressOf({ host, kind }: Place): string {
  const form = host.dataset.codexa!.split("/").filter(Boolean).map(encodeURIComponent).join("/");
  const wanted = location.hash.slice(1);
  const page = "codexaFragment" in host.dataset && isPage(wanted) ? `/${wanted}` : "";
  const values = new URLSearchParams(location.search);
  new URLSearchParams(host.dataset.codexaValues ?? "").forEach((value, name) => values.set(name, value));
  values.set("codexa-as", WAYS[kind]);
  if (host.dataset.codexaShown) values.set("codexa-shown", host.dataset.codexaShown);
  // The language of the part of the website in which it stands, unless another is asked for.
  const language = host.dataset.codexaLanguage ?? host.closest<HTMLElement>("[lang]")?.lang;
  if (language) values.set("codexa-language", language);
  values.set("codexa-from", location.origin + location.pathname);
  return `${origin}/embed/${form}${page}?${values}`;
}
