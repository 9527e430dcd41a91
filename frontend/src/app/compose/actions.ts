// What can be done with the parts of a form, in words of the job; each is one step that can be undone.
import { api } from "../../api/client";
import type { Form } from "../../api/generated/wire";
import { type Block, type BlockKind, isQuestion, type Page, titleSetting } from "../../model/blocks";
import type { Action } from "../../model/draft";
import {
  copied,
  copiesOf,
  copiesOfKinds,
  duplicatesOf,
  newBlock,
  newConfirmation,
  newFormPart,
  newPage,
  newRowKind,
  pageCopy,
  uncopied,
} from "../../model/new_block";
import { isKeyRead, keyFrom, keysOf } from "../../model/outline";
import { type Entry, FORM, type Into, type Parts, type RowKind } from "../../model/parts";
import { retyped } from "../../model/retyping";
import type { Bench } from "../workbench/bench";

/** Where a part is put: `at` counts the parts of the list before it. */
export interface Target {
  into: Into;
  at: number;
}

export interface ComposeActions {
  add: (kind: BlockKind, target: Target) => void;
  addBlocks: (blocks: readonly Block[], target: Target) => void;
  addPage: () => void;
  /** Puts copies of pages behind the page that is selected, or stood on. */
  addPages: (pages: readonly Page[]) => void;
  /** Makes a field another type where it stands. */
  retype: (block: string, kind: BlockKind) => void;
  addConfirmation: () => void;
  /** Makes a part that a group fills in, and opens it; what is given belongs to it then. */
  addFormPart: (owner?: string) => void;
  addRowKind: (repeat: string) => void;
  /** Puts copies of row kinds into the repeat that is selected, or into a new one. */
  addRowKinds: (kinds: readonly RowKind[]) => void;
  edit: (part: string, changes: Readonly<Record<string, unknown>>) => void;
  editSelected: (changes: Readonly<Record<string, unknown>>) => void;
  /** Changes a label, and the key with it as long as the key was made of the label and nothing reads it. */
  editLabel: (part: string, label: string) => void;
  /** Calls a setting of a part otherwise ("key", "options.0.code"), with every formula that uses it. */
  rename: (part: string, setting: string, name: string) => Promise<void>;
  move: (parts: readonly string[], target: Target) => void;
  /** Moves the selection up or down, over the edge of its page too. */
  shift: (by: -1 | 1) => void;
  /** Puts the selection into the group or row kind above it, or takes it out of the one that it stands in. */
  nest: (inwards: boolean) => void;
  /** Selects the next or previous part of the outline. */
  step: (by: -1 | 1, extend: boolean) => void;
  duplicate: () => void;
  remove: (parts?: readonly string[]) => void;
  /** Puts the selected blocks into a new group. */
  group: () => void;
  afterSelection: () => Target;
}

/** A removal of what others read: who they are, and what removes it all the same. */
export interface Removal {
  parts: readonly string[];
  readers: readonly string[];
  go: () => void;
}

/** The ids of what reads these parts, or what is inside them, from outside. */
function readersOf({ parts, analysis }: Pick<Bench, "parts" | "analysis">, ids: readonly string[]): string[] {
  const inside = new Set(ids);
  for (const entry of parts.values()) if (inside.has(entry.into.holder)) inside.add(entry.id);
  const readers = [...inside].flatMap((id) => analysis.links[id]?.read_by ?? []);
  return [...new Set(readers)].filter((id) => !inside.has(id));
}

const isKeyOfCopy = (key: string, title: string): boolean => {
  const original = uncopied(title);
  return original !== title && key.replace(/_\d+$/, "") === keyFrom(original, []);
};

const CHOSEN = { page: "page", block: "block", kind: "row kind", confirmation: "confirmation" } as const;

type Selecting = Pick<Bench, "parts" | "part" | "selected" | "form">;

