import type { FormRowReply } from "../../api/generated/wire";

/** The state of a form in words: "Edition 3 · changed since". */
export function stateOf(form: FormRowReply): string {
  if (form.unreadable) return "Can’t be read by this version";
  if (form.live_edition === null) return "Draft, never published";
  return form.changed ? `Edition ${form.live_edition} · changed since` : `Edition ${form.live_edition}`;
}

export const thisWeek = (form: FormRowReply): number => form.days.slice(-7).reduce((sum, each) => sum + each, 0);
