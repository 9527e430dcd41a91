// A tab in a text of columns: Tab itself leaves, as everywhere; the sign between columns has a key of its own, Ctrl+I.
import type { KeyboardEvent } from "react";

export function tabByKey(event: KeyboardEvent, onText: (text: string) => void): void {
  if (event.key.toLowerCase() !== "i" || !(event.ctrlKey || event.metaKey)) return;
  event.preventDefault();
  const field = event.target as HTMLTextAreaElement;
  const { selectionStart: at, selectionEnd: end, value } = field;
  onText(`${value.slice(0, at)}\t${value.slice(end)}`);
  requestAnimationFrame(() => field.setSelectionRange(at + 1, at + 1));
}
