// Answers that were typed in another of the form's languages: "1,5" is "1.5" in this one.
import type { FormFace } from "../api/generated/wire";
import type { DeviceStore } from "./kept_answers";
import type { Transport } from "./transport";

/** Has what is kept on the device typed as in this language; where that can't be asked just now, it stays as it is. */
export async function typedInThisLanguage(
  face: Pick<FormFace, "locale" | "languages">,
  transport: Pick<Transport, "typed">,
  store: DeviceStore | null,
): Promise<void> {
  const kept = store?.load();
  // What is being sent stands under its key as it is.
  if (!kept?.language || kept.language === face.locale || face.languages.length === 0 || kept.sending) return;
  const answers = await transport.typed(kept.answers, kept.language).catch(() => null);
  if (answers) store!.change({ ...kept, answers, language: face.locale });
}
