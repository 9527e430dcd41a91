// What can be written at a place in a formula: names by key or by what people call them, their parts, codes, functions.
import functions from "../../api/generated/functions.json";
import type { Choice, Named } from "../../model/outline";

export interface Suggestion {
  /** What is inserted. */
  text: string;
  /** What is shown, and beside it. */
  shown: string;
  beside: string;
  info: string;
  kind: "name" | "code" | "function";
}

export interface Suggested {
  /** Where what is typed begins, which a suggestion takes the place of. */
  from: number;
  options: Suggestion[];
}

const SCORE_PARTS = {
  percent: "percent of the greatest",
  right: "how many were right",
  questions: "how many questions",
  answered: "how many were answered",
  greatest: "greatest score",
};
const PROFILE_PARTS = {
  label: "name of the first",
  second: "name of the second",
  third: "name of the third",
  ranking: "names in order",
};

/** The numbers of each profile. */
const partsOfProfiles = (profiles: readonly Choice[]): Record<string, string> =>
  Object.fromEntries(
    profiles.flatMap(({ code, label }) => [
      [`share.${code}`, `percent of ${label}`],
      [`points.${code}`, `points of ${label}`],
    ]),
  );

/** Names, and after each those of its parts. */
export const withParts = (names: readonly Named[]): Named[] => names.flatMap((named) => [named, ...partsOfName(named)]);

/** The parts of what has a name: the words of a choice, the numbers of a score, the names of profiles. */
function partsOfName({ name, title, number, block, kind, ...rest }: Named): Named[] {
  const more = (parts: Record<string, string>): Named[] =>
    Object.entries(parts).map(([part, words]) => ({
      ...rest,
      number,
      kind,
      name: `${name}.${part}`,
      title: `${title}: ${words}`,
      block: null,
      choices: null,
    }));
  if (rest.figureKind === "score") return more(SCORE_PARTS);
  if (rest.figureKind === "profile") return more({ ...PROFILE_PARTS, ...partsOfProfiles(rest.choices ?? []) });
  return block && (block.type === "single_choice" || block.type === "dropdown") ? more({ label: "its words" }) : [];
}

const includes = (text: string, wanted: string) => text.toLowerCase().includes(wanted.toLowerCase());

/** Returns what can be written where the text before the cursor ends; null where nothing can be said. */
export function suggestionsAfter(before: string, names: readonly Named[], asked = false): Suggested | null {
  return codesAfter(before, names) ?? namesAfter(before, names, asked);
}

/** Inside quotation marks after a name: what it can be. */
function codesAfter(before: string, names: readonly Named[]): Suggested | null {
  if ((before.match(/"/g) ?? []).length % 2 === 0) return null;
  const found = /([\p{L}_][\p{L}\p{N}_.]*)\s*(?:=|<>|,)\s*"([^"]*)$/u.exec(before);
  const named = found && names.find(({ name }) => name.toLowerCase() === found[1]!.toLowerCase());
  const typed = found?.[2] ?? "";
  const fits = ({ code, label }: Choice) => includes(`${code} ${label}`, typed);
  const options = (named?.choices ?? []).filter(fits).map(({ code, label }): Suggestion => ({
    text: `${code.replaceAll('"', '""')}"`,
    shown: label || code,
    beside: code,
    info: `Of ${named!.title}`,
    kind: "code",
  }));
  return { from: before.length - typed.length, options };
}

/** A name by its key, or by a phrase of what people call it; else a function. */
function namesAfter(before: string, names: readonly Named[], asked: boolean): Suggested | null {
  const phrase = /[\p{L}_][\p{L}\p{N}_. ]*$/u.exec(before)?.[0] ?? "";
  if (!phrase && !asked) return null;
  const all = withParts(names);
  const words = phrase.split(" ");
  for (let at = 0; at < words.length - 1; at++) {
    const wanted = words.slice(at).join(" ");
    const called = all.filter(({ number, title }) => includes(`${number} ${title}`, wanted.trimEnd()));
    if (words[at] && wanted.trim().includes(" ") && called.length > 0)
      return { from: before.length - wanted.length, options: called.map(nameSuggestion) };
  }
  const word = words.at(-1)!;
  const fits = ({ name, number, title }: Named) => includes(`${name} ${number} ${title}`, word);
  const parts = word ? names.flatMap(partsOfName).filter(fits).map(nameSuggestion) : [];
  const called = functions.filter(({ name }) => name.startsWith(word.toUpperCase())).map(functionSuggestion);
  const named = names.filter(fits).map(nameSuggestion);
  // Parts are meant once a point is written; before, they are a thought at the end.
  const options = word.includes(".") ? [...named, ...parts, ...called] : [...named, ...called, ...parts];
  return { from: before.length - word.length, options };
}

const nameSuggestion = ({ name, number, title, kind }: Named): Suggestion => ({
  text: name,
  shown: `${number} ${title}`.trim(),
  beside: name,
  info: kind,
  kind: "name",
});

const functionSuggestion = ({ name, signature, purpose, differs }: (typeof functions)[number]): Suggestion => ({
  text: `${name}()`,
  shown: name,
  beside: signature.slice(name.length),
  info: differs ? `${purpose} Other than in a spreadsheet: ${differs}` : purpose,
  kind: "function",
});
