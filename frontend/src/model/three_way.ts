// What two people made of one value comes together: setting by setting, item by item, order by moves. Where both changed
// the same thing otherwise, it is asked whose stays.
import { same } from "./same";

export type Side = "mine" | "theirs";

/** What a value was, what I made of it, and what they did. */
export type Three<Value = unknown> = readonly [before: Value, mine: Value, theirs: Value];

/** Asked where both changed the same: which setting ("options.o1.label"), and what each made of it. */
export type Ask = (path: string, mine: unknown, theirs: unknown) => Side;

type Settings = Readonly<Record<string, unknown>>;
type Item = Settings & { readonly id?: string; readonly locale?: string };

/** What says of which sort something is; where that was changed, its other settings mean something else. */
const SORTS = ["type", "kind"];

const isSettings = (value: unknown): value is Settings =>
  value !== null && typeof value === "object" && !Array.isArray(value);
const areOfOneSort = (three: Three<Settings>): boolean =>
  SORTS.every((sort) => three.every((each) => same(each[sort], three[0][sort])));

/** What tells an item of a list from the others, or undefined. */
const nameOf = (item: unknown): string | undefined =>
  isSettings(item) ? ((item as Item).id ?? (item as Item).locale) : undefined;
const areNamed = (list: unknown): list is readonly Item[] =>
  Array.isArray(list) && list.every((item) => typeof nameOf(item) === "string");

/** The value with both changes in it. */
export function mergedValue(path: string, three: Three, ask: Ask): unknown {
  const [before, mine, theirs] = three;
  if (same(mine, before) || same(mine, theirs)) return theirs;
  if (same(theirs, before)) return mine;
  if (isSettings(before) && isSettings(mine) && isSettings(theirs) && areOfOneSort([before, mine, theirs]))
    return mergedSettings(path, [before, mine, theirs], ask);
  if (areNamed(before) && areNamed(mine) && areNamed(theirs)) return mergedList(path, [before, mine, theirs], ask);
  return ask(path, mine, theirs) === "mine" ? mine : theirs;
}

const within = (path: string, step: string): string => (path ? `${path}.${step}` : step);

export function mergedSettings(path: string, [before, mine, theirs]: Three<Settings>, ask: Ask): Settings {
  const names = new Set([...Object.keys(theirs), ...Object.keys(mine)]);
  const merged = [...names].map((name) => [
    name,
    mergedValue(within(path, name), [before[name], mine[name], theirs[name]], ask),
  ]);
  return Object.fromEntries(merged.filter(([, value]) => value !== undefined)) as Settings;
}

function mergedList(path: string, three: Three<readonly Item[]>, ask: Ask): readonly Item[] {
  const [before, mine, theirs] = three.map((list) => new Map(list.map((item) => [nameOf(item)!, item])));
  const kept = new Map<string, Item>();
  for (const name of new Set([...mine!.keys(), ...theirs!.keys()])) {
    const item = mergedValue(within(path, name), [before!.get(name), mine!.get(name), theirs!.get(name)], ask);
    if (item !== undefined) kept.set(name, item as Item);
  }
  const order = mergedOrder(
    three.map((list) => list.map((item) => nameOf(item)!)) as unknown as Three<readonly string[]>,
    new Set(kept.keys()),
    (name, my, their) => ask(within(within(path, name), "place"), my, their),
  );
  return withCodesApart(
    order.map((name) => kept.get(name)!),
    theirs!,
  );
}

/** Codes that the program gave to what each of us added are made to differ: theirs stay. */
function withCodesApart(items: readonly Item[], theirs: ReadonlyMap<string, Item>): readonly Item[] {
  const taken = new Set([...theirs.values()].map(({ code }) => code));
  return items.map((item) => {
    const { code } = item;
    if (typeof code !== "string" || theirs.has(nameOf(item)!)) return item;
    let now = code;
    for (let at = 2; taken.has(now); at += 1) now = `${code}_${at}`;
    taken.add(now);
    return now === code ? item : { ...item, code: now };
  });
}

/** The members in their order, with what I moved or added behind the neighbour that I gave it. */
export function mergedOrder(three: Three<readonly string[]>, members: ReadonlySet<string>, ask: Ask): string[] {
  const [before, mine, theirs] = three;
  const [myMoves, theirMoves] = [movedIn(before, mine), movedIn(before, theirs)];
  const theirPlaces = new Set(theirs);
  const staysTheirs = (id: string): boolean =>
    theirPlaces.has(id) &&
    (!myMoves.has(id) ||
      (theirMoves.has(id) &&
        !same(beside(mine, id), beside(theirs, id)) &&
        ask(id, beside(mine, id), beside(theirs, id)) === "theirs"));
  const order = theirs.filter((id) => members.has(id) && staysTheirs(id));
  const placed = new Set(order);
  let neighbour = -1; // where in the order that stands which comes before in mine
  for (const [at, id] of mine.entries()) {
    if (!members.has(id)) continue;
    if (placed.has(id)) {
      // What they moved is no neighbour any more: mine stays where I put it.
      if (!theirMoves.has(id) || myMoves.has(id)) neighbour = order.indexOf(id);
      continue;
    }
    // Before the first that is there, it stands as it stood with me: in front of what follows.
    const follows =
      neighbour < 0 ? mine.slice(at + 1).find((each) => placed.has(each) && !theirMoves.has(each)) : undefined;
    neighbour = neighbour >= 0 ? neighbour + 1 : follows === undefined ? 0 : order.indexOf(follows);
    order.splice(neighbour, 0, id);
    placed.add(id);
  }
  for (const id of members) if (!placed.has(id)) order.push(id);
  return order;
}

/** What stands before and after something. */
const beside = (order: readonly string[], id: string): readonly (string | undefined)[] => {
  const at = order.indexOf(id);
  return [order[at - 1], order[at + 1]];
};

/** What was moved between two orders: all but the longest run of those that still follow each other as they did. */
export function movedIn(before: readonly string[], after: readonly string[]): ReadonlySet<string> {
  const place = new Map(before.map((id, at) => [id, at]));
  const both = after.filter((id) => place.has(id));
  // The longest rising subsequence: `ends` has where the best one of each length ends, `previous` how it came there.
  const ends: number[] = [];
  const previous: number[] = [];
  both.forEach((id, at) => {
    let [low, high] = [0, ends.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (place.get(both[ends[middle]!]!)! < place.get(id)!) low = middle + 1;
      else high = middle;
    }
    previous[at] = low > 0 ? ends[low - 1]! : -1;
    ends[low] = at;
  });
  const stays = new Set<string>();
  for (let at = ends.at(-1) ?? -1; at >= 0; at = previous[at]!) stays.add(both[at]!);
  return new Set(both.filter((id) => !stays.has(id)));
}
