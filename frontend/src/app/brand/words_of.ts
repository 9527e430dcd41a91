// What a form says to visitors where a message is due: the author's words, or the usual ones of its language.
import { use } from "react";
import type { Form, Wording } from "../../api/generated/wire";
import messages from "../../api/generated/messages.json";

type Words = Readonly<Record<string, string>>;
type ByLanguage = Readonly<Record<string, Words>>;
const NONE: ByLanguage = {};
const languageOf = (locale: string): string => locale.split("_")[0]!;

// Fetched with the first form of another language: the usual words of English are everywhere already.
let coming: Promise<ByLanguage> | null = null;
const useWordsByLanguage = (locale: string): ByLanguage =>
  languageOf(locale) === "en"
    ? NONE
    : use((coming ??= import("../../api/generated/words_by_language.json").then((module) => module.default)));

/** The usual words of a locale's language by name; none for English, whose words the form has itself. */
export const useUsualMessages = (locale: string): Words => useWordsByLanguage(locale)[languageOf(locale)] ?? NO_WORDS;
const NO_WORDS: Words = {};

/** What a form says by itself: its usual words by the name of a message, and all words with the author's before them. */
export function useWordsOf(form: Form): { usual: (name: string) => string; own: (name: string) => string } {
  const words = useUsualMessages(form.locale);
  const usual = (name: string) => words[name] ?? messages.find((message) => message.name === name)?.usual ?? "";
  return { usual, own: (name) => form.wording.messages[name] ?? usual(name) };
}

type Setting = keyof Wording & ("submit" | "next" | "back" | "required" | "confirmation_title" | "confirmation_text");

/** What visitors read of a setting that every form has: as long as it is as usual, it is in the form's language. */
export function useShownWords(form: Form): (setting: Setting) => string {
  const all = useWordsByLanguage(form.locale);
  return (setting) => {
    const own = form.wording[setting];
    return own === all.en?.[setting] ? (all[languageOf(form.locale)]?.[setting] ?? own) : own;
  };
}
