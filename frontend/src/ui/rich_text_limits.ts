// What a text may hold, and what of a piece of HTML will be taken out of it.
import limits from "../api/generated/rich_text.json";

const SILENT = new Set(["html", "head", "body"]);

/** What the server takes out of HTML, in words: elements, attributes, classes, addresses; each once. */
export function takenOut(html: string): string[] {
  const found = new Set<string>();
  for (const element of new DOMParser().parseFromString(html, "text/html").querySelectorAll("*")) {
    const tag = element.localName;
    if (SILENT.has(tag)) continue;
    if (!limits.tags.includes(tag)) {
      found.add(`<${tag}>`);
      continue;
    }
    for (const { name, value } of element.attributes) {
      if (name === "class" && limits.classed.includes(tag)) {
        for (const each of element.classList) if (!limits.classes.includes(each)) found.add(`the class ${each}`);
      } else if (tag !== "a" || !["href", "rel"].includes(name)) found.add(`${name} of <${tag}>`);
      else if (name === "href" && !leads(value)) found.add(`the address ${value.slice(0, 60)}`);
    }
  }
  return [...found];
}

/** Whether an address is of a kind that links may lead to; what stands for a value is filled in later. */
function leads(address: string): boolean {
  const scheme = /^\s*([a-z][a-z0-9+.-]*):/i.exec(address)?.[1]?.toLowerCase();
  return scheme === undefined || limits.schemes.includes(scheme);
}