/** What moves the selection one place up or down; null where there is none. */
export function shifted({ parts, part, selected, form }: Selecting, by: -1 | 1): Action | null {
  const entry = part ? parts.get(part) : undefined;
  if (!entry) return null;
  const siblings = [...parts.values()].filter(
    (each) => each.into.holder === entry.into.holder && each.into.list === entry.into.list,
  );
  const moving = siblings.filter(({ id }) => selected.includes(id));
  const [first, last] = [moving[0], moving.at(-1)];
  if (!first || !last) return null;
  // Among those that stay: one place up from the first of them, one down from the last.
  const at = by < 0 ? first.index - 1 : last.index + 2 - moving.length;
  const ids = moving.map(({ id }) => id);
  if (at >= 0 && at <= siblings.length - moving.length) return { do: "move", parts: ids, into: entry.into, at };
  const page = form.pages[form.pages.findIndex(({ id }) => id === entry.into.holder) + by];
  if (!page || parts.get(entry.into.holder)?.what !== "page") return null;
  const into: Into = { holder: page.id, list: "blocks" };
  return { do: "move", parts: ids, into, at: by < 0 ? page.blocks.length : 0 };
}

/** The actions on a workbench; `bench` gives it as it is at that moment, `ask` is asked before others lose what they read. */
export function actionsOn(bench: () => Omit<Bench, "actions">, ask?: (removal: Removal) => void): ComposeActions {
  const act = (action: Action) => bench().act(action);
  const rowKindAt = (into: Into) => {
    const holder = bench().parts.get(into.holder);
    return holder ? (holder.what === "kind" ? holder.id : holder.kind) : null;
  };
  const edit: ComposeActions["edit"] = (part, changes) => act({ do: "edit", parts: [part], changes });
  const selectedBlocks = (): Extract<Entry, { what: "block" }>[] => {
    const { parts, selected } = bench();
    const chosen = new Set(selected);
    return [...parts.values()].filter((entry) => entry.what === "block" && chosen.has(entry.id)) as never;
  };

  const actions: ComposeActions = {
    add: (kind, { into, at }) => {
      const block = newBlock(bench().form, kind, rowKindAt(into));
      act({ do: "add", parts: [block], into, at });
      bench().select(block.id, "label");
    },
    addBlocks: (blocks, { into, at }) => {
      const copies = copiesOf(bench().form, blocks, rowKindAt(into));
      act({ do: "add", parts: copies, into, at });
      bench().selectAll(copies.map((block) => block.id));
    },
    addPage: () => {
      const page = newPage("New page");
      act({ do: "add", parts: [page], into: { holder: FORM, list: "pages" }, at: bench().form.pages.length });
      bench().select(page.id);
    },
    addPages: (wanted) => {
      const { form, parts, part } = bench();
      const page = part ? (parts.get(part)?.page ?? null) : null;
      const at = page ? form.pages.findIndex(({ id }) => id === page) + 1 : form.pages.length;
      // One after the other, so that each has keys that the others have not.
      const made = wanted.reduce<Page[]>((before, each) => {
        const known = { ...form, pages: [...form.pages, ...before] };
        return [...before, pageCopy(known, each)];
      }, []);
      act({ do: "add", parts: made, into: { holder: FORM, list: "pages" }, at });
      bench().select(made[0]!.id);
    },
    retype: (id, kind) => {
      const entry = bench().parts.get(id);
      if (entry?.what !== "block") return;
      const { block } = retyped(entry.part, kind);
      const place = { into: entry.into, at: entry.index };
      act({
        do: "together",
        actions: [
          { do: "remove", parts: [id] },
          { do: "add", parts: [block], ...place },
        ],
      });
      bench().select(id);
    },
    addConfirmation: () => {
      const { confirmations } = bench().form;
      const made = newConfirmation(confirmations.length === 0 ? "For everyone" : "New confirmation");
      // The first that holds follows: a new one stands before the one that always does.
      const always = confirmations.findIndex((each) => each.when.trim() === "");
      const at = always < 0 ? confirmations.length : always;
      act({ do: "add", parts: [made], into: { holder: FORM, list: "confirmations" }, at });
      bench().select(made.id);
    },
    addFormPart: (owner) => {
      const { parts } = bench().form;
      const made = newFormPart(parts.length === 0 ? "Review" : `Part ${parts.length + 1}`);
      const add: Action = { do: "add", parts: [made], into: { holder: FORM, list: "parts" }, at: parts.length };
      const gives: Action[] = owner ? [{ do: "edit", parts: [owner], changes: { part: made.id } }] : [];
      act({ do: "together", actions: [add, ...gives] });
      bench().select(made.id);
    },
    addRowKind: (repeat) => {
      const entry = bench().parts.get(repeat);
      if (entry?.what !== "block" || entry.part.type !== "repeat") return;
      const { kinds } = entry.part;
      const made = newRowKind(kinds);
      act({ do: "add", parts: [made], into: { holder: repeat, list: "kinds" }, at: kinds.length });
      bench().select(made.id);
    },
    addRowKinds: (wanted) => {
      const { form, parts, part } = bench();
      const entry = part ? parts.get(part) : undefined;
      const holder = entry?.what === "kind" ? parts.get(entry.into.holder) : entry;
      if (holder?.what === "block" && holder.part.type === "repeat") {
        const kinds = copiesOfKinds(wanted, holder.part.kinds);
        const at = entry?.what === "kind" ? entry.index + 1 : holder.part.kinds.length;
        act({ do: "add", parts: kinds, into: { holder: holder.id, list: "kinds" }, at });
        bench().select(kinds[0]!.id);
      } else {
        const { into, at } = actions.afterSelection();
        // Rows hold no rows.
        if (rowKindAt(into)) return;
        const made = { ...newBlock(form, "repeat"), kinds: copiesOfKinds(wanted, []) };
        act({ do: "add", parts: [made], into, at });
        bench().select(made.id, "label");
      }
    },
    edit,
    editSelected: (changes) => {
      const names = Object.keys(changes);
      const parts = selectedBlocks()
        .filter(({ part }) => names.every((name) => name in part))
        .map(({ id }) => id);
      if (parts.length > 0) act({ do: "edit", parts, changes });
    },
    editLabel: (id, label) => {
      const { form, parts, saved } = bench();
      const entry = parts.get(id);
      if (entry?.what === "kind") return edit(id, { label });
      if (entry?.what !== "block") return;
      const setting = titleSetting(entry.part);
      if (!setting) return;
      const others = keysOf(form, entry.kind).filter((key) => key !== entry.part.key);
      const { key } = entry.part;
      // The key of a copy was made of the label of what it is a copy of.
      const isMade = key === keyFrom(entry.title, others) || isKeyOfCopy(key, entry.title);
      // What visitors have filled in once is known by its key, in exports and to programs.
      const isNew = saved.newestEdition === 0;
      const follows = isNew && isMade && !isKeyRead(form, key);
      edit(id, { [setting]: label, ...(follows ? { key: keyFrom(label, others) } : {}) });
    },
    rename: async (id, setting, name) => {
      let form: Form;
      let renamed: Form;
      // Whatever is changed while the core renames is renamed in, too.
      do {
        form = bench().form;
        renamed = (await api.rename(bench().reply.id, form, id, setting, name)).draft;
      } while (bench().form !== form);
      act({ do: "replace", base: form, form: renamed });
    },
    move: (parts, { into, at }) => act({ do: "move", parts, into, at }),
    shift: (by) => {
      const move = shifted(bench(), by);
      if (move) act(move);
    },
    nest: (inwards) => {
      const { parts, part } = bench();
      const holder = part ? parts.get(part)?.into.holder : undefined;
      const moving = selectedBlocks().filter((entry) => entry.into.holder === holder);
      if (moving.length === 0) return;
      const target = inwards ? innerTarget(parts, moving) : outerTarget(parts, moving[0]!);
      if (target) act({ do: "move", parts: moving.map(({ id }) => id), ...target });
    },
    step: (by, extend) => {
      const { parts, part, select } = bench();
      // What is done to several is done to blocks.
      const fits = (entry: Entry) => (extend ? entry.what === "block" || entry.id === part : entry.what in CHOSEN);
      const order = [...parts.values()].filter(fits).map((entry) => entry.id);
      const index = part ? order.indexOf(part) : -1;
      const next = index < 0 ? order.at(by > 0 ? 0 : -1) : order[index + by];
      if (next) select(next, null, extend ? "through" : "only");
    },
    duplicate: () => {
      const { form, parts, part } = bench();
      const entries = selectedBlocks();
      const last = entries.at(-1);
      if (last) {
        const copies = duplicatesOf(
          form,
          entries.map((entry) => entry.part),
          last.kind,
        );
        act({ do: "add", parts: copies, into: last.into, at: last.index + 1 });
        return bench().selectAll(copies.map((copy) => copy.id));
      }
      const entry = part ? parts.get(part) : undefined;
      if (entry?.what === "kind") return actions.addRowKinds([entry.part]);
      if (entry?.what === "page")
        return actions.addPages([{ ...entry.part, title: copied(entry.part.title || "Page") }]);
      if (entry?.what === "confirmation") {
        const copy = { ...entry.part, id: newConfirmation("").id, name: `${entry.title} 2` };
        act({ do: "add", parts: [copy], into: entry.into, at: entry.index + 1 });
        bench().select(copy.id);
      }
    },
    remove: (wanted) => {
      const { parts, selected, form, select } = bench();
      const asked = wanted ?? selected;
      // A form keeps a page.
      const kept = form.pages.every(({ id }) => asked.includes(id)) ? form.pages[0]?.id : null;
      const ids = asked.filter((id) => id !== kept);
      if (ids.length === 0) return;
      const order = [...parts.values()].filter((entry) => entry.what in CHOSEN).map((entry) => entry.id);
      const last = order.indexOf(ids.at(-1)!);
      const gone = new Set(ids);
      const next =
        order.slice(last + 1).find((id) => !gone.has(id)) ?? order.slice(0, last).findLast((id) => !gone.has(id));
      const go = () => {
        act({ do: "remove", parts: ids });
        select(next ?? null);
      };
      const readers = readersOf(bench(), ids);
      if (ask && readers.length > 0) ask({ parts: ids, readers, go });
      else go();
    },
    group: () => {
      const { form } = bench();
      const entries = selectedBlocks();
      const first = entries[0];
      if (!first) return;
      const made = newBlock(form, "group", first.kind);
      act({
        do: "together",
        actions: [
          { do: "add", parts: [made], into: first.into, at: first.index },
          { do: "move", parts: entries.map(({ id }) => id), into: { holder: made.id, list: "blocks" }, at: 0 },
        ],
      });
      bench().select(made.id, "label");
    },
    afterSelection: () => {
      const { parts, part, form } = bench();
      const entry = part ? parts.get(part) : undefined;
      if (entry?.what === "page") return { into: { holder: entry.id, list: "blocks" }, at: 0 };
      if (entry?.what === "kind") return { into: { holder: entry.id, list: "blocks" }, at: entry.part.blocks.length };
      if (entry?.what === "block") return { into: entry.into, at: entry.index + 1 };
      const page = form.pages.at(-1);
      return { into: { holder: page?.id ?? FORM, list: "blocks" }, at: page?.blocks.length ?? 0 };
    },
  };
  return actions;
}

