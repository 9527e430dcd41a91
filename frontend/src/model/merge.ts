// Two people, one draft: what they changed comes together, setting by setting; where both changed the same, it is asked.
import type { Form } from "../api/generated/wire";
import { withAgreedNames } from "./agreed_names";
import { alone, type Entry, FORM, type Into, listsOf, type Parts, partsOf } from "./parts";
import { mergedOrder, mergedSettings, mergedValue, type Side, type Three } from "./three_way";

/** What both changed otherwise: of a part by its id, or of the form (""); a setting by its path. */
export interface Clash {
  owner: string;
  /** "label", "options.o1.label"; PLACE where both moved it; "" where one took away what the other changed. */
  path: string;
  mine: unknown;
  theirs: unknown;
}

export const PLACE = "place";

export const clashName = ({ owner, path }: Pick<Clash, "owner" | "path">): string => `${owner}/${path}`;

/** Whose stays where both changed the same. */
export type Prefer = Side | ((clash: Clash) => Side);

export interface Merge {
  /** Theirs with my changes put in; where both changed the same, `prefer` decided. */
  form: Form;
  clashes: Clash[];
}

interface Versions {
  base: Parts;
  mine: Parts;
  theirs: Parts;
}

type Kept = Map<string, { entry: Entry; settings: Record<string, unknown> }>;
type Decide = (clash: Clash) => Side;

/** Merge what I made of `base` with what somebody else made of it. */
export function merge(base: Form, mine: Form, theirs: Form, prefer: Prefer): Merge {
  const clashes = new Map<string, Clash>();
  const decide: Decide = (clash) => {
    clashes.set(clashName(clash), clash);
    return typeof prefer === "string" ? prefer : prefer(clash);
  };
  const askOf = (owner: string) => (path: string, my: unknown, their: unknown) =>
    decide({ owner, path, mine: my, theirs: their });
  const three = withAgreedNames([base, mine, theirs], (part, my, their) => askOf(part)("key", my, their));
  const settings = mergedSettings("", three.map(alone) as unknown as Three<Record<string, unknown>>, askOf(FORM));
  const [before, my, their] = three.map(partsOf) as [Parts, Parts, Parts];
  const versions = { base: before, mine: my, theirs: their };
  const kept: Kept = new Map();
  for (const id of new Set([...my.keys(), ...their.keys()])) {
    const entries = [before.get(id), my.get(id), their.get(id)] as const;
    const own = entries.map((entry) => entry && alone(entry.part)) as unknown as Three;
    const chosen = mergedValue("", own, askOf(id)) as Record<string, unknown> | undefined;
    if (chosen) kept.set(id, { entry: placed(entries, decide), settings: chosen });
  }
  broughtBack(kept, versions, decide);
  takenOutOfRows(kept);
  const form = { ...settings, ...assembled(versions, kept, three[2], decide) } as Form;
  return { form, clashes: [...clashes.values()] };
}

/** Repeats that one of us removed while the other gave them a row kind come back: a row kind stands nowhere else. */
function broughtBack(kept: Kept, { mine, theirs }: Versions, decide: Decide): void {
  const lost = [...kept.values()].filter(({ entry }) => entry.what === "kind" && !kept.has(entry.into.holder));
  for (const id of new Set(lost.map(({ entry }) => entry.into.holder))) {
    const entry = (mine.get(id) ?? theirs.get(id))!;
    decide({ owner: id, path: "", mine: mine.get(id)?.part, theirs: theirs.get(id)?.part });
    kept.set(id, { entry, settings: alone(entry.part) });
  }
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
function placed([before, my, their]: readonly [Entry?, Entry?, Entry?], decide: Decide): Entry {
  if (!my || !their) return (my ?? their)!;
  const [was, mine, theirs] = [before && nameOf(before.into), nameOf(my.into), nameOf(their.into)];
  if (mine === was || mine === theirs) return their;
  if (theirs === was) return my;
  return decide({ owner: my.id, path: PLACE, mine: my.into, theirs: their.into }) === "mine" ? my : their;
}

const nameOf = (into: Into): string => `${into.holder}/${into.list}`;

function assembled({ base, mine, theirs }: Versions, kept: Kept, form: Form, decide: Decide): Partial<Form> {
  const used = new Set<string>();
  const listed = [base, mine, theirs].map(sequences) as [Sequences, Sequences, Sequences];
  const membersOf = new Map<string, string[]>();
  for (const [id, { entry }] of kept) {
    const name = nameOf(entry.into);
    membersOf.set(name, [...(membersOf.get(name) ?? []), id]);
  }
  const built = (holder: string, lists: readonly string[]): Record<string, unknown> =>
    Object.fromEntries(
      lists.map((list) => {
        const name = `${holder}/${list}`;
        const members = (membersOf.get(name) ?? []).filter((id) => !used.has(id));
        members.forEach((id) => used.add(id));
        const three = listed.map((each) => each.get(name) ?? []) as unknown as Three<readonly string[]>;
        const order = mergedOrder(three, new Set(members), (id, my, their) =>
          decide({ owner: id, path: PLACE, mine: my, theirs: their }),
        );
        return [list, order.map(made)];
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
