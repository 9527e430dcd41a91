// The translations of a draft: what stands in the draft itself goes before what the core said of it when it was saved.
import type { Form, TextToTranslate } from "../../api/generated/wire";

export type Language = Form["languages"][number];
type Translation = Language["texts"][string];

export interface Shown {
  /** What it reads in the language. */
  text: string;
  standing: TextToTranslate["standing"];
}

/** What a text reads in a language at this moment. */
export function shownOf(each: TextToTranslate, language: Language): Shown {
  const own = language.texts[each.at];
  if (own?.of === each.source) return { text: own.text, standing: own.text ? "done" : "missing" };
  return { text: each.text, standing: each.standing };
}

/** The languages with these translations put into one of them; what is blank says that there is none. */
export const withTexts = (
  languages: readonly Language[],
  locale: string,
  texts: Readonly<Record<string, Translation>>,
): Language[] =>
  languages.map((each) => (each.locale === locale ? { ...each, texts: { ...each.texts, ...texts } } : each));

/** Texts that are translated elsewhere in the same words, as they are there. */
export function sameElsewhere(texts: readonly TextToTranslate[], language: Language): Record<string, Translation> {
  const missing = texts.filter((each) => each.same && shownOf(each, language).standing === "missing");
  return Object.fromEntries(missing.map(({ at, source, same }) => [at, { of: source, text: same }]));
}

/** The texts by what they belong to, in the order of the form. */
export function byOwner(texts: readonly TextToTranslate[]): [string, TextToTranslate[]][] {
  const found = new Map<string, TextToTranslate[]>();
  for (const each of texts) found.set(each.owner, [...(found.get(each.owner) ?? []), each]);
  return [...found];
}
