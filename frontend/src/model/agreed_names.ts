// Names that two people gave: a rule that one wrote follows a key that the other renamed, and keys that both came to are
// made to differ.
import type { Form } from "../api/generated/wire";
import { keyFrom } from "./outline";
import { type Parts, partsOf, rebuilt } from "./parts";
import { rewritten } from "./renaming";
import { same } from "./same";
import type { Ask, Three } from "./three_way";

/** The three forms as if all keys had always been what they are to be. `ask` is told of the part, and of both keys. */
export function withAgreedNames(
  three: Three<Form>,
  ask: (part: string, mine: string, theirs: string) => ReturnType<Ask>,
): Three<Form> {
  const keys = three.map((form) => keysIn(partsOf(form)));
  const [before, mine, theirs] = keys as [Keys, Keys, Keys];
  if (same([...mine], [...before]) && same([...theirs], [...before])) return three;
  const agreed = new Map<string, string>();
  for (const id of new Set([...mine.keys(), ...theirs.keys()])) {
    const [was, my, their] = [before.get(id), mine.get(id), theirs.get(id)];
    const isTheirs = my === undefined || my === was || my === their;
    const isMine = their === undefined || (!isTheirs && their === was);
    agreed.set(id, isMine ? my! : isTheirs || ask(id, my, their) === "theirs" ? their! : my);
  }
  const taken = [...agreed.values()];
  for (const [id, key] of agreed) {
    const isThere = (other: string) => !before.has(other) || (mine.has(other) && theirs.has(other));
    const isRival = ([other, its]: [string, string]) =>
      other !== id && its === key && mine.get(other) !== key && isThere(other);
    if (theirs.get(id) === key || ![...agreed].some(isRival)) continue;
    const apart = keyFrom(key.replace(/_\d+$/, ""), taken);
    agreed.set(id, apart);
    taken.push(apart);
  }
  return three.map((form, at) => named(form, keys[at]!, agreed)) as unknown as Three<Form>;
}

type Keys = ReadonlyMap<string, string>;

/** The keys outside rows, by part: fields and figures, which have one scope. */
const keysIn = (parts: Parts): Keys =>
  new Map(
    [...parts.values()].flatMap((entry) =>
      (entry.what === "block" || entry.what === "figure") && entry.kind === null ? [[entry.id, entry.part.key]] : [],
    ),
  );

function named(form: Form, keys: Keys, agreed: Keys): Form {
  const renamed = new Map(
    [...keys].flatMap(([id, key]) => ((agreed.get(id) ?? key) === key ? [] : [[key, agreed.get(id)!]])),
  );
  if (renamed.size === 0) return form;
  const followed = rewritten(form, renamed);
  return rebuilt(followed, (items) =>
    items.map((part) => {
      const now = agreed.get(part.id);
      return now === undefined || !keys.has(part.id) ? part : { ...part, key: now };
    }),
  );
}
