import type { FormFace, FormState } from "../api/generated/wire";

/** A page's title, with its values inserted where it has any. */
export const pageTitle = (page: FormFace["pages"][number], state: FormState): string =>
  state.texts?.[page.id]?.title ?? page.title;
