// What a website puts where a form shall stand, in each way.

export type Way = "page" | "frame" | "pop-up" | "tab" | "corner" | "link";

export const WAYS: Readonly<Record<Way, { title: string; lead: string }>> = {
  page: { title: "In the page", lead: "Stands where the snippet stands, and grows with what is in it." },
  "pop-up": { title: "Pop-up", lead: "Opens above the page: by a press, after a time, or when somebody is leaving." },
  tab: { title: "Side tab", lead: "A tab at the side of the page, from which the form comes." },
  corner: { title: "Corner window", lead: "A button in the corner, and the form in a small window above it." },
  frame: { title: "Plain frame", lead: "Without a script, for websites that allow none. Its height is fixed." },
  link: { title: "Plain link", lead: "Leads to the form on a page of its own." },
};

export interface SnippetOptions {
  way: Way;
  /** For screen readers, and as the words of a link. */
  title: string;
  /** The words on the button. */
  button: string;
  /** What of the page opens a pop-up, as a CSS selector (Selectors Level 4); "" for a button of ours. */
  opener: string;
  /** Seconds till it opens by itself; "" for never. */
  after: string;
  /** Another way of presenting the form than its own, or "". */
  shown: string;
  /** The language in which it begins, or "" for that of the website or browser. */
  language: string;
  /** Words beside the button of a corner window, once that time has passed; "" for none. */
  greeting: string;
  leaving: boolean;
  /** Pixels; "" for as wide as there is room. */
  width: string;
  /** Pixels that are kept free until the form is there. */
  room: string;
  fragment: boolean;
  values: Readonly<Record<string, string>>;
  /** The name of a list of the page's own that hears what happens. */
  list: string;
  /** Words and colours of the form that our buttons take. */
  close: string;
  colour: string;
  on: string;
  /** Whether the page lets in nothing inline. */
  strict: boolean;
}

/** The attributes of a place beside its form, by their names without "data-codexa-". */
export function attributesOf(options: SnippetOptions): Record<string, string> {
  const {
    way,
    title,
    button,
    opener,
    after,
    shown,
    language,
    greeting,
    leaving,
    width,
    room,
    fragment,
    values,
    list,
    close,
    colour,
    on,
  } = options;
  const floats = way === "pop-up" || way === "tab" || way === "corner";
  const query = new URLSearchParams(Object.entries(values).filter(([, value]) => value !== "")).toString();
  const all: Record<string, string | false> = {
    as: floats && way,
    title,
    button: floats && !(way === "pop-up" && opener !== "") && button,
    opener: way === "pop-up" && opener,
    after: (way === "pop-up" || (way === "corner" && greeting !== "")) && after,
    shown,
    language,
    greeting: way === "corner" && greeting,
    width,
    room: way === "page" && room,
    values: query,
    list,
    close: floats && close !== "Close" && close,
    colour: floats && colour,
    on: floats && on,
  };
  const found = Object.entries(all).filter((each): each is [string, string] => each[1] !== false && each[1] !== "");
  if (way === "pop-up" && leaving) found.push(["leaving", ""]);
  if (way === "page" && fragment) found.push(["fragment", ""]);
  return Object.fromEntries(found);
}

const HUNG = "position: fixed; right: 12px; bottom: 12px";

/** The snippet for a form at an address of ours ("https://…/f/team/form"). */
export function snippetOf(address: string, options: SnippetOptions): string {
  const [base, form] = address.split("/f/") as [string, string];
  const { way, title, room, strict, width } = options;
  const query = new URLSearchParams([
    ...Object.entries(options.values).filter(([, value]) => value !== ""),
    ...(options.shown ? [["codexa-shown", options.shown]] : []),
    ...(options.language ? [["codexa-language", options.language]] : []),
  ]).toString();
  const link = `<a href="${quoted(address + (query && `?${query}`))}">${escaped(title)}</a>`;
  if (way === "link") return link;
  if (way === "frame") {
    const source = `${base}/embed/${form}${query && `?${query}`}`;
    return framed(source, title, width || "100%", room);
  }
  const attributes = Object.entries(attributesOf(options)).map(([name, value]) =>
    value === "" ? ` data-codexa-${name}` : ` data-codexa-${name}="${quoted(value)}"`,
  );
  // A link that no button of ours takes the place of hangs over the page, where it moves nothing.
  const hangs = way === "tab" || way === "corner" || (way === "pop-up" && options.opener !== "");
  const keeps = hangs ? HUNG : `min-height: ${way === "page" ? room : 44}px`;
  const style = strict ? "" : ` style="${keeps}"`;
  const place = `<div data-codexa="${quoted(form)}"${attributes.join("")}${style}>${link}</div>`;
  const script = `<script ${strict ? "" : "async "}src="${quoted(base)}/embed/1.js"></script>`;
  // Where no style may stand inline the script keeps the room, so that it must be there first.
  return strict ? `${script}\n${place}` : `${place}\n${script}`;
}

/** A page of ours put into another, so wide and so many pixels high. */
export const framed = (source: string, title: string, width: string, height: string): string =>
  `<iframe src="${quoted(source)}" title="${quoted(title)}" width="${width}" height="${height}" style="border: 0"></iframe>`;

/** Where the practice website shows a form so. */
export function standOf(website: string, address: string, options: SnippetOptions): string {
  const form = address.split("/f/")[1] ?? "";
  const asked = new URLSearchParams({ form, ...attributesOf(options), as: options.way, room: options.room });
  return `${website}/stand?${asked}`;
}

const escaped = (text: string): string => text.replace(/&/g, "&amp;").replace(/</g, "&lt;").replace(/>/g, "&gt;");
const quoted = (text: string): string => escaped(text).replace(/"/g, "&quot;");
