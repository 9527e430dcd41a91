// A field that becomes another type where it stands: it keeps its id, its key, its rules, and all settings that both have.
import { type Block, type BlockKind, typeOf } from "./blocks";
import { same } from "./same";

/** Types whose answers can be kept as those of the others beside them. */
const FAMILIES: readonly (readonly BlockKind[])[] = [
  ["single_choice", "several_choices", "dropdown"],
  ["short_text", "long_text", "email", "phone", "web_address"],
  ["number", "money", "slider"],
  ["date", "date_time"],
];

/** What a field of a type can become. */
export const typesInstead = (kind: BlockKind): readonly BlockKind[] =>
  FAMILIES.flatMap((family) => (family.includes(kind) ? family.filter((each) => each !== kind) : []));

export interface Retyped {
  block: Block;
  /** The settings that it loses, by name: those that the other type does not have. */
  lost: readonly string[];
}

export function retyped(block: Block, kind: BlockKind): Retyped {
  const [blank, usual] = [typeOf(kind).blank, typeOf(block.type).blank].map((each) => each as unknown as Settings);
  const own = block as unknown as Settings;
  const kept = Object.keys(own).filter(
    (name) => name !== "type" && name in blank! && !(own[name] === null && blank![name] !== null),
  );
  const lost = Object.keys(own).filter((name) => !(name in blank!) && !same(own[name], usual![name]));
  const made = { ...blank, ...Object.fromEntries(kept.map((name) => [name, own[name]])) };
  return { block: made as unknown as Block, lost };
}

type Settings = Readonly<Record<string, unknown>>;
