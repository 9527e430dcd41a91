// Steps that can be undone, small enough to be kept in the browser: each as what makes the state before of the one after.
import type { Form } from "../api/generated/wire";
import { alone, FORM, LISTS, listsOf, partsOf } from "./parts";
import { same } from "./same";

/** What makes one state of another: settings by part (null where it is not there), and the order of lists that differ. */
export interface Delta {
  parts: Readonly<Record<string, Record<string, unknown> | null>>;
  lists: Readonly<Record<string, readonly string[]>>;
}

interface Apart {
  parts: Map<string, Record<string, unknown>>;
  lists: Map<string, readonly string[]>;
}

function apart(form: Form): Apart {
  const found: Apart = { parts: new Map(), lists: new Map() };
  const visit = (id: string, holder: object): void => {
    found.parts.set(id, alone(holder));
    for (const list of listsOf(holder)) {
      const items = (holder as Record<string, readonly { id: string }[]>)[list]!;
      const ids = items.map((item) => item.id);
      found.lists.set(`${id}/${list}`, ids);
      for (const item of items) visit(item.id, item);
    }
  };
  visit(FORM, form);
  return found;
}

/** What makes `to` of `from`. */
export function delta(from: Form, to: Form): Delta {
  const [old, now] = [apart(from), apart(to)];
  const parts: Record<string, Record<string, unknown> | null> = {};
  for (const [id, settings] of now.parts) if (!same(old.parts.get(id), settings)) parts[id] = settings;
  for (const id of old.parts.keys()) if (!now.parts.has(id)) parts[id] = null;
  const lists: Record<string, readonly string[]> = {};
  for (const [name, ids] of now.lists) if (!same(old.lists.get(name), ids)) lists[name] = ids;
  return { parts, lists };
}

/** The form with a delta: what does not differ stays the very same object. */
export function withDelta(form: Form, { parts, lists }: Delta): Form {
  const before = partsOf(form);
  const made = (id: string, was: object | undefined): object => {
    const given = parts[id] ?? (was ? alone(was) : {});
    let changed = was === undefined || parts[id] !== undefined;
    const within: Record<string, unknown> = {};
    // A part that is new has the lists that the delta tells of; one that was there keeps its own.
    for (const list of was ? listsOf(was) : LISTS.filter((each) => `${id}/${each}` in lists)) {
      const items = (was as Record<string, readonly { id: string }[]> | undefined)?.[list] ?? [];
      const ids = lists[`${id}/${list}`] ?? items.map((item) => item.id);
      const now = ids.map((each) => made(each, before.get(each)?.part));
      within[list] = now;
      changed ||= now.length !== items.length || now.some((item, at) => item !== items[at]);
    }
    return changed ? { ...given, ...within } : was!;
  };
  return made(FORM, form) as Form;
}

interface Told {
  from: Form;
  delta: Delta;
  /** Characters that it takes. */
  size: number;
}

/** What was told once of two states need not be worked out again: with each step only one is new. */
const told = new WeakMap<Form, Told>();

function toldOf(from: Form, to: Form): Told {
  const known = told.get(to);
  if (known?.from === from) return known;
  const found = delta(from, to);
  const fresh = { from, delta: found, size: JSON.stringify(found).length };
  told.set(to, fresh);
  return fresh;
}

/** The latest of these states, told from one to the one before, as many as there is room for. */
export function deltasOf(form: Form, past: readonly { form: Form }[], room: number): Delta[] {
  const found: Delta[] = [];
  let [now, left] = [form, room];
  for (const step of past.toReversed()) {
    const each = toldOf(now, step.form);
    left -= each.size;
    if (left < 0) break;
    found.push(each.delta);
    now = step.form;
  }
  return found;
}

/** The states that deltas tell of, the latest last. */
export function statesOf(form: Form, deltas: readonly Delta[]): Form[] {
  const found: Form[] = [];
  for (const each of deltas) found.unshift(withDelta(found[0] ?? form, each));
  return found;
}