/** The end of the group or row kind that stands just before these siblings, or of one that begins just after them. */
function innerTarget(parts: Parts, moving: readonly Entry[]): Target | null {
  const siblings = [...parts.values()].filter(
    (each) => each.into.holder === moving[0]!.into.holder && each.what === "block",
  );
  const before = siblings[moving[0]!.index - 1];
  const after = siblings[moving.at(-1)!.index + 1];
  return holderEnd(before, "end") ?? holderEnd(after, "start");
}

function holderEnd(entry: Entry | undefined, side: "start" | "end"): Target | null {
  if (entry?.what !== "block") return null;
  const holder =
    entry.part.type === "group"
      ? entry.part
      : entry.part.type === "repeat"
        ? entry.part.kinds.at(side === "end" ? -1 : 0)
        : undefined;
  if (!holder) return null;
  return { into: { holder: holder.id, list: "blocks" }, at: side === "end" ? holder.blocks.length : 0 };
}

/** The place after the group or repeat that a block stands in. */
function outerTarget(parts: Parts, entry: Entry): Target | null {
  let holder = parts.get(entry.into.holder);
  if (holder?.what === "kind") holder = parts.get(holder.into.holder);
  if (!holder || holder.what !== "block") return null;
  return { into: holder.into, at: holder.index + 1 };
}

/** The questions among the selected parts: what can be required. */
export const questionsIn = (parts: Parts, selected: readonly string[]): Extract<Entry, { what: "block" }>[] =>
  selected.flatMap((id) => {
    const entry = parts.get(id);
    return entry?.what === "block" && isQuestion(entry.part) ? [entry] : [];
  });
