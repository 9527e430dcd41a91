// Names that machines read, made of what people wrote: keys, codes, addresses.

/** A text's words in small letters without accents, and digits, with `joint` between them; at most so many signs. */
export function plainWords(text: string, joint: "-" | "_", most: number): string {
  const words = text
    .replaceAll("ß", "ss")
    .normalize("NFKD")
    .replace(/\p{M}+/gu, "")
    .toLowerCase()
    .match(/[a-z0-9]+/g);
  const joined = (words ?? []).join(joint).slice(0, most);
  return joined.endsWith(joint) ? joined.slice(0, -1) : joined;
}
