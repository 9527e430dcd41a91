// How long a text is, once it comes near to the most that is taken; what is too much is told, and never cut off.
import { say } from "../text/visitor";

const NEAR = 0.8;

/** Characters as people see them: a letter with its accents, or a flag, is one. */
export const characters = (text: string): number =>
  // Where a browser can't tell them apart the count may be too high; the server's is the one that decides.
  [...("Segmenter" in Intl ? new Intl.Segmenter().segment(text) : text)].length;

export function LengthTold({ text, most }: { text: string; most: number | null | undefined }) {
  // No text has more characters than units: most need not be counted.
  if (!most || text.length <= most * NEAR) return null;
  const count = characters(text);
  const over = count - most;
  return (
    <p className={over > 0 ? "cx-count cx-error" : "cx-count"} aria-live="polite">
      {count} / {most}
      {over > 0 && ` · ${say("tooLong", { count: String(over) })}`}
    </p>
  );
}
