// Two people, one draft: changes to different blocks both stay; changes to the same one are a clash to be asked about.
import type { Form } from "../api/generated/wire";
import type { Block, Page } from "./blocks";
import { blocksOf } from "./outline";

export interface Merge {
  /** Theirs with my changes put in; where both changed the same, `prefer` decided. */
  form: Form;
  /** Ids of blocks, or names of form settings, that both changed differently. */
  clashes: string[];
}

const same = (left: unknown, right: unknown): boolean => JSON.stringify(left) === JSON.stringify(right);

type Versions = { base: Map<string, Block>; mine: Map<string, Block>; theirs: Map<string, Block> };

const byId = (form: Form): Map<string, Block> => new Map(blocksOf(form).map((block) => [block.id, block]));

/** Merge what I made of `base` with what somebody else made of it. */
export function merge(base: Form, mine: Form, theirs: Form, prefer: "mine" | "theirs"): Merge {
  const clashes: string[] = [];
  const pick = <Value>(name: string, before: Value, my: Value, their: Value): Value => {
    if (same(my, before) || same(my, their)) return their;
    if (same(their, before)) return my;
    clashes.push(name);
    return prefer === "mine" ? my : their;
  };
  const settings = Object.fromEntries(
    (Object.keys(theirs) as (keyof Form)[])
      .filter((name) => name !== "pages")
      .map((name) => [name, pick(name, base[name], mine[name], theirs[name])]),
  );
  const versions: Versions = { base: byId(base), mine: byId(mine), theirs: byId(theirs) };
  const blocks = new Map<string, Block>();
  for (const id of new Set([...versions.mine.keys(), ...versions.theirs.keys()])) {
    const chosen = pick(id, versions.base.get(id), versions.mine.get(id), versions.theirs.get(id));
    if (chosen) blocks.set(id, chosen);
  }
  return { form: { ...theirs, ...settings, pages: arranged(base, mine, theirs, blocks, pick) } as Form, clashes };
}

type Pick = <Value>(name: string, before: Value, my: Value, their: Value) => Value;

/** The pages in my order where I moved something, else in theirs; what the other added stands after its neighbour. */
function arranged(base: Form, mine: Form, theirs: Form, blocks: Map<string, Block>, pick: Pick): Page[] {
  const order = (form: Form): string =>
    form.pages.map((page) => [page.id, ...page.blocks.map((b) => b.id)].join()).join(";");
  const [leading, other] = order(mine) === order(base) ? [theirs, mine] : [mine, theirs];
  const pages = leading.pages.map((page) => ({ ...page, blocks: page.blocks.flatMap((b) => blocks.get(b.id) ?? []) }));
  const known = new Set(base.pages.map((page) => page.id));
  for (const page of other.pages) {
    // A page that only the other has: added by them, unless it was there before and removed on the leading side.
    if (!pages.some((each) => each.id === page.id) && !known.has(page.id)) pages.push({ ...page, blocks: [] });
    placeMissing(pages, page, blocks);
  }
  const title = (form: Form, id: string) => form.pages.find((page) => page.id === id)?.title;
  return pages.map((page) => ({
    ...page,
    title: pick(page.id, title(base, page.id), title(mine, page.id), title(theirs, page.id)) ?? page.title,
  }));
}

function placeMissing(pages: Page[], source: Page, blocks: Map<string, Block>): void {
  source.blocks.forEach(({ id }, index) => {
    const block = blocks.get(id);
    if (!block || pages.some((page) => page.blocks.some((each) => each.id === id))) return;
    const target = pages.find((page) => page.id === source.id) ?? pages.at(-1);
    if (!target) return;
    const neighbour = source.blocks[index - 1]?.id;
    const at = target.blocks.findIndex((each) => each.id === neighbour) + 1;
    target.blocks = [...target.blocks.slice(0, at), block, ...target.blocks.slice(at)];
  });
}
