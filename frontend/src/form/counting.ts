// How far a visit has come, told to the server to be counted there. Nothing of it says whose visit it is: its name is made
// up for this window, and of answers nothing is told. Who does not want to be counted is not.
import type { PublicPage, VisitRequest } from "../api/generated/wire";
import type { withRows } from "./prefetch";
import type { FormSession } from "./session";

const PAUSE_MS = 1_500;
/** The server forgets visits after a day; what is told later would be another one. */
const DAY_MS = 22 * 3_600_000;
const NARROW_PX = 600;
const MEDIUM_PX = 1_100;

type Told = Required<VisitRequest>;
type Session = Pick<FormSession, "face" | "paged" | "beganAt" | "isTouched" | "read" | "subscribe" | "errorOf">;
type Page = Pick<PublicPage, "form" | "edition" | "shown" | "came" | "seal" | "entry" | "token" | "received">;

/** What is kept of a visit for when its page is loaded again: since when it is, what it told, milliseconds by step. */
interface Kept {
  began: number;
  told: Told;
  spent: Record<string, number>;
}

export type Send = (address: string, told: Told) => void;

const refuses = (): boolean =>
  navigator.doNotTrack === "1" || (navigator as { globalPrivacyControl?: boolean }).globalPrivacyControl === true;

// A page that is being left sends it all the same.
const post: Send = (address, told) =>
  void fetch(address, {
    method: "POST",
    headers: { "Content-Type": "application/json" },
    body: JSON.stringify(told),
    credentials: "omit",
    keepalive: true,
  }).catch(() => undefined);

const widthOf = (pixels: number): Told["width"] =>
  pixels < NARROW_PX ? "narrow" : pixels < MEDIUM_PX ? "medium" : "wide";

/** Keeps it for when the page is loaded again; not where the browser has no storage, or refuses. */
function keep(name: string, kept: Kept): void {
  try {
    sessionStorage.setItem(name, JSON.stringify(kept));
  } catch {
    // It is another visit then.
  }
}

function keptOf(name: string): Kept | null {
  try {
    const kept = JSON.parse(sessionStorage.getItem(name) ?? "null") as Kept | null;
    return kept && !kept.told.sent && Date.now() - kept.began < DAY_MS ? kept : null;
  } catch {
    return null;
  }
}

/**
 * Counts this window's visit from now on, but of a preview and of what was received. `withRowsOf` is what the page has
 * anyhow: imported here, it would be taken out of the page's own script, which would be larger then.
 */
export function countVisit(session: Session, page: Page, withRowsOf: typeof withRows, send: Send = post): void {
  if (page.token || page.received || refuses()) return;
  const name = `codexa-visit-${page.form}`;
  const address = `/api/public/${page.form}/${page.edition}/visit${page.shown ? `?codexa-shown=${page.shown}` : ""}`;
  const { came, seal, entry } = page;
  const fresh = (): Kept => ({
    began: Date.now(),
    told: {
      ...{ visit: crypto.randomUUID(), turn: 0, width: widthOf(screen.width), came, seal, entry, seconds: 0 },
      ...{ started: false, sent: false, place: "", field: "", steps: {}, wrong: [] },
    },
    spent: {},
  });
  const counted = new Counted(session, withRowsOf, keptOf(name) ?? fresh(), {
    fresh,
    tell: (kept) => {
      keep(name, kept);
      send(address, kept.told);
    },
  });
  session.subscribe(() => counted.look());
  addEventListener("focusin", ({ target }) =>
    counted.arriveAt((target as Element).closest<HTMLElement>("[data-block]")?.dataset.block ?? ""),
  );
  document.addEventListener("visibilitychange", () => counted.show(document.visibilityState === "visible"));
  addEventListener("pagehide", () => counted.show(false));
  if (document.visibilityState === "visible") counted.show(true);
}

interface Host {
  fresh: () => Kept;
  tell: (kept: Kept) => void;
}

class Counted {
  private readonly stepOf: ReadonlyMap<string, string>;
  private soon: ReturnType<typeof setTimeout> | undefined;
  /** Since when the present step is looked at; null while the window is not. */
  private since: number | null = null;
  private seen: unknown[] = [];

  constructor(
    private readonly session: Session,
    withRowsOf: typeof withRows,
    private kept: Kept,
    private readonly host: Host,
  ) {
    const { pages } = session.face;
    this.stepOf = new Map(pages.flatMap(({ id, blocks }) => withRowsOf(blocks).map((block) => [block.id, id])));
  }

  show(visible: boolean): void {
    if (visible) {
      this.since ??= Date.now();
      this.look();
      if (this.kept.told.turn === 0) this.tell();
    } else if (this.since !== null) {
      this.tell();
      this.since = null;
    }
  }

  arriveAt(field: string): void {
    if (!this.stepOf.has(field) || this.kept.told.sent) return;
    this.kept.told.field = field;
    this.look();
  }

  /** Takes what has become of the session since it was looked at last. */
  look(): void {
    const { phase } = this.session.read();
    const { told } = this.kept;
    if (told.sent) {
      if (phase === "received") return;
      this.kept = this.host.fresh();
      this.look();
      return this.tell();
    }
    this.lookForErrors();
    if (phase === "received") {
      told.sent = told.started = true;
      return this.tell();
    }
    if (!told.started && this.session.isTouched) {
      told.started = true;
      this.tellSoon();
    }
    const place = this.place();
    if (place === told.place) return;
    this.spend();
    told.place = place;
    if (place) this.kept.spent[place] ??= 0;
    // Where questions are asked one by one, a step is its question.
    if (this.stepOf.has(place)) told.field = place;
    this.tellSoon();
  }

  private place(): string {
    const { page, phase, state } = this.session.read();
    if (phase === "welcome") return "";
    if (this.session.paged) return page ?? "";
    return this.stepOf.get(this.kept.told.field) ?? state.path[0] ?? "";
  }

  private lookForErrors(): void {
    const { visited, state, tries } = this.session.read();
    const now = [visited, state, tries];
    if (now.every((each, at) => each === this.seen[at])) return;
    this.seen = now;
    const wrong = [...visited].filter((address) => this.session.errorOf(address));
    const blocks = wrong.map((address) => address.split("/").at(-1)!).filter((block) => this.stepOf.has(block));
    const { told } = this.kept;
    const all = [...new Set([...told.wrong, ...blocks])];
    if (all.length > told.wrong.length) this.tellSoon();
    told.wrong = all;
  }

  private spend(): void {
    const { told, spent } = this.kept;
    if (told.place && this.since !== null) spent[told.place] = (spent[told.place] ?? 0) + Date.now() - this.since;
    if (this.since !== null) this.since = Date.now();
  }

  private tellSoon(): void {
    this.soon ??= setTimeout(() => this.tell(), PAUSE_MS);
  }

  private tell(): void {
    clearTimeout(this.soon);
    this.soon = undefined;
    if (Date.now() - this.kept.began > DAY_MS) return;
    this.spend();
    const { told, spent } = this.kept;
    told.turn += 1;
    told.seconds = Math.max(0, Math.round((Date.now() - this.session.beganAt) / 1_000));
    told.steps = Object.fromEntries(Object.entries(spent).map(([step, ms]) => [step, Math.round(ms / 1_000)]));
    this.host.tell(this.kept);
  }
}
