// What a form says to visitors where a message is due: the author's words, or the usual ones.
import type { Form } from "../../api/generated/wire";
import messages from "../../api/generated/messages.json";

export const wordsOf = (form: Form, name: string): string =>
  form.wording.messages[name] ?? messages.find((message) => message.name === name)?.usual ?? "";
