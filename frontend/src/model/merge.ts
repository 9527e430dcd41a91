// Two people, one draft: changes to different parts both stay; changes to the same one are a clash to be asked about.
import type { Form } from "../api/generated/wire";
import { alone, type Entry, FORM, type Into, listsOf, type Parts, partsOf } from "./parts";
import { same } from "./same";

export interface Merge {
  /** Theirs with my changes put in; where both changed the same, `prefer` decided. */
  form: Form;
  /** Ids of parts, or names of form settings, that both changed differently. */
  clashes: string[];
}

interface Versions {
  base: Parts;
  mine: Parts;
  theirs: Parts;
}

type Kept = Map<string, { entry: Entry; settings: Record<string, unknown> }>;

/** Merge what I made of `base` with what somebody else made of it. */
export function merge(base: Form, mine: Form, theirs: Form, prefer: "mine" | "theirs"): Merge {
  const clashes: string[] = [];
  const pick = <Value>(name: string, before: Value, my: Value, their: Value): Value => {
    if (same(my, before) || same(my, their)) return their;
    if (same(their, before)) return my;
    clashes.push(name);
    return prefer === "mine" ? my : their;
  };
  const own = [base, mine, theirs].map(alone) as [Partial<Form>, Partial<Form>, Partial<Form>];
  const names = Object.keys(own[2]) as (keyof Form)[];
  const settings = names.map((name) => [name, pick(name, own[0][name], own[1][name], own[2][name])]);
  const versions = { base: partsOf(base), mine: partsOf(mine), theirs: partsOf(theirs) };
  const kept: Kept = new Map();
  for (const id of new Set([...versions.mine.keys(), ...versions.theirs.keys()])) {
    const [before, my, their] = [versions.base.get(id), versions.mine.get(id), versions.theirs.get(id)];
    const own = (entry: Entry | undefined) => entry && alone(entry.part);
    const chosen = pick(id, own(before), own(my), own(their));
    if (chosen) kept.set(id, { entry: placed(before, my, their), settings: chosen });
  }
  clashes.push(...broughtBack(kept, versions));
  takenOutOfRows(kept);
  const form = { ...Object.fromEntries(settings), ...assembled(versions, kept, theirs) } as Form;
  return { form, clashes };
}

/** Repeats that one of us removed while the other gave them a row kind come back: a row kind stands nowhere else. */
function broughtBack(kept: Kept, { mine, theirs }: Versions): string[] {
  const lost = [...kept.values()].filter(({ entry }) => entry.what === "kind" && !kept.has(entry.into.holder));
  const repeats = new Set(lost.map(({ entry }) => entry.into.holder));
  for (const id of repeats) {
    const entry = (mine.get(id) ?? theirs.get(id))!;
    kept.set(id, { entry, settings: alone(entry.part) });
  }
  return [...repeats];
}

/** Repeats that one of us put into what the other moved into a row: rows hold none, so they stand where they are seen. */
function takenOutOfRows(kept: Kept): void {
  const isInRow = (id: string, seen = new Set<string>()): boolean => {
    const entry = kept.get(id)?.entry;
    if (!entry || seen.has(id)) return false;
    return entry.what === "kind" || isInRow(entry.into.holder, seen.add(id));
  };
  for (const [id, { entry, settings }] of kept)
    if (entry.what === "block" && entry.part.type === "repeat" && isInRow(entry.into.holder))
      kept.set(id, { entry: { ...entry, into: NOWHERE }, settings });
}

/** Where nothing is built: what stands there comes at the end of the last page. */
const NOWHERE: Into = { holder: "nowhere", list: "blocks" };

/** Where a part stands: where I put it if I moved it, else where they have it. */
function placed(before: Entry | undefined, my: Entry | undefined, their: Entry | undefined): Entry {
  const moved = !before || (my && nameOf(my.into) !== nameOf(before.into));
  return (moved ? (my ?? their) : (their ?? my))!;
}

const nameOf = (into: Into): string => `${into.holder}/${into.list}`;

function assembled({ base, mine, theirs }: Versions, kept: Kept, form: Form): Partial<Form> {
  const used = new Set<string>();
  const listed = [base, mine, theirs].map(sequences) as [Sequences, Sequences, Sequences];
  const built = (holder: string, lists: readonly string[]): Record<string, unknown> =>
    Object.fromEntries(
      lists.map((list) => {
        const name = `${holder}/${list}`;
        const members = [...kept.keys()].filter((id) => nameOf(kept.get(id)!.entry.into) === name && !used.has(id));
        members.forEach((id) => used.add(id));
        return [list, arranged(listed, name, members).map(made)];
      }),
    );
  const made = (id: string): Record<string, unknown> => {
    const { entry, settings } = kept.get(id)!;
    return { ...settings, ...built(id, listsOf(entry.part)) };
  };
  const result = built(FORM, listsOf(form)) as { pages: { blocks: unknown[] }[] };
  // What one of us put into something that the other removed, or where it can't stand, is kept where it is seen: at the
  // end.
  for (const [id, { entry }] of kept)
    if (!used.has(id) && entry.what === "block" && result.pages.length > 0) {
      used.add(id);
      result.pages.at(-1)!.blocks.push(made(id));
    }
  return result as unknown as Partial<Form>;
}

type Sequences = Map<string, string[]>;

function sequences(parts: Parts): Sequences {
  const found: Sequences = new Map();
  for (const entry of parts.values()) {
    const name = nameOf(entry.into);
    found.set(name, [...(found.get(name) ?? []), entry.id]);
  }
  return found;
}

/** The members of a list in my order where I changed it, else in theirs; what the other added follows its neighbour. */
function arranged([base, mine, theirs]: [Sequences, Sequences, Sequences], name: string, members: string[]): string[] {
  const [before, my, their] = [base, mine, theirs].map((each) => each.get(name) ?? []) as [
    string[],
    string[],
    string[],
  ];
  const [leading, other] = same(my, before) ? [their, my] : [my, their];
  const order = leading.filter((id) => members.includes(id));
  for (const id of members) {
    if (order.includes(id)) continue;
    const neighbour = other
      .slice(0, Math.max(0, other.indexOf(id)))
      .reverse()
      .find((each) => order.includes(each));
    const at = neighbour ? order.indexOf(neighbour) + 1 : other.includes(id) ? 0 : order.length;
    order.splice(at, 0, id);
  }
  return order;
}
