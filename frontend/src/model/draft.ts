// The draft as state: actions are data, the reducer is pure. No React, no fetch.
import type { Form } from "../api/generated/wire";
import { merge } from "./merge";
import { type Into, partsOf, rebuilt } from "./parts";

/** Anything that stands in a list of the form. */
export interface Part {
  readonly id: string;
}

export type Action =
  | { do: "edit_form"; changes: Partial<Form> }
  /** Changes the same settings of one or several parts, whatever they are. */
  | { do: "edit"; parts: readonly string[]; changes: Readonly<Record<string, unknown>> }
  | { do: "add"; parts: readonly Part[]; into: Into; at: number }
  /** `at` counts among the parts of the list without those that move. */
  | { do: "move"; parts: readonly string[]; into: Into; at: number }
  | { do: "remove"; parts: readonly string[] }
  /** Several actions that are one step for whoever undoes it. */
  | { do: "together"; actions: readonly Action[] }
  /** What somebody or the core made of `base`; what was changed since then stays. */
  | { do: "replace"; base: Form; form: Form };

const isSame = (one: Into, other: Into): boolean => one.holder === other.holder && one.list === other.list;

/** The draft after an action; the very same object where the action changes nothing. */
export function apply(form: Form, action: Action): Form {
  switch (action.do) {
    case "replace":
      return form === action.base ? action.form : merge(action.base, form, action.form, "mine").form;
    case "edit_form":
      return { ...form, ...action.changes };
    case "edit": {
      const wanted = new Set(action.parts);
      return rebuilt(form, (items) =>
        items.some((part) => wanted.has(part.id))
          ? items.map((part) => (wanted.has(part.id) ? { ...part, ...action.changes } : part))
          : items,
      );
    }
    case "add":
      return put(form, action.parts, action.into, action.at);
    case "remove":
      return without(form, new Set(action.parts));
    case "move":
      return moved(form, action.parts, action.into, action.at);
    case "together":
      return action.actions.reduce(apply, form);
  }
}

const put = (form: Form, parts: readonly Part[], into: Into, at: number): Form =>
  rebuilt(form, (items, here) => (isSame(into, here) ? [...items.slice(0, at), ...parts, ...items.slice(at)] : items));

const without = (form: Form, ids: ReadonlySet<string>): Form =>
  rebuilt(form, (items) =>
    items.some((part) => ids.has(part.id)) ? items.filter((part) => !ids.has(part.id)) : items,
  );

function moved(form: Form, ids: readonly string[], into: Into, at: number): Form {
  const parts = partsOf(form);
  const wanted = new Set(ids);
  const outermost = [...parts.values()].filter((entry) => wanted.has(entry.id) && !isInside(parts, entry.id, wanted));
  const target = parts.get(into.holder);
  // Nothing can be put into itself, or where nothing of its kind stands.
  const lost = into.holder !== "" && (!target || wanted.has(into.holder) || isInside(parts, into.holder, wanted));
  if (outermost.length === 0 || lost) return form;
  if (outermost.some((entry) => !mayStand(entry.part, parts, into))) return form;
  const after = put(
    without(form, wanted),
    outermost.map((entry) => entry.part),
    into,
    at,
  );
  return order(after) === order(form) ? form : after;
}

const order = (form: Form): string => [...partsOf(form).values()].map((e) => `${e.into.holder}/${e.id}`).join();

/** Whether a part stands, at any depth, in one of these. */
export function isInside(parts: ReturnType<typeof partsOf>, id: string, holders: ReadonlySet<string>): boolean {
  for (let at = parts.get(id)?.into.holder; at; at = parts.get(at)?.into.holder) if (holders.has(at)) return true;
  return false;
}

/** A repeat can't stand in a row. */
function mayStand(part: object, parts: ReturnType<typeof partsOf>, into: Into): boolean {
  const target = parts.get(into.holder);
  const inRow = target !== undefined && (target.what === "kind" || target.kind !== null);
  return !(inRow && JSON.stringify(part).includes('"type":"repeat"'));
}
