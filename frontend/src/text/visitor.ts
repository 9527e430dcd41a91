// The form's own words to visitors, as they came with it: in its language, or as the author wrote them.

export type Message = keyof typeof import("../api/generated/usual_words.json");
type Values = Readonly<Record<string, string | number>>;

let own: Readonly<Record<string, string>> = {};

/** Says from now on these words, by the name of a message. */
export const speakAs = (messages: Readonly<Record<string, string>>): void => {
  own = messages;
};

/** A message, with its values put in. */
export const say = (name: Message, values: Values = {}): string =>
  (own[name] ?? name).replaceAll(/\{(\w+)\}/g, (part, value: string) => String(values[value] ?? part));

const percent = (share: number): number => Math.round(share * 100);

export const sayShare = (name: "uploading" | "percent", share: number): string => say(name, { share: percent(share) });

/** How many questions are left; a language may have other words for two, for a few, for many. */
export function sayLeft(count: number, locale = "en"): string {
  const form = own[`left#${new Intl.PluralRules(locale.replace("_", "-")).select(count)}`];
  if (form !== undefined) return form.replace("{count}", String(count));
  return count === 1 ? say("oneLeft") : say("left", { count });
}

export const sayChooseFiles = (most: number): string => say(most === 1 ? "chooseFile" : "chooseFiles");
