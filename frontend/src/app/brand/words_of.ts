// What a form says to visitors where a message is due: the author's words, or the usual ones of its language.
import type { Form, Wording } from "../../api/generated/wire";
import messages from "../../api/generated/messages.json";
import byLanguage from "../../api/generated/words_by_language.json";

const WORDS: Readonly<Record<string, Readonly<Record<string, string>>>> = byLanguage;

/** The usual words of a message, or of a setting that every form has, in the language of a locale. */
const usualIn = (locale: string, name: string): string | undefined => WORDS[locale.split("_")[0]!]?.[name];

/** All usual words of a locale's language by name; none for English, whose words the form has itself. */
export const usualMessages = (locale: string): Readonly<Record<string, string>> => WORDS[locale.split("_")[0]!] ?? {};

export const usualWords = (form: Form, name: string): string =>
  usualIn(form.locale, name) ?? messages.find((message) => message.name === name)?.usual ?? "";

export const wordsOf = (form: Form, name: string): string => form.wording.messages[name] ?? usualWords(form, name);

type Setting = "submit" | "next" | "back" | "required" | "confirmation_title" | "confirmation_text";
const USUAL: Readonly<Record<Setting, string>> = {
  submit: "Send",
  next: "Next",
  back: "Back",
  required: "Please answer this.",
  confirmation_title: "Thank you",
  confirmation_text: "Your answers have been received.",
};

/** What visitors read of a setting that every form has: as long as it is as usual, it is in the form's language. */
export const shownWords = (form: Form, setting: Setting & keyof Wording): string => {
  const own = form.wording[setting];
  return own === USUAL[setting] ? (usualIn(form.locale, setting) ?? own) : own;
};
