// A label typed where it stands on the sheet, lying over the one that visitors see.
import { type CSSProperties, type RefObject, useLayoutEffect, useRef, useState } from "react";
import { oneLine } from "../../text/words";

interface Props {
  /** What the block is called, for whoever hears it. */
  name: string;
  text: string;
  /** The block on the sheet, in which the label stands. */
  block: RefObject<HTMLElement | null>;
  /** The row kind that it stands in, or null. */
  rowKind: string | null;
  onChange: (text: string) => void;
  /** Typing has ended: by a key, or because something else was clicked, which keeps the focus then. */
  onDone: (by: "key" | "leaving") => void;
}

/** The labels of blocks as they are drawn. */
export const LABELS = ".cx-label, .cx-heading h3, .sh-holder";

export function LabelOnSheet({ name, text, block, rowKind, onChange, onDone }: Props) {
  const field = useRef<HTMLTextAreaElement>(null);
  const [place, setPlace] = useState<CSSProperties>({});
  useLayoutEffect(() => {
    setPlace(placeOf(block.current!));
    field.current?.select();
  }, [block]);
  return (
    <textarea
      ref={field}
      className="sh-typing"
      aria-label={`Label of ${name}, on the sheet`}
      autoFocus
      rows={1}
      data-values={rowKind ?? ""}
      value={text}
      style={place}
      onChange={(event) => onChange(oneLine(event.target.value))}
      onKeyDown={(event) => {
        event.stopPropagation();
        if (event.key !== "Enter" && event.key !== "Escape") return;
        event.preventDefault();
        onDone("key");
      }}
      onBlur={({ relatedTarget }) => {
        // The list of values to insert gives the focus back.
        if (!relatedTarget?.closest("[data-inserter]")) onDone("leaving");
      }}
    />
  );
}

/** Where the label lies in its block, and how it is written. */
function placeOf(block: HTMLElement): CSSProperties {
  const label = block.querySelector<HTMLElement>(LABELS);
  if (!label) return {};
  const [inner, outer] = [label.getBoundingClientRect(), block.getBoundingClientRect()];
  const { fontFamily, fontSize, fontWeight, lineHeight } = getComputedStyle(label);
  return {
    left: inner.left - outer.left,
    top: inner.top - outer.top,
    right: 8,
    fontFamily,
    fontSize,
    fontWeight,
    lineHeight,
  };
}
