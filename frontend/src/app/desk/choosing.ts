// Which forms the desk shows, in which order: pure, over the rows that came.
import type { DeskView, FormRowReply } from "../../api/generated/wire";
import { thisWeek } from "./state";

export const ALL: DeskView = { words: "", state: "", owner: "", labels: [], sort: "" };

export const STATES: readonly { state: DeskView["state"]; name: string }[] = [
  { state: "", name: "All" },
  { state: "live", name: "Live" },
  { state: "draft", name: "Drafts" },
  { state: "changed", name: "Changed since publishing" },
];

const isIn: Record<DeskView["state"], (form: FormRowReply) => boolean> = {
  "": () => true,
  live: (form) => form.live_edition !== null,
  draft: (form) => form.live_edition === null,
  changed: (form) => form.changed,
};

/** The forms that a view chooses, but for its state. */
export function chosen(forms: readonly FormRowReply[], { words, owner, labels }: DeskView): FormRowReply[] {
  const wanted = words.toLowerCase().split(/\s+/).filter(Boolean);
  return forms.filter((form) => {
    const said = [form.name, form.slug, form.owner ?? "", ...form.labels].join(" ").toLowerCase();
    const fits = wanted.every((word) => said.includes(word));
    return fits && (!owner || form.owner_id === owner) && labels.every((label) => form.labels.includes(label));
  });
}

export const inState = (forms: readonly FormRowReply[], state: DeskView["state"]): FormRowReply[] =>
  forms.filter(isIn[state]);

export type Column = "name" | "week" | "responses" | "sent" | "open" | "changed" | "opened";

const share = ({ sent, seen }: FormRowReply): number => (seen > 0 ? sent / seen : -1);

/** The forms in order: by a column, "-" before it downwards; without one as they came, the latest change first. */
export function sorted(
  forms: readonly FormRowReply[],
  sort: string,
  lately: readonly string[],
): readonly FormRowReply[] {
  if (!sort) return forms;
  const down = sort.startsWith("-");
  const places = new Map(lately.map((id, at) => [id, at]));
  const place = ({ id }: FormRowReply) => places.get(id) ?? Infinity;
  const by: Record<Column, (one: FormRowReply, other: FormRowReply) => number> = {
    name: (one, other) => one.name.localeCompare(other.name),
    week: (one, other) => thisWeek(one) - thisWeek(other),
    responses: (one, other) => one.responses - other.responses,
    sent: (one, other) => share(one) - share(other),
    open: (one, other) => one.deciding + one.failed - other.deciding - other.failed,
    changed: (one, other) => one.changed_at.localeCompare(other.changed_at),
    opened: (one, other) => (place(one) === place(other) ? 0 : place(one) - place(other)),
  };
  const compare = by[(down ? sort.slice(1) : sort) as Column];
  if (!compare) return forms;
  return [...forms].sort((one, other) => (down ? compare(other, one) : compare(one, other)));
}

/** All labels, each once, by name. */
export const labelsOf = (forms: readonly FormRowReply[]): string[] =>
  [...new Set(forms.flatMap(({ labels }) => labels))].sort((one, other) => one.localeCompare(other));

/** Whose forms there are, by id. */
export const ownersOf = (forms: readonly FormRowReply[]): ReadonlyMap<string, string> =>
  new Map(
    forms
      .flatMap(({ owner, owner_id: id }): [string, string][] => (owner && id ? [[id, owner]] : []))
      .sort(([, one], [, other]) => one.localeCompare(other)),
  );
