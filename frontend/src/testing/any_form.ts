// Forms of any shape for property tests: what a few random actions make of an empty one.
import fc from "fast-check";
import type { Form } from "../api/generated/wire";
import type { BlockKind } from "../model/blocks";
import { type Action, apply } from "../model/draft";
import { newBlock, newConfirmation, newPage, newRowKind } from "../model/new_block";
import { type Entry, FORM, type Into, partsOf } from "../model/parts";

export const EMPTY = {
  name: "Visit",
  title: "Visit",
  pages: [{ ...newPage("One"), id: "p1" }],
  confirmations: [],
  figures: [],
  trials: [],
  tables: [],
} as unknown as Form;

const KINDS: BlockKind[] = ["short_text", "number", "single_choice", "group", "repeat", "calculated", "file_upload"];

/** What somebody does, in numbers that mean something only once there is a form to do it to. */
export interface Doing {
  what: "add" | "move" | "remove" | "label" | "page" | "confirmation" | "kind";
  which: number;
  where: number;
  at: number;
}

export const anyDoing: fc.Arbitrary<Doing> = fc.record({
  what: fc.constantFrom("add", "add", "add", "move", "move", "label", "remove", "page", "confirmation", "kind"),
  which: fc.nat(40),
  where: fc.nat(40),
  at: fc.nat(6),
});

export const anyDoings = (most = 14): fc.Arbitrary<Doing[]> => fc.array(anyDoing, { maxLength: most });

const pick = <Each>(items: readonly Each[], number: number): Each | undefined => items[number % items.length];

/** The lists that blocks can stand in. */
const placesOf = (entries: readonly Entry[]): Into[] =>
  entries
    .filter(({ what, part }) => what === "page" || what === "kind" || (what === "block" && "blocks" in part))
    .map(({ id }) => ({ holder: id, list: "blocks" }));

/** The action that it is on this form, or null where there is nothing to do it to. */
export function actionOf(form: Form, { what, which, where, at }: Doing): Action | null {
  const entries = [...partsOf(form).values()];
  const blocks = entries.filter((entry) => entry.what === "block");
  const into = pick(placesOf(entries), where);
  switch (what) {
    case "add": {
      if (!into) return null;
      const inRow = entries.some(({ id, kind, what }) => id === into.holder && (kind !== null || what === "kind"));
      const kind = pick(KINDS, which)!;
      return { do: "add", parts: [newBlock(form, inRow && kind === "repeat" ? "number" : kind)], into, at };
    }
    case "move": {
      const some = [pick(blocks, which), pick(blocks, which * 7 + at)].flatMap((entry) => (entry ? [entry.id] : []));
      return into ? { do: "move", parts: some, into, at } : null;
    }
    case "label": {
      const block = pick(blocks, which);
      return block ? { do: "edit", parts: [block.id], changes: { help: `Help ${where}` } } : null;
    }
    case "remove": {
      const gone = pick(blocks, which);
      return gone ? { do: "remove", parts: [gone.id] } : null;
    }
    case "page":
      return { do: "add", parts: [newPage("More")], into: { holder: FORM, list: "pages" }, at };
    case "confirmation":
      return { do: "add", parts: [newConfirmation("Thanks")], into: { holder: FORM, list: "confirmations" }, at };
    case "kind": {
      const repeat = pick(
        blocks.filter(({ part }) => part.type === "repeat"),
        which,
      );
      return repeat ? { do: "add", parts: [newRowKind([])], into: { holder: repeat.id, list: "kinds" }, at } : null;
    }
  }
}

/** The form after all of it. */
export const after = (form: Form, doings: readonly Doing[]): Form =>
  doings.reduce((made, doing) => {
    const action = actionOf(made, doing);
    return action ? apply(made, action) : made;
  }, form);

export const anyForm: fc.Arbitrary<Form> = anyDoings(20).map((doings) => after(EMPTY, doings));
