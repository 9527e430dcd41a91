// Enter in a box of one line goes to the next field, so that a long form is not sent half done. No React.

const ONE_LINE: ReadonlySet<string> = new Set([
  "text",
  "email",
  "tel",
  "url",
  "number",
  "search",
  "date",
  "time",
  "datetime-local",
]);
const FIELDS = "input, select, textarea, button.cx-submit";

const isReached = (field: HTMLElement): boolean =>
  field.tabIndex >= 0 && !field.matches(":disabled") && (field.checkVisibility?.() ?? true);

/** Puts the focus on what follows a box of one line: another field, or the button that goes on; else does nothing. */
export function goToNext(from: EventTarget, form: HTMLFormElement): boolean {
  if (!(from instanceof HTMLInputElement) || !ONE_LINE.has(from.type)) return false;
  const fields = [...form.querySelectorAll<HTMLElement>(FIELDS)];
  const next = fields.slice(fields.indexOf(from) + 1).find(isReached);
  next?.focus();
  return next !== undefined;
}
