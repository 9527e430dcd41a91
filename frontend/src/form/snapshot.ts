// What a view of the form shows: the visitor's answers, what the core said of them, and where the visitor is.
import type { FormState, ReceivedReply } from "../api/generated/wire";
import type { Later } from "./later";
import type { Answers } from "./transport";

export const FORM = "whole-form"; // the address of what is wrong with the form as a whole

type Phase = "welcome" | "filling" | "sending" | "received";

/**
 * How the server is reached: as it should be; slowly, so that it is said; not at all, and asked again by itself; or not
 * for so long that only the visitor (or the line's return) asks again.
 */
export type Line = "fine" | "slow" | "away" | "lost";

export interface Snapshot {
  answers: Answers;
  state: FormState;
  /** Addresses whose errors may be shown: they were left, or leaving their page was tried. */
  visited: ReadonlySet<string>;
  phase: Phase;
  /** The step that is shown, where steps are shown one by one: a page's id. */
  page: string | null;
  /** Whether the next page waits for the server. */
  waiting: boolean;
  line: Line;
  /** Why going on was refused, as a sentence. */
  refusal: string | null;
  /** Counts failed tries to go on; the error summary takes the focus when it grows. */
  tries: number;
  /** Whether answers of an earlier visit were put back. */
  restored: boolean;
  /** When they were kept, in words, where a private link brought them; null for those of this device. */
  keptOn: string | null;
  /** What was entered on this device, where others were kept by the link meanwhile. */
  here: Answers | null;
  /** The private link by which the answers are kept, if they are. */
  later: Later | null;
  /** What was changed in the form since they were given, in words. */
  news: readonly string[];
  /** Whether the form is being filled in in another window too, with answers of its own. */
  elsewhere: boolean;
  /** Questions of a quiz that the visitor is done with. */
  checked: ReadonlySet<string>;
  /** Of which of them it was told last, all at once, so that the visitor reads it before going on. */
  told: readonly string[];
  /** Who is signed in, by name; "" for nobody. */
  signedIn: string;
  /** Whether the visitor has to sign in before they go on. */
  signIn: boolean;
  /** What was received, and what the visitor reads then. */
  received: ReceivedReply | null;
}
