// Unfinished answers, kept on the visitor's own device until the form is handed in or a week has passed.
//
// Each filling-in has a place of its own. Two windows (or two copies of a form on one page) have two: which one a window
// has is known by a sign of life that it gives while it is open.
import { inStorage } from "../ui/in_storage";
import type { Later } from "./later";
import type { Answers } from "./transport";

const WEEK_MS = 7 * 24 * 3_600_000;
const SIGN_MS = 3_000;
const SILENT_MS = 9_000; // who has given no sign for so long is gone

export interface Kept {
  answers: Answers;
  page: string | null;
  seed: number;
  /** What stands for this one response when it is sent, however often. */
  key: string;
  /** With which edition they were given last, and when the first of them was (milliseconds since 1970). */
  edition?: number;
  began?: number;
  /** In which language they were typed, where the form has several. */
  language?: string;
  /** Questions of a quiz that the visitor was done with. */
  checked?: readonly string[];
  /** The private link by which they are kept on the server too, if they are. */
  later?: Later | null;
  /** Whether it was being sent: what came of it is not known. */
  sending: boolean;
  at: number;
}

export interface AnswerStore {
  /** Names this filling-in to the server. */
  readonly visit: string;
  /** Whether the form is being filled in in another window too. */
  readonly elsewhere: boolean;
  load: () => Kept | null;
  save: (kept: Omit<Kept, "at">) => void;
  clear: () => void;
}

export interface DeviceStore extends AnswerStore {
  /** Puts other answers in the place of those that were there when the page was opened. */
  change: (kept: Kept) => void;
  leave: () => void;
}

interface Place {
  visit: string;
  kept: Kept | null;
  alive: number;
}

const newVisit = (): string => crypto.randomUUID().replaceAll("-", "");

/** A store in the browser; where it has none (a private window, a strict frame), nothing is kept and nothing fails. */
export function answerStore(
  form: string,
  storage: () => Storage = () => localStorage,
  window: () => Storage = () => sessionStorage,
): DeviceStore {
  const prefix = `codexa-answers-${form}-`;
  const nameOf = (visit: string) => prefix + visit;
  const places = inStorage(storage, (place) => placesIn(place, prefix)) ?? [];
  const alive = (place: Place) => Date.now() - place.alive < SILENT_MS;
  const mine = inStorage(window, (place) => place.getItem(prefix));
  const free = places.filter((place) => !alive(place) && place.kept);
  const taken = free.find((place) => place.visit === mine) ?? free.sort((a, b) => b.kept!.at - a.kept!.at)[0];
  const visit = taken?.visit ?? newVisit();
  inStorage(window, (place) => place.setItem(prefix, visit));
  let found = taken?.kept ?? null;
  let kept = found;
  const write = (sign = Date.now()) =>
    void inStorage(storage, (place) => place.setItem(nameOf(visit), JSON.stringify({ kept, alive: sign })));
  const forget = () => void inStorage(storage, (place) => place.removeItem(nameOf(visit)));
  write();
  setInterval(write, SIGN_MS);
  return {
    visit,
    elsewhere: places.some(alive),
    load: () => found,
    change: (next) => {
      found = kept = next;
      write();
    },
    save: (next) => {
      kept = { ...next, at: Date.now() };
      write();
    },
    clear: () => {
      kept = null;
      write();
    },
    // The page may come back as it is: its signs go on by themselves then.
    leave: () => (kept ? write(0) : forget()),
  };
}

/** Every filling-in of the form that is kept on the device; what is older than a week is thrown away. */
function placesIn(storage: Storage, prefix: string): Place[] {
  const names = Object.keys(storage).filter((name) => name.startsWith(prefix));
  return names.flatMap((name) => {
    const found = read(storage.getItem(name));
    if (!found || (Date.now() - found.alive > SILENT_MS && Date.now() - (found.kept?.at ?? 0) > WEEK_MS)) {
      storage.removeItem(name);
      return [];
    }
    return [{ ...found, visit: name.slice(prefix.length) }];
  });
}

function read(text: string | null): Pick<Place, "kept" | "alive"> | null {
  try {
    const found = JSON.parse(text ?? "null") as Pick<Place, "kept" | "alive"> | null;
    return found && typeof found.alive === "number" ? found : null;
  } catch {
    return null;
  }
}
