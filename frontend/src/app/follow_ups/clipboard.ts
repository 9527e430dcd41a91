// Follow-ups on the clipboard: copied within and between forms as text that only Codexa reads.
import { useEffect } from "react";
import type { KnownTable } from "../../api/generated/wire";
import type { Action } from "../../model/draft";
import { newId } from "../../model/new_block";
import { type FollowUp, FORM, type Parts } from "../../model/parts";
import { isBusyElsewhere } from "../compose/keys";
import { coming, tablesNamedIn } from "../tables/tables_along";
import { useBench } from "../workbench/bench";

const MARK = "codexa follow-up 1";

interface Copied {
  followUp: FollowUp;
  /** The keys of the fields that it names by their ids: in another form the same field has another id. */
  keys: Record<string, string>;
  /** The tables whose records it makes. */
  tables?: readonly KnownTable[];
}

const keyOf = (parts: Parts, id: string): string => {
  const entry = parts.get(id);
  return entry?.what === "block" ? entry.part.key : "";
};

/** The ids of fields that a follow-up names: whom it goes to, where answers go, which date it waits for. */
function fieldsOf(followUp: FollowUp): string[] {
  const mail = followUp.kind === "email" ? [followUp.reply_to, ...followUp.recipients.map(({ field }) => field)] : [];
  return [...mail, followUp.day.field].filter(Boolean);
}

/** A follow-up as text for the clipboard. */
export function written(followUp: FollowUp, parts: Parts, tables: readonly KnownTable[] = []): string {
  const keys = Object.fromEntries(fieldsOf(followUp).map((id) => [id, keyOf(parts, id)]));
  return JSON.stringify({ [MARK]: { followUp, keys, tables: tablesNamedIn(followUp, tables) } });
}

/** The tables that came along with a follow-up. */
export const tablesOf = (text: string): readonly KnownTable[] => copiedIn(text)?.tables ?? [];

/** The follow-up that was copied, for a form with these parts; null for any other text. What it names goes by its key. */
export function read(text: string, parts: Parts): FollowUp | null {
  const found = copiedIn(text);
  if (!found) return null;
  const ids = new Map(
    [...parts.values()].flatMap((entry) => (entry.what === "block" ? [[entry.part.key, entry.id]] : [])),
  );
  const here = (id: string): string => (parts.has(id) ? id : (ids.get(found.keys[id] ?? "") ?? id));
  const { followUp } = found;
  const day = { ...followUp.day, field: followUp.day.field && here(followUp.day.field) };
  const made = { ...followUp, id: newId(), day };
  return made.kind === "email"
    ? {
        ...made,
        reply_to: made.reply_to && here(made.reply_to),
        recipients: made.recipients.map((each) => ({ ...each, field: each.field && here(each.field) })),
      }
    : made;
}

function copiedIn(text: string): Copied | null {
  try {
    return ((JSON.parse(text) as Record<string, Copied> | null)?.[MARK] ?? null) as Copied | null;
  } catch {
    return null;
  }
}

/** Pastes a follow-up wherever nothing is being typed. */
export function useFollowUpPaste(): void {
  const { parts, form, act, select, mayEdit } = useBench();
  useEffect(() => {
    const paste = (event: ClipboardEvent) => {
      if (isBusyElsewhere(event) || !mayEdit) return;
      const text = event.clipboardData?.getData("text/plain") ?? "";
      const made = read(text, parts);
      if (!made) return;
      event.preventDefault();
      const along = coming(form.tables, tablesOf(text));
      const at = form.follow_ups.length;
      const add: Action = { do: "add", parts: [made], into: { holder: FORM, list: "follow_ups" }, at };
      act(along ? { do: "together", actions: [along, add] } : add);
      select(made.id);
    };
    addEventListener("paste", paste);
    return () => removeEventListener("paste", paste);
  });
}
