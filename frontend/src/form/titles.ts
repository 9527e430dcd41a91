import type { FormState } from "../api/generated/wire";

/** A page as titles need it: of a face, or of a definition. */
export type TitledPage = Readonly<{ id: string; title: string }>;

/** A page's title, with its values inserted where it has any. */
export const pageTitle = (page: TitledPage, state: FormState): string => state.texts?.[page.id]?.title ?? page.title;
